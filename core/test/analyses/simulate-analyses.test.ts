import { describe, expect, it } from 'vitest';
import { analysisById, inThisThread } from '../../src/analyses/registry.js';
import { crossingOf } from '../../src/analyses/simulate/curves.js';
import type { CurvesResult } from '../../src/analyses/simulate/curves-result.js';
import { curvesTable } from '../../src/analyses/simulate/curves-words.js';
import type { OneSampleResult } from '../../src/analyses/simulate/one-sample.js';
import type { PlanResult } from '../../src/analyses/simulate/plan-result.js';
import type { PopulationResult } from '../../src/analyses/simulate/population.js';
import { groupWords, simulateFigures, simulateTable } from '../../src/analyses/simulate/simulate-figures.js';
import type { SimulateResult } from '../../src/analyses/simulate/simulate-result.js';
import { knownWords } from '../../src/analyses/simulate/simulate-words.js';
import { NO_READINGS, type Sample } from '../../src/readings/sample.js';
import { chunkReplicates, performChunk } from '../../src/road/kernels.js';
import { remembering } from '../../src/road/remembered.js';
import { drive } from '../../src/road/runner.js';
import { methodOf } from '../../src/road/method-sentence.js';
import type { AnyAnalysis, Piece, Unavailable } from '../../src/road/analysis.js';
import { column, reference } from '../reference.js';
import { sampleOf } from '../samples.js';

const known = reference<{ sampleSizeOfT: { shiftInSd: number; alpha: number; power: number; n: number }[] }>(
  'simulation',
);
const thickness: Sample = { ...sampleOf(column('normal-40')), resolution: 0.001, unit: 'mm' };

const resultOf = (id: string, request: object, sample: Sample = NO_READINGS) =>
  drive(inThisThread, { id, request: sample === NO_READINGS ? request : { column: 'thickness', ...request }, sample });
async function found<R>(id: string, request: object, sample?: Sample): Promise<R> {
  const result = (await resultOf(id, request, sample)) as R & Partial<Unavailable>;
  if (result.available === (false as never)) throw new Error((result as Unavailable).reason);
  return result;
}
const refused = async (id: string, request: object, sample?: Sample) =>
  ((await resultOf(id, request, sample)) as Unavailable).reason;
const simulate = (request: object, sample?: Sample) => found<SimulateResult>('simulate', request, sample);
const said = (id: string, result: unknown) =>
  (analysisById(id).finding as (of: unknown) => Piece[])(result)
    .map(({ text }) => text)
    .join('');
const faultOf = (id: string, request: object) =>
  analysisById(id)
    .request.safeParse(request)
    .error?.issues.map(({ path, message }) => `${path.join('.')}: ${message}`);
const codes = ({ notes }: { notes: readonly { code: string }[] }) => notes.map(({ code }) => code);

describe('a figure of samples', () => {
  it('varies as in theory, and reports it with the true value', async () => {
    const result = await simulate({ parameters: [8, 0.1], n: 25, replicates: 20_000 });
    expect(result).toMatchObject({ truth: 8, repeated: 'statistic', replicates: 20_000, sizes: [25] });
    expect(result.theory).toMatchObject({ name: 'normal with σ/√n', exact: true, sd: 0.02 });
    expect(Math.abs(result.sd! / 0.02 - 1)).toBeLessThan(0.03);
    expect(result.theory!.expected.reduce((a, b) => a + b, 0)).toBeCloseTo(20_000, -2);
    expect(result.distribution.counts.reduce((a, b) => a + b, 0)).toBe(20_000);
    expect(said('simulate', result)).toContain(
      'In 20\u202f000 samples, the mean of samples of 25 has a standard deviation of 0.019892 and a',
    );
    expect(result.quantiles.map(({ share }) => share)).toEqual([0.01, 0.05, 0.25, 0.5, 0.75, 0.95, 0.99]);
    expect(simulateTable(result)[0]).toEqual(['from', 'to', 'samples', 'expected', 'example']);
    expect(simulateFigures(result).map(({ key }) => key)).toContain('theory');
  });

  it('of a population without mean is described by its middle half, and the picture is cut', async () => {
    const result = await simulate({ family: 'cauchy', n: 10, replicates: 5_000 });
    expect(codes(result)).toEqual(['no-mean', 'beyond']);
    expect(result.population).toMatchObject({ mean: null, sd: null });
    expect(said('simulate', result)).toContain(
      'In half of 5\u202f000 samples, the mean of samples of 10 lies between −0.97678 and 1.0698. Its',
    );
    const { below, above, counts } = result.distribution;
    expect(below + above).toBeGreaterThan(50);
    expect(below + above + counts.reduce((a, b) => a + b, 0)).toBe(5_000);
    expect(counts.length).toBeLessThanOrEqual(80);
    expect(simulateFigures(result).some(({ key }) => key === 'sd')).toBe(false);
  });

  it('one sample is described as one, a few as dots with their numbers', async () => {
    const one = await simulate({ replicates: 1 });
    expect(said('simulate', one)).toContain(
      'In the first sample, the mean of samples of 10 is −0.16676. More samples are needed to',
    );
    const few = await simulate({ replicates: 12 });
    expect(few.dots).toHaveLength(12);
    expect(few.dots[0]).toBe(one.dots[0]);
  });

  it.each([
    ['median', {}, 8],
    ['percentile', { percentile: 0.9 }, 8.128155],
    ['sd', {}, 0.1],
    ['variance', {}, 0.01],
    ['cv', {}, 0.0125],
    ['share', { upper: 8.1, lower: 7.9 }, 0.317311],
    ['trimmed-mean', {}, null],
    ['skewness', {}, null],
    ['difference-of-means', { shift: 0.05 }, 0.05],
    ['difference-of-medians', { shiftInSd: 0.5 }, 0.05],
    ['difference-of-shares', { upper: 8.1, shiftInSd: 1 }, 0.341345],
    ['log-ratio-of-sds', { ratio: 2 }, null],
    ['mean-of-differences', { shift: 0.02 }, 0.02],
    ['median-of-differences', {}, null],
    ['correlation', {}, 0],
    ['slope', {}, 0],
    ['formula', { formula: 'sd/mean' }, null],
    ['formula', { formula: 'mean1/mean2' }, null],
  ])('%s is worked out of samples, beside what is true', async (statistic, more, truth) => {
    const result = await simulate({ statistic, parameters: [8, 0.1], n: 12, replicates: 2_000, ...more });
    expect(result.undefined).toBe(0);
    if (truth === null) expect(result.truth).toBeNull();
    else {
      expect(result.truth).toBeCloseTo(truth, 5);
      expect(Math.abs(result.mean! - truth)).toBeLessThan(0.15 * Math.abs(truth) + 6 * (result.sd! / Math.sqrt(2_000)));
    }
    expect(said('simulate', result)).toMatch(/ has a standard deviation of .+ and a mean of /);
  });
});

describe('p of a test', () => {
  it('below the level at the level if the claim is true', async () => {
    const result = await simulate({ test: 't', parameters: [8, 0.1], replicates: 10_000 });
    expect(result).toMatchObject({ holds: true, claim: 'the mean is 8.0000', effect: null });
    const { share, lower, upper } = result.belowAlpha!;
    expect(lower).toBeLessThan(0.05);
    expect(upper).toBeGreaterThan(0.05);
    expect(said('simulate', result)).toContain(
      '4.58\u00a0% of 10\u202f000 samples have p below 5 % although the claim is true (the mean is',
    );
    expect(knownWords(result)).toContain('Simulation uncertainty: 4.18\u00a0% to 5.01\u00a0% (95 % confidence).');
    expect(share).toBeCloseTo(result.distribution.counts[0]! / 10_000, 12);
    expect(result.distribution.edges).toHaveLength(21);
  });

  it('more often on an exponential, which is said', async () => {
    const result = await simulate({ test: 't', family: 'exponential', replicates: 10_000 });
    expect(said('simulate', result)).toContain(
      '9.45\u00a0% of 10\u202f000 samples have p below 5 % although the claim is true (the mean is',
    );
    const careful = await simulate({ test: 'sign', n: 12, replicates: 10_000 });
    expect(said('simulate', careful)).toContain(
      '3.47\u00a0% of 10\u202f000 samples have p below 5 % although the claim is true (the median is 0).',
    );
  });

  it('detects a shift, and gives the proportion of misses', async () => {
    const result = await simulate({ test: 'welch', shiftInSd: 1, n: 20, secondN: 30, replicates: 2_000 });
    expect(result).toMatchObject({ holds: false, effect: 'a shift of 1 SD', sizes: [20, 30] });
    expect(said('simulate', result)).toMatch(
      /detect a shift of 1 SD \(p below 5 %, n = 20 and 30\)\. [\d.]+\u00a0% miss it\.$/,
    );
    const normality = await simulate({ test: 'shapiro-wilk', family: 'uniform', n: 40, replicates: 500 });
    expect(normality.holds).toBe(false);
    expect(said('simulate', normality)).toContain('detect that the claim (the distribution is normal) is false');
  });

  it('by a table that is drawn first where there is no formula', async () => {
    for (const test of ['lilliefors', 'dixon', 'grubbs-pair', 'plot-correlation', 'jarque-bera']) {
      const result = await simulate({ test, n: 12, replicates: 4_000 });
      expect(Math.abs(result.belowAlpha!.share - 0.05)).toBeLessThan(0.018);
      expect(codes(result)).toContain('table');
    }
  });

  it('against a value that is typed', async () => {
    const off = await simulate({ test: 't', parameters: [8, 0.1], claimed: 8.2, n: 12, replicates: 500 });
    expect(off).toMatchObject({ holds: false, claim: 'the mean is 8.2000' });
    expect(off.belowAlpha!.share).toBeGreaterThan(0.98);
    const spread = await simulate({ test: 'chi-square', claimed: 1, n: 12, replicates: 500 });
    expect(spread.holds).toBe(true);
  });
});

describe('coverage of an interval', () => {
  it('keeps what it says of a normal and not of an exponential; the first hundred are kept', async () => {
    const kept = await simulate({ interval: 'mean', parameters: [8, 0.1], n: 10, replicates: 10_000 });
    expect(kept.firsts).toHaveLength(100);
    expect(kept.firsts.every(({ lower, upper, covers }) => covers === (lower <= 8 && upper >= 8))).toBe(true);
    const { count, tooLow, tooHigh, of } = kept.coverage!;
    expect(count + tooLow + tooHigh).toBe(of);
    expect(said('simulate', kept)).toContain(
      '95.4\u00a0% of 10\u202f000 intervals contain the true value 8.0000. That is consistent with the',
    );
    const lopsided = await simulate({ interval: 'mean', family: 'exponential', n: 10, replicates: 10_000 });
    expect(said('simulate', lopsided)).toContain(
      '90.5\u00a0% of 10\u202f000 intervals contain the true value 1.0000. That is fewer than the nominal',
    );
    expect(lopsided.coverage!.tooLow).toBeGreaterThan(5 * lopsided.coverage!.tooHigh);
    expect(simulateTable(kept)[1]).toHaveLength(4);
  });

  it('of a column is of its own mean: the truth is known', async () => {
    const result = await simulate({ interval: 'median', n: 15, replicates: 500 }, thickness);
    expect(result.population).toMatchObject({ size: 40, words: 'the readings of thickness' });
    expect(result.truth).toBe(result.population.median);
    const less = await simulate({ interval: 'exact-share', upper: 103, n: 10, replicates: 300 }, thickness);
    expect(less.coverage!.share).toBeGreaterThan(0.9);
  });
});

describe('what is refused', () => {
  it.each([
    [{ test: 't', statistic: 'mean' }, /Choose one/],
    [{ shift: 1, shiftInSd: 1 }, /not both/],
    [{ column: 'x', from: 'family' }, /Choose the column/],
    [{ from: 'fit' }, /Choose the column/],
    [{ replicates: 1_000_000_000 }, /from 1 to 1000000/],
    [{ n: 0 }, /from 1 to 100000/],
    [{ parameters: [8, -1] }, /standard deviation/],
    [{ parameters: { mean: 8 }, family: 'normal' }, null],
    [{ family: 'binomial', parameters: { trials: 3, probability: 2 } }, /probability/],
    [{ mixedShare: 25 }, /0.02 means 2 %/],
    [{ statistic: 'f' }, /./],
    [{ statistic: 'formula', formula: 'system(1)' }, /formula/],
    [{ ratio: 0 }, /above 0/],
    [{ step: 0 }, /above 0/],
  ])('%j', (request, fault) => {
    const faults = faultOf('simulate', request);
    if (fault === null) expect(faults).toBeUndefined();
    else expect(faults!.join(' ')).toMatch(fault);
  });

  it('with the reason, where it cannot be drawn', async () => {
    expect(await refused('simulate', { n: 41, replacement: 'without' }, thickness)).toBe(
      'A sample of 41 cannot be drawn without replacement from 40 readings. Choose sampling with replacement, or a smaller sample.',
    );
    const same = sampleOf(new Float64Array(5).fill(3));
    expect(await refused('simulate', {}, same)).toContain(
      'All values of the population are equal, so all samples would be the same.',
    );
    expect(await refused('simulate', { family: 'cauchy', test: 'z' })).toContain(
      'The z test of the mean (known standard deviation) needs a standard deviation, and this',
    );
    expect(await refused('simulate', { family: 'cauchy', shiftInSd: 1 })).toContain('unit of the readings');
    expect(await refused('simulate', { test: 'anderson-darling', n: 7 })).toContain('at least 8 readings');
    expect(await refused('simulate', { test: 'dixon', n: 31 })).toContain('at most 30');
    expect(await refused('simulate', { test: 'share' })).toContain('Enter the limits');
    expect(await refused('simulate', { test: 'share', upper: 1e9 })).toContain('Choose other limits.');
    expect(await refused('simulate', { test: 'share', upper: 1, claimed: 5 })).toContain('0.05 means 5 %');
    expect(await refused('simulate', { test: 'paired-t', secondN: 4 })).toContain('groups of equal size');
    expect(await refused('simulate', { statistic: 'formula' })).toContain('Enter a formula');
    expect(await refused('simulate', { interval: 'mean', family: 'cauchy' })).toContain('no true value');
    expect(await refused('simulate', { interval: 'sd', n: 1 })).toContain('at least 2');
    expect(await refused('simulate', { parameters: [1e160, 1] })).toContain('too large');
    expect(await refused('plan', { test: 't' })).toContain('nothing to detect');
    expect(await refused('power-curves', { along: 'n', values: [2.5] })).toContain('must be a whole number');
    expect(await refused('power-curves', { along: 'mixedShare', values: [5] })).toContain('0.05 means 5 %');
    expect(await refused('power-curves', { along: 'shift', family: 'cauchy' })).toContain('Enter the shifts');
  });
});

describe('one sample', () => {
  it('is the one behind its number, with its readings and what is worked out of them', async () => {
    const asked = { test: 't', parameters: [8, 0.1], mixedShare: 0.3, mixture: 'moved', n: 6, seed: 3 };
    const run = await simulate({ ...asked, replicates: 40 });
    for (const number of [1, 17, 40]) {
      const one = await found<OneSampleResult>('simulated-sample', { ...asked, number });
      expect(one.value).toBe(run.dots[number - 1]);
      expect(one.groups[0]!.values).toHaveLength(6);
      expect(one.groups[0]!.strange).toHaveLength(6);
      expect(said('simulated-sample', one)).toMatch(new RegExp(`^Sample ${number}: t = −?[\\d.]+, p [=<] `));
      expect(groupWords(one)[0]).toMatch(/^n = 6, mean [78]\.\d+, SD 0\.\d+$/);
    }
  });

  it('of intervals says whether it covers, of two groups names them', async () => {
    const one = await found<OneSampleResult>('simulated-sample', { interval: 'difference-of-means', n: 4, number: 9 });
    expect(one.groups.map(({ name }) => name)).toEqual(['first', 'second']);
    expect(said('simulated-sample', one)).toContain('Sample 9: −2.5661 to 1.5464, contains the true value.');
    const figure = await found<OneSampleResult>('simulated-sample', { statistic: 'median', number: 2 });
    expect(said('simulated-sample', figure)).toMatch(/^Sample 2: −?[\d.]+\.$/);
  });
});

describe('a population', () => {
  it('is shown with its true mean and sd, as a curve, as steps, or as its readings', async () => {
    const law = await found<PopulationResult>('population', { family: 'gamma', parameters: [4, 0.5] });
    expect(law).toMatchObject({ mean: 2, sd: 1, size: null });
    expect(law.curve!.x.length).toBeGreaterThan(100);
    expect(said('population', law)).toBe('True mean 2.0000, true standard deviation 1.0000.');
    const steps = await found<PopulationResult>('population', { parameters: [8, 0.1], step: 0.05, mixedShare: 0.1 });
    const area = steps.bars.reduce((sum, { from, to, height }) => sum + height * (to - from), 0);
    expect(area).toBeGreaterThan(0.995);
    expect(area).toBeLessThanOrEqual(1 + 1e-9);
    const readings = await found<PopulationResult>('population', {}, thickness);
    expect(readings.bars.reduce((sum, { from, to, height }) => sum + height * (to - from), 0)).toBeCloseTo(1, 12);
    expect(said('population', readings)).toMatch(/^40 readings: true mean /);
    const fitted = await found<PopulationResult>('population', { from: 'fit', family: 'weibull' }, thickness);
    expect(Object.keys(fitted.parameters!)).toEqual(expect.arrayContaining(['shape', 'scale']));
    const cauchy = await found<PopulationResult>('population', { family: 'cauchy' });
    expect(said('population', cauchy)).toContain('No mean and no standard deviation; median 0.');
  });
});

describe('curves', () => {
  it('do several tests on the same samples, with the exact power beside, and read off where it is enough', async () => {
    const result = await found<CurvesResult>('power-curves', {
      ...{ tests: ['t', 'sign', 'signed-rank'], shiftInSd: 0.5, replicates: 4_000 },
    });
    const [t, signs, ranks] = result.curves;
    for (const { exact, lower, upper } of [...t!.points, ...signs!.points]) {
      expect(exact).not.toBeNull();
      expect(lower! - 0.02).toBeLessThan(exact!);
      expect(upper! + 0.02).toBeGreaterThan(exact!);
    }
    expect(ranks!.points.every(({ exact }) => exact === null)).toBe(true);
    // 34 readings are needed by the reference; a straight line of probits lies near.
    expect(Math.ceil(t!.crossing!)).toBe(34);
    expect(said('power-curves', result)).toContain(
      '80 % power against a shift of 0.5 SD is reached at n = 34 (t), n = 35 (signed rank), n =',
    );
    expect(curvesTable(result)).toHaveLength(22);
  });

  it('of errors: the t test on an exponential errs in about 10 % at n = 10', async () => {
    const result = await found<CurvesResult>('power-curves', {
      family: 'exponential',
      values: [10, 100],
      replicates: 20_000,
    });
    const [few] = result.curves[0]!.points;
    expect(few!.holds).toBe(true);
    expect(Math.abs(few!.share! - 0.0993)).toBeLessThan(0.009);
    expect(said('power-curves', result)).toContain(
      'The false-alarm rate exceeds the nominal 5 %: 9.77\u00a0% (t) at n = 10.',
    );
  });

  it.each(['shiftInSd', 'shift', 'ratio', 'mixedShare'])('go along %s, rising', async (along) => {
    const tests = along === 'ratio' ? ['chi-square'] : along === 'mixedShare' ? ['grubbs'] : ['t'];
    const result = await found<CurvesResult>('power-curves', { along, tests, n: 15, replicates: 1_000 });
    const shares = result.curves[0]!.points.map(({ share }) => share!);
    expect(shares.at(-1)!).toBeGreaterThan(shares[0]! + 0.2);
    expect(result.curves[0]!.points[0]!.holds).toBe(true);
  });

  it('along a contamination say in what it is different, from elsewhere too', async () => {
    const asked = { along: 'mixedShare', mixture: 'family', mixedFamily: 'uniform', mixedParameters: [20, 30], n: 20 };
    const result = await found<CurvesResult>('power-curves', { ...asked, tests: ['grubbs'], replicates: 300 });
    expect(result.curves[0]!.points[2]!.share).toBeGreaterThan(0.2);
    const usual = { along: 'mixedShare', mixture: 'family', tests: ['grubbs'], values: [0.5], replicates: 100 };
    expect((await found<CurvesResult>('power-curves', usual)).curves[0]!.points).toHaveLength(1);
    const analysis = analysisById('power-curves') as AnyAnalysis;
    const method = methodOf(analysis, analysis.resolve(analysis.request.parse(asked), NO_READINGS));
    expect(method).toContain(
      'Population: a distribution, the normal distribution with mean 0, standard deviation 1; contamination:',
    );
    expect(method).toContain(
      'Population: a distribution, the normal distribution with mean 0, standard deviation 1; contamination:',
    );
  });

  it('leave out a test where there are too few readings for it, and say so', async () => {
    const tests = ['anderson-darling', 't', 'dixon'];
    const result = await found<CurvesResult>('power-curves', {
      tests,
      family: 'exponential',
      values: [2, 8, 12, 40],
      replicates: 500,
    });
    const shares = result.curves.map(({ points }) => points.map(({ share }) => share !== null));
    expect(shares).toEqual([
      [false, true, true, true],
      [true, true, true, true],
      [false, true, true, false],
    ]);
    expect(codes(result).filter((code) => code === 'not-there')).toHaveLength(2);
    // None is mistaken for another: A² notices an exponential far more often than t errs on it.
    const [a2, t] = result.curves.map(({ points }) => points[3]!.share!);
    expect(a2).toBeGreaterThan(0.9);
    expect(t).toBeLessThan(0.2);
    expect(await refused('power-curves', { tests: ['anderson-darling'], values: [3, 7] })).toContain(
      'The Anderson–Darling test of normality takes at least 8 readings; no sample size here',
    );
  });

  it('cross a chance between two points, on probits', () => {
    const point = (value: number, share: number) => ({
      ...{ value, share, sizes: [value], count: 0, replicates: 1_000, lower: 0, upper: 1 },
      ...{ exact: null, undefined: 0, holds: false },
    });
    expect(crossingOf([point(4, 0.5), point(16, 0.9772498680518208)], 0.8413447460685429, 'n')).toBeCloseTo(9, 6);
    expect(crossingOf([point(4, 0.1), point(16, 0.5)], 0.8, 'n')).toBeNull();
    expect(crossingOf([point(0, 0), point(1, 1)], 0.5, 'shift')).toBeCloseTo(0.5, 12);
  });
});

describe('a plan', () => {
  it('by formula is that of the reference', async () => {
    for (const { shiftInSd, alpha, power, n } of known.sampleSizeOfT) {
      const plan = await found<PlanResult>('plan', { test: 't', shiftInSd, alpha, power });
      expect(plan).toMatchObject({ n, exact: true });
      expect(plan.power).toBeGreaterThanOrEqual(power);
      expect(said('plan', plan)).toMatch(
        /^You need \d+ readings\. With \d+, the t test of the mean detects a shift of /,
      );
    }
  });

  it('by simulation comes near the one by formula: a normal rounded so finely that nothing changes', async () => {
    const plan = await found<PlanResult>('plan', { test: 't', shiftInSd: 0.5, power: 0.8, step: 1e-6 });
    expect(plan.exact).toBe(false);
    expect(plan.atLeast).toBeLessThanOrEqual(34);
    expect(plan.atMost).toBeGreaterThanOrEqual(34);
    expect(Math.abs(plan.n! - 34)).toBeLessThanOrEqual(2);
    // Every size that was tried stands there, and the one told is the least that is enough.
    expect(plan.tried.filter(({ n, power }) => n < plan.n! && power >= 0.8)).toEqual([]);
  });

  it('of a signed rank test on a Weibull, of two groups, of a test without a formula', async () => {
    const weibull = { family: 'weibull', parameters: [2, 0.2], test: 'signed-rank', shift: 0.05, power: 0.9 };
    const plan = await found<PlanResult>('plan', weibull);
    expect(plan.n).toBeGreaterThan(25);
    expect(plan.n).toBeLessThan(60);
    expect(codes(plan)).toContain('asymmetrical');
    const two = await found<PlanResult>('plan', { test: 'welch', shiftInSd: 1 });
    // With one spread 17 are needed in each group (pooled t, exact).
    expect(Math.abs(two.n! - 17)).toBeLessThanOrEqual(1);
    expect(said('plan', two)).toContain(
      'You need 18 readings in each group. With 18, the Welch’s t test of two means detects a',
    );
    // A search that would draw for minutes ends, and says that its number is rough.
    expect(said('plan', { ...two, drawn: 300_400_000, atLeast: 15 })).toContain(
      'You need 18 readings in each group. With 18, the Welch’s t test of two means detects a',
    );
    const dixon = await found<PlanResult>('plan', { test: 'dixon', mixture: 'moved', mixedShare: 0.1, mixedBy: 5 });
    expect(dixon).toMatchObject({ n: null, most: 30 });
    expect(said('plan', dixon)).toContain(
      'With 30 readings, the Dixon’s test does not reach 80 % power to detect that the claim',
    );
  });
});

describe('on the road', () => {
  it('the method names what is drawn from, what is done, and how often', () => {
    const method = (id: string, request: object) => {
      const analysis = analysisById(id) as AnyAnalysis;
      return methodOf(analysis, analysis.resolve(analysis.request.parse(request), thickness));
    };
    expect(method('simulate', { test: 't', parameters: [8, 0.1], mixedShare: 0.05, step: 0.5 })).toBe(
      'Population: a distribution, the normal distribution with mean 8, standard deviation 0.1; contamination: 5 %, a larger standard deviation, 3 times; rounded to a resolution of 0.5. Test: t test of the mean, claimed value the true value, alternative: different. Each sample has 10 readings; shift in SDs: 0, in the unit: 0; ratio of the standard deviations: 1. Simulate 1\u202f000 samples, seed 4711.',
    );
    expect(method('simulate', { column: 'thickness', replacement: 'without', statistic: 'median' })).toContain(
      'Population: the readings of thickness, sampling without replacement; contamination: none;',
    );
    expect(method('power-curves', { tests: ['t', 'sign'], along: 'shiftInSd', values: [0, 1] })).toContain(
      'Tests: t test of the mean and sign test of the median, claimed value the true value, alternative: different; axis: shift in SDs: 0, 1. Each sample has 10 readings; ratio of the standard deviations: 1.',
    );
  });

  it('a longer run goes on with the chunks that are known', async () => {
    let drawn = 0;
    const counting = remembering(
      {
        ...inThisThread,
        chunk: async (order, k) => {
          drawn += order.kernel === 'simulated-samples' ? chunkReplicates(order, k) : 0;
          return performChunk(order, k);
        },
      },
      1_000_000,
    );
    const run = (replicates: number) =>
      drive(counting, { id: 'simulate', request: { test: 't', replicates }, sample: NO_READINGS });
    await run(10_000);
    expect(drawn).toBe(10_000);
    const longer = await run(15_000);
    expect(drawn).toBe(15_000);
    expect(longer).toEqual(await simulate({ test: 't', replicates: 15_000 }));
  });
});
