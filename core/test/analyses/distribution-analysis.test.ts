import { describe, expect, it } from 'vitest';
import { distributionAnalysis } from '../../src/analyses/distributions/distribution.js';
import type { DistributionResult } from '../../src/analyses/distributions/distribution-result.js';
import { QUESTIONS } from '../../src/analyses/distributions/distribution-request.js';
import { complementSentence, readingsSentence } from '../../src/analyses/distributions/distribution-words.js';
import { distributionName } from '../../src/distributions/names.js';
import { articleOf } from '../../src/numeric/grammar.js';
import { methodOf } from '../../src/road/method-sentence.js';
import { isUnavailable } from '../../src/road/analysis.js';
import { advance } from '../../src/analyses/registry.js';
import { toWire } from '../../src/road/wire.js';
import { curveOver, wellPlaced } from '../../src/distributions/curve.js';
import { distribution, familyByName, FAMILIES, parameterFaults } from '../../src/distributions/registry.js';
import { formatPercentOf, formatValue } from '../../src/numeric/format.js';
import { NO_READINGS, type Sample } from '../../src/readings/sample.js';
import { relativeError } from '../reference.js';
import { sampleOf } from '../samples.js';

const TILES = { family: 'normal', parameters: { mean: 8.02, sd: 0.11 } };
const CARTON = { family: 'binomial', parameters: { trials: 20, probability: 0.1 } };

function ask(request: object, sample: Sample = NO_READINGS): DistributionResult {
  const settings = distributionAnalysis.resolve(distributionAnalysis.request.parse(request), sample);
  const stage = advance('distribution', settings, sample, []);
  if (!stage.done || isUnavailable(stage.result)) throw new Error('No answer.');
  // Whatever the question, the result can be kept: no NaN, no Infinity.
  toWire(stage.result);
  return stage.result as DistributionResult;
}

function fault(request: object): { path: string; message: string } {
  const { error } = distributionAnalysis.request.safeParse(request);
  const issue = error!.issues[0]!;
  return { path: issue.path.join('.'), message: issue.message };
}

const words = (request: object, sample?: Sample) =>
  distributionAnalysis
    .finding(ask(request, sample))
    .map(({ text }) => text)
    .join('')
    .replaceAll('\u00a0', ' ');
const method = (request: object) => methodOf(distributionAnalysis, distributionAnalysis.request.parse(request));

describe('the questions', () => {
  it('below, above, between and outside add up', () => {
    // Φ(1.5) and Φ(−2), Abramowitz & Stegun table 26.1.
    expect(ask({ ...TILES, below: 8.02 + 1.5 * 0.11 }).probability).toBeCloseTo(0.9331927987311419, 12);
    expect(ask({ ...TILES, above: 8.02 + 2 * 0.11 }).probability).toBeCloseTo(0.0227501319481792, 12);
    const between = ask({ ...TILES, between: [7.8, 8.2] });
    const outside = ask({ ...TILES, outside: [7.8, 8.2] });
    expect(between.probability + outside.probability).toBeCloseTo(1, 14);
    expect(between.complement).toBe(outside.probability);
    expect(between.otherEnds).toBeUndefined();
  });

  it('within k sd is 68.27, 95.45 and 99.73 %', () => {
    for (const [k, share] of [
      [1, 0.682689492137086],
      [2, 0.954499736103642],
      [3, 0.9973002039367398],
    ] as const) {
      expect(ask({ ...TILES, withinSd: k }).probability).toBeCloseTo(share, 13);
    }
  });

  it('recorded as v takes half a step of the resolution each way, and says so', () => {
    const found = ask({ ...TILES, recordedAs: 8, resolution: 0.1 });
    expect([found.lower, found.upper]).toEqual([7.95, 8.05]);
    const d = distribution(familyByName('normal'), TILES.parameters);
    expect(found.probability).toBeCloseTo(d.cumulative(8.05) - d.cumulative(7.95), 14);
    expect(words({ ...TILES, recordedAs: 8, resolution: 0.1 })).toContain('from 7.95 to just below 8.05');
    // Every recorded value together is everything.
    let sum = 0;
    for (let v = 70; v <= 90; v++) sum += ask({ ...TILES, recordedAs: v / 10, resolution: 0.1 }).probability;
    expect(sum).toBeCloseTo(1, 12);
  });

  it('the inverse questions give back the share they were asked with', () => {
    const low = ask({ ...TILES, lowerShare: 0.1 });
    expect(low.value).toBeCloseTo(8.02 - 1.2815515655446004 * 0.11, 12);
    expect(low.probability).toBeCloseTo(0.1, 14);
    const high = ask({ ...TILES, upperShare: 1e-12 });
    expect(relativeError(high.probability, 1e-12)).toBeLessThan(1e-13);
    const central = ask({ ...TILES, centralShare: 0.95 });
    expect([central.lower, central.upper]).toEqual([
      expect.closeTo(8.02 - 1.959963984540054 * 0.11, 12),
      expect.closeTo(8.02 + 1.959963984540054 * 0.11, 12),
    ]);
  });

  it('at a list of values: density and both tails', () => {
    const { points } = ask({ family: 'gamma', parameters: { shape: 0.5, scale: 1 }, at: [0, 1, -1] });
    // The density has a pole at 0: no number, not Infinity.
    expect(points![0]).toEqual({ x: 0, density: null, cumulative: 0, survival: 1 });
    expect(points![1]!.cumulative).toBeCloseTo(0.8427007929497149, 13);
    expect(points![2]).toEqual({ x: -1, density: 0, cumulative: 0, survival: 1 });
  });

  it('for counts < and ≤ differ', () => {
    const found = ask({ ...CARTON, below: 3 });
    expect(found.probability).toBeCloseTo(0.8670466765656649, 13);
    expect(found.otherEnds).toBeCloseTo(0.6769268051894661, 13);
    const strict = ask({ ...CARTON, below: 3, ends: 'excluded' });
    expect([strict.probability, strict.otherEnds]).toEqual([found.otherEnds, found.probability]);
    expect(complementSentence(found)).toContain(
      'The other 13.3\u00a0% are more than 3. For fewer than 3, it is 67.69\u00a0%.',
    );
    expect(ask({ ...CARTON, above: 3 }).probability + strict.probability).toBeCloseTo(1, 14);
    const outside = ask({ ...CARTON, outside: [1, 4] });
    const between = ask({ ...CARTON, between: [1, 4] });
    expect(outside.probability + between.probability).toBeCloseTo(1, 14);
    expect(ask({ ...CARTON, between: [1, 4], ends: 'excluded' }).probability).toBeCloseTo(
      between.probability - dice(1) - dice(4),
      13,
    );
    expect(ask({ ...CARTON, below: 3.7 }).probability).toBe(found.probability);
  });
  const dice = (k: number) => distribution(familyByName('binomial'), CARTON.parameters).density(k);

  it('moments replace the parameters where they determine them', () => {
    const found = ask({ family: 'gamma', moments: { mean: 5, sd: 2 }, below: 5 });
    expect(found.parameters.shape).toBeCloseTo(6.25, 12);
    expect(found.parameters.scale).toBeCloseTo(0.8, 12);
    const same = ask({ family: 'normal', moments: { mean: 1, variance: 4 }, below: 1 });
    expect(same.parameters).toEqual({ mean: 1, sd: 2 });
    const shifted = ask({ family: 'weibull', moments: { mean: 12, sd: 1, given: { threshold: 10 } }, below: 12 });
    expect(shifted.mean.value).toBeCloseTo(12, 9);
    expect(shifted.parameters.threshold).toBe(10);
  });

  it('without parameters a family starts from its usual ones, and they are written into the request', () => {
    const request = distributionAnalysis.request.parse({ family: 'weibull', below: 1 });
    expect(distributionAnalysis.resolve(request, NO_READINGS).parameters).toEqual({ shape: 2, scale: 1, threshold: 0 });
  });

  it('every family answers every question', () => {
    for (const { family } of FAMILIES) {
      for (const question of QUESTIONS) {
        const value = { between: [1, 2], outside: [1, 2], at: [1], recordedAs: 1 }[question as string] ?? 0.4;
        const request = { family, [question]: value, ...(question === 'recordedAs' ? { resolution: 1 } : {}) };
        const settings = distributionAnalysis.request.parse(request);
        const stage = advance('distribution', distributionAnalysis.resolve(settings, NO_READINGS), NO_READINGS, []);
        if (!stage.done) throw new Error('not done');
        const wire = toWire(stage.result) as { available: boolean; probability: number };
        if (family === 'cauchy' && question === 'withinSd') expect(wire.available).toBe(false);
        else expect(wire.probability).toBeGreaterThanOrEqual(0);
      }
    }
  });
});

describe('beside readings', () => {
  const sample = sampleOf(Float64Array.of(7.9, 8.0, 8.1, 8.2, 8.2, 8.3));

  it('counts them in the same region, the limits as chosen, with an exact interval', () => {
    const found = ask({ ...TILES, above: 8.2, column: 'x' }, sample);
    expect(found.readings).toMatchObject({ n: 6, count: 3, share: 0.5 });
    // Clopper & Pearson (1934) for 3 of 6.
    expect(found.readings!.interval[0]).toBeCloseTo(0.11811724875702556, 10);
    expect(found.readings!.interval[1]).toBeCloseTo(0.8818827512429746, 10);
    expect(ask({ ...TILES, above: 8.2, ends: 'excluded', column: 'x' }, sample).readings!.count).toBe(1);
    expect(ask({ ...TILES, outside: [8, 8.2], column: 'x' }, sample).readings!.count).toBe(2);
    expect(ask({ ...TILES, outside: [8, 8.2], ends: 'included', column: 'x' }, sample).readings!.count).toBe(5);
    expect(ask({ ...TILES, recordedAs: 8.2, resolution: 0.1, column: 'x' }, sample).readings!.count).toBe(2);
  });

  it('compares observed with expected values', () => {
    const said = readingsSentence(ask({ ...TILES, above: 8.2, column: 'x' }, sample))
      .map(({ text }) => text)
      .join('');
    expect(said).toContain('3 of 6');
    expect(said).toContain(
      'Of the readings of thickness, 3 of 6 (50\u00a0%) are in this range, 95 % confidence interval',
    );
    expect(readingsSentence(ask({ ...TILES, above: 8.2 }))).toEqual([]);
  });
});

describe('answers in words', () => {
  it('spell the direction out', () => {
    expect(words({ ...TILES, above: 8.17 })).toBe('8.634 % of values are above 8.17.');
    expect(words({ ...TILES, upperShare: 0.1 })).toBe('10 % of values are above 8.160971.');
    expect(words({ ...TILES, centralShare: 0.9 })).toContain(
      'Range 7.839066 to 8.200934 contains the middle 90 % of values, with equal proportions',
    );
    expect(words({ ...CARTON, below: 3 })).toBe('86.7 % of values are at most 3.');
    expect(words({ ...CARTON, between: [1, 3] })).toContain('74.55 % of values are from 1 to 3 (limits included).');
    expect(words({ ...CARTON, between: [1, 3], ends: 'excluded' })).toContain('between 1 and 3 (limits excluded)');
    expect(words({ ...TILES, at: [8, 9] })).toContain('2 values');
  });

  it('repeat the question as the method', () => {
    expect(method({ ...TILES, between: [7.8, 8.2], column: 'thickness' })).toBe(
      'For a normal distribution with mean 8.02 and standard deviation 0.11, what is the probability of a value between 7.8 and 8.2? For comparison: the readings of thickness.',
    );
    expect(method({ ...CARTON, above: 3 })).toContain('what is the probability of at least 3?');
    expect(method({ family: 'gamma', moments: { mean: 5, variance: 4 }, lowerShare: 0.25 })).toContain(
      'mean 5 and variance 4',
    );
    expect(distributionName('exponential', { scale: 2, threshold: 0 })).toBe(
      'an exponential distribution with scale 2',
    );
    expect(distributionName('f', { df1: 2, df2: 3 })).toBe('an F distribution with df 1 2 and df 2 3');
  });

  it('say what cannot be given: beyond the support, no moments, too small a chance', () => {
    const codes = (request: object) => ask(request).notes.map(({ code }) => code);
    expect(codes({ family: 'weibull', parameters: { shape: 2, scale: 1, threshold: 5 }, between: [4, 6] })).toEqual([
      'lower-beyond',
    ]);
    expect(codes({ family: 'uniform', between: [0.5, 3] })).toEqual(['upper-beyond']);
    expect(codes({ family: 'normal', below: -60 })).toEqual(['underflow']);
    expect(codes({ family: 'cauchy', below: 1 })).toEqual(['no-mean']);
    expect(codes({ family: 'student-t', parameters: { df: 2 }, below: 1 })).toEqual(['infinite-variance']);
    expect(codes({ family: 'f', parameters: { df1: 2, df2: 2 }, below: 1 })).toEqual(['infinite-mean']);
    expect(ask({ family: 'cauchy', below: 1 }).mean).toEqual({ value: null, reason: 'does not exist' });
    expect(ask({ family: 'student-t', parameters: { df: 2 }, below: 1 }).variance).toEqual({
      value: null,
      reason: 'infinite',
    });
  });

  it('write numbers so that none is misread', () => {
    expect(formatPercentOf(1 - 1e-9, 1e-9)).toBe('all but 1.00 × 10⁻⁷\u00a0%');
    expect(formatPercentOf(2e-12)).toBe('2.00 × 10⁻¹⁰\u00a0%');
    expect(formatPercentOf(0.9999)).toBe('99.99\u00a0%');
    expect([8.02, -0.5, 1e12, 0, 123456789].map(formatValue)).toEqual([
      '8.02',
      '\u22120.5',
      '1.0000 × 10¹²',
      '0',
      '123456800',
    ]);
  });
});

describe('bad input', () => {
  it.each([
    [{ ...TILES }, 'below', 'Ask one question'],
    [{ ...TILES, below: 1, above: 2 }, 'above', 'not 2'],
    [{ family: 'normal', parameters: { mean: 0, sd: 0 }, below: 1 }, 'parameters.sd', 'above 0, not 0'],
    [{ family: 'normal', parameters: { mean: 0, sd: -2 }, below: 1 }, 'parameters.sd', 'above 0, not -2'],
    [{ ...TILES, between: [8, 8] }, 'between.1', 'The lower limit must be below the upper limit.'],
    [{ ...TILES, outside: [9, 8] }, 'outside.1', 'The lower limit must be below the upper limit.'],
    [{ ...TILES, lowerShare: 0 }, 'lowerShare', '0.25 means 25 %'],
    [{ ...TILES, upperShare: 1 }, 'upperShare', 'A proportion must lie between 0 and 1, exclusive; 0.25 means 25 %.'],
    [{ ...TILES, centralShare: 1.2 }, 'centralShare', 'between 0 and 1'],
    [{ ...TILES, lowerShare: -1 }, 'lowerShare', 'between 0 and 1'],
    [{ ...TILES, recordedAs: 8 }, 'resolution', 'A recorded value needs a resolution.'],
    [
      { family: 'normal', moments: { mean: 1 }, below: 1 },
      'moments',
      'Give either the standard deviation or the variance.',
    ],
    [
      { family: 'beta', moments: { mean: 0.5, sd: 0.9 }, below: 0.5 },
      'moments',
      'No beta distribution has a standard deviation this large between these limits.',
    ],
    [
      { family: 'cauchy', moments: { mean: 0, sd: 1 }, below: 1 },
      'moments',
      'The Cauchy distribution is not determined by its mean and standard deviation.',
    ],
    [{ ...TILES, moments: { mean: 1, sd: 1 }, below: 1 }, 'moments', 'either parameters or moments'],
    [{ ...CARTON, parameters: { trials: 20, probability: 1.2 }, below: 1 }, 'parameters.probability', 'not 1.2'],
  ])('%o says where: %s', (request, path, message) => {
    const found = fault(request);
    expect(found.path).toBe(path);
    expect(found.message).toContain(message);
  });

  it('a family without an sd has none to count from', () => {
    const settings = distributionAnalysis.request.parse({ family: 'cauchy', withinSd: 2 });
    const stage = advance('distribution', settings, NO_READINGS, []);
    expect(stage.done && isUnavailable(stage.result) && stage.result.reason).toContain(
      'This distribution has no standard deviation, because its tails are too heavy. Ask for the',
    );
  });
});

describe('the picture', () => {
  it('is well placed for every family: the curve is seen to rise and to fall', () => {
    for (const { family, parameters } of FAMILIES) {
      const found = familyByName(family);
      const usual = Object.fromEntries(parameters.map(({ name, usual: value }) => [name, value]));
      const d = distribution(found, usual);
      const window = wellPlaced(found, d);
      expect(window.from).toBeLessThan(d.quantile(0.1));
      expect(window.to).toBeGreaterThan(d.quantile(0.9));
      // Not lost in a corner either: the middle half takes up a visible part.
      expect((d.quantile(0.75) - d.quantile(0.25)) / (window.to - window.from)).toBeGreaterThan(0.07);
      const { x, y } = curveOver(found, d, window, 'density');
      expect(x.length).toBe(y.length);
      expect(y.every((v) => Number.isFinite(v) && v >= 0)).toBe(true);
      const steps = curveOver(found, d, window, 'cumulative').y;
      expect(steps.every((v, i) => i === 0 || v >= steps[i - 1]!)).toBe(true);
    }
  });

  it('cuts a pole off instead of flattening the rest', () => {
    const found = familyByName('gamma');
    const { y } = curveOver(found, distribution(found, { shape: 0.2, scale: 1 }), { from: -0.1, to: 3 }, 'density');
    expect(Math.max(...y)).toBeLessThan(40);
  });

  it('draws a wide discrete family as a curve of at most 400 numbers', () => {
    const found = familyByName('binomial');
    const d = distribution(found, { trials: 1e9, probability: 0.3 });
    const curve = curveOver(found, d, wellPlaced(found, d), 'density');
    expect(curve.bars).toBe(false);
    expect(curve.x.length).toBeLessThanOrEqual(401);
  });

  it('has articles by the sound of the name', () => {
    const articles = FAMILIES.map(({ title }) => `${articleOf(title)} ${title}`);
    for (const one of ['a uniform', 'an inverse Gaussian', 'an F', 'an exponential', 'a chi-square', 'a normal']) {
      expect(articles).toContain(one);
    }
    expect(articles.filter((words) => words.startsWith('an '))).toEqual(
      articles.filter((words) => /^an? (exponential|inverse Gaussian|F)$/.test(words)),
    );
  });

  it('begins a sentence with a capital, and counts in the plural', () => {
    const nearly = ask({ parameters: { mean: 0, sd: 1 }, below: 9 });
    expect(distributionAnalysis.finding(nearly)[0]!.text).toMatch(/^All but .* of values$/);
    const hardly = ask({ parameters: { mean: 0, sd: 1 }, above: 9 });
    expect(complementSentence(hardly)).toMatch(/^All others, all but .* of values, are below 9\.$/);
    expect(parameterFaults(familyByName('binomial'), { trials: 0.5, probability: 0.2 })[0]!.message).toMatch(
      /^The trials are a whole number/,
    );
  });
});
