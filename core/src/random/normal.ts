import { exp, log } from '../numeric/elementary.js';
import { nextOpenUnit, nextWord, type StreamState } from './stream.js';

/**
 * Standard normal draws by the ziggurat of Marsaglia & Tsang (2000) with 256 layers and Doornik's (2005) correction:
 * the bits that choose the layer are not those of the abscissa.
 */
const LAYERS = 256;
const EDGE = 3.6541528853610088;
const AREA = 0.00492867323399;
/** Layer i spans 0 … WIDTH[i]; a draw below INNER[i] (as a share of the width) is inside the curve for certain. */
const WIDTH = new Float64Array(LAYERS + 1);
const INNER = new Float64Array(LAYERS);
const HEIGHT = new Float64Array(LAYERS + 1);

function fillTables(): void {
  const f = (x: number) => exp(-0.5 * x * x);
  WIDTH[0] = AREA / f(EDGE);
  WIDTH[1] = EDGE;
  for (let i = 2; i < LAYERS; i++) WIDTH[i] = Math.sqrt(-2 * log(AREA / WIDTH[i - 1]! + f(WIDTH[i - 1]!)));
  WIDTH[LAYERS] = 0;
  for (let i = 0; i < LAYERS; i++) INNER[i] = WIDTH[i + 1]! / WIDTH[i]!;
  for (let i = 0; i <= LAYERS; i++) HEIGHT[i] = f(WIDTH[i]!);
}
fillTables();

/** The 1.5 % of draws that fall outside the inner boxes: in the tail, or in a wedge (null: draw again). */
function outsideInner(state: StreamState, layer: number, share: number): number | null {
  if (layer === 0) {
    for (;;) {
      const x = -log(nextOpenUnit(state)) / EDGE;
      const y = -log(nextOpenUnit(state));
      if (y + y > x * x) return EDGE + x;
    }
  }
  const x = share * WIDTH[layer]!;
  const height = HEIGHT[layer]! + nextOpenUnit(state) * (HEIGHT[layer + 1]! - HEIGHT[layer]!);
  return height < exp(-0.5 * x * x) ? x : null;
}

/**
 * Fills `out` with standard normal draws. The generator stands in the loop, not behind a call: keeping its words in
 * locals makes it several times faster.
 */
export function fillNormals(state: StreamState, out: Float64Array): void {
  let s0 = state[0]!;
  let s1 = state[1]!;
  let s2 = state[2]!;
  let s3 = state[3]!;
  const n = out.length;
  for (let i = 0; i < n;) {
    let t = Math.imul(s1, 5);
    const low = Math.imul((t << 7) | (t >>> 25), 9);
    t = s1 << 9;
    s2 ^= s0;
    s3 ^= s1;
    s1 ^= s2;
    s0 ^= s3;
    s2 ^= t;
    s3 = (s3 << 11) | (s3 >>> 21);
    t = Math.imul(s1, 5);
    const high = Math.imul((t << 7) | (t >>> 25), 9);
    t = s1 << 9;
    s2 ^= s0;
    s3 ^= s1;
    s1 ^= s2;
    s0 ^= s3;
    s2 ^= t;
    s3 = (s3 << 11) | (s3 >>> 21);

    const layer = low & 255;
    const share = ((high >>> 0) * 2097152 + (low >>> 11)) * 1.1102230246251565e-16;
    let x = share * WIDTH[layer]!;
    if (share >= INNER[layer]!) {
      state[0] = s0;
      state[1] = s1;
      state[2] = s2;
      state[3] = s3;
      const found = outsideInner(state, layer, share);
      s0 = state[0]!;
      s1 = state[1]!;
      s2 = state[2]!;
      s3 = state[3]!;
      if (found === null) continue;
      x = found;
    }
    out[i++] = low & 256 ? -x : x;
  }
  state[0] = s0;
  state[1] = s1;
  state[2] = s2;
  state[3] = s3;
}

/** One standard normal draw, with the same bits as `fillNormals`, for loops that need one at a time. */
export function nextNormal(state: StreamState): number {
  for (;;) {
    const low = nextWord(state);
    const high = nextWord(state);
    const layer = low & 255;
    const share = ((high >>> 0) * 2097152 + (low >>> 11)) * 1.1102230246251565e-16;
    const x = share < INNER[layer]! ? share * WIDTH[layer]! : outsideInner(state, layer, share);
    if (x !== null) return low & 256 ? -x : x;
  }
}
