import type { OutlierRulesResult } from '../../core/src/analyses/outliers/outlier-rules-result.ts';
import { hasLevel } from '../../core/src/outliers/rules.ts';
import type { Found, StatementKind } from './kind.ts';
import { drawn, NORMAL, ran } from './samples.ts';

/** How far off the one reading is that rules are recommended for, in sds. */
const SHIFT = 4;

export const recommended: StatementKind = {
  code: 'recommended',
  notes: [],
  falseWhen: 'a recommended rule finds one reading 4 SD off at least 0.05 less often than the best one',
  how: 'the rules compared at one seed, and what is recommended held against samples of another',
  allowed: 0,
  async measure(thorough) {
    const found: Found[] = [];
    for (const n of thorough > 1 ? [10, 30, 100] : [20]) {
      const sample = drawn('normal', NORMAL, n, 1);
      const [one, other] = await Promise.all(
        [1, 2].map((seed) => ran<OutlierRulesResult>('outlier-rules', sample, { replicates: 1_000, seed })),
      );
      const at = ({ rules }: OutlierRulesResult) =>
        rules
          .filter(({ rule, reason }) => hasLevel(rule) && reason === null)
          .flatMap(({ rule, power }) => {
            const tried = power.find(({ arrangement, shift }) => arrangement === 'one' && shift === SHIFT);
            return tried ? [{ rule, share: tried.found.share, upper: tried.found.interval[1] }] : [];
          });
      const [first, second] = [at(one!), at(other!)];
      const best = Math.max(...first.map(({ share }) => share));
      const truth = Math.max(...second.map(({ share }) => share));
      const named = first.filter(({ upper }) => upper >= best).map(({ rule }) => rule);
      const wrong = second.filter(({ rule, share }) => named.includes(rule) && share < truth - 0.05);
      found.push({ case: `one of ${n} readings`, false: wrong.length, of: named.length });
    }
    return found;
  },
};
