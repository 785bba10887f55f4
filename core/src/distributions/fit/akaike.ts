import { exp } from '../../numeric/elementary.js';
import type { Family } from '../family.js';

/** The total weight of the distributions called plausible. */
export const PLAUSIBLE_WEIGHT = 0.95;

/**
 * True if the ends of a family are estimated by the extreme readings (uniform, triangular, discrete uniform): AICc does not apply to such a maximum,
 * and the family would rank too high (Burnham & Anderson 2002, section 2.2, require interior maxima).
 */
export const hasFittedEnds = ({ estimation }: Family): boolean => estimation.ends !== undefined;

/** Akaike weights exp(−Δ/2)/Σ exp(−Δ/2) (Burnham & Anderson 2002, section 2.9) of criteria in rising order. */
export function akaikeWeights(criteria: readonly number[]): number[] {
  const least = criteria[0] ?? 0;
  const raw = criteria.map((one) => exp(-(one - least) / 2));
  const sum = raw.reduce((a, b) => a + b, 0);
  return raw.map((one) => one / sum);
}

/** The number of leading families whose weights sum to at least 0.95. */
export function plausibleCount(weights: readonly number[]): number {
  let sum = 0;
  for (let k = 0; k < weights.length; k++) {
    sum += weights[k]!;
    if (sum >= PLAUSIBLE_WEIGHT) return k + 1;
  }
  return weights.length;
}

/** The meaning of a difference in AICc from the best family in words; the limits are those of Burnham & Anderson (2002), section 2.6. */
export function supportWords(difference: number): string {
  if (difference === 0) return 'best supported';
  if (difference <= 2) return 'similar support';
  if (difference <= 4) return 'somewhat less support';
  if (difference <= 7) return 'less support';
  return difference <= 10 ? 'little support' : 'hardly any support';
}
