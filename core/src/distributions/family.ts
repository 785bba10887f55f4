import type { StreamState } from '../random/stream.js';

/** The values of a family's parameters, by their names in STATISTICS section 3. */
export type Parameters = Readonly<Record<string, number>>;

/** Which values a parameter can take. */
export interface ParameterRange {
  /** The value lies above this … */
  above?: number;
  /** … or at or above this. */
  from?: number;
  below?: number;
  to?: number;
  whole?: boolean;
}

export interface ParameterSpec {
  name: string;
  /** How it is called in a sentence: "mean", "sd", "shape". */
  title: string;
  /** What it does, in a few plain words. */
  meaning: string;
  range: ParameterRange;
  /** Where to start from; for an optional parameter the value that stands when it is left out. */
  usual: number;
  optional?: true;
}

/**
 * A distribution with its parameters set. Every function works from the tail it is asked for: none is one minus another.
 * Moments that are infinite are Infinity, those that do not exist NaN; kurtosis is excess. What leaves the core says it in words instead.
 */
export interface Distribution {
  /** The density at x, or the probability of x for a discrete family. */
  density(x: number): number;
  logDensity(x: number): number;
  /** P(X ≤ x). */
  cumulative(x: number): number;
  /** P(X > x). */
  survival(x: number): number;
  /** The x with P(X ≤ x) = p; for a discrete family the least x with P(X ≤ x) ≥ p. */
  quantile(p: number): number;
  /** The x with P(X > x) = q; for a discrete family the least x with P(X > x) ≤ q. */
  survivalQuantile(q: number): number;
  mean: number;
  variance: number;
  skewness: number;
  kurtosis: number;
  /** The least and the greatest value, ±Infinity where there is none. */
  support: { lower: number; upper: number };
  /** Fills `out` with independent draws. */
  sample(stream: StreamState, out: Float64Array): void;
}

/** Why something cannot be had, in one sentence. */
export interface Refusal {
  refused: string;
}

export const refuse = (refused: string): Refusal => ({ refused });
export const isRefusal = (value: object): value is Refusal => 'refused' in value;

/** A fault of one parameter: which, and what to do. */
export interface ParameterFault {
  name: string;
  message: string;
}

/** A family of distributions: what stands in the registry. */
export interface Family {
  family: string;
  title: string;
  /** What it is used for, in one plain sentence. */
  about: string;
  discrete: boolean;
  parameters: readonly ParameterSpec[];
  /** What makes parameters that are in range each impossible together, or null. */
  conflict?(parameters: Parameters): ParameterFault | null;
  of(parameters: Parameters): Distribution;
  estimation: Estimation;
}

/** How the parameters of a family are found from readings. */
export interface Estimation {
  /** The observed information at the maximum for n readings, where it has a closed form. */
  information?(parameters: Parameters, n: number): { names: readonly string[]; matrix: readonly (readonly number[])[] };
  /** Parameters that are not estimated but given: trials of a binomial, the ends of a beta. A threshold is given as 0 unless it is asked for. */
  given?: readonly string[];
  /** Parameters whose estimate is an end of the readings, so that no standard error can be had from the curvature. */
  ends?: readonly string[];
  /** Where the likelihood of sorted readings is greatest, in closed form or by solving one equation; why it has no maximum, or why these readings are impossible. */
  maximum?(sorted: Float64Array, given: Parameters): Parameters | Refusal;
  /** True where `maximum` is itself a search and takes milliseconds. */
  slow?: true;
  /** Where a search starts, for the families without `maximum`. */
  start?(sorted: Float64Array, given: Parameters): Parameters | Refusal;
  /** The parameters that have this mean and variance, where that is one to one. */
  fromMoments?(mean: number, variance: number, given: Parameters): Parameters | Refusal;
  /** Why the likelihood has no greatest value where a search ended; null where it has. */
  boundless?(parameters: Parameters): string | null;
  /** Parameters that can only be given, and why: for families that readings cannot be fitted by. */
  never?: string;
}

const ANY: ParameterRange = {};
const POSITIVE: ParameterRange = { above: 0 };

/** The parameters that many families share. */
export const LOCATION: ParameterSpec = {
  name: 'location',
  title: 'location',
  meaning: 'the position of the distribution',
  range: ANY,
  usual: 0,
};
export const SCALE: ParameterSpec = {
  name: 'scale',
  title: 'scale',
  meaning: 'the spread, in the unit of the readings',
  range: POSITIVE,
  usual: 1,
};
export const THRESHOLD: ParameterSpec = {
  name: 'threshold',
  title: 'threshold',
  meaning: 'the lower limit of possible values',
  range: ANY,
  usual: 0,
  optional: true,
};
export function shapeParameter(meaning: string, usual: number, name = 'shape', title = 'shape'): ParameterSpec {
  return { name, title, meaning, range: POSITIVE, usual };
}
export const LOWER_END: ParameterSpec = {
  name: 'lower',
  title: 'lower limit',
  meaning: 'the smallest possible value',
  range: ANY,
  usual: 0,
};
export const UPPER_END: ParameterSpec = {
  name: 'upper',
  title: 'upper limit',
  meaning: 'the largest possible value',
  range: ANY,
  usual: 1,
};
/** The fault of two ends that are not in order. */
export function endsFault({ lower, upper }: { lower: number; upper: number }): ParameterFault | null {
  return lower < upper ? null : { name: 'upper', message: `The upper limit must be above the lower limit, ${lower}.` };
}
export const PROBABILITY: ParameterSpec = {
  name: 'probability',
  title: 'probability',
  meaning: 'the probability of a success in one trial',
  range: { above: 0, below: 1 },
  usual: 0.5,
};

/** Beyond this, doubles are no longer dense enough to count in. */
const GREATEST_COUNT = 1e15;

/** The fault of a family of counts whose mean is too great for exact counting. */
export function countsFault(mean: number, name: string): ParameterFault | null {
  if (mean <= GREATEST_COUNT) return null;
  return { name, message: `The mean of these counts is too large: ${mean.toExponential(1)}. It must be at most 1e15.` };
}

/** Completes a family's file: its names are checked, and `of` gets every parameter, optional ones included. */
export function defineFamily<Name extends string>(family: {
  family: string;
  title: string;
  about: string;
  discrete?: boolean;
  parameters: readonly (ParameterSpec & { name: Name })[];
  conflict?(parameters: Readonly<Record<Name, number>>): ParameterFault | null;
  of(parameters: Readonly<Record<Name, number>>): Distribution;
  estimation: Estimation;
}): Family & { of(parameters: Readonly<Record<Name, number>>): Distribution } {
  return { discrete: false, ...family };
}
