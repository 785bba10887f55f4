import { exp, log } from '../../numeric/elementary.js';
import { isRefusal, refuse, type Refusal } from '../family.js';
import type { Peak } from './search.js';

/** What the other parameters reach at one threshold. */
export type Reached = Pick<Peak, 'parameters' | 'logLikelihood'>;

export interface ThresholdFit extends Reached {
  threshold: number;
  /** True when the profile rises up to the greatest threshold allowed. */
  atBound: boolean;
}

/** How far below the least reading thresholds are tried, in ranges of the readings, and in how many steps. */
const FURTHEST = 1000;
const NEAREST = 1e-6;
const STEPS = 36;

/**
 * The threshold on the profile likelihood: for each threshold the other parameters are fitted, and the highest inner peak of what they reach
 * is taken, as a start for Newton's steps in all of them. It stays below min − r/2 (without a resolution, a millionth of the range below the least reading), because the likelihood of several
 * families has a pole at the least reading itself (Cheng & Iles 1987). A profile that keeps rising towards −∞ has no maximum and is refused.
 */
export function profileThreshold(
  sorted: Float64Array,
  resolution: number | null,
  fitAt: (threshold: number) => Reached | Refusal,
): ThresholdFit | Refusal {
  const least = sorted[0]!;
  const range = sorted[sorted.length - 1]! - least;
  const bound = least - (resolution !== null ? resolution / 2 : NEAREST * range);
  const thresholdAt = (u: number) => bound - range * exp(u);
  const height = (u: number): number => {
    const reached = fitAt(thresholdAt(u));
    return isRefusal(reached) ? -Infinity : reached.logLikelihood;
  };
  const from = log(NEAREST);
  const stride = (log(FURTHEST) - from) / STEPS;
  const heights = Array.from({ length: STEPS + 1 }, (_, i) => height(from + i * stride));
  const inner = heights.reduce(
    (best, h, i) =>
      i > 0 && i < STEPS && h >= heights[i - 1]! && h >= heights[i + 1]! && h > (heights[best] ?? -Infinity) ? i : best,
    -1,
  );
  if (inner < 0 && heights[STEPS]! >= heights[0]!) {
    return refuse(
      'The threshold cannot be estimated, because the likelihood increases as the threshold decreases. Use no threshold, or a symmetric distribution.',
    );
  }
  const place = inner < 0 ? null : goldenMaximum(height, from + (inner - 1) * stride, from + (inner + 1) * stride);
  const threshold = place === null ? bound : thresholdAt(place);
  const reached = fitAt(threshold);
  return isRefusal(reached) ? reached : { ...reached, threshold, atBound: place === null };
}

/** Close enough for Newton's steps to find the rest. */
const NEAR = 1e-3;

/** About where f is greatest between a and b, by golden section. */
function goldenMaximum(f: (u: number) => number, a: number, b: number): number {
  const ratio = (Math.sqrt(5) - 1) / 2;
  let low = a;
  let high = b;
  let x1 = high - ratio * (high - low);
  let x2 = low + ratio * (high - low);
  let f1 = f(x1);
  let f2 = f(x2);
  while (high - low > NEAR * (b - a)) {
    if (f1 >= f2) {
      high = x2;
      x2 = x1;
      f2 = f1;
      x1 = high - ratio * (high - low);
      f1 = f(x1);
    } else {
      low = x1;
      x1 = x2;
      f1 = f2;
      x2 = low + ratio * (high - low);
      f2 = f(x2);
    }
  }
  return (low + high) / 2;
}
