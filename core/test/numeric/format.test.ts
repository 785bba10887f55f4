import { describe, expect, it } from 'vitest';
import {
  decimalsOf,
  equalsP,
  formatFigure,
  formatP,
  formatPercent,
  formatValue,
  groupThousands,
} from '../../src/numeric/format.js';

describe('the one rounding rule', () => {
  it('gives a location one decimal more than the resolution and a spread two', () => {
    expect(formatFigure(8.0201, 'reading', 0.01)).toBe('8.02');
    // Readings of 1e15 in whole numbers are told apart; beyond what a double holds in steps they are not.
    expect(formatFigure(1_000_000_000_000_012, 'reading', 1)).toBe('1000000000000012');
    expect(formatFigure(1e16, 'reading', 1)).toBe('1.0000 × 10¹⁶');
    expect(formatFigure(1e22, 'reading', 1e10)).toBe('1.0000 × 10²²');
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

  it('shows as many digits of p as distinguish it from the level', () => {
    expect(formatP(0.04996, 0.05)).toBe('0.04996');
    expect(formatP(0.0496, 0.05)).toBe('0.0496');
    expect(formatP(0.0500001, 0.05)).toBe('0.050');
    expect(formatP(0.0996, 0.1)).toBe('0.0996');
    expect(formatP(0.00007, 0.00005)).toBe('0.000070');
    for (const alpha of [0.01, 0.05, 0.1, 0.25]) {
      for (let k = -400; k <= 400; k++) {
        const p = alpha * (1 + k * 1e-5);
        expect(Number(formatP(p, alpha)) < alpha, `${p} at ${alpha}`).toBe(p < alpha);
      }
    }
    expect(equalsP(0.00001, 0.05)).toBe('p < 0.0001');
  });

  it('rounds once, whatever the size', () => {
    expect(formatValue(1234549500)).toBe('1.2345 × 10⁹');
    expect(formatValue(4.293550316942856e-6)).toBe('4.2936 × 10⁻⁶');
    expect(formatFigure(9999999.5, 'reading')).toBe('1.0000 × 10⁷');
    expect(formatFigure(9999499, 'reading')).toBe('9999499');
    expect(formatFigure(3.8028e-15, 'location')).toBe('3.8028 × 10⁻¹⁵');
    expect(formatFigure(-1.5e-9, 'location')).toBe('\u22121.5000 × 10⁻⁹');
    expect(formatPercent(1e-9)).toBe('1.00 × 10⁻⁷ %');
    // Against the decimal digits of the double itself.
    let state = 1;
    for (let k = 0; k < 3000; k++) {
      state = (state * 48271) % 2147483647;
      const x = (state / 2147483647) * Number(`1e${(k % 24) - 8}`);
      const text = formatFigure(x, 'location');
      const found = text.includes('×')
        ? Number(text.replace(' × 10', 'e').replace(/[⁻⁰¹²³⁴⁵⁶⁷⁸⁹]/g, (c) => '-0123456789'['⁻⁰¹²³⁴⁵⁶⁷⁸⁹'.indexOf(c)]!))
        : Number(text);
      expect(found, text).toBe(x >= 1e5 && x < 9999500 ? Number(x.toFixed(0)) : Number(x.toPrecision(5)));
    }
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
    expect(formatFigure(1e300, 'location', null, 2)).toBe('1.0000 × 10³⁰⁰');
  });
});
