import { rounderOf } from '../numeric/round-to.js';
import type { Distribution } from '../distributions/family.js';

/** The true properties of a population, with which simulations are compared. Mean and variance are NaN or Infinity if they do not exist. */
export interface Law extends Pick<Distribution, 'mean' | 'variance' | 'cumulative' | 'survival' | 'quantile'> {
  /** P(X < x) and P(X ≥ x), where single values have a probability; otherwise they are the cumulative and the survival. */
  below?(x: number): number;
  from?(x: number): number;
}

/** x becomes centre + times·(x − centre) + by. */
export interface Move {
  centre: number;
  times: number;
  by: number;
}

export const moved = (x: number, { centre, times, by }: Move): number => centre + times * (x - centre) + by;

/** The distribution of centre + times·(X − centre) + by. */
export function movedLaw(law: Law, { centre, times, by }: Move): Law {
  const back = (x: number) => (x - centre - by) / times + centre;
  return {
    mean: centre + times * (law.mean - centre) + by,
    variance: times * times * law.variance,
    cumulative: (x) => law.cumulative(back(x)),
    survival: (x) => law.survival(back(x)),
    ...(law.below && law.from ? { below: (x) => law.below!(back(x)), from: (x) => law.from!(back(x)) } : {}),
    quantile: (p) => centre + times * (law.quantile(p) - centre) + by,
  };
}

/** Of so many steps the middle of a law may hold, each is added up. */
const MOST_STEPS = 200_000;
/** What lies further out is too little to be seen in a mean. */
const OUT_OF_SIGHT = 1e-15;
const belowOf = (law: Law, x: number) => law.below?.(x) ?? law.cumulative(x);
const fromOf = (law: Law, x: number) => law.from?.(x) ?? law.survival(x);

/**
 * The distribution of X rounded to whole multiples of a step, halves up. Moments are summed step by step; for steps small relative to the SD the
 * variance is larger by step²/12 (Sheppard 1898).
 */
export function roundedLaw(law: Law, step: number): Law {
  const round = rounderOf(step, 'up');
  /** The last step at or below x, as the values that are drawn stand in doubles. */
  const stepAt = (x: number) => {
    const nearest = Math.round(x / step);
    return round(nearest * step) <= x ? nearest : nearest - 1;
  };
  const { mean, variance } = roundedMoments(law, step);
  return {
    mean,
    variance,
    cumulative: (x) => belowOf(law, (stepAt(x) + 0.5) * step),
    survival: (x) => fromOf(law, (stepAt(x) + 0.5) * step),
    quantile: (p) => round(law.quantile(p)),
  };
}

function roundedMoments(law: Law, step: number): { mean: number; variance: number } {
  const { mean, variance } = law;
  const [first, last] = [
    Math.round(law.quantile(OUT_OF_SIGHT) / step),
    Math.round(law.quantile(1 - OUT_OF_SIGHT) / step),
  ];
  if (!Number.isFinite(mean) || !(last - first <= MOST_STEPS)) return { mean, variance: variance + (step * step) / 12 };
  let [sum, squares, known] = [0, 0, 0];
  for (let k = first; k <= last; k++) {
    const [low, high] = [(k - 0.5) * step, (k + 0.5) * step];
    // From the tail that keeps its digits.
    const chance = low > mean ? fromOf(law, low) - fromOf(law, high) : belowOf(law, high) - belowOf(law, low);
    const off = k * step - mean;
    known += chance;
    sum += chance * off;
    squares += chance * off * off;
  }
  const off = sum / known;
  const infinite = !Number.isFinite(variance);
  return { mean: mean + off, variance: infinite ? variance : squares / known - off * off };
}

/** The mixture in which a proportion of the readings follows another distribution. */
export function mixedLaw(main: Law, other: Law, share: number): Law {
  const both = (of: (law: Law) => number) => (1 - share) * of(main) + share * of(other);
  const mean = both((law) => law.mean);
  const cumulative = (x: number) => both((law) => law.cumulative(x));
  return {
    mean,
    variance: both((law) => law.variance + (law.mean - mean) ** 2),
    cumulative,
    survival: (x) => both((law) => law.survival(x)),
    quantile: (p) => {
      const [a, b] = [main.quantile(p), other.quantile(p)];
      return leastReaching(cumulative, p, Math.min(a, b), Math.max(a, b));
    },
  };
}

/** The least x between two that a rising function reaches p at, to the last place: also where it rises in steps. */
function leastReaching(cumulative: (x: number) => number, p: number, below: number, above: number): number {
  let [low, high] = [below, above];
  if (!(low < high) || cumulative(low) >= p) return low;
  for (;;) {
    const middle = low + (high - low) / 2;
    if (middle <= low || middle >= high) return high;
    if (cumulative(middle) >= p) high = middle;
    else low = middle;
  }
}
