import { createRedraw, type Redrawn } from '../distributions/fit/redraw.js';
import { betaLower } from '../numeric/beta-tails.js';
import { createStream, type StreamState } from '../random/stream.js';
import { nextBelow } from '../random/whole.js';
import { packCell, sheetCell, type CellKind } from './sheet-cell.js';

/** The number of small pictures in a line-up, one of which shows the readings (Buja and others 2009). */
export const PLACES = 20;
export const DECOYS = PLACES - 1;

export interface LineUpDraws extends Redrawn {
  as: CellKind;
}

/** Samples of the fitted distribution, each as a cell under the distribution refitted to it, one after another. */
export function drawLineUp({ as, ...redrawn }: LineUpDraws, state: StreamState, replicates: number): Float64Array {
  const { values, next } = createRedraw(redrawn);
  const cells = Array.from({ length: replicates }, () => packCell(sheetCell(as, values, next(state), redrawn.step)));
  return Float64Array.from(cells.flatMap((cell) => Array.from(cell)));
}

/** The position of the readings in the line-up, from 0: each equally likely, from the random stream after those of the simulated pictures. */
export const placeOfSubject = (seed: number): number => nextBelow(createStream(seed, DECOYS), PLACES);

/**
 * The probability that at least `right` of the viewers pick the readings by chance, each with probability 1/20 independently: binomial (Buja and
 * others 2009).
 */
export function chanceOfIndependent(viewers: number, right: number): number {
  if (right === 0) return 1;
  return betaLower(right, viewers - right + 1, 1 / PLACES, 1 - 1 / PLACES);
}

/**
 * The same if all viewers judge alike, each in a line-up of their own. The rank u of the readings among simulated samples is then common to all: each
 * viewer is right with probability u^19, and u is uniform if the distribution holds. So the number of correct picks is beta-binomial with shapes 1/19
 * and 1 (compare VanderPlas and others 2021). Real viewers are between this and the binomial.
 */
export function chanceOfAlike(viewers: number, right: number): number {
  // All of them right: (1/19)/(K + 1/19). One fewer: the ratio of neighbouring chances is (j + 1)/(j + 1/19). In whole numbers, so that 1 in 20 is just that.
  let chance = 1 / (DECOYS * viewers + 1);
  let sum = chance;
  for (let j = viewers - 1; j >= right; j--) {
    chance *= (DECOYS * (j + 1)) / (DECOYS * j + 1);
    sum += chance;
  }
  return Math.min(1, sum);
}
