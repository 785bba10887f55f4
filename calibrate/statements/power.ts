import type { ClaimResult } from '../../core/src/analyses/claims/claim-result.ts';
import { pOfMean, welch, type MeanFigures } from '../../core/src/claims/means.ts';
import { mannWhitneyExact } from '../../core/src/claims/rank-sum.ts';
import { signedRank } from '../../core/src/claims/ranks.ts';
import { fillNormals } from '../../core/src/random/normal.ts';
import { createStream } from '../../core/src/random/stream.ts';
import { centralMoments } from '../../core/src/numeric/sums.ts';
import type { Found, StatementKind } from './kind.ts';
import { drawn, inGroups, ran } from './samples.ts';

const figures = (values: Float64Array): MeanFigures => {
  const { n, mean, s2 } = centralMoments(values);
  return { n, mean, sd: Math.sqrt(s2 / (n - 1)) };
};
const twoSided = ({ lower, upper }: { lower: number; upper: number }) => Math.min(1, 2 * Math.min(lower, upper));

/** How often a test of normals rejects, by drawing and testing: independent of how its power is told. */
function trueShare(n: number, d: number, rejects: (a: Float64Array, b: Float64Array) => boolean, trials: number) {
  const [a, b] = [new Float64Array(n), new Float64Array(n)];
  const state = createStream(77, n);
  let rejected = 0;
  for (let r = 0; r < trials; r++) {
    fillNormals(state, a);
    fillNormals(state, b);
    for (let i = 0; i < n; i++) a[i]! += d;
    if (rejects(a, b)) rejected++;
  }
  return rejected / trials;
}

export const power: StatementKind = {
  code: 'power',
  notes: ['rounded', 'of-the-size', 'nearest', 'large-n'],
  falseWhen: 'the reported power differs from that of the very test by more than 0.03, and two standard errors',
  how: 'signed ranks, Mann–Whitney and Welch’s t, drawn and tested by programs of their own',
  allowed: 0,
  async measure(thorough) {
    const found: Found[] = [];
    const trials = 1_000 * Math.min(10, thorough);
    const slack = 0.03 + 2 * Math.sqrt(0.25 / trials) + 2 * Math.sqrt(0.25 / 2_000);
    const check = (name: string, told: number, truth: number) =>
      found.push({ case: name, false: Math.abs(told - truth) > slack ? 1 : 0, of: 1 });
    for (const n of thorough > 1 ? [3, 5, 8, 12, 30] : [8])
      for (const d of thorough > 1 ? [0.5, 1, 2] : [1]) {
        const one = drawn('normal', { mean: 0, sd: 1 }, n, 5);
        const two = inGroups(drawn('normal', { mean: 0, sd: 1 }, 2 * n, 6), 2);
        const told = async (id: string, request: object, sample = one) => ran<ClaimResult>(id, sample, request);
        const median = await told('median-claim', { claimed: 0, noticeable: d, method: 'signed-rank' });
        if (typeof median.power?.chance === 'number') {
          const { sd } = figures(one.values);
          check(
            `signed ranks, n = ${n}, ${d}`,
            median.power.chance,
            trueShare(n, d / sd, (a) => twoSided(signedRank(a, 0).tails) < 0.05, trials),
          );
        }
        const medians = await told('two-medians', { split: 'kiln', noticeable: d }, two);
        const within = Math.sqrt(two.groups!.samples.reduce((sum, { values }) => sum + figures(values).sd ** 2, 0) / 2);
        if (typeof medians.power?.chance === 'number')
          check(
            `Mann–Whitney, ${n} and ${n}, ${d}`,
            medians.power.chance,
            trueShare(n, d / within, (a, b) => twoSided(mannWhitneyExact(a, b).tails) < 0.05, trials),
          );
        const means = await told('two-means', { split: 'kiln', noticeable: d }, two);
        const [s, t] = two.groups!.samples.map(({ values }) => figures(values).sd) as [number, number];
        if (typeof means.power?.chance === 'number')
          check(
            `Welch’s t, ${n} and ${n}, ${d}`,
            means.power.chance,
            trueShare(
              n,
              d / s,
              (a, b) => {
                const other = b.map((x) => (x * t) / s);
                return pOfMean(welch(figures(a), figures(other)), 'two-sided') < 0.05;
              },
              trials,
            ),
          );
      }
    return found;
  },
};
