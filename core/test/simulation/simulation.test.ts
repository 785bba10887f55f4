import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Alternative } from '../../src/claims/alternative.js';
import { mannWhitneyExact } from '../../src/claims/rank-sum.js';
import { signedRank, signTest } from '../../src/claims/ranks.js';
import { fisherP, shareP } from '../../src/claims/shares.js';
import { meanByT, pooled, welch } from '../../src/claims/means.js';
import { pOfTails } from '../../src/claims/alternative.js';
import { studentT } from '../../src/distributions/families/student-t.js';
import { FAMILIES } from '../../src/distributions/registry.js';
import { rounderOf, roundTo } from '../../src/numeric/round-to.js';
import { centralMoments } from '../../src/numeric/sums.js';
import { tabulated } from '../../src/numeric/tabulated.js';
import { createStream } from '../../src/random/stream.js';
import { distributionOf } from '../../src/resampling/distribution.js';
import { createDrawer } from '../../src/simulation/drawing.js';
import { exactPower } from '../../src/simulation/exact-power.js';
import { SIMULATED_INTERVALS } from '../../src/simulation/intervals.js';
import { momentsOf } from '../../src/simulation/moments.js';
import { pByTable } from '../../src/simulation/null-table.js';
import { lawOf, type Population } from '../../src/simulation/population.js';
import { tallyRejections } from '../../src/simulation/rejections.js';
import { sampleOf, simulatedSamples, type SimulatedSamples } from '../../src/simulation/samples.js';
import { pOfT } from '../../src/simulation/simulated-tests/means.js';
import { SIMULATED_TESTS, simulatedTest } from '../../src/simulation/simulated-tests/registry.js';
import type { Claim } from '../../src/simulation/simulated-tests/simulated-test.js';
import { finiteFactor, theoryCumulative, theoryOf } from '../../src/simulation/theory.js';
import { reference, relativeError } from '../reference.js';

interface Reference {
  powerOfT: { n: number; shiftInSd: number; alpha: number; twoSided: number; oneSided: number }[];
  rejections: { what: string; alpha: number; share: number; monteCarloError?: number }[];
}
const known = reference<Reference>('simulation');

const plain = (base: Population['base'], more: Partial<Population> = {}): Population => ({
  ...{ base, mixed: null, move: null, step: null },
  ...more,
});
const NORMAL = plain({ family: 'normal', parameters: { mean: 8, sd: 0.1 } });
const EXPONENTIAL = plain({ family: 'exponential', parameters: { scale: 1, threshold: 0 } });
const columnOf = (values: ArrayLike<number>, replacement = true) => plain({ values, replacement });
const claimOf = (population: Population, counted: Claim['counted'] = null): Claim => {
  const law = lawOf(population);
  const share = counted ? law.survival(counted.upper!) : 0;
  return { mean: law.mean, median: law.quantile(0.5), sd: Math.sqrt(law.variance), share, counted };
};
const OUTSIDE = { lower: null, upper: 8.12, of: 'outside' } as const;

/** p of so many samples of a test. */
function pOf(test: string, population: Population, n: number, count: number, alternative: Alternative = 'two-sided') {
  const groups = Array.from({ length: simulatedTest(test).groups }, () => ({ population, n }));
  const claim = claimOf(population, OUTSIDE);
  const repeated = { what: 'test', test, alternative, claim, table: null } as const;
  return simulatedSamples({ groups, repeated }, createStream(7, 0), count);
}
const shareBelow = (p: Float64Array, alpha = 0.05) => p.filter((x) => x < alpha).length / p.length;

describe('a function in a table', () => {
  it.each([1, 2, 9, 29, 400])('gives the tail of t on %i degrees of freedom to twelve digits', (df) => {
    const { survival } = studentT.of({ df, location: 0, scale: 1 });
    const table = tabulated(survival, { most: 8, width: 1 / 16 });
    for (let t = 0; t < 10; t += 0.0137) expect(relativeError(table(t), survival(t))).toBeLessThan(1e-12);
  });

  it('turns into p in every direction', () => {
    for (const alternative of ['two-sided', 'less', 'greater'] as const) {
      const p = pOfT(9, alternative);
      for (const t of [-12, -2.3, -0.4, 0, 0.4, 2.3, 12]) {
        const { cumulative, survival } = studentT.of({ df: 9, location: 0, scale: 1 });
        const exact = pOfTails({ lower: cumulative(t), upper: survival(t) }, alternative);
        expect(p(t)).toBeCloseTo(exact, 13);
      }
    }
  });
});

describe('rounding to a step', () => {
  it('is the same whether it is made ready once or asked each time, and has the digits of the step', () => {
    expect(rounderOf(0.1)(0.32)).toBe(0.3);
    expect(rounderOf(0.05)(8.125)).toBe(8.15);
    expect(rounderOf(2.5)(-6.2)).toBe(-5);
    const steps = fc.constantFrom(0.1, 0.5, 0.05, 0.3, 2.5, 1, 7, 1e-7, 0.125, 1 / 3);
    fc.assert(
      fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), steps, (x, step) => {
        const rounded = rounderOf(step)(x);
        expect(rounded).toBe(roundTo(x, step));
        expect(Math.abs(rounded - x)).toBeLessThanOrEqual(step * 0.5000001 + 1e-9 * Math.abs(x));
      }),
    );
  });
});

describe('what is true of a population', () => {
  it('of a column is its own mean and sd, each reading as likely', () => {
    const law = lawOf(columnOf([3, 1, 2, 2]));
    expect([law.mean, law.variance]).toEqual([2, 0.5]);
    expect([law.cumulative(1.9), law.cumulative(2), law.survival(2), law.quantile(0.5)]).toEqual([0.25, 0.75, 0.25, 2]);
  });

  it('moved, widened and rounded it is that of what is drawn (simulation)', () => {
    const move = { centre: 8, times: 2, by: 0.3 };
    for (const population of [
      { ...NORMAL, move },
      { ...NORMAL, move, step: 0.05 },
      { ...NORMAL, step: 0.2, mixed: { share: 0.1, from: { move: { centre: 8, times: 1, by: 0.5 } } } },
      { ...EXPONENTIAL, step: 0.5, mixed: { share: 0.3, from: { family: 'normal', parameters: { mean: 4, sd: 1 } } } },
      { ...columnOf([1, 2, 2, 7, 9.5], true), move, step: 0.5 },
    ]) {
      const law = lawOf(population);
      const block = new Float64Array(200_000);
      createDrawer(population, 10, block.length).fill(createStream(3, 0), block);
      const { mean, s2, n } = centralMoments(block);
      const sd = Math.sqrt(law.variance);
      expect(Math.abs(mean - law.mean)).toBeLessThan((4.5 * sd) / Math.sqrt(n));
      expect(Math.abs(s2 / n / law.variance - 1)).toBeLessThan(0.05);
      for (const p of [0.1, 0.5, 0.9]) {
        const x = law.quantile(p);
        const below = block.filter((value) => value <= x).length / n;
        expect(Math.abs(below - law.cumulative(x))).toBeLessThan(0.006);
        expect(law.cumulative(x)).toBeGreaterThanOrEqual(p - 1e-12);
        expect(law.cumulative(x) + law.survival(x)).toBeCloseTo(1, 12);
      }
    }
  });

  it('rounded finely its variance is larger by step²/12 (Sheppard)', () => {
    const { variance, mean } = lawOf({ ...NORMAL, step: 0.02 });
    expect(mean).toBeCloseTo(8, 12);
    expect(variance).toBeCloseTo(0.01 + 0.0004 / 12, 12);
    // So many steps are not added up one by one.
    expect(lawOf({ ...NORMAL, step: 1e-8 }).variance).toBeCloseTo(0.01, 12);
  });

  it('mixed it has the moments of a mixture', () => {
    const from = { move: { centre: 8, times: 3, by: 0 } };
    const { mean, variance, cumulative } = lawOf({ ...NORMAL, mixed: { share: 0.05, from } });
    expect(mean).toBe(8);
    expect(variance).toBeCloseTo(0.01 * (0.95 + 0.05 * 9), 14);
    expect(cumulative(8)).toBeCloseTo(0.5, 14);
  });

  it('is undefined where there is no mean: Cauchy', () => {
    const law = lawOf(plain({ family: 'cauchy', parameters: { location: 2, scale: 1 } }));
    expect(Number.isNaN(law.mean)).toBe(true);
    expect(law.quantile(0.5)).toBeCloseTo(2, 14);
  });
});

describe('drawing', () => {
  it('without replacement takes different readings, and the next sample has them all to choose from again', () => {
    const values = Float64Array.from({ length: 12 }, (_, i) => i);
    const block = new Float64Array(12 * 50);
    createDrawer(columnOf(values, false), 12, block.length).fill(createStream(1, 0), block);
    for (let k = 0; k < 50; k++)
      expect([...block.subarray(12 * k, 12 * k + 12)].sort((a, b) => a - b)).toEqual([...values]);
  });

  it('without replacement the variance of a mean shrinks by the finite-population factor', () => {
    const values = Float64Array.from({ length: 40 }, (_, i) => (i * 7) % 41);
    for (const n of [1, 10, 30, 39]) {
      const population = columnOf(values, false);
      const statistic = { of: 'one', figure: { name: 'mean' } } as const;
      const repeated = { what: 'statistic', statistic, counted: null, differences: false } as const;
      const means = simulatedSamples({ groups: [{ population, n }], repeated }, createStream(5, 0), 40_000);
      const theory = theoryOf(statistic, [{ population, n }], { shares: null, differences: false })!;
      const { s2 } = centralMoments(means);
      expect(theory.sd).toBeCloseTo(
        (Math.sqrt(lawOf(population).variance) * Math.sqrt((40 - n) / 39)) / Math.sqrt(n),
        12,
      );
      expect(Math.abs(Math.sqrt(s2 / 40_000) / theory.sd - 1)).toBeLessThan(0.025);
      expect(finiteFactor(population, n)).toBeLessThanOrEqual(1);
    }
  });

  it.each(FAMILIES.map(({ family }) => family))('reports for %s which readings are contaminated', (family) => {
    const parameters = Object.fromEntries(
      FAMILIES.find((one) => one.family === family)!.parameters.map(({ name, usual }) => [name, usual]),
    );
    const mixed = { share: 0.25, from: { family: 'normal', parameters: { mean: 1e9, sd: 1 } } };
    const drawer = createDrawer(plain({ family, parameters }, { mixed }), 4, 4_000);
    const block = new Float64Array(4_000);
    drawer.fill(createStream(2, 0), block);
    const strange = block.filter((_, i) => drawer.strange![i] === 1);
    expect(strange.every((x) => x > 1e8)).toBe(true);
    expect(block.filter((x, i) => drawer.strange![i] === 0 && x > 1e8)).toHaveLength(0);
    expect(Math.abs(strange.length / 4_000 - 0.25)).toBeLessThan(0.035);
  });

  it('moments of a stretch are those of two careful passes, all alike exactly 0', () => {
    const into = new Float64Array(2);
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -1e3, max: 1e3, noNaN: true }), { minLength: 1, maxLength: 40 }),
        (some) => {
          const values = Float64Array.from(some, (x) => 1e7 + x);
          momentsOf(values, 0, values.length, into);
          const { mean, s2 } = centralMoments(values);
          expect(relativeError(into[0]!, mean)).toBeLessThan(1e-15 * 8);
          expect(Math.abs(into[1]! - s2)).toBeLessThanOrEqual(1e-9 * (s2 + 1e-6));
        },
      ),
    );
    momentsOf(new Float64Array(7).fill(0.1), 0, 7, into);
    expect(into[1]).toBe(0);
  });
});

describe('tests of samples', () => {
  const rng = createStream(11, 0);
  const normalBlock = new Float64Array(4_000);
  createDrawer({ ...NORMAL, step: 0.05 }, 1, 4_000).fill(rng, normalBlock);
  const tied = (n: number, k: number) => normalBlock.slice(k * n, (k + 1) * n);
  const claim = claimOf(NORMAL, OUTSIDE);
  const settingFor = (alternative: Alternative, sizes: number[]) => ({ sizes, alternative, claim, table: null });
  const into = new Float64Array(2);
  const pBy = (test: string, alternative: Alternative, samples: Float64Array[]) => {
    simulatedTest(test).make(
      settingFor(
        alternative,
        samples.map(({ length }) => length),
      ),
    )(samples, into);
    return into[0]!;
  };
  const figures = (values: Float64Array) => {
    const { n, mean, s2 } = centralMoments(values);
    return { n, mean, sd: Math.sqrt(s2 / (n - 1)) };
  };

  it('give the p of the claims, ties or not, in every direction', () => {
    for (const alternative of ['two-sided', 'less', 'greater'] as const)
      for (let k = 0; k < 40; k++) {
        const [a, b] = [tied(9, 2 * k), tied(11, 2 * k + 1)];
        const smooth = a.map((x, i) => x + 1e-4 * Math.sin(i + k));
        const near = (found: number, exact: number) => expect(found).toBeCloseTo(exact, 12);
        near(pBy('t', alternative, [a]), pOfTails(meanByT(figures(a), claim.mean).tails, alternative));
        near(pBy('welch', alternative, [a, b]), pOfTails(welch(figures(a), figures(b)).tails, alternative));
        near(pBy('pooled-t', alternative, [a, b]), pOfTails(pooled(figures(a), figures(b)).tails, alternative));
        near(pBy('sign', alternative, [a]), pOfTails(signTest(a, claim.median).tails, alternative));
        for (const some of [a, smooth])
          near(pBy('signed-rank', alternative, [some]), pOfTails(signedRank(some, claim.median).tails, alternative));
        for (const some of [a, smooth])
          near(pBy('mann-whitney', alternative, [some, b]), pOfTails(mannWhitneyExact(some, b).tails, alternative));
        const count = (values: Float64Array) => values.filter((x) => x > OUTSIDE.upper).length;
        near(pBy('share', alternative, [a]), shareP(count(a), 9, claim.share, alternative));
        const table = [
          [count(a), 9 - count(a)],
          [count(b), 11 - count(b)],
        ] as const;
        near(pBy('fisher', alternative, [a, b]), fisherP(table, alternative));
      }
  });

  it.each(SIMULATED_TESTS.filter(({ table }) => !table).map(({ id }) => id))(
    '%s has a p below 0.05 in about 5 % where what it claims holds',
    (id) => {
      const count = 6_000;
      const share = shareBelow(pOf(id, NORMAL, 24, count));
      const error = Math.sqrt((0.05 * 0.95) / count);
      // Tests of counts are on the careful side; formulas of normality are good to some tenths of a percent.
      const careful = ['sign', 'share', 'fisher', 'brown-forsythe', 'mann-whitney', 'signed-rank'].includes(id);
      expect(share).toBeLessThan(0.05 + 4.5 * error + 0.006);
      expect(share).toBeGreaterThan(careful ? 0.003 : 0.05 - 4.5 * error - 0.006);
    },
  );

  it.each(SIMULATED_TESTS.map(({ id }) => id))(
    '%s has no p of readings that are all alike, or one that is no number below the level',
    (id) => {
      const { groups, make, least, table } = simulatedTest(id);
      const n = Math.max(least, 22);
      const same = Array.from({ length: groups }, () => new Float64Array(n).fill(8));
      const tableOf = table ? Float64Array.of(0.1, 0.2, 0.3) : null;
      const sizes = same.map(({ length }) => length);
      make({ ...settingFor('two-sided', sizes), table: tableOf })(same, into);
      expect(Number.isNaN(into[0]!) || into[0]! >= 0).toBe(true);
      if (['mean', 'normal', 'outliers'].includes(simulatedTest(id).about) && id !== 'z') expect(into[0]).toBeNaN();
    },
  );

  it('a p by table counts ties, and is never 0', () => {
    const table = Float64Array.of(1, 2, 2, 3);
    expect([0, 1, 2, 2.5, 3, 9].map((x) => pByTable(table, x))).toEqual([1, 1, 0.8, 0.4, 0.4, 0.2]);
  });

  it('reject at the rates of the reference (t on a normal and on an exponential)', () => {
    for (const { what, alpha, share, monteCarloError = 0 } of known.rejections) {
      const population = what.includes('exponential') ? EXPONENTIAL : NORMAL;
      const count = 100_000;
      const found = shareBelow(pOf('t', population, 10, count), alpha);
      const error = Math.sqrt((share * (1 - share)) / count + monteCarloError ** 2);
      expect(Math.abs(found - share)).toBeLessThan(4 * error);
    }
  });
});

describe('power by formula', () => {
  const asked = (test: string, shift: number, alternative: Alternative, alpha: number) => {
    const population = { ...NORMAL, move: { centre: 8, times: 1, by: 0.1 * shift } };
    const claim = claimOf(NORMAL, OUTSIDE);
    return exactPower({
      ...{ test, alternative, alpha, population, claim, law: lawOf(population), plain: lawOf(NORMAL) },
      share: lawOf(population).survival(8.12),
    })!;
  };

  it('of t is the noncentral t of the reference', () => {
    for (const { n, shiftInSd, alpha, twoSided, oneSided } of known.powerOfT) {
      expect(asked('t', shiftInSd, 'two-sided', alpha)(n, n)).toBeCloseTo(twoSided, 8);
      expect(asked('t', shiftInSd, 'greater', alpha)(n, n)).toBeCloseTo(oneSided, 8);
    }
  });

  it.each(['t', 'z', 'sign', 'share', 'chi-square', 'paired-t', 'pooled-t', 'f'])(
    'of %s is what simulation finds',
    (test) => {
      const wide = test === 'chi-square' || test === 'f';
      const move = { centre: 8, times: wide ? 1.6 : 1, by: wide ? 0 : 0.06 };
      const population = { ...NORMAL, move };
      const claim = claimOf(NORMAL, OUTSIDE);
      const [n, count] = [18, 20_000];
      const two = simulatedTest(test).groups === 2;
      const groups = [{ population, n }, ...(two ? [{ population: NORMAL, n }] : [])];
      const setting = { test, alternative: 'two-sided', claim, table: null } as const;
      const [found] = tallyRejections({ groups, alpha: 0.05, tests: [setting] }, createStream(9, 0), count);
      const law = lawOf(population);
      const exact = exactPower({
        ...{ test, alternative: 'two-sided', alpha: 0.05, population, claim, law, plain: lawOf(NORMAL) },
        share: law.survival(8.12),
      })!(n, n);
      expect(Math.abs(found! / count - exact)).toBeLessThan(4.5 * Math.sqrt((exact * (1 - exact)) / count));
    },
  );

  it('is not claimed if it is not exact: other distributions, steps, mixtures', () => {
    const of = (test: string, population: Population) =>
      exactPower({
        ...{ test, alternative: 'two-sided', alpha: 0.05, population, claim: claimOf(population), share: 0.1 },
        ...{ law: lawOf(population), plain: lawOf(population) },
      });
    expect(of('t', EXPONENTIAL)).toBeNull();
    expect(of('t', { ...NORMAL, step: 0.1 })).toBeNull();
    expect(of('sign', EXPONENTIAL)).not.toBeNull();
    expect(of('sign', { ...EXPONENTIAL, step: 0.1 })).toBeNull();
    expect(of('sign', columnOf([1, 2, 3]))).toBeNull();
    expect(of('share', columnOf([1, 2, 3], false))).toBeNull();
    expect(of('signed-rank', NORMAL)).toBeNull();
  });
});

describe('distributions of statistics', () => {
  const FIGURES = ['mean', 'sd', 'variance'] as const;
  it.each(FIGURES)('the %s of normal samples follows its theoretical distribution', (name) => {
    const statistic = { of: 'one', figure: { name } } as const;
    const groups = [{ population: NORMAL, n: 6 }];
    const theory = theoryOf(statistic, groups, { shares: null, differences: false })!;
    const repeated = { what: 'statistic', statistic, counted: null, differences: false } as const;
    const found = simulatedSamples({ groups, repeated }, createStream(4, 0), 40_000).sort();
    const cumulative = theoryCumulative(theory);
    const { mean, s2, n } = centralMoments(found);
    expect(Math.abs(mean - theory.mean)).toBeLessThan((4.5 * theory.sd) / 200);
    expect(Math.abs(Math.sqrt(s2 / n) / theory.sd - 1)).toBeLessThan(0.025);
    // Kolmogorov's distance stays below its 0.1 % point.
    const distance = found.reduce((most, x, i) => Math.max(most, Math.abs(cumulative(x) - (i + 0.5) / n)), 0);
    expect(distance).toBeLessThan(1.95 / Math.sqrt(n));
    expect(theory.exact).toBe(true);
  });

  it('the mean of an s is known to all digits (published values of c₄)', () => {
    const c4 = (n: number) =>
      theoryOf(
        { of: 'one', figure: { name: 'sd' } },
        [{ population: plain({ family: 'normal', parameters: { mean: 0, sd: 1 } }), n }],
        { shares: null, differences: false },
      )!.mean;
    expect(c4(2)).toBeCloseTo(Math.sqrt(2 / Math.PI), 14);
    expect(c4(3)).toBeCloseTo(Math.sqrt(Math.PI) / 2, 14);
    expect(c4(10)).toBeCloseTo(0.9726592741215884, 13);
  });

  it('a share is binomial, or hypergeometric where nothing is put back', () => {
    const values = Float64Array.from({ length: 30 }, (_, i) => i);
    const counted = { lower: null, upper: 19.5, of: 'outside' } as const;
    for (const replacement of [true, false]) {
      const groups = [{ population: columnOf(values, replacement), n: 8 }];
      const statistic = { of: 'one', figure: { name: 'mean' } } as const;
      const theory = theoryOf(statistic, groups, { shares: [1 / 3], differences: false })!;
      const repeated = { what: 'statistic', statistic, counted, differences: false } as const;
      const shares = simulatedSamples({ groups, repeated }, createStream(6, 0), 40_000);
      // √(p (1 − p)/n), and of a finite column (N − n)/(N − 1) times the variance.
      const finite = replacement ? 1 : (30 - 8) / (30 - 1);
      expect(theory.mean).toBeCloseTo(1 / 3, 12);
      expect(theory.sd).toBeCloseTo(Math.sqrt(((1 / 3) * (2 / 3) * finite) / 8), 12);
      const cumulative = theoryCumulative(theory);
      for (let k = 0; k <= 8; k++) {
        const below = shares.filter((x) => x <= k / 8 + 1e-9).length / 40_000;
        expect(Math.abs(below - cumulative(k / 8))).toBeLessThan(0.012);
      }
    }
  });
});

describe('intervals', () => {
  it.each(SIMULATED_INTERVALS.map(({ id }) => id))(
    '%s contains the true value in about 95 % of normal samples',
    (id) => {
      const interval = SIMULATED_INTERVALS.find((one) => one.id === id)!;
      const groups = Array.from({ length: interval.groups }, () => ({ population: NORMAL, n: 20 }));
      const claim = claimOf(NORMAL, OUTSIDE);
      const truths: Record<string, number> = {
        ...{ mean: 8, median: 8, sd: 0.1, share: claim.share },
        ...{ 'difference-of-means': 0, 'ratio-of-sds': 1, 'difference-of-shares': 0 },
      };
      const truth = truths[interval.truth]!;
      const ends = simulatedSamples(
        { groups, repeated: { what: 'interval', interval: id, confidence: 0.95, claim } },
        createStream(8, 0),
        6_000,
      );
      let covers = 0;
      for (let i = 0; i < ends.length; i += 2) if (ends[i]! <= truth && ends[i + 1]! >= truth) covers++;
      const careful = ['median', 'share', 'exact-share', 'difference-of-shares'].includes(id);
      expect(covers / 6_000).toBeGreaterThan(0.9365);
      if (!careful) expect(covers / 6_000).toBeLessThan(0.9635);
    },
  );
});

describe('one sample', () => {
  it('drawn again by itself equals that of the run, for every statistic', () => {
    const mixed = { share: 0.2, from: { move: { centre: 8, times: 1, by: 1 } } };
    const population = { ...NORMAL, mixed, step: 0.01 };
    const claim = claimOf(NORMAL, OUTSIDE);
    const works: SimulatedSamples[] = [
      ...['t', 'signed-rank', 'welch', 'share'].map((test): SimulatedSamples => ({
        groups: Array.from({ length: simulatedTest(test).groups }, (_, g) => ({ population, n: 7 + g })),
        repeated: { what: 'test', test, alternative: 'two-sided', claim, table: null },
      })),
      {
        groups: [{ population: columnOf(Float64Array.from({ length: 70_000 }, (_, i) => i % 97)), n: 5 }],
        repeated: { what: 'test', test: 't', alternative: 'greater', claim: { ...claim, mean: 48 }, table: null },
      },
      {
        groups: [{ population: EXPONENTIAL, n: 6 }],
        repeated: { what: 'interval', interval: 'mean', confidence: 0.9, claim },
      },
      {
        groups: [{ population: columnOf([1, 2, 3, 5, 8], false), n: 3 }],
        repeated: {
          ...{ what: 'statistic', counted: null, differences: false },
          statistic: { of: 'one', figure: { name: 'median' } },
        },
      },
    ];
    for (const work of works) {
      const stride = work.repeated.what === 'interval' ? 2 : 1;
      const [chunkSize, seed] = [1_500, 21];
      const run = [0, 1].map((k) => simulatedSamples(work, createStream(seed, k), chunkSize));
      for (const number of [1, 2, 700, 1_500, 1_501, 2_999]) {
        const { worked, values } = sampleOf(work, { seed, number, chunkSize });
        const [chunk, at] = [Math.floor((number - 1) / chunkSize), (number - 1) % chunkSize];
        expect(worked[0]).toBe(run[chunk]![at * stride]);
        if (stride === 2) expect(worked[1]).toBe(run[chunk]![at * 2 + 1]);
        expect(values.map(({ length }) => length)).toEqual(work.groups.map(({ n }) => n));
      }
    }
  });

  it('a longer run begins with the samples of a shorter one', () => {
    const work: SimulatedSamples = {
      groups: [{ population: plain({ family: 'gamma', parameters: { shape: 2, scale: 1 } }), n: 9 }],
      repeated: { what: 'test', test: 't', alternative: 'two-sided', claim: claimOf(EXPONENTIAL), table: null },
    };
    const short = simulatedSamples(work, createStream(1, 3), 37);
    expect(simulatedSamples(work, createStream(1, 3), 2_000).slice(0, 37)).toEqual(short);
  });
});

describe('several tests on the same samples', () => {
  it('are counted as each by itself would be', () => {
    const groups = [{ population: { ...NORMAL, step: 0.1 }, n: 8 }];
    const claim = { ...claimOf(NORMAL), mean: 8.06, median: 8.06 };
    const tests = ['t', 'sign', 'shapiro-wilk', 'grubbs'].map((test) => ({
      ...{ test, alternative: 'two-sided' as const, claim, table: null },
    }));
    const tallies = tallyRejections({ groups, alpha: 0.05, tests }, createStream(2, 0), 5_000);
    tests.forEach(({ test, ...rest }, i) => {
      const repeated = { what: 'test', test, ...rest } as const;
      const p = simulatedSamples({ groups, repeated }, createStream(2, 0), 5_000);
      expect(tallies[2 * i]).toBe(p.filter((x) => x < 0.05).length);
      expect(tallies[2 * i + 1]).toBe(p.filter(Number.isNaN).length);
    });
  });
});

describe('bins with an end', () => {
  it('count what cannot be greater into the last of them, and nothing beyond a reach', () => {
    const p = Float64Array.of(0, 0.05, 0.0499, 0.95, 1, 1);
    const frame = { centre: 0, width: 0.05, tie: 1e-12, greatest: 1, binned: true } as const;
    const { edges, counts } = distributionOf({ chunks: [p], stride: 1 }, frame);
    expect([edges[0], edges.at(-1), counts[0], counts[1], counts.at(-1)]).toEqual([0, 1, 2, 1, 3]);
    const far = distributionOf(
      { chunks: [Float64Array.of(-90, -0.5, 0.2, 1.7, 2.1, 50)], stride: 1 },
      { centre: 0, width: 1, tie: 0, reach: 2, binned: true },
    );
    expect(far).toMatchObject({ below: 1, above: 2, counts: [0, 1, 1, 1] });
  });
});
