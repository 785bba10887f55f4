import { normalCumulative, normalSurvival } from '../../numeric/standard-normal.js';
import type { StreamState } from '../../random/stream.js';
import { countSteps, fitRoundedNormal, type RoundedNormal, type StepCounts } from '../rounded-normal.js';
import { drawOf, type Population } from './anderson-darling-simulation.js';

const NOTHING = 1e-9;

/**
 * A² of readings that are whole steps, against the normal they were rounded from: the sum over the boundaries k between steps of
 * (S_k − nH_k)²·t_k/(nH_k(1 − H_k)), S_k being the readings below the boundary, H_k the chance of them, t_k the mean chance of the steps on both
 * sides (Choulakian, Lockhart & Stephens 1994, A² with their symmetric weights). As the steps get finer it becomes Anderson and Darling's. 0 for one value.
 */
export function roundedAndersonDarling(cells: StepCounts): number {
  const fitted = fitRoundedNormal(cells);
  if (!fitted) return 0;
  const { n, least, counts } = cells;
  const z = (j: number) => (least + j + 0.5 - fitted.mean) / fitted.sd;
  let below = 0;
  let sum = 0;
  let lower = 0;
  let upper = 1;
  let lowerHere = normalCumulative(z(0));
  let upperHere = normalSurvival(z(0));
  for (let j = 0; j < counts.length - 1; j++) {
    below += counts[j]!;
    // The outermost steps are open: all that lies beyond belongs to them.
    const last = j === counts.length - 2;
    const lowerNext = last ? 1 : normalCumulative(z(j + 1));
    const upperNext = last ? 0 : normalSurvival(z(j + 1));
    // From whichever tail is the smaller one; beyond a double's reach each step of an empty stretch counts as one.
    const fromBelow = lowerHere < upperHere;
    const tail = fromBelow ? lowerHere : upperHere;
    const both = fromBelow ? lowerNext - lower : upper - upperNext;
    const gap = fromBelow ? below - n * lowerHere : n - below - n * upperHere;
    sum += tail > 0 ? (gap * gap * both) / (2 * n * lowerHere * upperHere) : (gap * gap) / n;
    [lower, upper, lowerHere, upperHere] = [lowerHere, upperHere, lowerNext, upperNext];
  }
  // A normal that fits the counts wholly leaves rounding errors.
  return sum < NOTHING ? 0 : sum;
}

export interface RoundedReplicates {
  n: number;
  population: RoundedNormal;
  /** What is drawn with this mean and sd; a normal unless another is asked for. */
  from?: Population;
}

/** The statistic of replicates, each drawn, rounded to whole steps and refitted. */
export function simulateRoundedAndersonDarling(
  { n, population, from = 'normal' }: RoundedReplicates,
  state: StreamState,
  replicates: number,
): Float64Array {
  const values = new Float64Array(n);
  const draw = drawOf(from, population);
  return Float64Array.from({ length: replicates }, () => {
    draw(values, state);
    return roundedAndersonDarling(countSteps(values));
  });
}
