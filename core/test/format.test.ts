import { describe, expect, it } from 'vitest';
import { decimalsOf, formatFigure, formatP, formatPercent, groupThousands } from '../src/numeric/format.js';

describe('the one rounding rule', () => {
  it('gives a location one decimal more than the resolution and a spread two', () => {
    expect(formatFigure(8.0201, 'reading', 0.01)).toBe('8.02');
    expect(formatFigure(8.0201, 'location', 0.01)).toBe('8.020');
    expect(formatFigure(0.11203, 'spread', 0.01)).toBe('0.1120');
    expect(formatFigure(1204.44, 'location', 0.5)).toBe('1204.44');
    expect(formatFigure(1204.44, 'location', 1)).toBe('1204.4');
  });

  it('prints what is zero up to rounding as 0, and a true minus sign', () => {
    expect(formatFigure(-9e-16, 'location', 0.01)).toBe('0.000');
    expect(formatFigure(-0.5, 'location', 0.1)).toBe('\u22120.50');
  });

  it('gives p two significant figures and no false zero', () => {
    expect(formatP(0.3412)).toBe('0.34');
    expect(formatP(0.00512)).toBe('0.0051');
    expect(formatP(0.00009)).toBe('< 0.0001');
    expect(formatP(0.9961)).toBe('0.996');
  });

  it('keeps five figures without a resolution and three for a statistic', () => {
    expect(formatFigure(8.123456, 'location')).toBe('8.1235');
    expect(formatFigure(0.41237, 'statistic')).toBe('0.412');
    expect(formatFigure(9.9996, 'statistic')).toBe('10.0');
    expect(formatFigure(-0.00000214, 'statistic')).toBe('0.0000');
    expect(formatFigure(0.07891, 'statistic')).toBe('0.0789');
  });

  it('knows decimals, thousands and percentages', () => {
    expect([1, 0.5, 0.01, 10, 0.25].map(decimalsOf)).toEqual([0, 1, 2, 0, 2]);
    expect(groupThousands(100_000)).toBe('100\u202f000');
    expect(formatPercent(0.95)).toBe('95 %');
    expect(formatPercent(0.999)).toBe('99.9 %');
  });
});

describe('decimals that the analyst has set', () => {
  it('hold for figures in the unit of the readings, and for nothing else', () => {
    expect(formatFigure(8.016_04, 'location', 0.01, 4)).toBe('8.0160');
    expect(formatFigure(8.016_04, 'reading', null, 0)).toBe('8');
    expect(formatFigure(-0.000_04, 'spread', 0.01, 2)).toBe('0.00');
    expect(formatFigure(1.2345, 'statistic', 0.01, null)).toBe('1.23');
    expect(formatFigure(1e300, 'location', null, 2)).toBe('1.0000e300');
  });
});
