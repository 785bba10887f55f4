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

/** The natural logarithm of x > 0; −Infinity at 0, NaN below. */
export function log(x: number): number {
  if (!(x > 0)) return x === 0 ? -Infinity : NaN;
  if (x === Infinity) return x;
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
  // Fraction into √½ … √2: the exponent goes up by one where the fraction lies above √2.
  const up = (high + 0x95f64) & 0x100000;
  halves[1] = high | (up ^ 0x3ff00000);
  k += up >> 20;
  const f = words[0]! - 1;
  const s = f / (2 + f);
  const z = s * s;
  const w = z * z;
  const odd = w * (3.999999999940941908e-1 + w * (2.222219843214978396e-1 + w * 1.531383769920937332e-1));
  const even =
    z *
    (6.66666666666673513e-1 +
      w * (2.857142874366239149e-1 + w * (1.818357216161805012e-1 + w * 1.479819860511658591e-1)));
  const half = 0.5 * f * f;
  return k * LN2_HIGH - (half - (s * (half + odd + even) + k * LN2_LOW) - f);
}

/** log(1 + x) without losing x to the 1, for x > −1: log u · x/(u − 1) with u = 1 + x rounded (Kahan). */
export function log1p(x: number): number {
  const u = 1 + x;
  if (u === 1) return x;
  return u === Infinity ? Infinity : (log(u) * x) / (u - 1);
}
