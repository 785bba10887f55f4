/** The second derivative ψ′ of log Γ for x > 0: ψ′(x) = ψ′(x + 1) + 1/x² up to 12, then the asymptotic series (Abramowitz & Stegun 6.4.6, 6.4.12). Relative error below 1e-15. */
export function trigamma(x: number): number {
  let y = x;
  let lifted = 0;
  for (; y < 12; y++) lifted += 1 / (y * y);
  const s = 1 / (y * y);
  const series =
    1 / 6 -
    s * (1 / 30 - s * (1 / 42 - s * (1 / 30 - s * (5 / 66 - s * (691 / 2730 - s * (7 / 6 - s * (3617 / 510)))))));
  return lifted + 1 / y + 0.5 * s + (series * s) / y;
}
