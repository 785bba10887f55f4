import { meanDistance, medianDistance } from '../describe/deviations.js';
import { fenceMultiple } from '../describe/fence-multiples.js';
import { quantileOfSorted } from '../describe/quantiles.js';

/** A modified z beyond is named (Iglewicz & Hoaglin 1993). */
export const MODIFIED_Z_LIMIT = 3.5;
/** A z beyond is named by those who count sds. */
export const Z_LIMIT = 3;
/** Quartile ranges beyond a quartile: outside, and far outside. */
export const FENCE = 1.5;
export const FAR_FENCE = 3;

/** A modified z is so many MAD. */
export const MAD_SCALE = 0.6745;
/** Mean absolute deviations are multiplied by this where the median one is 0 (Iglewicz & Hoaglin 1993). */
export const MEAN_SCALE = 1.253314;

/** Median and the unit of the modified z of a sample in rising order; `madIsZero` where half of the readings are alike and the mean deviation stands in. */
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

/** Where a reading stands to the fences; without a quartile range every other reading is far. */
export function fencePlace(x: number, quartiles: readonly [number, number]): FencePlace {
  const [q1, q3] = quartiles;
  if (x >= q1 && x <= q3) return 'inside';
  const multiple = fenceMultiple(x, quartiles);
  if (multiple > FAR_FENCE) return 'far';
  return multiple > FENCE ? 'outside' : 'inside';
}
