import { describe, expect, it } from 'vitest';
import { compareFamiliesAnalysis } from '../src/analyses/fit/compare-families.js';
import { notToldApart, type CompareFamiliesResult } from '../src/analyses/fit/compare-families-result.js';
import { comparedRows, comparedTable } from '../src/analyses/fit/compare-families-words.js';
import { inThisThread } from '../src/analyses/registry.js';
import { isRefusal } from '../src/distributions/family.js';
import { fit } from '../src/distributions/fit/fit.js';
import { distribution, familyByName } from '../src/distributions/registry.js';
import { quasiNewton } from '../src/numeric/quasi-newton.js';
import { createStream } from '../src/random/stream.js';
import { isUnavailable } from '../src/road/analysis.js';
import { drive } from '../src/road/runner.js';
import { column, reference } from './reference.js';
import { sampleOf } from './samples.js';

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

  it('say which are not told apart, and that the first was picked', async () => {
    const result = await compared(column('weibull-80'), { replicates: 199 });
    expect(words(result)).toBe(
      'Not told apart by 80 readings: Weibull and smallest extreme value, of 19 families; Weibull ranks first.',
    );
    expect(notToldApart(result).every(({ difference }) => difference <= 2)).toBe(true);
    expect(result.notes.map(({ code }) => code)).toContain('picked');
    const [weibull] = comparedRows(result);
    expect(weibull).toMatchObject({ title: 'Weibull', difference: '0', together: true });
    expect(weibull!.parameters).toBe('shape 6.634 ± 0.58, scale 1427.6 ± 25');
    expect(comparedTable(result)).toHaveLength(1 + result.families.length + result.left.length);
    for (const { small } of result.families) expect(small.expected).toHaveLength(40);
  });

  it('say so where even the best does not fit', async () => {
    const two = Float64Array.from({ length: 120 }, (_, i) => (i % 2 === 0 ? 0 : 50) + Math.sin(i * 12.9898));
    const result = await compared(two, { replicates: 199 });
    expect(words(result)).toContain('even the best is none that they follow');
  }, 60_000);

  it('name what makes no sense for the readings, with the reason', async () => {
    const { families, left } = atOnce(column('normal-40').map((x) => x - 102));
    expect(families.map(({ family }) => family)).not.toContain('lognormal');
    const why = Object.fromEntries(left.map(({ family, reason }) => [family, reason]));
    expect(why.weibull).toContain('−');
    expect(why.f).toBe('It is the law of a test statistic, not of readings.');
    expect(why.beta).toContain('between its ends');
    const few = atOnce(Float64Array.of(1, 2, 3.5, 5));
    expect(Object.fromEntries(few.left.map(({ family, reason }) => [family, reason])).weibull).toBeUndefined();
    expect(few.left.some(({ reason }) => reason.includes('too few to compare 3 parameters'))).toBe(true);
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

describe('likelihoods without a greatest value', () => {
  it('are refused: a generalized extreme value law whose end closes in on the greatest reading', () => {
    const values = new Float64Array(60);
    distribution(familyByName('uniform'), { lower: 0, upper: 1 }).sample(createStream(2, 0), values);
    // Crowded towards the upper end: the shape runs below −1.
    const crowded = values.map((u) => 1 - u ** 3);
    const found = fit(familyByName('generalized-extreme-value'), crowded, { method: 'maximum-likelihood' });
    expect(isRefusal(found) && found.refused).toContain('no greatest value');
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
