import { exp } from './elementary.js';
import { scaledErfc } from './error-function.js';
import { log1pMinus } from './log1p-minus.js';

const TWO_PER_ROOT_PI = 2 / Math.sqrt(Math.PI);
const INVERSE_ROOT_8 = Math.SQRT1_2 / 2;
const TERMS = 20;

const a0 = new Float64Array(TERMS + 2);
const b0 = new Float64Array(TERMS + 2);
const c = new Float64Array(TERMS + 2);
const d = new Float64Array(TERMS + 2);

/** c and d number i of the expansion, from a0[1 … i] (DiDonato & Morris 1992, eq. 19 ff.). */
function nextCoefficient(i: number): void {
  const r = -0.5 * (i + 1);
  b0[1] = r * a0[1]!;
  for (let m = 2; m <= i; m++) {
    let sum = 0;
    for (let j = 1; j < m; j++) sum += (j * r - (m - j)) * a0[j]! * b0[m - j]!;
    b0[m] = r * a0[m]! + sum / m;
  }
  c[i] = b0[i]! / (i + 1);
  let sum = 0;
  for (let j = 1; j < i; j++) sum += d[i - j]! * c[j]!;
  d[i] = -(sum + c[i]!);
}

/**
 * I_x(a, b) for large shapes near the mean: `lambda` = a − (a + b)x ≥ 0, at most 3 % of the smaller shape, which is at least 500.
 * The asymptotic expansion of DiDonato & Morris (1992, BASYM); `rest` is e^(Stirling errors of a + b less those of a and b).
 */
export function betaAsymptotic(a: number, b: number, lambda: number, rest: number): number {
  const h = Math.min(a, b) / Math.max(a, b);
  const r0 = 1 / (1 + h);
  const r1 = (b - a) / Math.max(a, b);
  const w0 = 1 / Math.sqrt(Math.min(a, b) * (1 + h));
  const f = -(a * log1pMinus(-lambda / a) + b * log1pMinus(lambda / b));
  const root = Math.sqrt(f);
  const z = (0.5 * root) / INVERSE_ROOT_8;
  const z2 = f + f;
  const scale = exp(-f);
  a0[1] = (2 / 3) * r1;
  c[1] = -0.5 * a0[1];
  d[1] = -c[1];
  let j0 = (0.5 / TWO_PER_ROOT_PI) * scaledErfc(root);
  let j1 = INVERSE_ROOT_8;
  let sum = j0 + d[1] * w0 * j1;
  let s = 1;
  let hn = 1;
  let w = w0;
  let powerEven = z;
  let powerOdd = z2;
  for (let n = 2; n <= TERMS; n += 2) {
    hn *= h * h;
    a0[n] = (2 * r0 * (1 + h * hn)) / (n + 2);
    s += hn;
    a0[n + 1] = (2 * r1 * s) / (n + 3);
    nextCoefficient(n);
    nextCoefficient(n + 1);
    j0 = INVERSE_ROOT_8 * powerEven + (n - 1) * j0;
    j1 = INVERSE_ROOT_8 * powerOdd + n * j1;
    powerEven *= z2;
    powerOdd *= z2;
    w *= w0;
    const even = d[n]! * w * j0;
    w *= w0;
    const odd = d[n + 1]! * w * j1;
    sum += even + odd;
    if (Math.abs(even) + Math.abs(odd) <= 1e-17 * sum) break;
  }
  return TWO_PER_ROOT_PI * scale * rest * sum;
}
