import { exp, expm1 } from '../numeric/elementary.js';

/** ζ(n) − 1 for n = 2 … 31 (Abramowitz & Stegun table 23.3). */
const ZETA_LESS_ONE = [
  0.64493406684822644, 0.20205690315959429, 0.082323233711138192, 0.036927755143369926, 0.01734306198444914,
  0.0083492773819228268, 0.0040773561979443394, 0.0020083928260822144, 0.00099457512781808534, 0.00049418860411946456,
  0.0002460865533080483, 0.00012271334757848915, 6.1248135058704829e-5, 3.0588236307020494e-5, 1.5282259408651872e-5,
  7.6371976378997623e-6, 3.8172932649998399e-6, 1.9082127165539389e-6, 9.5396203387279611e-7, 4.7693298678780646e-7,
  2.3845050272773299e-7, 1.1921992596531107e-7, 5.960818905125948e-8, 2.980350351465228e-8, 1.4901554828365041e-8,
  7.4507117898354295e-9, 3.7253340247884571e-9, 1.862659723513049e-9, 9.3132743241966819e-10, 4.6566290650337842e-10,
];

/** ζ(n) for n = 2, 3, …, exact to a double. */
export function zeta(n: number): number {
  const below = ZETA_LESS_ONE[n - 2];
  return below === undefined ? 1 + 0.5 ** n : 1 + below;
}

/** Mean, variance, skewness and excess kurtosis of Y = e^(sW). */
export interface PowerMoments {
  mean: number;
  variance: number;
  skewness: number;
  kurtosis: number;
}

const TERMS = 30;

/**
 * The moments of Y = e^(sW) from L(t) = log E[e^(tW)] and, where 4|s| is small, from the Taylor coefficients of L (`coefficient(n)` of tⁿ): the raw
 * moments e^(L(ks)) agree in almost all digits then, and their differences have to be summed term by term.
 * With A_k = L(ks) − k·L(s), the central moments over E[Y]^k are e^A2 − 1, e^A3 − 3e^A2 + 2 and e^A4 − 4e^A3 + 6e^A2 − 3.
 * L gives Infinity where E[e^(tW)] does not exist; what depends on it is Infinity then.
 */
export function powerMoments(s: number, L: (t: number) => number, coefficient: (n: number) => number): PowerMoments {
  const small = Math.abs(s) < 0.05;
  const series = (weight: (n: number) => number): number => {
    let sum = 0;
    let power = s;
    for (let n = 2; n <= TERMS; n++) {
      power *= s;
      sum += coefficient(n) * power * weight(n);
    }
    return sum;
  };
  const first = L(s);
  const mean = exp(first);
  const a2 = small ? series((n) => 2 ** n - 2) : L(2 * s) - 2 * first;
  const a3 = small ? series((n) => 3 ** n - 3) : L(3 * s) - 3 * first;
  const a4 = small ? series((n) => 4 ** n - 4) : L(4 * s) - 4 * first;
  const second = expm1(a2);
  // The parts of first order in A cancel up to A_k ~ s^k; they are summed as such, the rest of e^A − 1 − A is of higher order.
  const line3 = small ? series((n) => 3 ** n - 3 * 2 ** n + 3) : a3 - 3 * a2;
  const line4 = small ? series((n) => 4 ** n - 4 * 3 ** n + 6 * 2 ** n - 4) : a4 - 4 * a3 + 6 * a2;
  const third = line3 + curved(a3) - 3 * curved(a2);
  const fourth = line4 + curved(a4) - 4 * curved(a3) + 6 * curved(a2);
  const infinite = (a: number, value: number) => (Number.isFinite(a) ? value : Infinity);
  return {
    mean,
    variance: infinite(a2, mean * mean * second),
    skewness: infinite(a3, third / (second * Math.sqrt(second))),
    kurtosis: infinite(a4, fourth / (second * second) - 3),
  };
}

/** e^a − 1 − a. */
function curved(a: number): number {
  if (Math.abs(a) > 0.5) return expm1(a) - a;
  let term = a * a * 0.5;
  let sum = term;
  for (let n = 3; Math.abs(term) > 1e-18 * Math.abs(sum); n++) {
    term *= a / n;
    sum += term;
  }
  return sum;
}
