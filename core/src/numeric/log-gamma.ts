import { log } from './elementary.js';

const HALF_LOG_TWO_PI = 0.918938533204672741780329736406;

/** Stirling's series B(2k)/(2k(2k−1)x^(2k−1)), k = 1 … 8: below 1e-17 from x = 15 (Abramowitz & Stegun 6.1.41). */
function stirlingSeries(x: number): number {
  const s = 1 / (x * x);
  return (
    (1 / 12 -
      s *
        (1 / 360 -
          s *
            (1 / 1260 - s * (1 / 1680 - s * (1 / 1188 - s * (691 / 360360 - s * (1 / 156 - (s * 3617) / 122400))))))) /
    x
  );
}

/** log Γ(x) for x > 0; absolute error about 1e-14 below x = 15, relative 1e-15 above. */
export function logGamma(x: number): number {
  let shift = 1;
  let y = x;
  while (y < 15) {
    shift *= y;
    y += 1;
  }
  return (y - 0.5) * log(y) - y + HALF_LOG_TWO_PI + stirlingSeries(y) - log(shift);
}
