/** The result of a search: the place and the value there. */
export interface Minimum {
  at: Float64Array;
  value: number;
}

/** The step at which a central difference is most accurate, for coordinates of about 1 … */
const STEP = 1e-4;
/** … and the change of f at the best step if its valley is narrower. */
const MOVED = 1e-3;
const MOST_NARROWINGS = 6;
const MOST_ROUNDS = 60;
/** The greatest step: where f is nearly linear, a whole step would be far too long. */
const FURTHEST = 3;
/** The search has converged once a whole step would lower f by less than this. */
const CLOSE = 1e-9;

/** Gradient and the diagonal of the second derivatives by central differences, into `gradient` and `bend`. */
function slopes(
  f: (x: Float64Array) => number,
  { at, value }: Minimum,
  gradient: Float64Array,
  bend: Float64Array,
  steps: Float64Array,
): void {
  for (let i = 0; i < at.length; i++) {
    const x = at[i]!;
    const h = steps[i]!;
    at[i] = x + h;
    const above = f(at);
    at[i] = x - h;
    const below = f(at);
    at[i] = x;
    gradient[i] = (above - below) / (2 * h);
    bend[i] = (above - 2 * value + below) / (h * h);
  }
}

/** Shortens difference steps that are long relative to the valley. True once none is too long. */
function narrowed(bend: Float64Array, steps: Float64Array): boolean {
  let fits = true;
  for (let i = 0; i < steps.length; i++) {
    const moved = bend[i]! * steps[i]! * steps[i]!;
    if (moved <= 10 * MOVED) continue;
    fits = false;
    // Where f is no number a step away, only shorter ones tell.
    steps[i] = moved < Infinity ? steps[i]! * Math.sqrt(MOVED / moved) : steps[i]! / 32;
  }
  return fits;
}

/** H ← (I − ρ s yᵀ) H (I − ρ y sᵀ) + ρ s sᵀ, where sᵀy > 0 (Broyden, Fletcher, Goldfarb & Shanno 1970). */
function update(inverse: Float64Array, s: Float64Array, y: Float64Array): void {
  const k = s.length;
  let sy = 0;
  for (let i = 0; i < k; i++) sy += s[i]! * y[i]!;
  if (!(sy > 1e-14)) return;
  const hy = times(inverse, y);
  let yhy = 0;
  for (let i = 0; i < k; i++) yhy += y[i]! * hy[i]!;
  const factor = (1 + yhy / sy) / sy;
  for (let i = 0; i < k; i++)
    for (let j = 0; j < k; j++)
      inverse[i * k + j] = inverse[i * k + j]! + factor * s[i]! * s[j]! - (hy[i]! * s[j]! + s[i]! * hy[j]!) / sy;
}

function times(matrix: Float64Array, v: Float64Array): Float64Array {
  const k = v.length;
  return v.map((_, i) => {
    let sum = 0;
    for (let j = 0; j < k; j++) sum += matrix[i * k + j]! * v[j]!;
    return sum;
  });
}

/**
 * A local minimum of a smooth f by quasi-Newton steps from a nearby start, with differences for derivatives: about ten times faster than a simplex,
 * accurate to about 1e-4 of the width of the curvature. Null if it does not converge.
 */
export function quasiNewton(f: (x: Float64Array) => number, start: Float64Array): Minimum | null {
  const k = start.length;
  const gradient = new Float64Array(k);
  const before = new Float64Array(k);
  const bend = new Float64Array(k);
  let here: Minimum = { at: Float64Array.from(start), value: f(start) };
  if (!Number.isFinite(here.value)) return null;
  const steps = new Float64Array(k).fill(STEP);
  for (let round = 0; round < MOST_NARROWINGS; round++) {
    slopes(f, here, gradient, bend, steps);
    if (narrowed(bend, steps)) break;
  }
  const inverse = new Float64Array(k * k);
  for (let i = 0; i < k; i++) inverse[i * k + i] = bend[i]! > 0 ? 1 / bend[i]! : 1 / (1 + Math.abs(gradient[i]!));
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const direction = times(inverse, gradient);
    let fall = 0;
    for (let i = 0; i < k; i++) fall += direction[i]! * gradient[i]!;
    if (!Number.isFinite(fall) || fall < 0) return null;
    if (fall < CLOSE) return here;
    const next = along(f, here, direction, fall);
    if (!next) return null;
    before.set(gradient);
    slopes(f, next, gradient, bend, steps);
    const s = next.at.map((x, i) => x - here.at[i]!);
    const y = gradient.map((g, i) => g - before[i]!);
    here = next;
    update(inverse, s, y);
  }
  return null;
}

/** The first of ever shorter steps that lowers f by a fair part of what the slope promises (Armijo 1966). */
function along(
  f: (x: Float64Array) => number,
  { at, value }: Minimum,
  direction: Float64Array,
  fall: number,
): Minimum | null {
  const longest = direction.reduce((most, d) => Math.max(most, Math.abs(d)), 0);
  for (let part = Math.min(1, FURTHEST / longest); part > 1e-6; part /= 2) {
    const next = at.map((x, i) => x - part * direction[i]!);
    const reached = f(next);
    if (reached <= value - 1e-4 * part * fall) return { at: next, value: reached };
  }
  return null;
}
