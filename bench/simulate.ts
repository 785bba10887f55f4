/** Simulated t tests beside a plain loop, and beside C where there is a compiler (bench/simulate.c). */
import { createStream } from '../core/src/random/stream.js';
import { simulatedSamples, type SimulatedSamples } from '../core/src/simulation/samples.js';
import { inC, quickest } from './in-c.js';
import { report } from './report.js';

const [N, LARGE, SAMPLES, CHUNK] = [10, 100_000, 200_000, 5_000];
const values = Float64Array.from({ length: LARGE }, (_, i) => (i % 977) * 0.5);
const mean = values.reduce((sum, x) => sum + x / LARGE, 0);
const WORD = 2 ** -32;

/** p of t with odd degrees of freedom (Abramowitz & Stegun 26.7.3), as somebody would write it who wants it fast. */
function pOfT(t: number, df: number): number {
  const theta = Math.atan(Math.abs(t) / Math.sqrt(df));
  const c = Math.cos(theta);
  let [term, sum] = [c, c];
  for (let k = 2; k < df - 1; k += 2) {
    term *= (c * c * k) / (k + 1);
    sum += term;
  }
  return 1 - (2 / Math.PI) * (theta + Math.sin(theta) * (df > 1 ? sum : 0));
}

function plainTests(): Float64Array {
  let [a, b, c, d] = createStream(1, 0) as unknown as [number, number, number, number];
  const sample = new Float64Array(N);
  const out = new Float64Array(SAMPLES);
  for (let r = 0; r < SAMPLES; r++) {
    let sum = 0;
    for (let i = 0; i < N; i++) {
      const five = Math.imul(b, 5);
      const word = Math.imul((five << 7) | (five >>> 25), 9) >>> 0;
      const t = b << 9;
      c ^= a;
      d ^= b;
      b ^= c;
      a ^= d;
      c ^= t;
      d = (d << 11) | (d >>> 21);
      sum += sample[i] = values[(word * LARGE * WORD) | 0]!;
    }
    const own = sum / N;
    let squares = 0;
    for (let i = 0; i < N; i++) squares += (sample[i]! - own) ** 2;
    out[r] = pOfT((own - mean) / Math.sqrt(squares / (N - 1) / N), N - 1);
  }
  return out;
}

const input: SimulatedSamples = {
  groups: [{ population: { base: { values, replacement: true }, mixed: null, move: null, step: null }, n: N }],
  repeated: {
    ...{ what: 'test', test: 't', alternative: 'two-sided', table: null },
    claim: { mean, median: mean, sd: 1, share: 0.5, counted: null },
  },
};

/** In the chunks that the workers are given. */
function ownTests(): void {
  for (let k = 0; k < SAMPLES / CHUNK; k++) simulatedSamples(input, createStream(1, k), CHUNK);
}

export function benchSimulate(): void {
  const time = quickest(ownTests);
  const what = `t tests with p, n = ${N} from ${LARGE}, ${SAMPLES}`;
  report(`${what}, beside a plain loop`, time, quickest(plainTests), 1.15);
  const peers = inC('simulate', [N, LARGE, SAMPLES]);
  if (peers) report(`${what}, beside C`, time, peers[0]!, 2);
  else console.log('No C compiler here: the loop is held against a plain one only.');
}
