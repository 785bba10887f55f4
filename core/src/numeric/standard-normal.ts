import { exp, log, log1p, productRest } from './elementary.js';
import { erfc, logErfcTail, scaledErfc } from './error-function.js';

const SQRT_HALF = Math.SQRT1_2;
const LOG_2 = Math.LN2;

/** P(Z ≤ z) of a standard normal; relative error below 2e-15 in the lower tail down to 1e-300. */
export function normalCumulative(z: number): number {
  return 0.5 * erfc(-z * SQRT_HALF);
}

/** P(Z > z), worked from the upper tail itself. */
export function normalSurvival(z: number): number {
  return 0.5 * erfc(z * SQRT_HALF);
}

/** log P(Z ≤ z), finite for every finite z, however far out. */
export function normalLogCumulative(z: number): number {
  const x = -z * SQRT_HALF;
  if (x > 1.25) return logErfcTail(x) - LOG_2;
  if (z > 1) return log1p(-normalSurvival(z));
  return log(normalCumulative(z));
}

function horner(c: readonly number[], r: number): number {
  let sum = 0;
  for (let i = c.length - 1; i >= 0; i--) sum = sum * r + c[i]!;
  return sum;
}

const CENTRE_P = [
  3.387132872796366608, 1.3314166789178437745e2, 1.9715909503065514427e3, 1.3731693765509461125e4,
  4.5921953931549871457e4, 6.7265770927008700853e4, 3.3430575583588128105e4, 2.5090809287301226727e3,
];
const CENTRE_Q = [
  1, 4.2313330701600911252e1, 6.871870074920579083e2, 5.3941960214247511077e3, 2.1213794301586595867e4,
  3.930789580009271061e4, 2.8729085735721942674e4, 5.226495278852854561e3,
];
const NEAR_P = [
  1.42343711074968357734, 4.6303378461565452959, 5.7694972214606914055, 3.64784832476320460504, 1.27045825245236838258,
  2.4178072517745061177e-1, 2.27238449892691845833e-2, 7.7454501427834140764e-4,
];
const NEAR_Q = [
  1, 2.05319162663775882187, 1.6763848301838038494, 6.8976733498510000455e-1, 1.4810397642748007459e-1,
  1.51986665636164571966e-2, 5.475938084995344946e-4, 1.05075007164441684324e-9,
];
const FAR_P = [
  6.6579046435011037772, 5.4637849111641143699, 1.7848265399172913358, 2.9656057182850489123e-1,
  2.6532189526576123093e-2, 1.2426609473880784386e-3, 2.71155556874348757815e-5, 2.01033439929228813265e-7,
];
const FAR_Q = [
  1, 5.9983220655588793769e-1, 1.3692988092273580531e-1, 1.48753612908506148525e-2, 7.868691311456132591e-4,
  1.8463183175100546818e-5, 1.4215117583164458887e-7, 2.04426310338993978564e-15,
];

/**
 * The z with P(Z ≤ z) = p, for 0 < p < 1 (±Infinity at the ends, NaN outside).
 * Wichura (1988), algorithm AS 241 (PPND16): relative error about 1e-16 before rounding.
 */
export function normalQuantile(p: number): number {
  const q = p - 0.5;
  if (Math.abs(q) <= 0.425) {
    const r = 0.180625 - q * q;
    return (q * horner(CENTRE_P, r)) / horner(CENTRE_Q, r);
  }
  const t = q < 0 ? p : 1 - p;
  if (t === 0) return q < 0 ? -Infinity : Infinity;
  const r = Math.sqrt(-log(t));
  const z = r <= 5 ? horner(NEAR_P, r - 1.6) / horner(NEAR_Q, r - 1.6) : horner(FAR_P, r - 5) / horner(FAR_Q, r - 5);
  return q < 0 ? -z : z;
}

/** Mills's ratio P(Z > t)/φ(t) for t ≥ 0: the tail beside the density, finite however far out. */
export function millsRatio(t: number): number {
  return Math.sqrt(Math.PI / 2) * scaledErfc(t * SQRT_HALF);
}

const SQRT_HALF_REST = -4.833646656726457e-17;

/**
 * P(Z > z + rest) for a score that is known better than a double can hold: far out, half a unit of z is hundreds of units of
 * the tail. To first order in what is lost to rounding, here and on the way to erfc.
 */
export function normalSurvivalAt(z: number, rest: number): number {
  const x = z * SQRT_HALF;
  const lost = productRest(z, SQRT_HALF, x) + z * SQRT_HALF_REST + rest * SQRT_HALF;
  const tail = 0.5 * erfc(x);
  if (Math.abs(lost) > 1e-6) return tail;
  if (x < 1 || tail < 1e-300) return tail - (exp(-x * x) / Math.sqrt(Math.PI)) * lost;
  // The density beside the tail is 1/√π over the scaled tail: its own exponential cancels.
  return tail * (1 - (2 / Math.sqrt(Math.PI)) * (lost / scaledErfc(x)));
}
