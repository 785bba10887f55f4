import { describe, expect, it } from 'vitest';
import { fit, type Fit, type FitRequest } from '../../src/distributions/fit/fit.js';
import { isRefusal, type Parameters } from '../../src/distributions/family.js';
import { logLikelihoodOf } from '../../src/distributions/fit/likelihood.js';
import { distribution, familyByName, FAMILIES } from '../../src/distributions/registry.js';
import { createStream } from '../../src/random/stream.js';
import { inverseOf } from '../../src/numeric/cholesky.js';
import { curvatureAt } from '../../src/numeric/curvature.js';
import { nelderMead } from '../../src/numeric/nelder-mead.js';
import { CASES } from './families.js';
import { column, reference, relativeError } from '../reference.js';

interface PublishedFit {
  parameters: Record<string, number>;
  logLikelihood: number;
  aic?: number;
  aicc?: number;
  bic?: number;
  tolerance: number;
}
const published = reference<Record<string, Record<string, PublishedFit>>>('fits');

function fitted(family: string, values: ArrayLike<number>, request: Partial<FitRequest> = {}): Fit {
  const found = fit(familyByName(family), values, { method: 'maximum-likelihood', ...request });
  if (isRefusal(found)) throw new Error(found.refused);
  return found;
}

function refusal(family: string, values: ArrayLike<number>, request: Partial<FitRequest> = {}): string {
  const found = fit(familyByName(family), values, { method: 'maximum-likelihood', ...request });
  return isRefusal(found) ? found.refused : '';
}

const drawn = (family: string, parameters: Parameters, n: number, seed = 7): Float64Array => {
  const out = new Float64Array(n);
  distribution(familyByName(family), parameters).sample(createStream(seed, 0), out);
  return out;
};

describe('maximum likelihood against the reference', () => {
  const rows = Object.entries(published).flatMap(([name, families]) =>
    Object.entries(families)
      .filter(([family]) => family !== 'box-cox')
      .map(([family, wanted]) => [`${family} to ${name}`, name, family, wanted] as const),
  );

  it.each(rows)('%s', (_, name, family, wanted) => {
    const found = fitted(family, column(name));
    for (const [parameter, value] of Object.entries(wanted.parameters)) {
      expect(relativeError(found.parameters[parameter]!, value), parameter).toBeLessThan(wanted.tolerance);
    }
    expect(relativeError(found.logLikelihood, wanted.logLikelihood)).toBeLessThan(1e-9);
    for (const criterion of ['aic', 'aicc', 'bic'] as const) {
      if (wanted[criterion] !== undefined) {
        expect(relativeError(found[criterion]!, wanted[criterion]), criterion).toBeLessThan(1e-9);
      }
    }
  });
});

/** Cases whose parameters a sample can find: those without a singular end or a threshold of their own. */
const findable = CASES.filter(
  ({ family, parameters }) =>
    !family.estimation.never &&
    !(parameters.threshold ?? 0) &&
    parameters.df !== 107 &&
    !(family.family === 'f' && parameters.df1! > 50),
);

describe('a fit to draws of its own family', () => {
  it.each(findable.map((one) => [one.name, one] as const))('%s', (_, { family, parameters, distribution: truth }) => {
    const n = 1200;
    const x = new Float64Array(n);
    truth.sample(createStream(11, 2), x);
    const given = Object.fromEntries((family.estimation.given ?? []).map((name) => [name, parameters[name]!]));
    const found = fitted(family.family, x, { given });
    const heightOf = logLikelihoodOf(family, x.slice().sort(), null);
    // The maximum is at least as high as the truth, and moving any parameter lowers it.
    expect(found.logLikelihood).toBeGreaterThanOrEqual(heightOf(parameters) - 1e-9);
    for (const name of found.estimated) {
      const error = found.standardErrors[name];
      if (error === null || error === undefined) continue;
      expect(Math.abs(found.parameters[name]! - parameters[name]!), name).toBeLessThan(4.5 * error);
      for (const side of [-1, 1]) {
        const moved = { ...found.parameters, [name]: found.parameters[name]! + 0.02 * side * error };
        expect(heightOf(moved), `${name} ${side}`).toBeLessThan(found.logLikelihood + 1e-9);
      }
    }
  });
});

describe('standard errors', () => {
  it('are σ/√n and σ/√2n for a normal', () => {
    const { parameters, standardErrors, n } = fitted('normal', column('normal-40'));
    expect(relativeError(standardErrors.mean!, parameters.sd! / Math.sqrt(n))).toBeLessThan(1e-6);
    expect(relativeError(standardErrors.sd!, parameters.sd! / Math.sqrt(2 * n))).toBeLessThan(1e-5);
  });

  it('from the closed information of a gamma are those of the differences', () => {
    const x = column('right-skew-50');
    const { parameters, standardErrors } = fitted('gamma', x);
    const heightOf = logLikelihoodOf(familyByName('gamma'), x, null);
    const at = Float64Array.of(parameters.shape!, parameters.scale!);
    const { hessian } = curvatureAt(
      ([shape, scale]) => -heightOf({ shape: shape!, scale: scale!, threshold: 0 }),
      at,
      at.map((v) => v * 1e-2),
    );
    const covariance = inverseOf(hessian, 2)!;
    expect(relativeError(standardErrors.shape!, Math.sqrt(covariance[0]!))).toBeLessThan(1e-5);
    expect(relativeError(standardErrors.scale!, Math.sqrt(covariance[3]!))).toBeLessThan(1e-5);
  });

  it('have about the nominal coverage', () => {
    let inside = 0;
    for (let seed = 0; seed < 200; seed++) {
      const x = drawn('weibull', { shape: 2.5, scale: 10 }, 60, seed);
      const { parameters, standardErrors } = fitted('weibull', x);
      if (Math.abs(parameters.scale! - 10) < 1.96 * standardErrors.scale!) inside++;
    }
    expect(inside).toBeGreaterThan(178);
    expect(inside).toBeLessThan(200);
  });
});

describe('thresholds', () => {
  it('are found on the profile, and shift with the readings', () => {
    const x = drawn('weibull', { shape: 1.8, scale: 4, threshold: 20 }, 200);
    const found = fitted('weibull', x, { estimateThreshold: true });
    expect(Math.abs(found.parameters.threshold! - 20)).toBeLessThan(4 * found.standardErrors.threshold!);
    expect(found.estimated).toEqual(['shape', 'scale', 'threshold']);
    const moved = fitted(
      'weibull',
      x.map((v) => v + 100),
      { estimateThreshold: true },
    );
    expect(moved.parameters.threshold! - found.parameters.threshold!).toBeCloseTo(100, 4);
    expect(moved.logLikelihood).toBeCloseTo(found.logLikelihood, 7);
  });

  it('no place near the one found is likelier, for any family, exact or coarse', () => {
    const cases = [
      ['lognormal', { logMean: 1, logSd: 0.5, threshold: 5 }],
      ['weibull', { shape: 2, scale: 3, threshold: 5 }],
      ['gamma', { shape: 3, scale: 1, threshold: 5 }],
      ['log-logistic', { logLocation: 1, logScale: 0.25, threshold: 5 }],
    ] as const;
    for (const [family, parameters] of cases) {
      for (const resolution of [null, 0.5]) {
        const exact = drawn(family, parameters, 50);
        const x = resolution === null ? exact : exact.map((v) => Math.round(v / resolution) * resolution);
        const found = fitted(family, x, { estimateThreshold: true, resolution });
        const height = logLikelihoodOf(familyByName(family), x.slice().sort(), found.grouped ? resolution : null);
        for (const [name, error] of Object.entries(found.standardErrors)) {
          for (const part of [-0.05, 0.05]) {
            const moved = { ...found.parameters, [name]: found.parameters[name]! + part * (error ?? 0) };
            expect(height(moved), `${family} ${name}`).toBeLessThanOrEqual(found.logLikelihood + 1e-9);
          }
        }
      }
    }
  });

  it('ends on its bound for an exponential, half a step below the minimum, and says so', () => {
    const x = drawn('exponential', { scale: 3, threshold: 5 }, 80).map((v) => Math.round(v * 100) / 100);
    const found = fitted('exponential', x, { estimateThreshold: true, resolution: 0.01 });
    expect(found.parameters.threshold).toBeCloseTo(Math.min(...x) - 0.005, 12);
    expect(found.standardErrors.threshold).toBeNull();
    expect(found.notes.map(({ code }) => code)).toContain('at-bound');
  });

  it('is refused where the likelihood rises for ever as it goes down', () => {
    expect(refusal('lognormal', column('weibull-80'), { estimateThreshold: true })).toContain(
      'The threshold cannot be estimated, because the likelihood increases as the threshold',
    );
  });
});

describe('coarse readings', () => {
  it('are fitted by interval likelihood: the SD is not inflated by rounding', () => {
    const exact = drawn('normal', { mean: 10, sd: 1 }, 4000);
    const rounded = exact.map((v) => Math.round(v / 1.5) * 1.5);
    const plain = fitted('normal', rounded);
    const found = fitted('normal', rounded, { resolution: 1.5 });
    expect(found.grouped).toBe(true);
    expect(found.notes.map(({ code }) => code)).toContain('grouped');
    expect(plain.parameters.sd!).toBeGreaterThan(1.05);
    expect(Math.abs(found.parameters.sd! - 1)).toBeLessThan(4 * found.standardErrors.sd!);
    // Fine readings are taken as they are.
    expect(fitted('normal', exact, { resolution: 0.1 }).grouped).toBe(false);
  });
});

describe('other ways to parameters', () => {
  it('moments have the mean and the sd of the readings, divisor n − 1', () => {
    const x = column('right-skew-50');
    const mean = x.reduce((a, b) => a + b, 0) / x.length;
    const variance = x.reduce((a, b) => a + (b - mean) ** 2, 0) / (x.length - 1);
    const found = fitted('gamma', x, { method: 'moments' });
    expect(found.parameters.shape! * found.parameters.scale!).toBeCloseTo(mean, 12);
    expect(found.parameters.shape! * found.parameters.scale! ** 2).toBeCloseTo(variance, 12);
    expect(found.logLikelihood).toBeLessThan(fitted('gamma', x).logLikelihood);
  });

  it('a claim is taken as it is: nothing is estimated and AIC counts no parameter', () => {
    const found = fitted('normal', column('normal-40'), { method: 'given', given: { mean: 100, sd: 3 } });
    expect(found.parameters).toEqual({ mean: 100, sd: 3 });
    expect(found.estimated).toEqual([]);
    expect(found.aic).toBe(-2 * found.logLikelihood);
    expect(refusal('normal', column('normal-40'), { method: 'given', given: { mean: 100, sd: 0 } })).toContain(
      'above 0',
    );
  });

  it('a parameter that is given stays, the others follow', () => {
    const found = fitted('student-t', column('normal-40'), { given: { df: 4 } });
    expect(found.parameters.df).toBe(4);
    expect(found.estimated).toEqual(['location', 'scale']);
    const fixed = fitted('normal', Float64Array.of(1, 2, 3, 6), { given: { mean: 0 } });
    expect(fixed.parameters.sd).toBeCloseTo(Math.sqrt(50 / 4), 6);
  });
});

describe('what cannot be fitted says why', () => {
  it.each([
    ['lognormal', [0, 1, 2, 3], {}, 'The minimum is 0; the lognormal distribution has no values at or below 0.'],
    ['poisson', [1, 2.5, 3], {}, '2.5000 is not a count; the Poisson distribution needs whole numbers of at least 0.'],
    ['poisson', [0, 0, 0], {}, 'All counts are 0'],
    ['binomial', [3, 4, 12], { given: { trials: 10 } }, 'A count of 12 exceeds 10 trials.'],
    ['binomial', [3, 4, 1], {}, 'the number of trials'],
    ['beta', [0.2, 1.4, 0.3], {}, 'A beta distribution needs all readings between its limits, 0 and 1.'],
    [
      'negative-binomial',
      [2, 2, 3, 3, 2],
      {},
      'The counts vary no more than Poisson counts, so the size cannot be estimated. Use the',
    ],
    [
      'hypergeometric',
      [2, 2, 3],
      {},
      'A hypergeometric distribution cannot be fitted to readings; lot, successes and draws must',
    ],
    ['normal', [], {}, 'no readings'],
    ['normal', [5], {}, 'too few'],
    ['normal', [5, 5, 5], {}, 'All readings are 5.0000, so only one parameter can be estimated.'],
    [
      'cauchy',
      [1, 2, 3],
      { method: 'moments' },
      'The Cauchy distribution is not determined by its mean and standard deviation.',
    ],
    ['gamma', [-1, 2, 3], { method: 'moments', given: { threshold: 9 } }, 'above its threshold'],
  ] as [string, number[], Partial<FitRequest>, string][])('%s to %o %o', (family, values, request, words) => {
    expect(refusal(family, values, request)).toContain(words);
  });

  it('a Student t without heavy tails runs off and says so', () => {
    const flat = Float64Array.from({ length: 300 }, (_, i) => (i - 149.5) / 100);
    const found = fitted('student-t', flat);
    expect(found.notes.find(({ code }) => code === 'at-bound')!.text).toContain(
      'The degrees of freedom cannot be estimated: the readings are also consistent with a',
    );
    // Those of a normal with this scale: scale/√n and scale/√(2n).
    const { scale } = found.parameters;
    expect(found.standardErrors.df).toBeNull();
    expect(relativeError(found.standardErrors.location!, scale! / Math.sqrt(300))).toBeLessThan(0.01);
    expect(relativeError(found.standardErrors.scale!, scale! / Math.sqrt(600))).toBeLessThan(0.02);
    expect(found.notes.map(({ code }) => code)).not.toContain('no-error');
  });

  it('a Student t with an error far beyond its df gives none', () => {
    for (let seed = 1; seed <= 6; seed++) {
      const x = new Float64Array(60);
      distribution(familyByName('normal'), { mean: 8, sd: 0.1 }).sample(createStream(seed, 0), x);
      const { parameters, standardErrors } = fitted('student-t', x);
      if (standardErrors.df !== null) expect(standardErrors.df).toBeLessThan(5 * parameters.df!);
      expect(standardErrors.location).toBeGreaterThan(0.005);
      expect(standardErrors.scale).toBeGreaterThan(0.003);
    }
  });

  it('a uniform gives its ends, without standard errors, and says so', () => {
    const found = fitted('uniform', column('flat-100'));
    expect(found.parameters).toEqual({
      lower: Math.min(...column('flat-100')),
      upper: Math.max(...column('flat-100')),
    });
    expect(found.standardErrors).toEqual({ lower: null, upper: null });
    expect(found.notes.map(({ code }) => code)).toEqual(['ends']);
  });

  it('every continuous family either fits a column of positive readings or refuses in words', () => {
    for (const { family, discrete } of FAMILIES) {
      if (discrete) continue;
      const found = fit(familyByName(family), column('right-skew-50'), { method: 'maximum-likelihood' });
      if (isRefusal(found)) expect(found.refused.length).toBeGreaterThan(20);
      else expect(Number.isFinite(found.logLikelihood)).toBe(true);
    }
  });
});

describe('the search', () => {
  it('finds the floor of a banana-shaped valley', () => {
    const found = nelderMead(([x, y]) => 100 * (y! - x! ** 2) ** 2 + (1 - x!) ** 2, Float64Array.of(-1.2, 1), 0.5);
    expect(found.converged).toBe(true);
    expect(found.at[0]).toBeCloseTo(1, 6);
    expect(found.at[1]).toBeCloseTo(1, 6);
  });

  it('inverts a matrix, and refuses one that is not positive definite', () => {
    expect([...inverseOf(Float64Array.of(4, 2, 2, 3), 2)!].map((v) => v * 8)).toEqual(
      [3, -2, -2, 4].map((v) => expect.closeTo(v, 12) as number),
    );
    expect(inverseOf(Float64Array.of(1, 2, 2, 1), 2)).toBeNull();
  });
});

describe('a fit without standard errors', () => {
  it('has the parameters and the likelihood of one with them, and no note that they are missing', () => {
    const values = column('right-skew-50');
    for (const family of ['lognormal', 'gamma', 'weibull', 'inverse-gaussian', 'logistic']) {
      const [full, bare] = [fitted(family, values), fitted(family, values, { errors: false })];
      for (const [name, value] of Object.entries(full.parameters)) {
        expect(relativeError(bare.parameters[name]!, value), `${family} ${name}`).toBeLessThan(1e-12);
      }
      expect(relativeError(bare.logLikelihood, full.logLikelihood)).toBeLessThan(1e-12);
      expect(bare.notes).toEqual(full.notes);
    }
  });
});
