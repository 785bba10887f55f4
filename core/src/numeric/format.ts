/** The kind of a figure, which decides its decimals: in the unit of the readings, a location, a spread, a p-value, a count, or without unit. */
export type FigureKind = 'reading' | 'location' | 'spread' | 'p' | 'count' | 'statistic';

const MINUS = '\u2212';

function withMinus(text: string): string {
  if (!text.startsWith('-')) return text;
  return /[1-9]/.test(text) ? MINUS + text.slice(1) : text.slice(1);
}

/** The decimals that a resolution is written with: 0.01 → 2, 0.5 → 1, 10 → 0. */
export function decimalsOf(resolution: number): number {
  for (let d = 0; d < 12; d++) {
    const scaled = resolution * 10 ** d;
    if (Math.abs(scaled - Math.round(scaled)) < 1e-9 * scaled) return d;
  }
  return 12;
}

const SUPERSCRIPTS = '⁰¹²³⁴⁵⁶⁷⁸⁹';

/** A number times a power of ten as it is printed: 3.1 × 10⁻⁹. */
function inPowersOfTen(value: number, digits: number): string {
  const [mantissa, exponent] = value.toExponential(digits - 1).split('e');
  const raised = [...String(Math.abs(Number(exponent)))].map((digit) => SUPERSCRIPTS[Number(digit)]).join('');
  return `${withMinus(mantissa!)} × 10${Number(exponent) < 0 ? '⁻' : ''}${raised}`;
}

function significant(value: number, digits: number): string {
  if (value === 0) return '0';
  // After rounding, so that 9.999 to three figures is 10.0 and not 10.00.
  const rounded = Math.abs(Number(value.toPrecision(digits)));
  if (rounded >= 1e7 || rounded < 1e-6) return inPowersOfTen(value, digits);
  const magnitude = Math.floor(Math.log10(rounded));
  return withMinus(value.toFixed(Math.max(0, Math.min(12, digits - 1 - magnitude))));
}

const SMALL_P = 0.0001;

/**
 * A p-value to two significant figures; below 0.0001 as “< 0.0001”, so that it is never shown as 0. With a significance level, as many figures as are
 * needed to tell the two apart: 0.04996 is not shown as 0.050.
 */
export function formatP(p: number, alpha: number | null = null): string {
  if (p < SMALL_P && (alpha === null || alpha >= SMALL_P)) return '< 0.0001';
  const reads = (text: string) => alpha === null || Number(text) < alpha === p < alpha;
  if (p > 0.99 && reads(p.toFixed(3))) return p.toFixed(3);
  for (let digits = 2; digits < 16; digits++) {
    const text = p.toPrecision(digits);
    if (reads(text)) return significant(p, digits);
  }
  return String(p);
}

/** The same in a sentence: "p = 0.034", "p < 0.0001"; for an upper bound "p ≤ 0.034". */
export function equalsP(p: number, alpha: number | null = null, relation: '=' | '≤' = '='): string {
  const text = formatP(p, alpha);
  return text.startsWith('<') ? `p ${text}` : `p ${relation} ${text}`;
}

/**
 * The one rounding rule (DESIGN section 6): readings at the resolution's decimals, locations one more, spreads two more,
 * p-values two significant figures, counts whole, statistics three significant figures but at most four decimals. Without a resolution,
 * figures in the unit of the readings get five significant figures. Decimals that the analyst has set hold for all in the unit of the readings.
 */
export function formatFigure(
  value: number,
  kind: FigureKind,
  resolution: number | null = null,
  decimals: number | null = null,
): string {
  if (kind === 'p') return formatP(value);
  if (kind === 'count') return groupThousands(Math.round(value));
  if (kind === 'statistic') return Math.abs(value) < 0.1 ? withMinus(value.toFixed(4)) : significant(value, 3);
  if (decimals !== null && Math.abs(value) < 1e15) return withMinus(value.toFixed(decimals));
  // As many digits as the readings have, as far as a double holds them.
  if (resolution === null || Math.abs(value) >= Math.min(1e21, 2 ** 53 * resolution)) return significant(value, 5);
  const extra = kind === 'location' ? 1 : kind === 'spread' ? 2 : 0;
  return withMinus(value.toFixed(Math.min(12, decimalsOf(resolution) + extra)));
}

/** A whole number with narrow spaces between thousands: 100 000. */
export function groupThousands(value: number): string {
  return withMinus(String(value).replace(/\B(?=(\d{3})+$)/g, '\u202f'));
}

/** A proportion or confidence as a percentage without trailing zeros: 0.95 → "95 %". */
export function formatPercent(share: number, digits = 4): string {
  return `${plainPercent(share, digits)} %`;
}

/** The number of a percentage without trailing zeros; in powers of ten if it is tiny. */
function plainPercent(share: number, digits: number): string {
  const percent = share * 100;
  return percent !== 0 && Math.abs(percent) < 1e-4
    ? inPowersOfTen(percent, Math.min(digits, 3))
    : withMinus(String(Number(percent.toPrecision(digits))));
}

/** The number of digits of its standard error to which an estimate is given. */
const ERROR_DIGITS = 2;
const MOST_DECIMALS = 12;

/**
 * A mean, a proportion or another estimate: at the decimals of two significant digits of its standard error, whatever the step of the readings (STATISTICS section 10); without a
 * standard error as `formatFigure` has it. Decimals that the analyst has set hold for it too.
 */
export function formatEstimate(
  value: number,
  error: number | null,
  resolution: number | null = null,
  decimals: number | null = null,
): string {
  if (error === null || !(error > 0) || decimals !== null || Math.abs(value) >= 1e15)
    return formatFigure(value, 'location', resolution, decimals);
  const magnitude = Math.floor(Math.log10(Number(error.toPrecision(ERROR_DIGITS))));
  const places = ERROR_DIGITS - 1 - magnitude;
  if (places > MOST_DECIMALS) return significant(value, 5);
  return places >= 0 ? withMinus(value.toFixed(places)) : withMinus(String(Math.round(value)));
}

/** The standard error of an sd of n normal readings, to first order: s/√(2(n − 1)). */
export const errorOfSd = (sd: number, n: number): number | null => (n > 1 ? sd / Math.sqrt(2 * (n - 1)) : null);

/**
 * Two different values that would be printed alike: both with as many digits as are needed to tell them apart; null if they are printed differently
 * anyway.
 */
export function formatApart(a: number, b: number, print: (value: number) => string): [string, string] | null {
  if (a === b || print(a) !== print(b)) return null;
  for (let digits = 6; digits <= 17; digits++)
    if (a.toPrecision(digits) !== b.toPrecision(digits)) {
      const text = (value: number) => withMinus(String(Number(value.toPrecision(Math.min(17, digits + 1)))));
      return [text(a), text(b)];
    }
  return null;
}

/** A value in the unit of the readings: seven significant figures without trailing zeros, in powers of ten if it is huge or tiny. */
export function formatValue(value: number): string {
  if (value === 0) return '0';
  const rounded = Number(value.toPrecision(7));
  const size = Math.abs(rounded);
  if (size >= 1e9 || size < 1e-5) return inPowersOfTen(value, 5);
  return withMinus(String(rounded));
}

/**
 * A probability as a percentage: "9.244 %" to four figures; in powers of ten where it is tiny, and by what is missing next to 1, so that
 * 0.999 999 999 is not read as 1.
 */
export function formatPercentOf(p: number, complement = 1 - p, digits = 4): string {
  if (p === 0) return '0\u00a0%';
  if (complement === 0) return '100\u00a0%';
  if (complement < 1e-6) return `all but ${inPowersOfTen(complement * 100, 3)}\u00a0%`;
  return `${plainPercent(p, complement < 1e-3 ? 7 : digits)}\u00a0%`;
}
