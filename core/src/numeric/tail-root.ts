import { exp, log } from './elementary.js';

/** A tail at one place of the working variable: its value, what it changes by, and how that change itself changes. */
export interface TailAt {
  tail: number;
  /** −d tail/du for an upper tail, d tail/du for a lower one: positive. */
  slope: number;
  /** d log(slope)/du. */
  bend: number;
}

/**
 * Solves tail(u) = p for a variable that is moved by steps (x·e^step, or the same of the odds), by Halley's method on log(tail/p):
 * in it, both far tails are nearly straight. A step that leaves what earlier steps have bracketed is cut to its middle.
 *
 * `at` fills the record for the place that `move` has reached; `move(step)` goes on by a step. Each keeps the place in its own
 * precision, so that the result is as exact as the tail.
 */
export function solveTail(p: number, upper: boolean, at: (out: TailAt) => void, move: (step: number) => void): void {
  const here: TailAt = { tail: 0, slope: 0, bend: 0 };
  const sign = upper ? -1 : 1;
  // The bracket as distances from the present place.
  let below = -Infinity;
  let above = Infinity;
  for (let round = 0; round < 200; round++) {
    at(here);
    const { tail, slope, bend } = here;
    if (tail === p) return;
    const tooFar = tail > p === !upper;
    if (tooFar) above = 0;
    else below = 0;
    const h = slope / tail;
    const error = log(tail / p) / (sign * h);
    // Where Halley's correction would turn the step round or blow it up, Newton's step is taken.
    const correction = 1 - 0.5 * error * (bend - sign * h);
    let step = -error / (correction > 0.5 ? correction : correction < 0 ? 1 : 0.5);
    if (!Number.isFinite(step) || step <= below || step >= above) step = insideOf(below, above, tooFar);
    // So small a step far from the solution is a place where the tail is flat beyond what the derivatives can tell.
    if (Math.abs(step) < 1e-17 && Math.abs(log(tail / p)) > 1e-6) step = insideOf(below, above, tooFar);
    const size = Math.abs(step);
    if (size < 1e-17) return;
    move(step);
    below -= step;
    above -= step;
    // The error shrinks to its cube: a step this small leaves less than rounding.
    if (size < 2e-6 && Math.abs(bend - sign * h) * size < 1e-2) return;
  }
}

/** The middle of a bracket; an open one is left by doubling strides. */
function insideOf(below: number, above: number, tooFar: boolean): number {
  if (Number.isFinite(below) && Number.isFinite(above)) return (below + above) / 2;
  return tooFar ? -Math.max(1, 2 * above) - 1 : Math.max(1, -2 * below) + 1;
}

/** x·e^step, exact for a step near rounding. */
export function scaledBy(x: number, step: number): number {
  return Math.abs(step) < 1e-5 ? x + x * (step + 0.5 * step * step) : x * exp(step);
}
