import type { Distribution, Family } from './family.js';
import { intervalProbability } from './interval-probability.js';

/** The region of a value, a limit of Infinity meaning none; `ends` says whether the limits themselves belong to it. */
export interface Region {
  lower: number;
  upper: number;
  /** True for what lies outside the limits instead of between them. */
  outside: boolean;
  ends: Ends;
}

export type Ends = 'included' | 'excluded' | 'lower-only';

/** How the limits count for what lies between them: outside, they belong to the region exactly when they do not belong there. */
function endsBetween({ outside, ends }: Region): Ends {
  if (!outside) return ends;
  return ends === 'included' ? 'excluded' : 'included';
}

/** True if x is in the region. */
export function isIn(region: Region, x: number): boolean {
  const { lower, upper, outside } = region;
  const between = endsBetween(region);
  const aboveLower = between === 'excluded' ? x > lower : x >= lower;
  const belowUpper = between === 'included' ? x <= upper : x < upper;
  return (aboveLower && belowUpper) !== outside;
}

/** The greatest whole number below x (or at it), for limits of counts. */
const wholeBelow = (x: number, included: boolean) => (included ? Math.floor(x) : Math.ceil(x) - 1);

/**
 * The probability of a region and of its complement, each computed from its own side, so that 1e-20 beside nearly 1 keeps its digits. For discrete
 * families the limits count as `ends` says; for continuous ones they have no probability.
 */
export function regionProbability(
  { discrete }: Family,
  distribution: Distribution,
  region: Region,
): { inside: number; rest: number } {
  const { lower, upper, outside } = region;
  const ends = endsBetween(region);
  // Between these: a < X ≤ b.
  const a = discrete ? wholeBelow(lower, ends === 'excluded') : lower;
  const b = discrete ? wholeBelow(upper, ends === 'included') : upper;
  const between =
    a === -Infinity
      ? distribution.cumulative(b)
      : b === Infinity
        ? distribution.survival(a)
        : intervalProbability(distribution, a, b, discrete);
  const below = a === -Infinity ? 0 : distribution.cumulative(a);
  const above = b === Infinity ? 0 : distribution.survival(b);
  const beyond = Math.min(1, below + above);
  return outside ? { inside: beyond, rest: between } : { inside: between, rest: beyond };
}

/** The probability that a limit corresponds to: below it, above it, or of a central interval of which it is one end. */
export function shareAt(distribution: Distribution, x: number, of: 'lower' | 'upper' | 'central'): number {
  if (of === 'lower') return distribution.cumulative(x);
  if (of === 'upper') return distribution.survival(x);
  return 1 - 2 * Math.min(distribution.cumulative(x), distribution.survival(x));
}
