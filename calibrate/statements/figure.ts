import type { DescribeResult } from '../../core/src/analyses/shape/describe-result.ts';
import type { Found, StatementKind } from './kind.ts';
import { drawn, NORMAL, ran } from './samples.ts';

/** Notes that state a fact of the readings, of the request, or of what was not done: no sample makes them false. */
const FACTS =
  'beyond-limit beyond-limit-counted bias by-construction by-themselves censored claim claim-from-readings counted-besides custom cut dots-stand-for-several empty-groups empty-places at-bound extremes-too-few few-cells few-replicates few-values formula-disagrees grouped infinite-mean infinite-variance lambda-one lambda-open left-out limit-beyond many-groups moments most-replicates mute name-cut no-cells no-curve no-error no-exposure no-label no-level no-line-band no-mean no-partner no-scores no-sd no-spread no-such-interval no-trials no-width none-convenient not-a-number not-converged not-needed not-there of-one-kind one-reading one-value only-on-line other-way part-unavailable percentile-below-1 ragged rule-without-width same-name second-look seen shares-differ short-range sizes-differ start-moved thinned too-few-replicates undefined undefined-replicates underflow uneven-bins unit-matters units units-differ unreadable unusual-confidence unusual-level what-differs widened within';

export const figure: StatementKind = {
  code: 'figure',
  notes: FACTS.split(' '),
  falseWhen: 'a mean or SD differs from a separate computation by more than one part in a million',
  how: 'figures of a column against a computation of their own, columns of odd size and offset among them',
  allowed: 0,
  async measure(thorough) {
    const found: Found[] = [];
    for (const offset of [0, 1e9, -1e6])
      for (const n of thorough > 1 ? [2, 3, 5, 10, 30, 100] : [2, 30]) {
        const sample = drawn('normal', NORMAL, n, 3);
        const values = sample.values.map((x) => x + offset);
        const result = await ran<DescribeResult & { mean: number; sd: number }>('describe', { ...sample, values });
        const base = values[0]!;
        const mean = values.reduce((sum, x) => sum + (x - base), 0) / n;
        const square = values.reduce((sum, x) => sum + (x - base - mean) ** 2, 0);
        const sd = Math.sqrt(square / (n - 1));
        const wrong = Math.abs(result.mean - base - mean) > 1e-6 || Math.abs(result.sd / sd - 1) > 1e-6;
        found.push({ case: `mean and sd, n = ${n}, offset ${offset}`, false: Number(wrong), of: 1 });
      }
    return found;
  },
};
