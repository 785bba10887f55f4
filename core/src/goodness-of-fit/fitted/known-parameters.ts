import { exp, log } from '../../numeric/elementary.js';

/** The limiting distribution of A² for large n (Marsaglia & Marsaglia 2004, `adinf`), accurate to about 2e-6. */
function limitingAndersonDarling(z: number): number {
  if (z < 2) {
    const inner = 2.00012 + (0.247105 - (0.0649821 - (0.0347962 - (0.011672 - 0.00168691 * z) * z) * z) * z) * z;
    return (exp(-1.2337141 / z) / Math.sqrt(z)) * inner;
  }
  const inner = 1.0776 - (2.30695 - (0.43424 - (0.082433 - (0.008056 - 0.0003146 * z) * z) * z) * z) * z;
  return exp(-exp(inner));
}

/** The difference between the distribution of A² for n readings and the limiting one, at its value x (Marsaglia & Marsaglia 2004, `errfix`). */
function finiteCorrection(n: number, x: number): number {
  if (x > 0.8) {
    const inner = 745.2337 - (1705.091 - (1950.646 - (1116.36 - 255.7844 * x) * x) * x) * x;
    return (-130.2137 + inner * x) / n;
  }
  const c = 0.01265 + 0.1757 / n;
  if (x < c) {
    const t = x / c;
    return Math.sqrt(t) * (1 - t) * (49 * t - 102) * (0.0037 / n ** 3 + 0.00078 / n ** 2 + 0.00006 / n);
  }
  const t = (x - c) / (0.8 - c);
  const inner = -0.00022633 + (6.54034 - (14.6538 - (14.458 - (8.259 - 1.91864 * t) * t) * t) * t) * t;
  return inner * (0.04213 / n + 0.01365 / n ** 2);
}

/** Beyond this the published approximation is too coarse relative to p. */
const LEAST_P = 1e-4;

/**
 * P(A² ≥ z) for n readings and a fully specified distribution (Marsaglia & Marsaglia 2004); null below 1e-4, where the approximation is not accurate
 * enough.
 */
export function andersonDarlingKnown(z: number, n: number): number | null {
  if (!(z > 0)) return 1;
  const limiting = limitingAndersonDarling(z);
  const p = 1 - limiting - finiteCorrection(n, limiting);
  return p >= LEAST_P ? Math.min(1, p) : null;
}

/** Products of matrices of size m, kept within range by an exponent of 10. */
interface Scaled {
  matrix: Float64Array;
  exponent: number;
}

function product(a: Float64Array, b: Float64Array, m: number): Float64Array {
  const c = new Float64Array(m * m);
  for (let i = 0; i < m; i++) {
    for (let k = 0; k < m; k++) {
      const factor = a[i * m + k]!;
      if (factor === 0) continue;
      for (let j = 0; j < m; j++) c[i * m + j] = c[i * m + j]! + factor * b[k * m + j]!;
    }
  }
  return c;
}

const BIG = 1e140;

function rescaled({ matrix, exponent }: Scaled, centre: number): Scaled {
  if (matrix[centre]! <= BIG) return { matrix, exponent };
  return { matrix: matrix.map((v) => v / BIG), exponent: exponent + 140 };
}

function power(of: Scaled, n: number, m: number): Scaled {
  if (n === 1) return of;
  const centre = Math.floor(m / 2) * m + Math.floor(m / 2);
  const half = power(of, Math.floor(n / 2), m);
  const square = { matrix: product(half.matrix, half.matrix, m), exponent: 2 * half.exponent };
  const whole =
    n % 2 === 0 ? square : { matrix: product(of.matrix, square.matrix, m), exponent: of.exponent + square.exponent };
  return rescaled(whole, centre);
}

/** Beyond this n the matrices grow too large to be worth it. */
const GREATEST_N = 2_000;

/**
 * P(D ≥ d) for n readings and a fully specified distribution, exactly, by Durbin's matrix (Marsaglia, Tsang & Wang 2003); null for more than 2 000
 * readings. In the far tail, where 1 − P would cancel, 2·P(D⁺ ≥ d), which differs from it by less than 1e-9 there.
 */
export function kolmogorovSmirnovKnown(d: number, n: number): number | null {
  if (n > GREATEST_N) return null;
  if (d <= 1 / (2 * n)) return 1;
  if (d >= 1) return 0;
  if (n * d * d > 9) return Math.min(1, 2 * oneSided(d, n));
  const k = Math.floor(n * d) + 1;
  const m = 2 * k - 1;
  const h = k - n * d;
  const matrix = durbinMatrix(m, h);
  const { matrix: powered, exponent } = power({ matrix, exponent: 0 }, n, m);
  let value = powered[(k - 1) * m + k - 1]!;
  let scale = exponent;
  for (let i = 1; i <= n; i++) {
    value = (value * i) / n;
    if (value < 1 / BIG) {
      value *= BIG;
      scale -= 140;
    }
  }
  return Math.min(1, Math.max(0, 1 - value * 10 ** scale));
}

function durbinMatrix(m: number, h: number): Float64Array {
  const matrix = new Float64Array(m * m);
  for (let i = 0; i < m; i++) for (let j = 0; j < m; j++) matrix[i * m + j] = i - j + 1 < 0 ? 0 : 1;
  for (let i = 0; i < m; i++) {
    matrix[i * m] = matrix[i * m]! - h ** (i + 1);
    matrix[(m - 1) * m + i] = matrix[(m - 1) * m + i]! - h ** (m - i);
  }
  matrix[(m - 1) * m] = matrix[(m - 1) * m]! + (2 * h - 1 > 0 ? (2 * h - 1) ** m : 0);
  for (let i = 0; i < m; i++)
    for (let j = 0; j < m; j++) for (let g = 1; g <= i - j + 1; g++) matrix[i * m + j] = matrix[i * m + j]! / g;
  return matrix;
}

/** P(D⁺ ≥ d) by Birnbaum & Tingey (1951): d·Σ C(n, j)·(d + j/n)^(j−1)·(1 − d − j/n)^(n−j), the binomials by their ratio. */
function oneSided(d: number, n: number): number {
  let sum = 0;
  let logChoose = 0;
  for (let j = 0; j <= Math.floor(n * (1 - d)); j++) {
    if (j > 0) logChoose += log((n - j + 1) / j);
    const below = d + j / n;
    const above = 1 - below;
    if (above <= 0) break;
    sum += exp(logChoose + (j - 1) * log(below) + (n - j) * log(above));
  }
  return d * sum;
}
