import { rankedFamilies } from '../../core/src/analyses/fit/ranked-families.ts';
import type { CompareFamiliesResult } from '../../core/src/analyses/fit/compare-families-result.ts';
import type { Found, StatementKind } from './kind.ts';
import { drawn } from './samples.ts';

const POPULATIONS: [string, Record<string, number>][] = [
  ['normal', { mean: 10, sd: 1 }],
  ['gamma', { shape: 2, scale: 1 }],
  ['weibull', { shape: 1.5, scale: 1 }],
  ['lognormal', { logMean: 0, logSd: 0.5 }],
];

export const plausible: StatementKind = {
  code: 'plausible',
  notes: ['picked', 'ends', 'no-test', 'better-family'],
  falseWhen: 'the true family is not among those called plausible',
  how: 'clean samples of four families at n = 10, 20, 30, 100; A² at a fifth of the level takes another 1 % at most',
  allowed: 0.04,
  measure(thorough) {
    const found: Found[] = [];
    for (const [family, parameters] of POPULATIONS)
      for (const n of thorough > 1 ? [10, 20, 30, 100] : [10]) {
        const of = 10 * thorough;
        let wrong = 0;
        for (let seed = 1; seed <= of; seed++) {
          const ranked = rankedFamilies(drawn(family, parameters, n, seed)) as CompareFamiliesResult;
          if (!ranked.families.find((one) => one.family === family)?.plausible) wrong++;
        }
        found.push({ case: `${family}, n = ${n}`, false: wrong, of });
      }
    return Promise.resolve(found);
  },
};
