import type { Distribution } from './family.js';

/** Nodes and weights of Gauss & Legendre's rule of 8 points (Abramowitz & Stegun table 25.4). */
const RULE = [
  [0.1834346424956498, 0.362683783378362],
  [0.525532409916329, 0.3137066458778873],
  [0.7966664774136267, 0.2223810344533745],
  [0.9602898564975363, 0.1012285362903763],
] as const;

/**
 * P(a ≤ X < b) of a continuous distribution (either end may be open), or P(a < X ≤ b) of a discrete one. Computed from the side with small tails; if
 * the two tails agree in their first digits, by integrating the density, since their difference would cancel.
 */
export function intervalProbability(distribution: Distribution, a: number, b: number, discrete = false): number {
  if (!(a < b)) return 0;
  if (a === -Infinity) return b === Infinity ? 1 : distribution.cumulative(b);
  if (b === Infinity) return distribution.survival(a);
  const low = distribution.cumulative(a);
  const high = distribution.survival(b);
  if (low === 0) return distribution.cumulative(b);
  if (high === 0) return distribution.survival(a);
  const [near, far] = low < high ? [distribution.cumulative(b), low] : [distribution.survival(a), high];
  const difference = near - far;
  if (discrete || difference > 0.02 * near) return Math.max(0, difference);
  const half = (b - a) / 2;
  const middle = a + half;
  let sum = 0;
  for (const [node, weight] of RULE) {
    sum += weight * (distribution.density(middle - half * node) + distribution.density(middle + half * node));
  }
  // A density that runs off to infinity inside is left to the difference.
  return Number.isFinite(sum) ? half * sum : Math.max(0, difference);
}
