import { describe, expect, it } from 'vitest';
import { compareFamiliesAnalysis } from '../../src/analyses/fit/compare-families.js';
import {
  isRejected,
  plausibleOf,
  rejectionLevel,
  type CompareFamiliesResult,
} from '../../src/analyses/fit/compare-families-result.js';
import { comparedRows, comparedTable } from '../../src/analyses/fit/compare-families-words.js';
import { inThisThread } from '../../src/analyses/registry.js';
import { isRefusal } from '../../src/distributions/family.js';
import { fit } from '../../src/distributions/fit/fit.js';
import { distribution, familyByName } from '../../src/distributions/registry.js';
import { quasiNewton } from '../../src/numeric/quasi-newton.js';
import { createStream } from '../../src/random/stream.js';
import { rankedFamilies } from '../../src/analyses/fit/ranked-families.js';
import { fillNormals } from '../../src/random/normal.js';
import { isUnavailable } from '../../src/road/analysis.js';
import { drive } from '../../src/road/runner.js';
import { column, reference } from '../reference.js';
import { sampleOf } from '../samples.js';

const run = (values: Float64Array, settings: object = {}) =>
  drive(inThisThread, {
    id: 'compare-families',
    request: { column: 'force', replicates: 199, ...settings },
    sample: sampleOf(values),
  });
const compared = async (values: Float64Array, settings: object = {}) => {
  const result = await run(values, settings);
  if (isUnavailable(result)) throw new Error(result.reason);
  return result as CompareFamiliesResult;
};
const words = (result: CompareFamiliesResult) =>
  compareFamiliesAnalysis
    .finding(result)
    .map(({ text }) => text)
    .join('');
/** The comparison as it stands before any replicate is drawn. */
function atOnce(values: Float64Array): CompareFamiliesResult {
  const { request } = compareFamiliesAnalysis;
  const step = compareFamiliesAnalysis.run(request.parse({ column: 'force' }), sampleOf(values)).next([]);
  return (step.done ? step.value : step.value.partial) as CompareFamiliesResult;
}

describe('families compared', () => {
  it.each(['weibull-80', 'right-skew-50', 'normal-40'])('rank %s by the AICc of the reference', (name) => {
    const known = reference<Record<string, Record<string, { aicc?: number }>>>('fits')[name]!;
    const result = atOnce(column(name));
    const told = result.families.filter(({ family }) => known[family]?.aicc !== undefined);
    expect(told.length).toBeGreaterThan(5);
    for (const { family, aicc } of told)
      expect(Math.abs(aicc - known[family]!.aicc!), family).toBeLessThan(1e-6 * Math.abs(aicc));
    const order = result.families.map(({ aicc }) => aicc);
    expect(order).toEqual([...order].sort((a, b) => a - b));
    expect(result.families[0]!.difference).toBe(0);
  });

  it('say which are plausible, and that they were ranked on the readings they are tested with', async () => {
    const result = await compared(column('weibull-80'), { replicates: 199 });
    expect(words(result)).toBe(
      '6 of 17 distributions are plausible: Weibull, smallest extreme value, generalized extreme value, logistic and 2 more. 80 readings cannot distinguish them; the first has an AICc weight of 48\u00a0%.',
    );
    const plausible = plausibleOf(result);
    expect(plausible.reduce((sum, { weight }) => sum + weight, 0)).toBeGreaterThanOrEqual(0.95);
    expect(result.families.reduce((sum, { weight }) => sum + weight, 0)).toBeCloseTo(1, 12);
    const [first, second] = result.families;
    expect(second!.weight / first!.weight).toBeCloseTo(Math.exp(-second!.difference / 2), 12);
    expect(result.notes.map(({ code }) => code)).toContain('picked');
    const [weibull] = comparedRows(result);
    expect(weibull).toMatchObject({ title: 'Weibull', difference: '0', plausible: true, support: 'best supported' });
    expect(weibull!.parameters).toBe('shape 6.63 ± 0.58, scale 1428 ± 25');
    expect(comparedTable(result)).toHaveLength(1 + result.families.length + result.apart.length + result.left.length);
    for (const { small } of result.families) expect(small.expected).toHaveLength(40);
  });

  it('say so where even the best does not fit', async () => {
    const two = Float64Array.from({ length: 60 }, (_, i) => (i % 2 === 0 ? 0 : 50) + Math.sin(i * 12.9898));
    const result = await compared(two, { replicates: 199 });
    expect(words(result)).toContain(
      'None of the distributions fits: the Anderson–Darling test rejects even the best by AICc',
    );
  });

  it('name what makes no sense for the readings, with the reason', async () => {
    const { families, left } = atOnce(column('normal-40').map((x) => x - 102));
    expect(families.map(({ family }) => family)).not.toContain('lognormal');
    const why = Object.fromEntries(left.map(({ family, reason }) => [family, reason]));
    expect(why.weibull).toContain('−');
    expect(why.f).toBe('It is the distribution of a test statistic, not of readings.');
    expect(why.beta).toContain('A beta distribution needs all readings between its limits, 0 and 1.');
    const few = atOnce(Float64Array.of(1, 2, 3.5, 5));
    expect(Object.fromEntries(few.left.map(({ family, reason }) => [family, reason])).weibull).toBeUndefined();
    expect(few.left.some(({ reason }) => reason.includes('too few for 3 parameters'))).toBe(true);
    const tiny = await run(Float64Array.of(1, 2, 3));
    expect(isUnavailable(tiny) && tiny.reason).toContain('needs at least 4');
  });

  it('give each p as soon as its own samples are all drawn', () => {
    const partial = atOnce(column('weibull-80'));
    const chunks = (n: number) => Array.from({ length: n }, () => Float64Array.of(1, 0, 0, 0));
    const settings = compareFamiliesAnalysis.request.parse({ column: 'force', replicates: 199 });
    const seen = compareFamiliesAnalysis.glimpse!(settings, partial, [chunks(100), []]);
    expect(seen.families.map(({ pSimulated }) => pSimulated !== null).slice(0, 3)).toEqual([true, false, false]);
    expect(comparedRows(seen)[1]!.p).toBe('…');
  });
});

describe('families whose ends are taken from the readings', () => {
  it('are never ranked: a clean normal sample is not called uniform', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const values = new Float64Array(5 + (seed % 3) * 5);
      fillNormals(createStream(seed, 1), values);
      const { families, apart } = rankedFamilies(sampleOf(values)) as CompareFamiliesResult;
      expect(apart.map(({ family }) => family)).toContain('uniform');
      expect(families.map(({ family }) => family)).not.toContain('uniform');
      expect(families.map(({ family }) => family)).not.toContain('triangular');
    }
  });
});

/** How often they miss the true family is measured by the register of statements. */
describe('the plausible families', () => {
  it('lose one that A² rejects, and keep one whose p lies between a fifth of the level and the level', () => {
    expect(rejectionLevel(0.05)).toBeCloseTo(0.01, 12);
    const p = (pValue: number) => ({
      pSimulated: { pValue, atLeastAsExtreme: 0, replicates: 1, seed: 1, pInterval: [0, 1] },
    });
    expect(isRejected(p(0.005) as never, rejectionLevel(0.05))).toBe(true);
    expect(isRejected(p(0.03) as never, rejectionLevel(0.05))).toBe(false);
    expect(isRejected({ pSimulated: null }, 0.05)).toBe(false);
  });
});

describe('likelihoods without a greatest value', () => {
  it('are refused: a generalized extreme value distribution whose end approaches the maximum', () => {
    const values = new Float64Array(60);
    distribution(familyByName('uniform'), { lower: 0, upper: 1 }).sample(createStream(2, 0), values);
    // Crowded towards the upper end: the shape runs below −1.
    const crowded = values.map((u) => 1 - u ** 3);
    const found = fit(familyByName('generalized-extreme-value'), crowded, { method: 'maximum-likelihood' });
    expect(isRefusal(found) && found.refused).toContain(
      'The likelihood has no maximum: it increases without limit as the upper end approaches the',
    );
  });
});

describe('quasi-Newton steps', () => {
  it('reach the bottom of a bent valley, and of one that is far narrower than its coordinate', () => {
    const rosenbrock = ([x, y]: Float64Array) => 100 * (y! - x! * x!) ** 2 + (1 - x!) ** 2;
    const found = quasiNewton(rosenbrock as (x: Float64Array) => number, Float64Array.of(-1.2, 1))!;
    expect(found.at[0]).toBeCloseTo(1, 3);
    expect(found.at[1]).toBeCloseTo(1, 3);
    const narrow = ([x]: Float64Array) => ((x! - 3) / 1e-7) ** 2;
    expect(quasiNewton(narrow as (x: Float64Array) => number, Float64Array.of(3 + 4e-6))!.at[0]).toBeCloseTo(3, 9);
  });

  it('give up where there is no bottom, or no number', () => {
    expect(quasiNewton(([x]) => x!, Float64Array.of(1))).toBeNull();
    expect(quasiNewton(() => NaN, Float64Array.of(1))).toBeNull();
  });
});
