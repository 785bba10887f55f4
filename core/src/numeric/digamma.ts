import { log } from './elementary.js';

/** The derivative ψ of log Γ for x > 0: ψ(x) = ψ(x + 1) − 1/x up to 10, then the asymptotic series (Abramowitz & Stegun 6.3.5, 6.3.18). Absolute error below 1e-15·max(1, |ψ|). */
export function digamma(x: number): number {
  let y = x;
  let lifted = 0;
  for (; y < 10; y++) lifted += 1 / y;
  const s = 1 / (y * y);
  const series =
    s * (1 / 12 - s * (1 / 120 - s * (1 / 252 - s * (1 / 240 - s * (1 / 132 - s * (691 / 32760 - s * (1 / 12)))))));
  return log(y) - 0.5 / y - series - lifted;
}
