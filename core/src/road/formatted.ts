import type { Interval } from '../claims/alternative.js';
import {
  formatEstimate,
  formatFigure,
  formatPercentOf,
  formatValue,
  groupThousands,
  formatApart,
} from '../numeric/format.js';

/** What a figure is written in: the unit of the readings, a share, events over an exposure, or a bare number. */
export interface Scale {
  unit: string;
  resolution: number | null;
  as: 'reading' | 'share' | 'rate' | 'ratio';
  /** The standard error of what is told, where it is known: its size sets the decimals. */
  error?: number | null;
}

/** Below it three figures say more than four decimals. */
const SMALL_RATIO = 0.1;

const NO_BREAK = '\u00a0';
const withUnit = (text: string, unit: string) => (unit ? `${text}${NO_BREAK}${unit}` : text);

/** A figure without its unit. */
export function bareFigure(
  value: number,
  { resolution, as, error = null }: Scale,
  kind: 'reading' | 'location' | 'spread' = 'location',
): string {
  if (as === 'share') return formatPercentOf(value, 1 - value, 4);
  if (as === 'rate') return formatFigure(value, 'reading');
  if (as === 'ratio')
    return Math.abs(value) < SMALL_RATIO && value !== 0
      ? formatValue(Number(value.toPrecision(3)))
      : formatFigure(value, 'statistic');
  return error !== null && kind !== 'reading'
    ? formatEstimate(value, error, resolution)
    : formatFigure(value, kind, resolution);
}

/** A figure with its unit. */
export const formatQuantity = (
  value: number,
  scale: Scale,
  kind: 'reading' | 'location' | 'spread' = 'location',
): string => withUnit(bareFigure(value, scale, kind), scale.as === 'reading' ? scale.unit : '');

/** A claimed value, at the decimals of the readings, or as it was typed where it has more. */
export function formatClaim(value: number, scale: Scale): string {
  if (scale.as === 'share') return formatPercentOf(value, 1 - value, 7);
  const plain =
    scale.as === 'reading' && scale.resolution !== null ? formatFigure(value, 'reading', scale.resolution) : '';
  const text = Number(plain.replace('−', '-')) === value ? plain : formatValue(value);
  return withUnit(text, scale.as === 'reading' ? scale.unit : '');
}

const points = (share: number) => {
  const value = Number((100 * share).toPrecision(3));
  return String(value).replace('-', '−');
};

/** How far apart, without a sign: of shares in points. */
export function formatDistance(value: number, scale: Scale): string {
  const size = Math.abs(value);
  if (scale.as === 'share') return `${points(size)} percentage ${size === 0.01 ? 'point' : 'points'}`;
  return scale.as === 'ratio' ? bareFigure(size, scale) : formatQuantity(size, scale, 'spread');
}

/** A difference that can be detected, to three figures: it is a property of the method, not of the readings. */
export function formatDetectable(value: number, scale: Scale): string {
  if (scale.as === 'share') return formatDistance(value, scale);
  return withUnit(formatValue(Number(value.toPrecision(3))), scale.as === 'reading' ? scale.unit : '');
}

/** A difference that somebody typed: as it was typed. */
export function formatNamed(value: number, scale: Scale): string {
  if (scale.as === 'share') return formatDistance(value, scale);
  return withUnit(formatValue(value), scale.as === 'reading' ? scale.unit : '');
}

/** An interval, ends that are open said so. `kind` is what its ends are: places, spreads, or differences. */
export function formatInterval(
  { lower, upper }: Interval,
  scale: Scale,
  kind: 'location' | 'spread' | 'difference' = 'location',
): string {
  const inPoints = scale.as === 'share' && kind === 'difference';
  const bare = (value: number) =>
    inPoints ? points(value) : bareFigure(value, scale, kind === 'location' ? 'location' : 'spread');
  const unit = inPoints ? 'percentage points' : scale.as === 'reading' ? scale.unit : '';
  if (lower !== null && upper !== null) {
    const [low, high] = formatApart(lower, upper, bare) ?? [bare(lower), bare(upper)];
    return withUnit(`${low} to ${high}`, unit);
  }
  if (lower !== null) return `at least ${withUnit(bare(lower), unit)}`;
  return upper !== null ? `at most ${withUnit(bare(upper), unit)}` : 'not available: too few readings';
}

/** "1 degree of freedom", "31.7 degrees of freedom". */
export const freedomWords = (df: number): string =>
  `${Number.isInteger(df) ? groupThousands(df) : df.toFixed(1)} ${df === 1 ? 'degree' : 'degrees'} of freedom`;

/** How many are expected: whole where they are many, four figures where they are few. */
export const formatExpected = (expected: number): string =>
  expected >= 10_000 ? groupThousands(Math.round(expected)) : formatValue(Number(expected.toPrecision(4)));

/** How a statistic is written. */
export interface Notation extends Scale {
  /** What the statistic is: a place, a spread, a difference, or a bare number. */
  kind: 'location' | 'spread' | 'difference';
}

/** With its sign, unless all that is written of it is 0. */
const signed = (value: number, text: string) => (value < 0 && /[1-9]/.test(text) ? `−${text}` : text);

/** How far off to either side, as it is written. */
export const formatOffset = (value: number, told: Notation): string => signed(value, formatDistance(value, told));

/** A value of the statistic, as it is written. */
export function formatStatistic(value: number, result: Notation): string {
  if (result.kind !== 'difference') return formatQuantity(value, result, result.kind);
  return signed(value, formatDistance(value, result));
}
