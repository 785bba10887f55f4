import { exp } from '../numeric/elementary.js';
import { normalCumulative, normalQuantile, normalSurvival } from '../numeric/standard-normal.js';

/** The normal distribution with a mean (any) and an sd (> 0), both in the unit of the readings. Closed forms over numeric/standard-normal. */
export interface Normal {
  mean: number;
  sd: number;
}

export const normal = {
  family: 'normal',
  density: ({ mean, sd }: Normal, x: number): number => {
    const z = (x - mean) / sd;
    return exp(-0.5 * z * z) / (sd * Math.sqrt(2 * Math.PI));
  },
  cumulative: ({ mean, sd }: Normal, x: number): number => normalCumulative((x - mean) / sd),
  survival: ({ mean, sd }: Normal, x: number): number => normalSurvival((x - mean) / sd),
  quantile: ({ mean, sd }: Normal, p: number): number => mean + sd * normalQuantile(p),
} as const;
