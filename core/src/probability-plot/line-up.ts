import { createRedraw, type Redrawn } from '../distributions/fit/redraw.js';
import { betaLower } from '../numeric/beta-tails.js';
import { createStream, type StreamState } from '../random/stream.js';
import { nextBelow } from '../random/whole.js';
import { packCell, sheetCell, type CellKind } from './sheet-cell.js';

/** So many small pictures stand in a line-up, one of them of the readings (Buja and others 2009). */
export const PLACES = 20;
export const DECOYS = PLACES - 1;

export interface LineUpDraws extends Redrawn {
  as: CellKind;
}

/** Samples of the fitted distribution, each as a cell under the distribution found from it anew: one after another. */
export function drawLineUp({ as, ...redrawn }: LineUpDraws, state: StreamState, replicates: number): Float64Array {
  const { values, next } = createRedraw(redrawn);
  const cells = Array.from({ length: replicates }, () => packCell(sheetCell(as, values, next(state), redrawn.step)));
  return Float64Array.from(cells.flatMap((cell) => Array.from(cell)));
}

/** At which place of a sheet, from 0, the readings stand: every one alike, from the stream after those of the decoys. */
export const placeOfSubject = (seed: number): number => nextBelow(createStream(seed, DECOYS), PLACES);

/** P(X ≥ right) of so many viewers, each of whom is right by chance once in 20, independently: binomial (Buja and others 2009). */
export function chanceOfIndependent(viewers: number, right: number): number {
  if (right === 0) return 1;
  return betaLower(right, viewers - right + 1, 1 / PLACES, 1 - 1 / PLACES);
}

/**
 * The same where all viewers judge alike, each on decoys of their own. How odd the readings are, as a share u of the samples that are less odd, is then
 * common to all: each is right with the chance u^19, and u is uniform if the distribution holds. So the number of right picks is beta-binomial with
 * shapes 1/19 and 1 (compare VanderPlas and others 2021). Real viewers lie between this and the binomial.
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
