import type { OutliersResult } from '../../core/src/analyses/outliers/outliers-result.ts';
import { isUnavailable, type Unavailable } from '../../core/src/road/analysis.ts';
import type { Found, StatementKind } from './kind.ts';
import { drawn, NORMAL, ran } from './samples.ts';

export const probability: StatementKind = {
  code: 'probability',
  notes: ['p-at-floor', 'p-straddles-level', 'few-arrangements', 'approximation', 'cries-wolf'],
  falseWhen: 'what is said to come in 5 % of clean samples comes in more of them',
  how: 'clean samples: the probability of the first and of the third extreme reading is at most 0.05 in 5 % of them',
  allowed: 0.06,
  async measure(thorough) {
    const found: Found[] = [];
    for (const n of thorough > 1 ? [5, 10, 30, 100] : [20])
      for (const step of thorough > 1 ? [0, 0.5, 1] : [0]) {
        const wrong = [0, 0];
        const of = 60 * thorough;
        for (let seed = 1; seed <= of; seed++) {
          const result = await ran<OutliersResult | Unavailable>('outliers', drawn('normal', NORMAL, n, seed, step), {
            replicates: 299,
          });
          // All readings equal: nothing is said.
          if (isUnavailable(result)) continue;
          const { extremes } = result;
          [extremes[0], extremes[2]].forEach((one, k) => {
            if (one && one.probability! <= 0.05) wrong[k]!++;
          });
        }
        wrong.forEach((count, k) =>
          found.push({ case: `extreme ${k === 0 ? 1 : 3}, n = ${n}, step ${step}`, false: count, of }),
        );
      }
    return found;
  },
};
