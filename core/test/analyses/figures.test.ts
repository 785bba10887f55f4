import { describe, expect, it } from 'vitest';
import { DISTRIBUTION_FIGURES } from '../../src/analyses/distributions/distribution-figures.js';
import type { DistributionResult } from '../../src/analyses/distributions/distribution-result.js';
import {
  TEST_COLUMNS,
  NORMALITY_P_FIGURES,
  normalityDetails,
  normalityFigures,
  normalityTable,
  PLOT_FIGURES,
} from '../../src/analyses/fit/fit-figures.js';
import { agreementSentence } from '../../src/analyses/fit/normality-words.js';
import type { NormalityResult } from '../../src/analyses/fit/normality-result.js';
import { FIGURES, otherQuantiles, percentileFigures } from '../../src/analyses/shape/figure-list.js';
import type { Described, DescribeResult } from '../../src/analyses/shape/describe-result.js';
import { advance } from '../../src/analyses/registry.js';
import { inThisThread } from '../../src/analyses/registry.js';
import { foundFigures, type FigureOf } from '../../src/road/figure.js';
import { drive } from '../../src/road/runner.js';
import { sampleOf } from '../samples.js';

function described(values: number[], request: object = {}): DescribeResult {
  const sample = sampleOf(Float64Array.from(values));
  const stage = advance('describe', { column: sample.name, ...request }, sample, []);
  return (stage as { result: unknown }).result as DescribeResult;
}
const wave = Array.from({ length: 40 }, (_, i) => Number((8 + Math.sin(i * 12.9898) * 0.3).toFixed(2)));

describe('figures', () => {
  const result = described(wave, { percentiles: [5], decimals: 5 });
  it('each have a text and the numbers behind it, for any column', () => {
    const single = described([8.1]);
    for (const d of [result, single] as Described[]) {
      for (const { key, text, values } of [...FIGURES, ...percentileFigures(d)]) {
        expect(text(d), key).not.toMatch(/NaN|undefined|null|Infinity/);
        for (const value of values(d)) expect(value === null || Number.isFinite(value), key).toBe(true);
      }
    }
    expect(FIGURES.find(({ key }) => key === 'mean')!.text(result)).toMatch(/^\d\.\d{5}$/);
    expect(FIGURES.find(({ key }) => key === 'sd')!.text(single)).toBe('–');
  });

  it('name only those other definitions of quartiles that give something else', () => {
    const others = otherQuantiles(described([1, 2, 3, 4, 10]));
    expect(others.length).toBeGreaterThan(2);
    expect(others.map(({ values }) => values.join())).not.toContain('2.0000,4.0000');
    expect(otherQuantiles(described([5, 5, 5]))).toEqual([]);
  });
});

describe('figures that explain themselves', () => {
  const sample = { ...sampleOf(Float64Array.from(wave)), resolution: 0.01 };
  const tested = async (more: object = {}) =>
    (await drive(inThisThread, {
      id: 'normality',
      request: { column: sample.name, replicates: 2_000 },
      sample: { ...sample, ...more },
    })) as NormalityResult;

  it('say what each p of the test means, which is the one to quote, and are the figures of the result', async () => {
    const result = await tested();
    const found = normalityFigures(result);
    const [test] = result.tests;
    const text = (key: string) => Number(found.find((figure) => figure.key === key)!.texts[0]);
    expect(text('pSimulated')).toBeCloseTo(test!.pSimulated!.pValue, 2);
    expect(text('pAsymptotic')).toBeCloseTo(test!.pAsymptotic!, 2);
    expect(text('pResolution')).toBeCloseTo(test!.pResolution!.pValue, 2);
    expect(found.filter(({ use }) => use?.startsWith('Report this')).map(({ key }) => key)).toEqual(['pSimulated']);
    expect(found.find(({ key }) => key === 'pResolution')!.note).toBe('resolution 0.01\u00a0mm');
    expect(found.find(({ key }) => key === 'pSimulated')!.note).toMatch(/^2\u202f000 samples: 0\.\d+ – 0\.\d+$/);
  });

  it('are in one table for all nine tests, the chosen one marked, with their agreement', async () => {
    const result = await tested();
    const rows = normalityTable(result);
    expect(rows).toHaveLength(9);
    expect(rows.every(({ texts }) => texts.length === TEST_COLUMNS.length)).toBe(true);
    expect(rows.filter(({ note }) => note === 'chosen').map(({ key }) => key)).toEqual(['anderson-darling']);
    expect(normalityDetails(result, 'lilliefors')).toMatchObject([
      { name: 'most sensitive to', text: 'the centre' },
      { name: 'interval of the simulated p' },
      { name: 'p, rounding allowed for' },
    ]);
    expect(normalityDetails(result, 'nothing')).toEqual([]);
    expect(rows[0]!.texts[1]).toBe(normalityFigures(result).find(({ key }) => key === 'pSimulated')!.texts[0]);
    expect(rows.flatMap(({ texts }) => texts).join(' ')).not.toMatch(/NaN|null|undefined/);
    // A sine wave is flatter than a normal: the tests of the tails and of the plot see it, that of the lean does not.
    const { against, without } = result.summary;
    expect([...against, ...without].sort()).toEqual(result.tests.map(({ test }) => test).sort());
    expect(without).toContain('skewness');
    const sentence = agreementSentence(result);
    expect(sentence).toContain(`${against.length} of 9 tests`);
    expect(sentence).toContain('6 of 9 tests find evidence against normality; not: Lilliefors (the centre), skewness');
    expect(
      agreementSentence({ ...result, summary: { outcome: 'evidence', against: ['kurtosis', 'omnibus'], without: [] } }),
    ).toBe('All 2 tests find evidence against normality (significance level 0.05).');
    expect(
      agreementSentence({
        ...result,
        summary: { outcome: 'no-evidence', against: [], without: ['kurtosis', 'omnibus'] },
      }),
    ).toBe('None of 2 tests finds evidence against normality (significance level 0.05).');
  });

  it('leave out what a result does not have', async () => {
    const keys = normalityFigures(await tested({ resolution: null })).map(({ key }) => key);
    expect(keys).not.toContain('pResolution');
    expect(keys).toContain('pSimulated');
  });

  it('are in columns for several results, without notes on one of them', () => {
    const [a, b] = [described([1, 2, 3]), described([4, 5, 9])];
    const mean = FIGURES.filter(({ key }) => key === 'mean').map((figure) => ({ ...figure, note: () => 'of one' }));
    expect(foundFigures(mean, [a, b])).toMatchObject([{ key: 'mean', texts: ['2.00', '6.0'], note: '' }]);
    expect(foundFigures(mean, [a])[0]!.note).toBe('of one');
  });

  it('have a meaning that ends as a sentence, and a formula, on every stage', () => {
    const lists: readonly (readonly FigureOf<never>[])[] = [
      FIGURES,
      NORMALITY_P_FIGURES,
      PLOT_FIGURES,
      DISTRIBUTION_FIGURES,
    ];
    for (const { key, meaning, formula, use } of lists.flat()) {
      expect(meaning, key).toMatch(/^[A-Z].*\.$/);
      expect(formula, key).not.toBe('');
      expect(use ?? 'A word.', key).toMatch(/^[A-Z].*\.$/);
    }
  });

  it('say why a distribution has no mean', () => {
    const cauchy = advance('distribution', { family: 'cauchy', below: 1 }, sampleOf(new Float64Array()), []);
    const { result } = cauchy as unknown as { result: DistributionResult };
    const texts = Object.fromEntries(
      foundFigures(DISTRIBUTION_FIGURES, [result]).map(({ key, texts: [t] }) => [key, t]),
    );
    expect(texts).toMatchObject({ mean: 'does not exist', median: '0' });
  });
});
