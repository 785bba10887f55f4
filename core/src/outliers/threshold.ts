import { expm1, log1p } from '../numeric/elementary.js';
import { centralMoments } from '../numeric/sums.js';
import { namedBy, type Judging, type Limits } from './named.js';
import type { Side } from './grubbs.js';
import type { Rule } from './rules.js';

type End = 'upper' | 'lower';

/** A sorted sample with one further reading inserted. */
function withFurther(sorted: Float64Array, x: number, into: Float64Array): void {
  let at = sorted.length;
  while (at > 0 && sorted[at - 1]! > x) at--;
  into.set(sorted.subarray(0, at));
  into[at] = x;
  into.set(sorted.subarray(at), at + 1);
}

/** Does a rule with n + 1 readings flag the further reading x? For rules that look at quartiles, medians or gaps. */
export function flagsByRule(rule: Rule, sorted: Float64Array, limits: Limits, judging: Judging, end: End) {
  const all = new Float64Array(sorted.length + 1);
  return (x: number): boolean => {
    withFurther(sorted, x, all);
    const { low, high } = namedBy(rule, all, limits, judging);
    return end === 'upper' ? high > 0 && x >= all[all.length - high]! : low > 0 && x <= all[low - 1]!;
  };
}

/** The number of readings at each end that are handled one by one; the others enter through their mean and sum of squares. */
const APART = 8;

/**
 * The same for rules that remove the most extreme reading step by step (one step: Grubbs' test). The centre of the sample is summed once and the ends are added to
 * it, so that one evaluation does not depend on n and nothing cancels. `least` is what the largest ratio of statistic to critical value must exceed besides.
 */
export function flagsBySteps(sorted: Float64Array, limits: ArrayLike<number>, side: Side, end: End, least = 0) {
  const n = sorted.length;
  const apart = Math.min(limits.length + APART, n >> 1);
  const core = sorted.subarray(apart, n - apart);
  const centre = core.length > 0 ? centralMoments(core) : { n: 0, mean: 0, s2: 0 };
  const ends = new Float64Array(2 * apart);
  ends.set(sorted.subarray(0, apart));
  ends.set(sorted.subarray(n - apart), apart);
  const rest = new Float64Array(ends.length + 1);
  return (x: number): boolean => {
    withFurther(ends, x, rest);
    let [from, to] = [0, rest.length];
    let [greatest, taken, flagged] = [0, false, false];
    for (let i = 0; i < limits.length && to - from > 1; i++) {
      let { n: m, mean, s2 } = centre;
      for (let k = from; k < to; k++) {
        const d = rest[k]! - mean;
        m++;
        mean += d / m;
        s2 += d * (rest[k]! - mean);
      }
      const sd = Math.sqrt(s2 / (m - 1));
      if (!(sd > 0)) break;
      const [upper, lower] = [(rest[to - 1]! - mean) / sd, (mean - rest[from]!) / sd];
      const isUpper = side === 'upper' || (side === 'either' && upper >= lower);
      if (isUpper ? rest[--to] === x : rest[from++] === x) taken = taken || isUpper === (end === 'upper');
      const ratio = (isUpper ? upper : lower) / limits[i]!;
      if (ratio > greatest) greatest = ratio;
      if (ratio > 1) flagged = taken;
    }
    return flagged && greatest > least;
  };
}

/** Does z of the further reading exceed a limit? z is taken of all n + 1 readings. */
export function flagsByScore(sorted: Float64Array, limit: number) {
  const { n, mean, s2 } = centralMoments(sorted);
  return (x: number): boolean => {
    const d = x - mean;
    const squares = s2 + (n / (n + 1)) * d * d;
    return Math.abs(d) * (n / (n + 1)) > limit * Math.sqrt(squares / n);
  };
}

/** The search limit for a threshold, in ranges of the sample. */
const REACH = 64;
const STEPS = 48;
const HALVINGS = 60;
const CLOSE = 1e-8;

/**
 * The value beyond which one further reading, added to a sorted sample, is flagged, and up to which it is not; accurate to 1e-8 of the range. Null if
 * no reading at that end is flagged, however extreme.
 */
export function thresholdOf(sorted: Float64Array, end: End, flagged: (x: number) => boolean): number | null {
  const n = sorted.length;
  const range = sorted[n - 1]! - sorted[0]!;
  const middle = sorted[n >> 1]!;
  const sign = end === 'upper' ? 1 : -1;
  const at = (k: number) => middle + sign * range * expm1((k / STEPS) * log1p(REACH));
  if (!(range > 0) || !flagged(at(STEPS))) return null;
  let k = STEPS - 1;
  while (k >= 0 && flagged(at(k))) k--;
  // Flagged in the middle of the sample: there is no such point.
  if (k < 0) return null;
  let [inside, outside] = [at(k), at(k + 1)];
  for (let i = 0; i < HALVINGS && Math.abs(outside - inside) > CLOSE * range; i++) {
    const half = (inside + outside) / 2;
    if (flagged(half)) outside = half;
    else inside = half;
  }
  return outside;
}
