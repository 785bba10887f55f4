import { describe, expect, it } from 'vitest';
import { FIGURES, otherQuantiles, percentileFigures } from '../src/analyses/shape/figure-list.js';
import type { Described, DescribeResult } from '../src/analyses/shape/describe-result.js';
import { advance } from '../src/analyses/registry.js';
import { sampleOf } from './samples.js';

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
