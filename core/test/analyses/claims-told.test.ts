import { describe, expect, it } from 'vitest';
import { columnsOf, curveOf } from '../../src/analyses/claims/claim-law.js';
import {
  bareFigure,
  freedomWords,
  formatClaim,
  formatDistance,
  formatExpected,
  formatQuantity,
  formatInterval,
  formatNamed,
  type Scale,
} from '../../src/road/formatted.js';
import { normalityLine, spreadsLine } from '../../src/analyses/claims/assumptions.js';
import { binomial } from '../../src/distributions/families/binomial.js';
import { chiSquare } from '../../src/distributions/families/chi-square.js';
import { studentT } from '../../src/distributions/families/student-t.js';
import { fillNormals } from '../../src/random/normal.js';
import { createStream } from '../../src/random/stream.js';

const plain = (text: string) => text.replaceAll('\u00a0', ' ').replaceAll('\u202f', ' ');
const readings: Scale = { unit: 'mm', resolution: 0.01, as: 'reading' };
const share: Scale = { unit: 'mm', resolution: 0.01, as: 'share' };
const ratio: Scale = { unit: 'mm', resolution: 0.01, as: 'ratio' };

describe('a figure of a claim', () => {
  it('is written with the decimals of the readings and their unit', () => {
    expect(plain(formatQuantity(8.01234, readings))).toBe('8.012 mm');
    expect(plain(formatQuantity(0.0957, readings, 'spread'))).toBe('0.0957 mm');
    expect(plain(formatClaim(8, readings))).toBe('8.00 mm');
    expect(plain(formatClaim(8.00512, readings))).toBe('8.00512 mm');
    expect(plain(formatClaim(-3, readings))).toBe('−3.00 mm');
    expect(plain(formatNamed(0.05, readings))).toBe('0.05 mm');
  });

  it('is written as a percentage, its difference in percentage points', () => {
    expect(plain(formatQuantity(0.0834, share))).toBe('8.34 %');
    expect(plain(formatDistance(-0.0634, share))).toBe('6.34 percentage points');
    expect(plain(formatDistance(0.01, share))).toBe('1 percentage point');
    expect(plain(formatInterval({ lower: -0.464, upper: -0.0031 }, share, 'difference'))).toBe(
      '−46.4 to −0.31 percentage points',
    );
    expect(plain(formatInterval({ lower: 0.0123, upper: null }, share))).toBe('at least 1.23 %');
  });

  it('is written as a ratio, a small one not as 0', () => {
    expect(bareFigure(1.386, ratio)).toBe('1.39');
    expect(bareFigure(0.0000123, ratio)).not.toMatch(/^0\.0+$/);
    expect(bareFigure(0, ratio)).toBe('0.0000');
  });

  it('has intervals with open ends, and says where there is none', () => {
    expect(plain(formatInterval({ lower: 7.9, upper: 8.1 }, readings))).toBe('7.900 to 8.100 mm');
    expect(plain(formatInterval({ lower: null, upper: 8.1 }, readings))).toBe('at most 8.100 mm');
    expect(formatInterval({ lower: null, upper: null }, readings)).toContain('too few readings');
  });

  it('has degrees of freedom and expected counts in words', () => {
    expect([freedomWords(1), freedomWords(31.68)]).toEqual(['1 degree of freedom', '31.7 degrees of freedom']);
    expect([formatExpected(14.3999999), plain(formatExpected(20_000))]).toEqual(['14.4', '20 000']);
  });
});

describe('the distribution of a statistic', () => {
  const student = studentT.of({ df: 9, location: 0, scale: 1 });
  const asked = { name: 't', axis: 't', alpha: 0.05 };
  /** The area of a picture between two places, by trapezes. */
  const area = ({ x, y }: { x: number[]; y: number[] }, [from, to]: [number, number]) => {
    let sum = 0;
    for (let i = 1; i < x.length; i++)
      if (x[i]! <= to && x[i - 1]! >= from) sum += ((y[i]! + y[i - 1]!) / 2) * (x[i]! - x[i - 1]!);
    return sum;
  };

  it.each(['two-sided', 'less', 'greater'] as const)('%s shades what p is', (alternative) => {
    for (const statistic of [-1.7, 0.4, 2.6]) {
      const law = curveOf(student, { ...asked, statistic, alternative });
      const shaded = law.tails.reduce((sum, tail) => sum + area(law, tail), 0);
      // A step of the curve is left out at each end of a tail.
      const step = (law.x[1]! - law.x[0]!) * 0.4;
      expect(Math.abs(shaded - law.p)).toBeLessThan(2 * step + 0.001);
      expect(law.x[0]).toBeLessThanOrEqual(statistic);
      expect(law.x.at(-1)).toBeGreaterThanOrEqual(statistic);
      expect(law.critical).toHaveLength(alternative === 'two-sided' ? 2 : 1);
    }
  });

  it('of χ² two-sided counts as much at the other end', () => {
    const law = curveOf(chiSquare.of({ df: 6 }), { ...asked, statistic: 13, alternative: 'two-sided' });
    const other = chiSquare.of({ df: 6 }).cumulative(law.beyond.atMost!);
    expect(other).toBeCloseTo(chiSquare.of({ df: 6 }).survival(13), 10);
    expect(law.beyond.atLeast).toBe(13);
  });

  it('keeps its shape for an extreme statistic, which is drawn at the edge, within the range of doubles', () => {
    const law = curveOf(student, { ...asked, statistic: 4e9, alternative: 'two-sided' });
    expect(law.x.at(-1)).toBeLessThan(50);
    const sure = curveOf(studentT.of({ df: 1e12, location: 0, scale: 1 }), {
      ...asked,
      statistic: 1e6,
      alternative: 'two-sided',
    });
    expect(sure.beyond).toEqual({ atMost: null, atLeast: 1e6 });
  });

  it('of counts fills the columns counted into p, and gives their limit', () => {
    const law = binomial.of({ trials: 20, probability: 0.4 });
    const counted = (k: number) => k <= 3 || k >= 13;
    const shown = columnsOf(law, {
      ...asked,
      statistic: 3,
      alternative: 'two-sided',
      p: 0.03,
      ends: [0, 20],
      counted,
      critical: [],
    });
    expect(shown.beyond).toEqual({ atMost: 3, atLeast: 13 });
    expect(shown.x.filter((_, i) => shown.counted[i]).every(counted)).toBe(true);
    const all = columnsOf(law, {
      ...asked,
      statistic: 8,
      alternative: 'two-sided',
      p: 1,
      ends: [0, 20],
      counted: () => true,
      critical: [],
    });
    expect(all.beyond).toEqual({ atMost: 8, atLeast: 8 });
  });
});

describe('what is taken for granted', () => {
  const normals = (n: number, seed: number) => {
    const values = new Float64Array(n);
    fillNormals(createStream(seed, 0), values);
    return values;
  };
  const asked = { alpha: 0.05, instead: 'the signed ranks', mean: true };
  const line = (values: Float64Array, more: object = {}) =>
    normalityLine([{ name: 'x', values, resolution: null }], { ...asked, ...more });

  it('is stated in a line, with an alternative method if it is in doubt', () => {
    expect(line(normals(40, 1))).toMatchObject({ holds: true, instead: '' });
    const lopsided = normals(40, 2).map((z) => z ** 4);
    expect(line(lopsided)).toMatchObject({ holds: false, instead: 'the signed ranks' });
    // Of many readings a mean is near a normal all the same; an sd is not.
    const many = normals(400, 3).map((z) => z ** 4);
    expect(line(many)).toMatchObject({ holds: true });
    expect(line(many, { mean: false })).toMatchObject({ holds: false });
  });

  it('says where it cannot be checked: too few readings, too coarse steps', () => {
    expect(line(normals(5, 4)).text).toContain('too few');
    const coarse = normals(40, 5).map((z) => Math.round(z));
    expect(normalityLine([{ name: 'x', values: coarse, resolution: 1 }], asked).text).toContain('too coarse');
  });

  it('names the groups that depart, and spreads that differ', () => {
    const groups = [normals(40, 6), normals(40, 7).map((z) => z ** 4)].map((values, i) => ({
      name: 'ab'[i]!,
      values,
      resolution: null,
    }));
    expect(normalityLine(groups, asked).text).toMatch(/^Normality of b: /);
    const [differ] = spreadsLine([normals(40, 8), normals(40, 9).map((z) => 5 * z)], 0.05, 'Welch’s t');
    expect(differ).toMatchObject({ holds: false, instead: 'Welch’s t' });
    expect(spreadsLine([normals(2, 1), normals(9, 1)], 0.05, '')).toEqual([]);
  });
});
