import { meanDistance, medianDistance } from '../describe/deviations.js';
import { fenceMultiple } from '../describe/fence-multiples.js';
import { quantileOfSorted } from '../describe/quantiles.js';

/** A reading with a greater modified z is flagged (Iglewicz & Hoaglin 1993). */
export const MODIFIED_Z_LIMIT = 3.5;
/** A reading with a greater z is flagged by the rule of three SD. */
export const Z_LIMIT = 3;
/** Fences in interquartile ranges beyond a quartile: inner and outer. */
export const FENCE = 1.5;
export const FAR_FENCE = 3;

/** The factor of the modified z. */
export const MAD_SCALE = 0.6745;
/** The factor of the mean absolute deviation, used if the median absolute deviation is 0 (Iglewicz & Hoaglin 1993). */
export const MEAN_SCALE = 1.253314;

/** Median and unit of the modified z of a sorted sample; `madIsZero` if half of the readings are equal and the mean deviation is used instead. */
export interface RobustScale {
  median: number;
  unit: number;
  madIsZero: boolean;
}

export function robustScale(sorted: Float64Array): RobustScale {
  const median = quantileOfSorted(sorted, 0.5, 7);
  const mad = medianDistance(sorted, median);
  if (mad > 0) return { median, unit: mad / MAD_SCALE, madIsZero: false };
  return { median, unit: MEAN_SCALE * meanDistance(sorted, median), madIsZero: true };
}

/** (x − median)/unit: 0.6745·(x − median)/MAD. */
export const modifiedZ = (x: number, { median, unit }: RobustScale): number => (x - median) / unit;

export type FencePlace = 'inside' | 'outside' | 'far';

/** The position of a reading relative to the fences; if the interquartile range is 0, every other reading is beyond the outer fence. */
export function fencePlace(x: number, quartiles: readonly [number, number]): FencePlace {
  const [q1, q3] = quartiles;
  if (x >= q1 && x <= q3) return 'inside';
  const multiple = fenceMultiple(x, quartiles);
  if (multiple > FAR_FENCE) return 'far';
  return multiple > FENCE ? 'outside' : 'inside';
}
