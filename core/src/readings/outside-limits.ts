import { formatValue } from '../numeric/format.js';

/** A reading that lies outside the limits of its column, and what it may have been meant to be. */
export interface OutsideLimits {
  row: number;
  value: number;
  limit: number;
  side: 'below' | 'above';
  /** The value that one slip away would lie among the others; null where no such slip explains it. */
  meant: { value: number; slip: 'decimal place' | 'sign' } | null;
}

interface Limits {
  lower: number | null;
  upper: number | null;
}

/** Decimal places that a slip moves by, the likeliest first. */
const SHIFTS = [-1, 1, -2, 2, -3, 3];

const isWithin = (x: number, { lower, upper }: Limits) =>
  (lower === null || x >= lower) && (upper === null || x <= upper);

/** The range of the readings within; null where none lies there. */
function rangeWithin(values: Float64Array, limits: Limits): { least: number; greatest: number } | null {
  let least = Infinity;
  let greatest = -Infinity;
  for (const x of values) {
    if (!isWithin(x, limits)) continue;
    if (x < least) least = x;
    if (x > greatest) greatest = x;
  }
  return least <= greatest ? { least, greatest } : null;
}

/**
 * The slip of the pen that explains a value: a decimal place or a sign away it lies among the readings within the limits, and as it stands
 * it lies further from the limit than those readings reach from end to end, so that it is not just the next one over.
 */
function slipOf(x: number, limit: number, among: { least: number; greatest: number } | null): OutsideLimits['meant'] {
  if (!among || Math.abs(x - limit) <= among.greatest - among.least) return null;
  const fits = (value: number) => value >= among.least && value <= among.greatest;
  for (const shift of SHIFTS) {
    const value = Number((x * 10 ** shift).toPrecision(15));
    if (fits(value)) return { value, slip: 'decimal place' };
  }
  return fits(-x) ? { value: -x, slip: 'sign' } : null;
}

/**
 * The readings outside the limits of their column, in row order, at most `most` of them, with the count of all. `rows` are the rows the
 * values stand in; a row that counts several times is listed once.
 */
export function outsideLimits(
  values: Float64Array,
  rows: Int32Array,
  limits: Limits,
  most: number,
): { found: OutsideLimits[]; count: number } {
  const found: OutsideLimits[] = [];
  let count = 0;
  if (limits.lower === null && limits.upper === null) return { found, count };
  let among: ReturnType<typeof rangeWithin> | undefined;
  values.forEach((value, i) => {
    if (isWithin(value, limits) || (i > 0 && rows[i] === rows[i - 1])) return;
    count++;
    if (found.length >= most) return;
    const side = limits.lower !== null && value < limits.lower ? 'below' : 'above';
    const limit = side === 'below' ? limits.lower! : limits.upper!;
    among = among === undefined ? rangeWithin(values, limits) : among;
    found.push({ row: rows[i]!, value, limit, side, meant: slipOf(value, limit, among) });
  });
  return { found, count };
}

/** "Row 17 is 42.1 mm, above the upper limit 4.5 mm. Possible typing error: 4.21 (with the decimal point shifted) would be within the limits." `written` is the reading as it stands in its cell. */
export function outsideWords({ row, limit, side, meant }: OutsideLimits, written: string, unit: string): string {
  const of = unit ? `\u00a0${unit}` : '';
  const end = side === 'below' ? 'lower' : 'upper';
  const slip = { 'decimal place': 'with the decimal point shifted', sign: 'with the other sign' };
  const likely = meant
    ? ` Possible typing error: ${formatValue(meant.value)} (${slip[meant.slip]}) would be within the limits.`
    : '';
  return `Row ${row} is ${written}${of}, ${side} the ${end} limit ${formatValue(limit)}${of}.${likely}`;
}
