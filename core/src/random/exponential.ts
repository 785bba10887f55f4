import { exp, log } from '../numeric/elementary.js';
import { nextOpenUnit, nextWord, type StreamState } from './stream.js';

/** Standard exponential draws by the ziggurat of Marsaglia & Tsang (2000) with 256 layers, the layer's bits being none of the abscissa's. */
const LAYERS = 256;
const EDGE = 7.69711747013104972;
const AREA = 0.0039496598225815571993;
/** Layer i spans 0 … WIDTH[i]; a draw below INNER[i] (as a share of the width) is inside the curve for certain. */
const WIDTH = new Float64Array(LAYERS + 1);
const INNER = new Float64Array(LAYERS);
const HEIGHT = new Float64Array(LAYERS + 1);

function fillTables(): void {
  WIDTH[0] = AREA / exp(-EDGE);
  WIDTH[1] = EDGE;
  for (let i = 2; i < LAYERS; i++) WIDTH[i] = -log(AREA / WIDTH[i - 1]! + exp(-WIDTH[i - 1]!));
  WIDTH[LAYERS] = 0;
  for (let i = 0; i < LAYERS; i++) INNER[i] = WIDTH[i + 1]! / WIDTH[i]!;
  for (let i = 0; i <= LAYERS; i++) HEIGHT[i] = exp(-WIDTH[i]!);
}
fillTables();

/** A draw from outside the inner boxes: beyond the edge, or in a wedge (NaN: draw again). */
function outsideInner(state: StreamState, layer: number, x: number): number {
  // Beyond the edge the tail is the whole curve again, moved on.
  if (layer === 0) return EDGE - log(nextOpenUnit(state));
  const height = HEIGHT[layer]! + nextOpenUnit(state) * (HEIGHT[layer + 1]! - HEIGHT[layer]!);
  return height < exp(-x) ? x : NaN;
}

/** One standard exponential draw. */
export function nextExponential(state: StreamState): number {
  for (;;) {
    const low = nextWord(state);
    const high = nextWord(state);
    const layer = low & 255;
    const share = ((high >>> 0) * 2097152 + (low >>> 11)) * 1.1102230246251565e-16;
    const x = share * WIDTH[layer]!;
    // Small enough to be taken into the loops that call it: the rare cases stand apart.
    if (share < INNER[layer]!) return x;
    const found = outsideInner(state, layer, x);
    if (!Number.isNaN(found)) return found;
  }
}

/** Fills `out` with standard exponential draws: the same bits as `nextExponential`, with the state of the generator in locals. */
export function fillExponentials(state: StreamState, out: Float64Array): void {
  let s0 = state[0]!;
  let s1 = state[1]!;
  let s2 = state[2]!;
  let s3 = state[3]!;
  for (let i = 0; i < out.length;) {
    const start1 = s1;
    // Two words, as in `nextWord`.
    let five = Math.imul(start1, 5);
    const low = Math.imul((five << 7) | (five >>> 25), 9);
    s2 ^= s0;
    s3 ^= start1;
    s1 ^= s2;
    s0 ^= s3;
    s2 ^= start1 << 9;
    s3 = (s3 << 11) | (s3 >>> 21);
    const then1 = s1;
    five = Math.imul(then1, 5);
    const high = Math.imul((five << 7) | (five >>> 25), 9);
    s2 ^= s0;
    s3 ^= then1;
    s1 ^= s2;
    s0 ^= s3;
    s2 ^= then1 << 9;
    s3 = (s3 << 11) | (s3 >>> 21);
    const layer = low & 255;
    const share = ((high >>> 0) * 2097152 + (low >>> 11)) * 1.1102230246251565e-16;
    let x = share * WIDTH[layer]!;
    if (share >= INNER[layer]!) {
      state[0] = s0;
      state[1] = s1;
      state[2] = s2;
      state[3] = s3;
      x = outsideInner(state, layer, x);
      s0 = state[0]!;
      s1 = state[1]!;
      s2 = state[2]!;
      s3 = state[3]!;
      if (Number.isNaN(x)) continue;
    }
    out[i++] = x;
  }
  state[0] = s0;
  state[1] = s1;
  state[2] = s2;
  state[3] = s3;
}
