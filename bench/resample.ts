/** Redrawing and shuffling beside a plain loop, and beside C where there is a compiler (bench/resample.c). The quickest of several rounds each: the rest is the machine's. */
import { createStream } from '../core/src/random/stream.js';
import { bootstrapReplicates } from '../core/src/resampling/bootstrap.js';
import { intervalsOf } from '../core/src/resampling/intervals.js';
import { acceleration } from '../core/src/resampling/jackknife.js';
import { permutationReplicates } from '../core/src/resampling/permutation.js';
import type { Statistic } from '../core/src/resampling/statistic.js';
import { inC, quickest } from './in-c.js';
import { report } from './report.js';

const [N, B, HALF, SHUFFLES] = [500, 10_000, 12, 100_000];
const values = Float64Array.from({ length: N }, (_, i) => i * 0.001 * ((i % 7) + 1)).sort();
const few = values.slice(0, 2 * HALF);
const MEAN: Statistic = { of: 'one', figure: { name: 'mean' } };
const MEDIAN: Statistic = { of: 'one', figure: { name: 'median' } };

// The generator (xoshiro128**) stands in every loop, as somebody would write it who wants it fast; an index by multiply-high.
const WORD = 2 ** -32;

function plainPermutation(): Float64Array {
  let [a, b, c, d] = createStream(1, 0) as unknown as [number, number, number, number];
  const items = few.slice();
  const out = new Float64Array(SHUFFLES);
  for (let r = 0; r < SHUFFLES; r++) {
    let sum = 0;
    for (let i = 0; i < HALF; i++) {
      const five = Math.imul(b, 5);
      const word = Math.imul((five << 7) | (five >>> 25), 9) >>> 0;
      const t = b << 9;
      c ^= a;
      d ^= b;
      b ^= c;
      a ^= d;
      c ^= t;
      d = (d << 11) | (d >>> 21);
      const j = i + ((word * (2 * HALF - i) * WORD) | 0);
      const value = items[j]!;
      items[j] = items[i]!;
      items[i] = value;
      sum += value;
    }
    out[r] = sum / HALF;
  }
  return out;
}

function plainMeans(): Float64Array {
  let [a, b, c, d] = createStream(1, 0) as unknown as [number, number, number, number];
  const out = new Float64Array(B);
  for (let r = 0; r < B; r++) {
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
      sum += values[(word * N * WORD) | 0]!;
    }
    out[r] = sum / N;
  }
  return out;
}

function plainMedians(): Float64Array {
  let [a, b, c, d] = createStream(1, 0) as unknown as [number, number, number, number];
  const out = new Float64Array(B);
  const counts = new Int32Array(N);
  for (let r = 0; r < B; r++) {
    counts.fill(0);
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
      counts[(word * N * WORD) | 0]!++;
    }
    let at = 0;
    let passed = counts[0]!;
    while (passed < N / 2) passed += counts[++at]!;
    const low = values[at]!;
    while (passed < N / 2 + 1) passed += counts[++at]!;
    out[r] = (low + values[at]!) / 2;
  }
  return out;
}

function plainBca(): number {
  const means = plainMeans().sort();
  const mean = values.reduce((x, y) => x + y, 0) / N;
  let [squares, cubes] = [0, 0];
  for (const value of values) {
    const l = (value - mean) / (N - 1);
    squares += l * l;
    cubes += l * l * l;
  }
  return means[250]! + cubes / (6 * squares ** 1.5);
}

const draws = (statistic: Statistic) => ({ statistic, groups: [values], times: 1, smooth: 0, studentised: false });
function ownBca(): number {
  const statistics = bootstrapReplicates(draws(MEAN), createStream(1, 0), B);
  const observed = values.reduce((a, b) => a + b, 0) / N;
  const made = { observed, statistics, studentised: null, standardError: null, confidence: 0.95, tie: 1e-12 };
  return intervalsOf({ ...made, acceleration: acceleration(MEAN, [values]) }).bca!.lower;
}

export function benchResample(): void {
  const shuffled = {
    ...{ arranged: { design: 'labels' as const, sizes: [HALF, HALF] }, values: few },
    statistic: { of: 'difference', figure: { name: 'mean' } } as Statistic,
  };
  const works: [string, () => unknown, () => unknown][] = [
    [
      `permutation of means, 12 + 12, ${SHUFFLES}`,
      () => permutationReplicates(shuffled, createStream(1, 0), SHUFFLES),
      plainPermutation,
    ],
    [`bootstrap of the mean, ${N} × ${B}`, () => bootstrapReplicates(draws(MEAN), createStream(1, 0), B), plainMeans],
    [
      `bootstrap of the median, ${N} × ${B}`,
      () => bootstrapReplicates(draws(MEDIAN), createStream(1, 0), B),
      plainMedians,
    ],
    [`BCa with its jackknife, ${N} × ${B}`, ownBca, plainBca],
  ];
  const peers = inC('resample', [N, B, HALF, SHUFFLES]);
  if (!peers) console.log('No C compiler here: the loops are held against plain ones only.');
  works.forEach(([what, own, plain], i) => {
    const time = quickest(own);
    report(`${what}, beside a plain loop`, time, quickest(plain), 1.15);
    if (peers) report(`${what}, beside C`, time, peers[i]!, 2);
  });
}
