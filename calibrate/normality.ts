import { pByFormula } from '../core/src/goodness-of-fit/normality/by-formula.js';
import { createBattery, extremeness, LEAST_N, NORMALITY_TESTS } from '../core/src/goodness-of-fit/normality/battery.js';
import { fillNormals } from '../core/src/random/normal.js';
import { createStream, type StreamState } from '../core/src/random/stream.js';
import { report } from './report.ts';

const LEVEL = 0.05;
const SAMPLES = 2_000;
const REFERENCE = 40_000;

/** The statistics of so many normal samples, test by test. */
function drawn(n: number, stream: StreamState, samples: number): Float64Array[] {
  const battery = createBattery(n);
  const found = new Float64Array(NORMALITY_TESTS.length);
  const all = NORMALITY_TESTS.map(() => new Float64Array(samples));
  for (let s = 0; s < samples; s++) {
    fillNormals(stream, battery.values);
    battery.measure(found);
    all.forEach((own, k) => (own[s] = found[k]!));
  }
  return all;
}

/** The least value that a sample is so far out at that at most a share of LEVEL of the reference is: what a simulated p at the level says. */
function criticalOf(reference: Float64Array): number {
  const sorted = reference.toSorted().reverse();
  return sorted[Math.floor(LEVEL * (reference.length + 1)) - 1]!;
}

/** How often each of the nine tests rejects normal samples at the level, by its simulated p and by its formula where it has one. */
export function calibrateNormality(): boolean {
  let holds = true;
  for (const n of [5, 10, 20, 50, 200, 2_000]) {
    const reference = drawn(n, createStream(41, 0), REFERENCE);
    const samples = drawn(n, createStream(42, 0), SAMPLES);
    NORMALITY_TESTS.forEach((test, k) => {
      if (n < LEAST_N[test]) return;
      const far = (statistics: Float64Array) => statistics.map((t) => extremeness(test, t));
      const critical = criticalOf(far(reference[k]!));
      const simulated = far(samples[k]!).filter((t) => t >= critical).length;
      holds = report(`${test}, simulated, n = ${n}`, simulated, SAMPLES, LEVEL, true) && holds;
      // χ² of the Jarque–Bera statistic is for very large n: the finding never rests on it.
      const ps = Array.from(samples[k]!, (t) => pByFormula(test, t, n));
      if (test === 'jarque-bera' || ps.every((p) => p === null)) return;
      // Beyond a formula's reach nothing is said by it.
      const rejected = ps.filter((p) => p !== null && p <= LEVEL).length;
      holds = report(`${test}, by formula, n = ${n}`, rejected, SAMPLES, LEVEL, true) && holds;
    });
  }
  return holds;
}
