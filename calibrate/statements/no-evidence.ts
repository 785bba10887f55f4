import { isUnavailable } from '../../core/src/road/analysis.ts';
import type { Found, StatementKind } from './kind.ts';
import { codesOf, drawn, ran } from './samples.ts';

/** Populations so far from normal that a sample of 100 can hardly be told to be consistent with it. */
const FAR: [string, Record<string, number>][] = [
  ['exponential', { scale: 1 }],
  ['lognormal', { logMean: 0, logSd: 1 }],
  ['cauchy', { location: 0, scale: 1 }],
];

export const noEvidence: StatementKind = {
  code: 'no-evidence',
  notes: ['small-n', 'too-coarse', 'rounding', 'alike', 'alike-but-for-place', 'equal-to-claim', 'not-settled'],
  falseWhen: 'it is worded as if the claim were true, or it is said of a population that 100 readings cannot miss',
  how: 'words: never “is normal”, “lean to neither side”, “no drift”; samples of three populations far from normal',
  allowed: 0.02,
  async measure(thorough) {
    const found: Found[] = [];
    for (const [family, parameters] of FAR) {
      let [wrong, of] = [0, 0];
      for (let seed = 1; seed <= 5 * thorough; seed++) {
        const result = await ran<object>('normality', drawn(family, parameters, 100, seed), { replicates: 499 });
        if (isUnavailable(result)) continue;
        of++;
        if (codesOf('normality', result).includes('no-evidence')) wrong++;
      }
      found.push({ case: `normality of ${family}, n = 100`, false: wrong, of });
    }
    return found;
  },
};
