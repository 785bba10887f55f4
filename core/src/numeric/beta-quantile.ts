import { betaLower, betaPrefix, logBeta } from './beta-tails.js';
import { exp, log } from './elementary.js';
import { normalQuantile } from './standard-normal.js';
import { solveTail } from './tail-root.js';

/** A place in 0 … 1 with its complement, whichever is small being exact. */
export interface Share {
  x: number;
  y: number;
}

/** The x (and 1 − x) with I_x(a, b) = p, for a and b > 0 and 0 ≤ p ≤ 1. */
export function betaLowerQuantile(a: number, b: number, p: number): Share {
  if (p === 0) return { x: 0, y: 1 };
  if (p === 1) return { x: 1, y: 0 };
  return p <= 0.5 ? solve(a, b, p) : swapped(solve(b, a, 1 - p));
}

/** The x (and 1 − x) with 1 − I_x(a, b) = q. */
export function betaUpperQuantile(a: number, b: number, q: number): Share {
  return swapped(betaLowerQuantile(b, a, q));
}

const swapped = ({ x, y }: Share): Share => ({ x: y, y: x });

/** The odds x/y to start from: Cochran's approximation where both shapes exceed 1 (Abramowitz & Stegun 26.5.22), else the leading term of the tail next to 0. */
function startingLogOdds(a: number, b: number, p: number): number {
  const lead = (log(p) + log(a) + logBeta(a, b)) / a;
  if (a <= 1 || b <= 1) {
    if (lead < -0.1) return lead - log(-expm1Of(lead));
    return 2;
  }
  const z = -normalQuantile(p);
  const lambda = (z * z - 3) / 6;
  const ra = 1 / (2 * a - 1);
  const rb = 1 / (2 * b - 1);
  const h = 2 / (ra + rb);
  const w = (z * Math.sqrt(Math.max(h + lambda, 0.01))) / h - (rb - ra) * (lambda + 5 / 6 - 2 / (3 * h));
  const logOdds = log(a) - log(b) - 2 * w;
  // Far out for small shapes the leading term is the better of the two.
  return lead < -3 && logOdds < lead ? lead : logOdds;
}

const expm1Of = (x: number): number => exp(x) - 1;

/** Solves I_x(a, b) = p for p ≤ ½, from the tail next to 0. */
function solve(a: number, b: number, p: number): Share {
  const logOdds = startingLogOdds(a, b, p);
  if (logOdds < -700) return { x: exp((log(p) + log(a) + logBeta(a, b)) / a), y: 1 };
  const odds = exp(Math.min(700, logOdds));
  let x = odds / (1 + odds);
  let y = 1 / (1 + odds);
  solveTail(
    p,
    false,
    (out) => {
      out.tail = betaLower(a, b, x, y);
      out.slope = betaPrefix(a, b, x, y);
      out.bend = a * y - b * x;
    },
    (step) => {
      const grown = x * exp(step);
      const total = grown + y;
      x = grown / total;
      y /= total;
    },
  );
  return { x, y };
}
