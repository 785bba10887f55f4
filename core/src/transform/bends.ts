import { exp } from '../numeric/elementary.js';

/** Nearer to 0 than this the closed forms lose more digits than eight terms of the series leave out. */
const NEAR = 0.05;

/** (e^(λv) − 1)/λ for likelihoods, where a digit or two less than `bent` keeps do not matter and a logarithm less does. */
export function bend(v: number, power: number): number {
  const u = power * v;
  if (Math.abs(u) > NEAR) return (exp(u) - 1) / power;
  return (
    v * (1 + u * (1 / 2 + u * (1 / 6 + u * (1 / 24 + u * (1 / 120 + u * (1 / 720 + u * (1 / 5_040 + u / 40_320)))))))
  );
}

/** The derivative of the transformed v with respect to λ, v² ∫₀¹ s·e^(λvs) ds, given the transformed value. */
export function slopeOfBend(v: number, power: number, bent: number): number {
  const u = power * v;
  if (Math.abs(u) > NEAR) return (v * (1 + power * bent) - bent) / power;
  return (
    v *
    v *
    (1 / 2 + u * (1 / 3 + u * (1 / 8 + u * (1 / 30 + u * (1 / 144 + u * (1 / 840 + u * (1 / 5_760 + u / 45_360)))))))
  );
}

/** The second derivative, v³ ∫₀¹ s²·e^(λvs) ds. */
export function curveOfBend(v: number, power: number, bent: number, slope: number): number {
  const u = power * v;
  if (Math.abs(u) > NEAR) return (v * v * (1 + power * bent) - 2 * slope) / power;
  return (
    v *
    v *
    v *
    (1 / 3 + u * (1 / 4 + u * (1 / 10 + u * (1 / 36 + u * (1 / 168 + u * (1 / 960 + u * (1 / 6_480 + u / 50_400)))))))
  );
}
