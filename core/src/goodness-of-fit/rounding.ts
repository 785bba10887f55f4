import { centralMoments } from '../numeric/sums.js';
import { roundedAndersonDarling } from './normality/rounded-anderson-darling.js';
import { countSteps, populationOf, stepsOf, type RoundedNormal } from './rounded-normal.js';

/** Steps finer than this many in an sd change the statistic too little to matter. */
export const COARSE = 8;

/** How the rounding is judged: nothing to judge, replicates rounded before A² is taken, or the counted steps. */
export type Rounding =
  | { by: 'rounded-replicates'; population: RoundedNormal }
  | { by: 'counted-steps'; population: RoundedNormal; statistic: number };

export function roundingOf(values: Float64Array, resolution: number | null, sd: number): Rounding | null {
  if (!resolution) return null;
  const inSteps = sd / resolution;
  if (inSteps >= COARSE) {
    const offset = (centralMoments(values).mean - values[0]!) / resolution;
    const population = { mean: offset - Math.floor(offset), sd: Math.sqrt(inSteps * inSteps - 1 / 12) };
    return { by: 'rounded-replicates', population };
  }
  const steps = stepsOf(values, resolution);
  // Readings within half a step of one another have no spread in steps.
  const cells = countSteps(steps);
  const population = populationOf(cells);
  return population && { by: 'counted-steps', population, statistic: roundedAndersonDarling(cells) };
}
