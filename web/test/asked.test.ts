import { describeAnalysis, sharesAnalysis } from '@verdict/core/analyses';
import { describe, expect, it } from 'vitest';
import { askedOf, objectionOf } from '../src/workbench/run/asked.js';

describe('what an address asks', () => {
  it('is taken as it is where it fits', () => {
    const { request, left } = askedOf(sharesAnalysis, { column: 'x' }, { of: 'limits', lower: 0, upper: 0 });
    expect(request).toMatchObject({ column: 'x', of: 'limits', lower: 0, upper: 0 });
    expect(left).toEqual([]);
  });

  it('keeps what fits where one setting does not, and says what is left out', () => {
    const settings = { of: 'limits', lower: 9, upper: 8, curve: 'gamma', confidence: 0.9 };
    const { request, left } = askedOf(sharesAnalysis, { column: 'x' }, settings);
    expect(request).toMatchObject({ of: 'limits', lower: 9, curve: 'gamma', confidence: 0.9 });
    expect(request.upper).toBeUndefined();
    expect(left.map(({ text }) => text)).toEqual([
      'The upper limit 8 is below the lower limit 9. The default is used instead.',
    ]);
  });

  it('falls back on the defaults where nothing can be kept', () => {
    const { request } = askedOf(describeAnalysis, { column: 'x' }, { percentiles: [900], nonsense: 1 });
    expect(request).toMatchObject({ column: 'x', percentiles: [] });
  });

  it('is objected to before it is asked', () => {
    const asked = { of: 'limits', lower: 7, upper: 8 };
    expect(objectionOf(sharesAnalysis, { column: 'x' }, asked, { lower: 9 })).toContain(
      'The upper limit 8 is below the lower limit 9.',
    );
    expect(objectionOf(sharesAnalysis, { column: 'x' }, asked, { lower: 8 })).toBeNull();
  });
});
