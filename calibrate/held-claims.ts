import { pOfTails } from '../core/src/claims/alternative.js';
import { countsAgainst } from '../core/src/claims/counts.js';
import { meanByT, pOfMean, welch, type MeanFigures } from '../core/src/claims/means.js';
import { mannWhitneyExact } from '../core/src/claims/rank-sum.js';
import { newcombe, wilson } from '../core/src/claims/shares.js';
import { tallyCountsAgainst } from '../core/src/claims/simulated-counts.js';
import { brownForsythe } from '../core/src/claims/spreads.js';
import { twoSidedFactor } from '../core/src/claims/tolerance.js';
import { binomial } from '../core/src/distributions/families/binomial.js';
import { clopperPearson } from '../core/src/numeric/clopper-pearson.js';
import { normalCumulative } from '../core/src/numeric/standard-normal.js';
import { centralMoments } from '../core/src/numeric/sums.js';
import { fillNormals } from '../core/src/random/normal.js';
import { createStream, nextOpenUnit } from '../core/src/random/stream.js';
import { report } from './report.ts';

const LEVEL = 0.05;
const SAMPLES = 20_000;

/** How often something happens to samples of normals with these sizes and sds. */
function often(
  sizes: readonly number[],
  sds: readonly number[],
  happens: (samples: Float64Array[]) => boolean,
): number {
  const stream = createStream(61, sizes.length);
  const samples = sizes.map((n) => new Float64Array(n));
  let count = 0;
  for (let k = 0; k < SAMPLES; k++) {
    samples.forEach((sample, i) => {
      fillNormals(stream, sample);
      if (sds[i] !== 1) for (let j = 0; j < sample.length; j++) sample[j]! *= sds[i]!;
    });
    if (happens(samples)) count++;
  }
  return count;
}

const figures = (values: Float64Array): MeanFigures => {
  const { n, mean, s2 } = centralMoments(values);
  return { n, mean, sd: Math.sqrt(s2 / (n - 1)) };
};

function ownErrors(): boolean {
  let holds = true;
  for (const n of [3, 10, 50]) {
    const found = often([n], [1], ([x]) => pOfMean(meanByT(figures(x!), 0), 'two-sided') < LEVEL);
    holds = report(`t, n = ${n}`, found, SAMPLES, LEVEL, true) && holds;
  }
  for (const [n, m, s] of [
    [6, 30, 3],
    [30, 6, 3],
    [15, 15, 1],
  ] as const) {
    const found = often([n, m], [s, 1], ([x, y]) => pOfMean(welch(figures(x!), figures(y!)), 'two-sided') < LEVEL);
    // A formula: it may be off by half a point.
    holds = report(`Welch, ${n} of sd ${s} and ${m} of sd 1`, found, SAMPLES, LEVEL + 0.005, false) && holds;
  }
  for (const sizes of [
    [10, 10],
    [20, 20, 20],
  ]) {
    const found = often(
      sizes,
      sizes.map(() => 1),
      (groups) => brownForsythe(groups).pValue < LEVEL,
    );
    holds = report(`Brown–Forsythe, ${sizes.join(' and ')}`, found, SAMPLES, LEVEL, false) && holds;
  }
  const ties = often([9, 12], [1, 1], ([x, y]) => {
    const round = (values: Float64Array) => values.map((z) => Math.round(2 * z));
    return pOfTails(mannWhitneyExact(round(x!), round(y!)).tails, 'two-sided') < LEVEL;
  });
  return report('ranks of 9 and 12 with ties', ties, SAMPLES, LEVEL, false) && holds;
}

/** χ² simulated where one is expected in each of ten cells. */
function fewExpected(): boolean {
  const shares = Array.from({ length: 10 }, () => 0.1);
  const stream = createStream(62, 0);
  const trials = 2_000;
  let found = 0;
  for (let k = 0; k < trials; k++) {
    const counts = new Array<number>(10).fill(0);
    for (let i = 0; i < 10; i++) counts[Math.floor(10 * nextOpenUnit(stream))]!++;
    const { statistic } = countsAgainst(counts, shares);
    const [far] = tallyCountsAgainst({ n: 10, shares, observed: statistic }, createStream(63, k % 50), 999);
    if ((far! + 1) / 1_000 < LEVEL) found++;
  }
  return report('χ² simulated, one expected in each of ten cells', found, trials, LEVEL, false);
}

/** The coverage of an interval of a share, exactly: the chance of the counts whose interval holds it. */
function coverage(n: number, p: number, interval: (count: number) => readonly [number, number]): number {
  const law = binomial.of({ trials: n, probability: p });
  let sum = 0;
  for (let k = 0; k <= n; k++) {
    const [low, high] = interval(k);
    if (low <= p && p <= high) sum += law.density(k);
  }
  return sum;
}

const SHARES = Array.from({ length: 99 }, (_, i) => (i + 1) / 100);

function coverages(): boolean {
  let holds = true;
  const said = (what: string, value: number, kept: boolean) => {
    console.log(`${what}: ${value.toFixed(4)} ${kept ? 'kept' : 'MISSED'}`);
    holds &&= kept;
  };
  for (const n of [10, 40, 150]) {
    const least = Math.min(...SHARES.map((p) => coverage(n, p, (k) => clopperPearson(k, n, 0.95))));
    said(`Clopper–Pearson, n = ${n}, the least coverage`, least, least >= 0.95);
    const mean = SHARES.reduce((sum, p) => sum + coverage(n, p, (k) => wilson(k, n, 0.95)), 0) / SHARES.length;
    said(`Wilson, n = ${n}, coverage on average`, mean, Math.abs(mean - 0.95) < 0.01);
  }
  const pairs = SHARES.filter((_, i) => i % 14 === 7).flatMap((p, _, all) => all.map((q) => [p, q] as const));
  const [n, m] = [20, 30];
  const ends = Array.from({ length: n + 1 }, (_, i) =>
    Array.from({ length: m + 1 }, (_unused, j) => newcombe({ count: i, n }, { count: j, n: m }, 0.95)),
  );
  const ofPair = ([p, q]: readonly [number, number]) => {
    const [a, b] = [binomial.of({ trials: n, probability: p }), binomial.of({ trials: m, probability: q })];
    let sum = 0;
    for (let i = 0; i <= n; i++)
      for (let j = 0; j <= m; j++) {
        const [low, high] = ends[i]![j]!;
        if (low <= p - q && p - q <= high) sum += a.density(i) * b.density(j);
      }
    return sum;
  };
  const mean = pairs.reduce((sum, pair) => sum + ofPair(pair), 0) / pairs.length;
  said(`Newcombe, ${n} and ${m}, coverage on average`, mean, Math.abs(mean - 0.95) < 0.015);
  return holds;
}

/** How often tolerance limits hold less than their share. */
function tolerances(): boolean {
  let holds = true;
  for (const [n, share] of [
    [8, 0.9],
    [40, 0.99],
  ] as const) {
    const factor = twoSidedFactor(n, share, 1 - LEVEL);
    const found = often([n], [1], ([x]) => {
      const { mean, sd } = figures(x!);
      return normalCumulative(mean + factor * sd) - normalCumulative(mean - factor * sd) < share;
    });
    holds = report(`tolerance limits of ${n} that hold less than ${share}`, found, SAMPLES, LEVEL, true) && holds;
  }
  return holds;
}

/** The own errors of the tests of Claims, and what their intervals hold. */
export function calibrateHeldClaims(): boolean {
  return [ownErrors(), fewExpected(), coverages(), tolerances()].every(Boolean);
}
