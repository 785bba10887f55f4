import { normalQuantile } from '../numeric/standard-normal.js';
import type { Distribution } from './family.js';

/** Shares closer to 0 and 1 than these have neither a score nor a reading in a double. */
const LEAST = 1e-300;
const GREATEST = 1 - 2 ** -53;

export const heldShare = (p: number): number => Math.min(GREATEST, Math.max(LEAST, p));

/** The standard normal score of the cumulative probability of x, computed from the side with the small tail. */
export function normalScore(law: Distribution, x: number): number {
  const p = law.cumulative(x);
  return p < 0.5 ? normalQuantile(heldShare(p)) : -normalQuantile(heldShare(law.survival(x)));
}
