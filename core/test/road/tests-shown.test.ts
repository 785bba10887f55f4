import { describe, expect, it } from 'vitest';
import { analysisById, inThisThread } from '../../src/analyses/registry.js';
import { smallBins } from '../../src/describe/small-bins.js';
import type { Sample } from '../../src/readings/sample.js';
import { drive } from '../../src/road/runner.js';
import { testsShown } from '../../src/road/tests-shown.js';
import { samplesBeside } from '../../src/table/split.js';
import { column } from '../reference.js';
import { sampleOf } from '../samples.js';

const sample = { ...sampleOf(column('normal-40')), resolution: 0.001 };
const beside = (...names: string[]) => samplesBeside(names.map((name) => ({ ...sample, name })));

async function shown(id: string, asked: object, of: Sample): Promise<number> {
  const analysis = analysisById(id);
  const request = analysis.resolve(analysis.request.parse({ column: 'a', ...asked }), of);
  return testsShown(await drive(inThisThread, { id, request, sample: of }));
}

describe('the tests that a result shows', () => {
  const few = { replicates: 199 };
  it.each<[string, object, Sample, number, string]>([
    ['histogram', {}, sample, 0, 'a picture tests nothing'],
    ['shares', { of: 'limits', lower: 90 }, sample, 0, 'nor do shares'],
    ['bootstrap', { replicates: 999 }, sample, 0, 'nor does an interval'],
    ['power', few, sample, 0, 'nor does what could be missed'],
    ['normality', few, sample, 9, 'nine side by side, each with up to three p'],
    ['goodness-of-fit', few, sample, 4, 'A², W², D and χ²'],
    ['mean-claim', { claimed: 100 }, sample, 1, 'one claim'],
    ['mean-claim', { claimed: 100, margin: 1 }, sample, 2, 'the claim, and whether it is close enough'],
    ['several-means', { split: 'kiln' }, beside('a', 'b', 'c'), 4, 'all together, and three pairs'],
    ['two-samples', { ...few, split: 'kiln' }, beside('a', 'b'), 2, 'A² and D'],
    ['screen', { ...few, split: 'kiln' }, beside('a', 'b', 'c'), 3, 'one a column'],
    [
      'permutation',
      { split: 'kiln', statistic: 'difference-of-means' },
      beside('a', 'b'),
      1,
      'one, by whichever way p is found',
    ],
  ])('%s %j: %#', async (id, asked, of, tests) => {
    expect(await shown(id, asked, of)).toBe(tests);
  });

  it('are none in what is no result', () => {
    expect([null, 3, 'p', [1, 2], new Float64Array(3), { pValue: null, pSimulated: null }].map(testsShown)).toEqual([
      0, 0, 0, 0, 0, 0,
    ]);
  });
});

describe('the bins of a small picture', () => {
  it('are few, equally wide, and sum to n', () => {
    const bins = smallBins(sample.values, 0.001)!;
    expect(bins.length).toBeLessThanOrEqual(24);
    expect(bins.reduce((a, b) => a + b)).toBe(40);
    const long = Float64Array.from({ length: 50_000 }, (_, i) => Math.sin(i) + Math.sin(1.7 * i));
    const many = smallBins(long, null)!;
    expect(many.length).toBeLessThanOrEqual(25);
    expect(many.reduce((a, b) => a + b)).toBe(50_000);
  });

  it('hold whole numbers one by one, one value alone, and nothing where there is no range', () => {
    expect(smallBins(Float64Array.of(0, 0, 1, 3), 1)).toEqual([2, 1, 0, 1]);
    expect(smallBins(Float64Array.of(5, 5, 5), null)!.reduce((a, b) => a + b)).toBe(3);
    expect(smallBins(new Float64Array(0), null)).toBeNull();
    expect(smallBins(Float64Array.of(-1.7e308, 1.7e308), null)).toBeNull();
  });
});
