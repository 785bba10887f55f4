import { exp, expm1, log, log1p } from '../numeric/elementary.js';

/** Transformations of single readings; the power of the first two is estimated or given. */
export const POWER_TRANSFORMATIONS = ['box-cox', 'yeo-johnson'] as const;
export type PowerTransformation = (typeof POWER_TRANSFORMATIONS)[number];
export const TRANSFORMATIONS = [
  ...POWER_TRANSFORMATIONS,
  'logarithm',
  'square-root',
  'reciprocal',
  'normal-scores',
] as const;
export type TransformationName = (typeof TRANSFORMATIONS)[number];
/** Those that take a reading by itself: normal scores ask for all of them. */
export type PointwiseName = Exclude<TransformationName, 'normal-scores'>;

/** The greatest power: transformations beyond it differ by less than a thousandth of their size. */
export const LARGEST_POWER = 1_000;

export const isPower = (name: string): name is PowerTransformation =>
  (POWER_TRANSFORMATIONS as readonly string[]).includes(name);

/** ((e^v)^λ − 1)/λ, v for λ = 0. */
export const bent = (v: number, lambda: number) => (lambda === 0 ? v : expm1(lambda * v) / lambda);
/** The v of that; NaN where no v leads there. */
export const unbent = (t: number, lambda: number) => (lambda === 0 ? t : log1p(lambda * t) / lambda);

/**
 * (y^λ − 1)/λ of the easily told powers without logarithms, so that a square has no dust in its last digits; `less` is y − 1, which keeps the digits of a y
 * near 1. NaN for every other power.
 */
function plainly(y: number, less: number, lambda: number): number {
  const root = Math.sqrt(y);
  switch (lambda) {
    case 1:
      return less;
    case 2:
      return (less * (y + 1)) / 2;
    case 0.5:
      return (2 * less) / (root + 1);
    case -1:
      return less / y;
    case -0.5:
      return (2 * less) / (root * (root + 1));
    default:
      return NaN;
  }
}

function bentPlainly(y: number, less: number, lambda: number, logOf: () => number): number {
  const plain = plainly(y, less, lambda);
  return Number.isNaN(plain) ? bent(logOf(), lambda) : plain;
}

/** Box & Cox (1964, equation 1): (x^λ − 1)/λ, log x for λ = 0. Below 0 it has no value. */
function boxCox(x: number, lambda: number): number {
  if (x > 0) return bentPlainly(x, x - 1, lambda, () => log(x));
  return x === 0 && lambda > 0 ? -1 / lambda : NaN;
}

/** Yeo & Johnson (2000, equation 2.1): Box–Cox of x + 1 above 0, its mirror image with 2 − λ below. */
const yeoJohnson = (x: number, lambda: number) =>
  x >= 0 ? bentPlainly(x + 1, x, lambda, () => log1p(x)) : -bentPlainly(1 - x, -x, 2 - lambda, () => log1p(-x));

/** A reading transformed; NaN where the transformation has no value for it, ±Infinity where that is beyond what a number holds. */
export function transformed(name: PointwiseName, lambda: number, x: number): number {
  switch (name) {
    case 'box-cox':
      return boxCox(x, lambda);
    case 'yeo-johnson':
      return yeoJohnson(x, lambda);
    case 'logarithm':
      return x > 0 ? log(x) : NaN;
    case 'square-root':
      return x >= 0 ? Math.sqrt(x) : NaN;
    case 'reciprocal':
      return x > 0 ? 1 / x : NaN;
  }
}

/** The reading that is transformed to t; NaN where none is. */
export function turnedBack(name: PointwiseName, lambda: number, t: number): number {
  switch (name) {
    case 'box-cox':
      return exp(unbent(t, lambda));
    case 'yeo-johnson':
      return t >= 0 ? expm1(unbent(t, lambda)) : -expm1(unbent(-t, 2 - lambda));
    case 'logarithm':
      return exp(t);
    case 'square-root':
      return t >= 0 ? t * t : NaN;
    case 'reciprocal':
      return t > 0 ? 1 / t : NaN;
  }
}

/** True where greater readings are transformed to lesser numbers. */
export const turnsRound = (name: TransformationName): boolean => name === 'reciprocal';

/** Whether 0 has a transformed value under a transformation for readings on one side of it. */
export const takesZero = (name: TransformationName, lambda: number): boolean =>
  name === 'square-root' || (name === 'box-cox' && lambda > 0);

/** Why a reading has no transformed value: what the transformation asks for. */
export function domainWords(name: TransformationName, lambda: number): string | null {
  if (name === 'yeo-johnson' || name === 'normal-scores') return null;
  return takesZero(name, lambda) ? 'of at least 0' : 'above 0';
}

export interface Bounds {
  lower: number | null;
  target: number | null;
  upper: number | null;
}

/** Limits and target on the transformed scale: null if not given, or without a transformed value. */
export function transformedBounds(name: TransformationName, lambda: number, { lower, target, upper }: Bounds): Bounds {
  const of = (x: number | null) => {
    const t = x === null || name === 'normal-scores' ? NaN : transformed(name, lambda, x);
    return Number.isFinite(t) ? t : null;
  };
  const [low, high] = turnsRound(name) ? [upper, lower] : [lower, upper];
  return { lower: of(low), target: of(target), upper: of(high) };
}
