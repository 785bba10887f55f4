import { CONTINUOUS } from '../../src/distributions/measured.js';
import { describe, expect, it } from 'vitest';
import { fittingOf } from '../../src/analyses/fit/family-settings.js';
import { lawFigures, readOff, readOffWords } from '../../src/analyses/fit/law-figures.js';
import { plotPicture, plotTable } from '../../src/analyses/fit/plot-picture.js';
import { readPlot, type ProbabilityPlotResult } from '../../src/analyses/fit/plot-result.js';
import { probabilityPlotAnalysis } from '../../src/analyses/fit/probability-plot.js';
import { inThisThread } from '../../src/analyses/registry.js';
import { isRefusal } from '../../src/distributions/family.js';
import { deltaError } from '../../src/distributions/fit/delta.js';
import { fit } from '../../src/distributions/fit/fit.js';
import { fittingKind, refitter } from '../../src/distributions/fit/refit.js';
import { distribution, familyByName } from '../../src/distributions/registry.js';
import { normalQuantile } from '../../src/numeric/standard-normal.js';
import { familyScale } from '../../src/probability-plot/family-scale.js';
import { quantileInterval, simulateOrderedShares } from '../../src/probability-plot/fitted-band.js';
import { bandRanks, calibrateBand } from '../../src/probability-plot/whole-plot-band.js';
import { createStream } from '../../src/random/stream.js';
import { isUnavailable } from '../../src/road/analysis.js';
import { methodOf } from '../../src/road/method-sentence.js';
import { drive } from '../../src/road/runner.js';
import { CASES } from '../distributions/families.js';
import { column } from '../reference.js';
import { sampleOf } from '../samples.js';

const run = (values: Float64Array, settings: object = {}) =>
  drive(inThisThread, {
    id: 'probability-plot',
    request: { column: 'force', ...settings },
    sample: sampleOf(values),
  });
const plot = async (values: Float64Array, settings: object = {}) => {
  const result = await run(values, settings);
  if (isUnavailable(result)) throw new Error(result.reason);
  return result as ProbabilityPlotResult;
};
/** The parameter sets of a family that between them reach every branch. */
const distributionsOf = (name: string) =>
  CASES.filter(({ family }) => family.family === name).map(({ parameters }) => parameters);
const drawn = (family: string, parameters: Record<string, number>, n: number, seed = 1) => {
  const values = new Float64Array(n);
  distribution(familyByName(family), parameters).sample(createStream(seed, 0), values);
  return values;
};

describe('the paper of a family', () => {
  it.each(CONTINUOUS.map(({ family }) => family))('makes %s a straight line, both tails alike', (name) => {
    const family = familyByName(name);
    for (const parameters of distributionsOf(name)) {
      const law = distribution(family, parameters);
      const scale = familyScale(family, parameters);
      for (const p of [1e-4, 0.01, 0.3, 0.5, 0.9, 0.999]) {
        const value = p < 0.5 ? law.quantile(p) : law.survivalQuantile(1 - p);
        const onLine = scale.intercept + scale.slope * scale.scoreOf(p, 1 - p);
        const size = Math.max(Math.abs(onLine), scale.slope, 1e-3);
        expect(Math.abs(scale.placeOf(value) - onLine) / size, `${name} ${p}`).toBeLessThan(1e-8);
        expect(Math.abs(scale.readingAt(scale.placeOf(value)) - value)).toBeLessThan(
          1e-9 * Math.max(1, Math.abs(value)),
        );
      }
    }
  });

  it('has scores free of the parameters where location and scale are all there is', () => {
    const weibull = familyByName('weibull');
    const [a, b] = [
      { shape: 0.7, scale: 3 },
      { shape: 9, scale: 1e4 },
    ].map((p) => familyScale(weibull, p));
    // log(−log(1 − 0.5)) = log log 2
    for (const scale of [a!, b!]) expect(scale.scoreOf(0.5)).toBeCloseTo(Math.log(Math.log(2)), 14);
    expect(familyScale(familyByName('logistic'), { location: 4, scale: 2 }).scoreOf(0.75)).toBeCloseTo(Math.log(3), 13);
  });
});

describe('fitting again and again', () => {
  it.each(['generalized-extreme-value', 'birnbaum-saunders', 'cauchy', 'student-t', 'f'])(
    'comes as high as the careful search for %s',
    (name) => {
      const family = familyByName(name);
      const [parameters] = distributionsOf(name);
      const refit = refitter({ family: name, given: {}, estimateThreshold: false });
      const law = distribution(family, parameters!);
      const stream = createStream(8, 0);
      const x = new Float64Array(40);
      for (let round = 0; round < 5; round++) {
        law.sample(stream, x);
        x.sort();
        const careful = fit(family, x, { method: 'maximum-likelihood', errors: false });
        const quick = refit(x);
        if (isRefusal(careful) || isRefusal(quick)) throw new Error('refused');
        const own = family.of(quick);
        const reached = x.reduce((sum, v) => sum + own.logDensity(v), 0);
        expect(careful.logLikelihood - reached).toBeLessThan(1e-6);
      }
    },
  );

  it('divides by n − 1 for a normal and a normal of logarithms, as the tests of normality do', () => {
    const x = column('right-skew-50');
    const logs = x.map(Math.log);
    const sd = (v: Float64Array) => {
      const mean = v.reduce((a, b) => a + b) / v.length;
      return Math.sqrt(v.reduce((a, b) => a + (b - mean) ** 2, 0) / (v.length - 1));
    };
    const found = (name: string) => refitter({ family: name, given: {}, estimateThreshold: false })(x);
    expect(found('normal')).toMatchObject({ sd: expect.closeTo(sd(x), 12) as number });
    expect(found('lognormal')).toMatchObject({ logSd: expect.closeTo(sd(logs), 12) as number });
  });
});

describe('what is given and what is found', () => {
  it('leaves a given spread as it is given', async () => {
    const { law } = await plot(column('normal-40'), { parameters: { sd: 3 }, band: 'none' });
    expect(law).toMatchObject({ estimated: ['mean'], parameters: { sd: 3 } });
    const lognormal = await plot(column('right-skew-50'), {
      family: 'lognormal',
      parameters: { logSd: 0.5 },
      band: 'none',
    });
    expect(lognormal.law.parameters.logSd).toBe(0.5);
  });

  it('is the same for the readings and for every sample: what may be left out of a claim is claimed too', async () => {
    const asked = { family: 'student-t', parameters: { df: 5 }, threshold: 'none' } as const;
    const fitting = fittingOf(asked);
    expect([fittingKind(fitting), fitting.given]).toEqual(['claimed', { df: 5, location: 0, scale: 1 }]);
    const { law } = await plot(drawn('student-t', { df: 5 }, 30), { ...asked, band: 'none' });
    expect([law.estimated, law.parameters]).toEqual([[], fitting.given]);
    expect(refitter(fitting)(drawn('student-t', { df: 5 }, 30).sort())).toEqual(fitting.given);
  });

  it('reports how it is fitted, so that the number of replicates fits the time', () => {
    const kind = (family: string, parameters?: object, threshold: 'none' | 'estimated' = 'none') =>
      fittingKind(fittingOf({ family, threshold, ...(parameters ? { parameters: { ...parameters } } : {}) }));
    expect([kind('gamma'), kind('weibull', { shape: 2 }), kind('cauchy')]).toEqual(['closed', 'searched', 'searched']);
    expect([kind('triangular'), kind('gamma', undefined, 'estimated')]).toEqual(['careful', 'careful']);
    // With one given the other is found as well as in closed form.
    const x = column('weibull-80').sort();
    const [both, one] = [{}, { shape: 6.634 }].map((given) =>
      refitter({ family: 'weibull', given, estimateThreshold: false })(x),
    );
    expect((one as { scale: number }).scale / (both as { scale: number }).scale).toBeCloseTo(1, 4);
  });
});

describe('intervals of what is read off', () => {
  it('of a normal quantile have the error s√(1/n + z²/2n)', () => {
    const [n, sd] = [40, 3];
    const estimated = {
      parameters: { mean: 10, sd },
      estimated: ['mean', 'sd'],
      covariance: [
        [(sd * sd) / n, 0],
        [0, (sd * sd) / (2 * n)],
      ],
    };
    const z = normalQuantile(0.9);
    const error = deltaError(familyByName('normal'), estimated, (law) => law.quantile(0.9));
    expect(error).toBeCloseTo(sd * Math.sqrt(1 / n + (z * z) / (2 * n)), 7);
  });

  it('of a Weibull quantile hold the true one in about 95 of 100 samples', () => {
    const family = familyByName('weibull');
    const truth = distribution(family, { shape: 2, scale: 10 }).quantile(0.1);
    let held = 0;
    for (let seed = 0; seed < 300; seed++) {
      const found = fit(family, drawn('weibull', { shape: 2, scale: 10 }, 80, seed), { method: 'maximum-likelihood' });
      if (isRefusal(found)) throw new Error(found.refused);
      const { lower, upper } = quantileInterval('weibull', found, 0.1, 0.95)!;
      if (lower < truth && truth < upper) held++;
    }
    // 0.95 less what 80 readings fall short of it, ± 4 errors of 300.
    expect(held / 300).toBeGreaterThan(0.88);
    expect(held / 300).toBeLessThan(0.99);
  });

  it('are read both ways, and there are none of a claim', async () => {
    const result = await plot(column('weibull-80'), { family: 'weibull', band: 'none' });
    const byShare = readOff(result, { share: 0.1 }, 0.95)!;
    const { shape, scale } = result.law.parameters;
    expect(byShare.value).toBeCloseTo(scale! * (-Math.log(0.9)) ** (1 / shape!), 8);
    const byValue = readOff(result, { value: byShare.value }, 0.95)!;
    expect(byValue.share).toBeCloseTo(0.1, 12);
    expect(byValue.shareInterval!.lower).toBeLessThan(0.1);
    expect(byValue.shareInterval!.upper).toBeGreaterThan(0.1);
    expect(readOffWords(result, byShare, 0.95)).toContain(
      '95 % confidence interval of the 10\u00a0% quantile: 942.10 to 1097.6\u00a0mm; of the proportion',
    );
    const claim = await plot(column('weibull-80'), { family: 'weibull', parameters: [6, 1400], band: 'none' });
    expect(readOff(claim, { share: 0.1 }, 0.95)!.valueInterval).toBeNull();
    expect(readOff(claim, { value: -5 }, 0.95)).toBeNull();
  });
});

describe('bands of any family', () => {
  it.each([
    ['weibull', { shape: 1.5, scale: 2 }, 10],
    ['gamma', { shape: 2, scale: 1 }, 12],
    ['exponential', { scale: 3 }, 20],
  ] as const)('the whole plot of %s is held by the share of new samples that was promised', (family, parameters, n) => {
    const ranks = bandRanks(n);
    const fitting = { family, given: {}, estimateThreshold: false };
    const made = (seed: number) =>
      simulateOrderedShares({ n, ranks, fitting, parameters, step: null }, createStream(seed, 0), 4_000);
    const band = calibrateBand([made(1)], ranks, 0.9);
    const fresh = made(2);
    let inside = 0;
    for (let r = 0; r < 4_000; r++) {
      if (ranks.every((_, j) => fresh[r * n + j]! >= band.lower[j]! && fresh[r * n + j]! <= band.upper[j]!)) inside++;
    }
    expect(Math.abs(inside / 4_000 - 0.9)).toBeLessThan(4 * Math.sqrt((2 * 0.09) / 4_000));
  });

  it('for each reading alone leave out the share of readings that was given', async () => {
    let out = 0;
    for (let seed = 0; seed < 60; seed++) {
      const result = await plot(drawn('weibull', { shape: 2, scale: 1 }, 50, seed), {
        family: 'weibull',
        parameters: { shape: 2, scale: 1 },
        band: 'pointwise',
        confidence: 0.8,
      });
      out += result.band!.outsideCount;
    }
    // Neighbours go together: wider than a binomial of 3 000.
    expect(Math.abs(out / 3_000 - 0.2)).toBeLessThan(0.05);
  });

  it('on the line narrow where the readings are and name none outside; of a claim there is none', async () => {
    const result = await plot(column('weibull-80'), { family: 'weibull', band: 'line' });
    const { lower, upper, outsideCount } = result.band!;
    const width = lower.map((low, i) => upper[i]! - low);
    expect(width[40]!).toBeLessThan(width[0]!);
    expect(outsideCount).toBe(0);
    const claim = await plot(column('weibull-80'), { family: 'weibull', parameters: [6, 1400], band: 'line' });
    expect(claim.band).toBeNull();
    expect(claim.notes.map(({ code }) => code)).toContain('no-line-band');
  });

  it('of a uniform are free at its ends, which are those of the readings', async () => {
    const result = await plot(drawn('uniform', { lower: 3, upper: 4 }, 30), { family: 'uniform', replicates: 999 });
    expect(result.band!.simulated!.coverage).toBeGreaterThan(0.949);
    expect(result.band!.outsideCount).toBe(0);
  });
});

describe('analysis probability-plot of any family', () => {
  it('estimates, claims, and finds thresholds; its sentence says which', async () => {
    const force = column('weibull-80');
    const estimated = await plot(force, { family: 'weibull', band: 'none' });
    expect(estimated.law.estimated).toEqual(['shape', 'scale']);
    expect(estimated.correlation).toBeGreaterThan(0.98);
    const claimed = await plot(force, { family: 'weibull', parameters: { shape: 6, scale: 1400 }, band: 'none' });
    expect(claimed.law).toMatchObject({ estimated: [], parameters: { shape: 6, scale: 1400, threshold: 0 } });
    const partly = await plot(force, { family: 'weibull', parameters: { shape: 6 }, band: 'none' });
    expect(partly.law.estimated).toEqual(['scale']);
    const moved = await plot(force, { family: 'weibull', threshold: 'estimated', band: 'none' });
    expect(moved.law.estimated).toContain('threshold');
    const request = probabilityPlotAnalysis.request.parse({
      column: 'force',
      family: 'weibull',
      parameters: [6, 1400],
      band: 'none',
    });
    expect(methodOf(probabilityPlotAnalysis, request)).toBe(
      'Probability plot of force, midpoint positions, scale of the Weibull distribution with parameters shape 6, scale 1400, axis: percentages, readings on the horizontal axis, with the line of the fitted distribution and no band.',
    );
  });

  it('refuses parameters by name, by number and by range, in words', () => {
    const why = (settings: object) =>
      probabilityPlotAnalysis.request
        .safeParse({ column: 'x', ...settings })
        .error!.issues.map(({ message }) => message);
    expect(why({ family: 'gamma', parameters: [1] })).toEqual([
      'A gamma distribution takes shape, scale, in this order, then threshold optionally.',
    ]);
    expect(why({ family: 'normal', parameters: [8, -1] })).toEqual([
      'The standard deviation is a number above 0, not -1.',
    ]);
    expect(why({ family: 'normal', parameters: { mean: 8, spread: 2 } })[0]).toContain('has no parameter “spread”');
    expect(why({ family: 'poisson' })).toHaveLength(1);
  });

  it('says why readings cannot follow a family', async () => {
    const result = await run(Float64Array.of(-1, 2, 3, 4), { family: 'weibull' });
    expect(isUnavailable(result) && result.reason).toContain('−1');
    const outside = await run(Float64Array.of(1, 2, 3, 9), { family: 'uniform', parameters: [0, 5] });
    expect(isUnavailable(outside) && outside.reason).toContain('impossible');
  });

  it('draws lines through the quartiles and by least squares', async () => {
    const values = column('normal-40');
    const quartiles = (await plot(values, { line: 'quartiles', band: 'none' })).line;
    const sorted = [...values].sort((a, b) => a - b);
    const q = (p: number) => {
      const at = p * 39;
      return sorted[Math.floor(at)]! + (at - Math.floor(at)) * (sorted[Math.floor(at) + 1]! - sorted[Math.floor(at)]!);
    };
    expect(quartiles.slope).toBeCloseTo((q(0.75) - q(0.25)) / (2 * normalQuantile(0.75)), 10);
    expect(quartiles.intercept).toBeCloseTo((q(0.25) + q(0.75)) / 2, 10);
    const { line, readings, scores } = await plot(values, { line: 'least-squares', band: 'none' });
    const residuals = [...readings].map((x, i) => x - line.intercept - line.slope * scores[i]!);
    expect(Math.abs(residuals.reduce((a, b) => a + b))).toBeLessThan(1e-10);
    expect(Math.abs(residuals.reduce((a, r, i) => a + r * scores[i]!, 0))).toBeLessThan(1e-10);
  });

  it('gives the proportion outside the limits with its interval', async () => {
    const values = column('normal-40');
    const limits = { lowerLimit: 95, target: 102, upperLimit: 110 };
    const result = await plot(values, { ...limits, band: 'none' });
    const { mean, sd } = result.law.parameters;
    const law = distribution(familyByName('normal'), { mean: mean!, sd: sd! });
    expect(result.limits.outside).toBeCloseTo(law.cumulative(95) + law.survival(110), 14);
    expect(result.limits.interval!.lower).toBeLessThan(result.limits.outside!);
    expect(lawFigures(result).map(({ name }) => name)).toEqual(['mean', 'standard deviation', 'outside the limits']);
    expect(lawFigures(await plot(values, { band: 'none' })).map(({ name }) => name)).toEqual([
      'mean',
      'standard deviation',
    ]);
  });
});

describe('the plot in its forms', () => {
  it('shows observed against expected at equal scales, and how far off', async () => {
    const result = await plot(column('weibull-80'), { family: 'weibull', replicates: 499 });
    const equal = plotPicture({ ...result, axis: 'quantiles' });
    expect(equal.equal).toBe(true);
    expect([equal.across.min, equal.across.max]).toEqual([equal.up.min, equal.up.max]);
    const off = plotPicture({ ...result, axis: 'difference' });
    expect([off.across.of, off.up.of]).toEqual(['expected', 'difference']);
    const table = plotTable(result).slice(1) as number[][];
    table.forEach(([, , , , , , difference], i) => expect(off.points.up[i]).toBeCloseTo(difference!, 9));
    for (const picture of [equal, off]) expect([...picture.outside]).toEqual([...plotPicture(result).outside]);
    const turned = plotPicture({ ...result, sides: 'readings-up' });
    expect([turned.across.of, turned.up.of]).toEqual(['percent', 'readings']);
  });

  it('has round readings along an axis of logarithms', async () => {
    const wide = await plot(drawn('lognormal', { logMean: 2, logSd: 1.5 }, 60), { family: 'lognormal', band: 'none' });
    const ticks = plotPicture(wide).across.ticks!;
    expect(ticks.length).toBeGreaterThan(2);
    for (const { at, value } of ticks) {
      expect(at).toBeCloseTo(Math.log(value), 12);
      expect(['1', '2', '5']).toContain(String(Number(value.toExponential().split('e')[0])));
    }
    const narrow = plotPicture(await plot(column('weibull-80'), { family: 'weibull', band: 'none' })).across.ticks!;
    const steps = narrow.slice(1).map(({ value }, i) => value - narrow[i]!.value);
    expect(new Set(steps).size).toBe(1);
  });

  it('reads what was kept before there were other families', () => {
    const old = {
      ...{ available: true, n: 2, missing: 0, setAside: 0, unit: '', resolution: null, mean: 2, sd: 1, correlation: 1 },
      ...{ rows: [1, 2], readings: [1, 3], positions: [0.25, 0.75], scores: [-0.67, 0.67], band: null, notes: [] },
    };
    const read = readPlot(old);
    expect(read.law.parameters).toEqual({ mean: 2, sd: 1 });
    expect(plotTable(old as never)[1]).toEqual([1, 1, 1, 0.25, -0.67, 2 - 0.67, 1 - (2 - 0.67)]);
  });
});
