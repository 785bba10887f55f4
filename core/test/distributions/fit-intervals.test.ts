import { describe, expect, it } from 'vitest';
import { isRefusal, type Parameters } from '../../src/distributions/family.js';
import { fittedLaw } from '../../src/distributions/fit/fitted-law.js';
import { studentT } from '../../src/distributions/families/student-t.js';
import { distribution, familyByName } from '../../src/distributions/registry.js';
import { intervalOfQuantile, intervalOfShare } from '../../src/probability-plot/fit-intervals.js';
import { createStream } from '../../src/random/stream.js';
import { column } from '../reference.js';
import { drawn as samplesDrawn } from '../thorough.js';

const fittedOf = (family: string, values: Float64Array) => {
  const law = fittedLaw(values, { family, given: {}, estimateThreshold: false });
  return isRefusal(law) ? null : law;
};

describe('the interval of a quantile read off a fit', () => {
  it('of the median of a normal is the t interval of the mean', () => {
    const sorted = column('normal-40').slice().sort();
    const law = fittedOf('normal', sorted)!;
    const { mean, sd } = law.parameters as { mean: number; sd: number };
    const half = (studentT.of({ df: 39, location: 0, scale: 1 }).survivalQuantile(0.025) * sd) / Math.sqrt(40);
    const { lower, upper } = intervalOfQuantile('normal', law, 0.5, 0.95, { sorted })!;
    expect(lower).toBeCloseTo(mean - half, 8);
    expect(upper).toBeCloseTo(mean + half, 8);
  });

  it('of a normal has the published tolerance factor: n = 10, 90 %, one-sided 95 % confidence, 2.355', () => {
    // Hahn & Meeker (1991), table A.12: x̄ + 2.355 s is the upper 95 % confidence bound of the 90 % point of ten readings.
    const values = Float64Array.of(-1.5, -1, -0.7, -0.3, -0.1, 0.1, 0.3, 0.7, 1, 1.5);
    const law = fittedOf('normal', values)!;
    const { upper } = intervalOfQuantile('normal', law, 0.9, 0.9, { sorted: values })!;
    expect((upper - law.parameters.mean!) / law.parameters.sd!).toBeCloseTo(2.355, 3);
  });

  it('belongs to that of the proportion: a value at an end has the proportion as an end', () => {
    const sorted = column('normal-40').slice().sort();
    const law = fittedOf('normal', sorted)!;
    const { lower } = intervalOfQuantile('normal', law, 0.1, 0.95, { sorted })!;
    const found = intervalOfShare('normal', law, { below: lower, above: null }, 0.95, { sorted })!;
    expect(found.upper).toBeCloseTo(0.1, 8);
  });

  const POPULATIONS: [string, Parameters][] = [
    ['gamma', { shape: 2, scale: 1 }],
    ['weibull', { shape: 1.5, scale: 1 }],
    ['lognormal', { logMean: 0, logSd: 0.5 }],
    ['logistic', { location: 0, scale: 1 }],
    ['normal', { mean: 5, sd: 1 }],
  ];
  it('covers the true quantile: five families, n = 5 and 10, the 1, 50 and 99 % points', () => {
    for (const [family, parameters] of POPULATIONS)
      for (const [n, wanted] of [
        [5, 0.91],
        [10, 0.93],
      ] as const) {
        const law = distribution(familyByName(family), parameters);
        const samples = samplesDrawn(12, 50);
        let covered = 0;
        for (let seed = 1; seed <= samples; seed++) {
          const sorted = new Float64Array(n);
          law.sample(createStream(seed, 40 + n), sorted);
          sorted.sort();
          const fit = fittedOf(family, sorted);
          if (!fit) continue;
          for (const p of [0.01, 0.5, 0.99]) {
            const { lower, upper } = intervalOfQuantile(family, fit, p, 0.95, { sorted })!;
            const q = law.quantile(p);
            if (lower <= q && q <= upper) covered++;
          }
        }
        // Less two standard deviations of so many samples.
        expect(covered / samples / 3, `${family}, n = ${n}`).toBeGreaterThan(wanted - 0.06 * Math.sqrt(50 / samples));
      }
  });
});
