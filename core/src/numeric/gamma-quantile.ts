import { exp, log } from './elementary.js';
import { gammaLower, gammaPrefix, gammaUpper } from './gamma-tails.js';
import { logGamma, logGammaOnePlus } from './log-gamma.js';
import { normalQuantile } from './standard-normal.js';
import { scaledBy, solveTail } from './tail-root.js';

/** The x with P(a, x) = p, for a > 0: 0 at p = 0, Infinity at 1, NaN outside. Where it lies below 1e-308 it is 0. */
export function gammaLowerQuantile(a: number, p: number): number {
  if (!(p >= 0 && p <= 1)) return NaN;
  if (p === 0) return 0;
  if (p === 1) return Infinity;
  return p <= 0.5 ? solve(a, p, false) : solve(a, 1 - p, true);
}

/** The x with Q(a, x) = q. */
export function gammaUpperQuantile(a: number, q: number): number {
  if (!(q >= 0 && q <= 1)) return NaN;
  if (q === 0) return Infinity;
  if (q === 1) return 0;
  return q <= 0.5 ? solve(a, q, true) : solve(a, 1 - q, false);
}

/** Where the search starts: Wilson & Hilferty (1931) in the middle, the leading terms of either tail further out (DiDonato & Morris 1986). */
function start(a: number, p: number, upper: boolean): number {
  const shape = a < 1 ? logGammaOnePlus(a) : logGamma(a + 1);
  if (a < 1.5 || (!upper && p < 1e-3 && a < 20)) {
    const lower = upper ? 1 - p : p;
    const lead = (log(lower) + shape) / a;
    if (lead < 0.4 * log(a + 1) - 0.5 || (!upper && lead < -1)) {
      const x = exp(lead);
      return x * (1 + x / (a + 1));
    }
    if (upper && p < 0.05) {
      // Q ≈ x^(a−1)·e^−x/Γ(a), solved for x by going round once.
      const first = -log(p) - (shape - log(a));
      const y = Math.max(first, 0.5);
      return Math.max(first + (a - 1) * log(y), 0.1);
    }
  }
  const z = upper ? -normalQuantile(p) : normalQuantile(p);
  const ninth = 1 / (9 * a);
  const root = 1 - ninth + z * Math.sqrt(ninth);
  if (root > 0.1) return a * root * root * root;
  return exp((log(p) + shape) / a);
}

function solve(a: number, p: number, upper: boolean): number {
  let x = start(a, p, upper);
  if (!(x > 1e-305)) {
    // So near 0 that the leading term is the whole of P: (p·Γ(a + 1))^(1/a).
    const lower = upper ? 1 - p : p;
    return exp((log(lower) + logGamma(a + 1)) / a);
  }
  solveTail(
    p,
    upper,
    (out) => {
      out.tail = upper ? gammaUpper(a, x) : gammaLower(a, x);
      out.slope = a * gammaPrefix(a, x);
      out.bend = a - x;
    },
    (step) => {
      x = scaledBy(x, step);
    },
  );
  return x;
}
