import { isRefusal } from '../../core/src/distributions/family.ts';
import { fittedLaw } from '../../core/src/distributions/fit/fitted-law.ts';
import { distribution, familyByName } from '../../core/src/distributions/registry.ts';
import { intervalOfQuantile } from '../../core/src/probability-plot/fit-intervals.ts';
import type { Found, StatementKind } from './kind.ts';
import { drawn } from './samples.ts';

const POPULATIONS: [string, Record<string, number>][] = [
  ['normal', { mean: 5, sd: 1 }],
  ['lognormal', { logMean: 0, logSd: 0.5 }],
  ['gamma', { shape: 2, scale: 1 }],
  ['weibull', { shape: 1.5, scale: 1 }],
  ['logistic', { location: 0, scale: 1 }],
];

const SHARES = [0.01, 0.5, 0.99];

export const interval: StatementKind = {
  code: 'interval',
  notes: ['interval-and-test', 'interval-and-level', 'unsettled-end', 'median-coverage', 'edge'],
  falseWhen: 'a 95 % interval does not cover the true value',
  how: 'quantiles (1, 50, 99 %) read off fits of five families at n = 5, 10, 30, 100',
  allowed: 0.09,
  measure(thorough) {
    const found: Found[] = [];
    for (const [family, parameters] of POPULATIONS)
      for (const n of thorough > 1 ? [5, 10, 30, 100] : [10]) {
        const truths = SHARES.map((p) => distribution(familyByName(family), parameters).quantile(p));
        const wrong = SHARES.map(() => 0);
        let of = 0;
        for (let seed = 1; seed <= 20 * thorough; seed++) {
          const sorted = Float64Array.from(drawn(family, parameters, n, seed).values).sort();
          const law = fittedLaw(sorted, { family, given: {}, estimateThreshold: false });
          if (isRefusal(law)) continue;
          of++;
          for (const [k, p] of SHARES.entries()) {
            const ends = intervalOfQuantile(family, law, p, 0.95, { sorted });
            if (!ends || truths[k]! < ends.lower || truths[k]! > ends.upper) wrong[k]!++;
          }
        }
        for (const [k, p] of SHARES.entries())
          found.push({ case: `${family}, n = ${n}, ${100 * p} % point`, false: wrong[k]!, of });
      }
    return Promise.resolve(found);
  },
};
