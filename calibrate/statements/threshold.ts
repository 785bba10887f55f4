import { studyTest, type OutliersResult } from '../../core/src/analyses/outliers/outliers-result.ts';
import { isUnavailable } from '../../core/src/road/analysis.ts';
import { sampleOf } from '../../core/test/samples.ts';
import type { Found, StatementKind } from './kind.ts';
import { drawn, NORMAL, ran } from './samples.ts';

const RULES = ['grubbs', 'generalized-esd', 'dixon', 'modified-z', 'fences', 'z-score'];

export const threshold: StatementKind = {
  code: 'threshold',
  notes: ['z-limit'],
  falseWhen: 'one further reading 0.02 SD beyond the threshold is not flagged, or one 0.02 SD inside it is',
  how: 'the rule itself, run with n + 1 readings, on both sides of the threshold',
  allowed: 0,
  async measure(thorough) {
    const found: Found[] = [];
    for (const rule of RULES)
      for (const n of thorough > 1 ? [5, 8, 10, 19, 30, 60, 100] : [8, 30]) {
        let [wrong, of] = [0, 0];
        const settings = { rule, most: n < 20 ? 1 : 3, replicates: 499 };
        for (let seed = 1; seed <= 2 * thorough; seed++) {
          const sample = drawn('normal', NORMAL, n, seed, seed % 2 ? 0 : 0.1);
          const result = await ran<OutliersResult>('outliers', { ...sample, resolution: null }, settings);
          if (isUnavailable(result)) continue;
          const upper = studyTest(result).lines?.upper ?? null;
          if (upper === null) continue;
          for (const [off, flagged] of [
            [0.02, true],
            [-0.02, false],
          ] as const) {
            const values = Float64Array.from([...sample.values, upper + off * result.sd]);
            const more = await ran<OutliersResult>('outliers', { ...sampleOf(values), name: 'x' }, settings);
            of++;
            if (studyTest(more).rows!.includes(n + 1) !== flagged) wrong++;
          }
        }
        if (of > 0) found.push({ case: `${rule}, n = ${n}`, false: wrong, of });
      }
    return found;
  },
};
