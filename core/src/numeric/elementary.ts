/**
 * Exponential and logarithm from + − × ÷ alone, after Sun's fdlibm (e_exp.c, e_log.c, 1993; error below 1 unit in the last place).
 *
 * Why not Math.exp and Math.log: engines round them differently. Node 20 and Chromium 156 disagree in the last bit for one
 * argument in ten, and kept evidence must recompute to the same bits everywhere. The basic operations and Math.sqrt are
 * fixed by IEEE 754, so everything the core builds from them is the same in every engine. A lint rule keeps the others out of the core.
 */

const LN2_HIGH = 6.9314718036912381649e-1;
const LN2_LOW = 1.90821492927058770002e-10;
const LOG2_E = 1.442695040888963387;

const words = new Float64Array(1);
const halves = new Int32Array(words.buffer);

/** 2^k for k = −1074 … 1023, by halving and doubling, which are exact. */
const POWERS = new Float64Array(2098);
POWERS[1074] = 1;
for (let k = 1075; k < 2098; k++) POWERS[k] = POWERS[k - 1]! * 2;
for (let k = 1073; k >= 0; k--) POWERS[k] = POWERS[k + 1]! / 2;

/** e^x. Infinity above 709.78, 0 below −745.13, NaN for NaN. */
export function exp(x: number): number {
  if (!(x < 709.782712893384)) return x > 0 ? Infinity : x;
  if (x < -745.1332191019411) return 0;
  const k = Math.floor(x * LOG2_E + 0.5);
  const high = x - k * LN2_HIGH;
  const low = k * LN2_LOW;
  const r = high - low;
  const t = r * r;
  const c =
    r -
    t *
      (1.66666666666666019037e-1 +
        t *
          (-2.77777777770155933842e-3 +
            t * (6.61375632143793436117e-5 + t * (-1.6533902205465251539e-6 + t * 4.13813679705723846039e-8))));
  const y = 1 - (low - (r * c) / (2 - c) - high);
  // Two factors where one would overflow or lose the bits of a subnormal result twice.
  if (k > 1023) return y * 2 * POWERS[k - 1 + 1074]!;
  if (k < -1021) return y * POWERS[k + 54 + 1074]! * 5.551115123125783e-17;
  return y * POWERS[k + 1074]!;
}

/** The k with x = 2^k·m and √½ ≤ m < √2; m is left in words[0]. */
function splitExponent(x: number): number {
  let k = 0;
  let m = x;
  if (x < 2.2250738585072014e-308) {
    m *= 18014398509481984;
    k = -54;
  }
  words[0] = m;
  // Little-endian words: the high half holds sign, exponent and the first 20 bits of the fraction.
  let high = halves[1]!;
  k += (high >> 20) - 1023;
  high &= 0xfffff;
  // The exponent goes up by one where the fraction lies above √2.
  const up = (high + 0x95f64) & 0x100000;
  halves[1] = high | (up ^ 0x3ff00000);
  return k + (up >> 20);
}

/** The natural logarithm of x > 0; −Infinity at 0, NaN below. */
export function log(x: number): number {
  if (!(x > 0)) return x === 0 ? -Infinity : NaN;
  if (x === Infinity) return x;
  const k = splitExponent(x);
  const f = words[0]! - 1;
  return k * LN2_HIGH - (0.5 * f * f - (logFractionTail(f) + k * LN2_LOW) - f);
}

/** log(1 + f) − f + f²/2 for √½ ≤ 1 + f ≤ √2. */
function logFractionTail(f: number): number {
  const s = f / (2 + f);
  const z = s * s;
  const w = z * z;
  const odd = w * (3.999999999940941908e-1 + w * (2.222219843214978396e-1 + w * 1.531383769920937332e-1));
  const even =
    z *
    (6.66666666666673513e-1 +
      w * (2.857142874366239149e-1 + w * (1.818357216161805012e-1 + w * 1.479819860511658591e-1)));
  return s * (0.5 * f * f + odd + even);
}

/** log(1 + x) without losing x to the 1, for x > −1: log u · x/(u − 1) with u = 1 + x rounded (Kahan). */
export function log1p(x: number): number {
  const u = 1 + x;
  if (u === 1) return x;
  return u === Infinity ? Infinity : (log(u) * x) / (u - 1);
}

/** e^x − 1 without losing a small x to the 1: (u − 1)·x/log u with u = e^x rounded (Kahan). */
export function expm1(x: number): number {
  if (x > 1 || x < -1) return exp(x) - 1;
  const u = exp(x);
  if (u === 1) return x;
  return ((u - 1) * x) / log(u);
}

/** The high 26 bits of a double, so that products of halves are exact (Veltkamp; Dekker 1971). */
function highHalf(x: number): number {
  const c = 134217729 * x;
  return c - (c - x);
}

/** What a·b loses to rounding: a·b = fl(a·b) + productRest(a, b, fl(a·b)) exactly, unless it over- or underflows. */
export function productRest(a: number, b: number, product: number): number {
  const ah = highHalf(a);
  const al = a - ah;
  const bh = highHalf(b);
  const bl = b - bh;
  return al * bl - (product - ah * bh - al * bh - ah * bl);
}

/**
 * x^y for x > 0, to about one unit in the last place plus 3e-18·|y|: the logarithm is carried in two parts, since e^(y·log x)
 * would turn each rounding of y·log x into as many units as y·log x is large. `yRest` is what y itself lost to rounding.
 */
export function power(x: number, y: number, yRest = 0): number {
  if (!(x > 0) || x === Infinity || Math.abs(y) > 1e280) return x === 0 ? (y > 0 ? 0 : Infinity) : exp(y * log(x));
  const k = splitExponent(x);
  const f = words[0]! - 1;
  const head = k * LN2_HIGH;
  const sum = head + f;
  const rest = head - sum + f + (k * LN2_LOW + logFractionTail(f) - 0.5 * f * f);
  const logHigh = sum + rest;
  const logLow = rest - (logHigh - sum);
  const exponent = y * logHigh;
  if (!(Math.abs(exponent) < 750)) return exp(exponent);
  return exp(exponent) * (1 + (productRest(y, logHigh, exponent) + y * logLow + yRest * logHigh));
}

/** x^(1/k) for x > 0, with the digits that 1/k loses to rounding. */
export function root(x: number, k: number): number {
  const y = 1 / k;
  const back = k * y;
  return power(x, y, -(back - 1 + productRest(k, y, back)) / k);
}

/** What a + b loses to rounding: a + b = sum + sumRest(a, b, sum) exactly (Knuth). */
export function sumRest(a: number, b: number, sum: number): number {
  const c = sum - a;
  return a - (sum - c) + (b - c);
}

/** log x − c without rounding the logarithm first: the leading part, and what it lost. */
export function logLess(x: number, c: number): { value: number; rest: number } {
  const k = splitExponent(x);
  const f = words[0]! - 1;
  const head = k * LN2_HIGH;
  const first = head - c;
  const sum = first + f;
  const rest = sumRest(head, -c, first) + sumRest(first, f, sum) + (k * LN2_LOW + logFractionTail(f) - 0.5 * f * f);
  const value = sum + rest;
  return { value, rest: sumRest(sum, rest, value) };
}

/** A sum of products with logarithms, carried in two parts while it is built. */
const sum = { high: 0, low: 0 };

/** Adds n·log(x·(1 + xRest)) to the sum. */
function addLogs(x: number, xRest: number, n: number): void {
  if (n === 0) return;
  const { value, rest } = logLess(x, 0);
  const product = n * value;
  const high = sum.high + product;
  sum.low += sumRest(sum.high, product, high) + productRest(n, value, product) + n * (rest + xRest);
  sum.high = high;
}

/** The exponent of x^a·y^b·e^(c + cRest), in the two parts of `sum`; each of x and y is times 1 plus its relative rest. */
function sumExponent(
  c: number,
  cRest: number,
  x: number,
  xRest: number,
  a: number,
  y: number,
  yRest: number,
  b: number,
): void {
  sum.high = c;
  sum.low = cRest;
  addLogs(x, xRest, a);
  addLogs(y, yRest, b);
}

/**
 * e^(c + cRest)·x^a·y^b, each of x and y times 1 plus its relative rest. The exponent is summed in two parts, so that neither a power
 * that over- or underflows nor powers that cancel cost digits: relative error about 3e-18·(|a| + |b|) beside one rounding.
 */
export function powerProduct(...exponent: Parameters<typeof sumExponent>): number {
  sumExponent(...exponent);
  const { high, low } = sum;
  if (!(Math.abs(high) < 800)) return exp(high);
  return exp(high) * (Math.abs(low) < 1e-8 ? 1 + low : exp(low));
}

/** The logarithm of `powerProduct`. */
export function logPowerProduct(...exponent: Parameters<typeof sumExponent>): number {
  sumExponent(...exponent);
  return sum.high + sum.low;
}

/** What the quotient q = a/b loses to rounding, as a part of it. */
export function quotientRest(a: number, b: number, q: number): number {
  const back = q * b;
  return (a - back - productRest(q, b, back)) / a;
}
