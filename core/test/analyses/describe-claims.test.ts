import { describe as group, expect, it } from 'vitest';
import { claimsOf } from '../../src/analyses/shape/describe-claims.js';
import { describeParagraph } from '../../src/analyses/shape/describe-words.js';
import type { DescribeResult } from '../../src/analyses/shape/describe-result.js';
import { inOrderAnalysis, type InOrderResult } from '../../src/analyses/shape/in-order.js';
import { advance } from '../../src/analyses/registry.js';
import { fenceMultiple, shareBeyond } from '../../src/describe/fence-multiples.js';
import { quartilesOfSorted } from '../../src/describe/quantiles.js';
import { fillNormals } from '../../src/random/normal.js';
import { createStream } from '../../src/random/stream.js';
import type { Sample } from '../../src/readings/sample.js';
import { sampleOf } from '../samples.js';
import { drawn as samplesDrawn } from '../thorough.js';

function done<Result>(id: string, sample: Sample, request: object = {}): Result {
  const stage = advance(id, { column: sample.name, ...request }, sample, []);
  if (!stage.done) throw new Error('It should come at once.');
  return stage.result as Result;
}
const figures = (values: number[], request: object = {}) =>
  done<DescribeResult>('describe', sampleOf(Float64Array.from(values)), request);

group('what a description claims', () => {
  it('names what the box plot marks though nothing is claimed of it, with how often that happens', () => {
    const values = [52.4, 51, 53, 52, 49.2, 52.7, 51.5, 53.6, 52.2, 53.1, 54.2];
    const result = figures(values);
    expect(result.claims.found).toEqual([]);
    expect(describeParagraph(result, 0.05)).toContain(
      'The middle 50\u00a0% lie between 51.750\u00a0mm and 53.050\u00a0mm. Mean and median are close together.',
    );
  });

  it('shares the level among its looks, and says so of a p below it', () => {
    const p = (values: Partial<Record<'skewnessTest' | 'kurtosisTest' | 'gap' | 'farthest' | 'drift', number>>) =>
      Object.fromEntries(
        ['skewnessTest', 'kurtosisTest', 'gap', 'farthest', 'drift'].map((key) => [
          key,
          key in values ? { pValue: values[key as keyof typeof values] } : null,
        ]),
      ) as unknown as Parameters<typeof claimsOf>[0][number];
    expect(claimsOf([p({ skewnessTest: 0.03, drift: 0.6 })], 0.05)).toEqual([{ found: [], looks: 2 }]);
    expect(claimsOf([p({ skewnessTest: 0.03 })], 0.05)).toEqual([{ found: ['lean'], looks: 1 }]);
    // Holm: 0.009 < 0.05/5, then 0.012 < 0.05/4, but not 0.02 < 0.05/3.
    const five = p({ skewnessTest: 0.012, kurtosisTest: 0.02, gap: 1, farthest: 0.009, drift: 0.03 });
    expect(claimsOf([five], 0.05)).toEqual([{ found: ['lean', 'far'], looks: 5 }]);
    // Beside another column the least of six has to be below 0.05/6; one that is lets the next stand against 0.05/5.
    expect(claimsOf([five, p({ drift: 0.6 })], 0.05)[0]!.found).toEqual([]);
    expect(claimsOf([five, p({ drift: 0.004 })], 0.05).map(({ found }) => found)).toEqual([['lean', 'far'], ['drift']]);
    expect(claimsOf([], 0.05)).toEqual([]);
    const leaning = figures(Array.from({ length: 40 }, (_, i) => ((i * 17) % 40) ** 1.35));
    const shy = { ...leaning, claims: { found: [], looks: 5 }, skewnessTest: { z: 2.1, pValue: 0.036 } };
    expect(describeParagraph(shy as unknown as DescribeResult, 0.05)).toContain(
      'The middle 50\u00a0% lie between 21.645\u00a0mm and 95.344\u00a0mm. The mean is 0.11 SD above the median',
    );
  });

  it('claims anything of a clean normal sample at most at the level', () => {
    for (const [n, step] of [
      [10, null],
      [30, 0.5],
      [100, null],
      [100, 0.25],
      [10, 2.5],
      [100, 3],
    ] as const) {
      const stream = createStream(31, n);
      const values = new Float64Array(n);
      const samples = samplesDrawn(300, 1500);
      let claims = 0;
      for (let k = 0; k < samples; k++) {
        fillNormals(stream, values);
        const read = step === null ? values : values.map((x) => Math.round((x + k * 0.618034) / step) * step);
        const sample = { ...sampleOf(read), resolution: step };
        if (done<DescribeResult>('describe', sample).claims.found.length > 0) claims++;
      }
      const error = Math.sqrt((0.05 * 0.95) / samples);
      expect(claims / samples, `n = ${n}, steps of ${step}`).toBeLessThan(0.05 + 3 * error);
    }
  });

  it('claims anything of clean groups at most at the level', () => {
    const stream = createStream(8, 4);
    const samples = samplesDrawn(250, 1000);
    const count = { described: 0, ordered: 0 };
    for (let k = 0; k < samples; k++) {
      const whole = Float64Array.from({ length: 80 });
      fillNormals(stream, whole);
      const parts = ['a', 'b', 'c', 'd'].map((name, g) => ({
        ...sampleOf(whole.slice(20 * g, 20 * g + 20)),
        ...{ name, resolution: null },
      }));
      const sample = { ...sampleOf(whole), resolution: null, groups: { by: 'kiln', samples: parts, without: 0 } };
      const result = done<DescribeResult>('describe', sample, { split: 'kiln' });
      if (result.groups!.some(({ claims }) => claims.found.length > 0)) count.described++;
      const order = inOrderAnalysis.finding(done<InOrderResult>('in-order', sample, { split: 'kiln' }));
      if (!order[0]!.text.startsWith('No evidence')) count.ordered++;
    }
    const error = Math.sqrt((0.05 * 0.95) / samples);
    expect(count.described / samples).toBeLessThan(0.05 + 3 * error);
    expect(count.ordered / samples).toBeLessThan(0.05 + 3 * error);
    expect(count.ordered / samples).toBeGreaterThan(0.05 - 3 * error);
  });

  it('counts how often a normal sample has a reading outside the fence as plain draws do', () => {
    for (const [n, type] of [
      [11, 7],
      [11, 'hinges'],
      [5, 2],
      [60, 6],
    ] as const) {
      const stream = createStream(5, n);
      const values = new Float64Array(n);
      const samples = 4000;
      const found = { fence: 0, far: 0 };
      for (let k = 0; k < samples; k++) {
        fillNormals(stream, values);
        const sorted = values.slice().sort();
        const quartiles = quartilesOfSorted(sorted, type);
        const multiple = Math.max(fenceMultiple(sorted[0]!, quartiles), fenceMultiple(sorted[n - 1]!, quartiles));
        if (multiple >= 1.5) found.fence++;
        if (multiple >= 3) found.far++;
      }
      for (const [times, count] of [
        [1.5, found.fence],
        [3, found.far],
      ] as const) {
        const share = shareBeyond(times, n, type)!;
        const error = Math.sqrt(share * (1 - share) * (1 / samples + 1 / 5000)) + 2 / 5000;
        expect(Math.abs(count / samples - share), `${n} ${type} ${times}`).toBeLessThan(4 * error);
      }
    }
  });

  it('says nothing of the order of a tally', () => {
    const sample = { ...sampleOf(Float64Array.from({ length: 40 }, (_, i) => i >> 2)), tallied: true };
    const result = done<DescribeResult>('describe', sample);
    expect(result.drift).toBeNull();
    expect(describeParagraph(result, 0.05)).not.toContain('rows');
    expect(done<{ reason: string }>('in-order', sample).reason).toContain(
      'thickness was entered as frequencies, so it has no row order.',
    );
  });
});
