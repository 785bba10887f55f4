import { log } from './elementary.js';

/**
 * The logarithm of the gamma function for positive arguments, by the rational approximations of Sun's fdlibm
 * (e_lgamma_r.c, 1993): relative error below 5e-16, also around its zeros at 1 and 2.
 */

const LEAST_POINT = 1.46163214496836224576; // Γ is least here …
const LEAST_VALUE = -1.21486290535849611461e-1; // … and this is log Γ there,
const LEAST_VALUE_REST = -3.63867699703950536541e-18; // with what a double leaves of it.

/** log Γ(2 − y) for 0 ≤ y ≤ 0.2684. */
function belowTwo(y: number): number {
  const z = y * y;
  const even =
    7.72156649015328655494e-2 +
    z *
      (6.73523010531292681824e-2 +
        z *
          (7.38555086081402883957e-3 +
            z * (1.19270763183362067845e-3 + z * (2.20862790713908385557e-4 + z * 2.52144565451257326939e-5))));
  const odd =
    z *
    (3.22467033424113591611e-1 +
      z *
        (2.05808084325167332806e-2 +
          z *
            (2.89051383673415629091e-3 +
              z * (5.10069792153511336608e-4 + z * (1.08011567247583939954e-4 + z * 4.4864094961891516015e-5)))));
  return y * even + odd - 0.5 * y;
}

/** log Γ(LEAST_POINT + y) for −0.23 ≤ y ≤ 0.27. */
function aroundLeast(y: number): number {
  const z = y * y;
  const w = z * y;
  const p1 =
    4.83836122723810047042e-1 +
    w *
      (-3.27885410759859649565e-2 +
        w * (6.1005387024629133264e-3 + w * (-1.40346469989232843813e-3 + w * 3.15632070903625950361e-4)));
  const p2 =
    -1.47587722994593911752e-1 +
    w *
      (1.79706750811820387126e-2 +
        w * (-3.6845201678113825676e-3 + w * (8.81081882437654011382e-4 + w * -3.12754168375120860518e-4)));
  const p3 =
    6.46249402391333854778e-2 +
    w *
      (-1.0314224129834143745e-2 +
        w * (2.2596478090061247225e-3 + w * (-5.38595305356740546715e-4 + w * 3.35529192635519073543e-4)));
  return LEAST_VALUE + (z * p1 - (LEAST_VALUE_REST - w * (p2 + y * p3)));
}

/** log Γ(1 + y) for 0 ≤ y ≤ 0.2316. */
function aboveOne(y: number): number {
  const p =
    y *
    (-7.72156649015328655494e-2 +
      y *
        (6.32827064025093366517e-1 +
          y *
            (1.45492250137234768737 +
              y * (9.77717527963372745603e-1 + y * (2.28963728064692451092e-1 + y * 1.33810918536787660377e-2)))));
  const q =
    1 +
    y *
      (2.45597793713041134822 +
        y *
          (2.12848976379893395361 +
            y * (7.69285150456672783825e-1 + y * (1.04222645593369134254e-1 + y * 3.2170924228242391181e-3))));
  return p / q - 0.5 * y;
}

/** log Γ(1 + y) for 0 ≤ y ≤ 1, without losing a small y to the 1. */
export function logGammaOnePlus(y: number): number {
  if (y >= 0.7316321449683623) return belowTwo(1 - y);
  if (y >= 0.23163214496836231) return aroundLeast(y - (LEAST_POINT - 1));
  return aboveOne(y);
}

/** log Γ(2 + y) for 0 ≤ y < 1. */
function aboveTwo(y: number): number {
  const p =
    y *
    (-7.72156649015328655494e-2 +
      y *
        (2.14982415960608852501e-1 +
          y *
            (3.25778796408930981787e-1 +
              y *
                (1.46350472652464452805e-1 +
                  y * (2.6642270303363860956e-2 + y * (1.84028451407337715652e-3 + y * 3.19475326584100867617e-5))))));
  const q =
    1 +
    y *
      (1.39200533467621045958 +
        y *
          (7.21935547567138069525e-1 +
            y *
              (1.71933865632803078993e-1 +
                y * (1.86459191715652901344e-2 + y * (7.77942496381893596434e-4 + y * 7.32668430744625636189e-6)))));
  return 0.5 * y + p / q;
}

/** log Γ(x) for x > 0; Infinity at 0 and at Infinity, NaN below 0. */
export function logGamma(x: number): number {
  if (!(x > 0)) return x === 0 ? Infinity : NaN;
  if (x < 1) return x < 1e-300 ? -log(x) : logGammaOnePlus(x) - log(x);
  if (x < 2) return logGammaOnePlus(x - 1);
  if (x < 8) {
    const whole = Math.floor(x);
    const y = x - whole;
    let product = 1;
    for (let k = whole - 1; k >= 2; k--) product *= y + k;
    return product === 1 ? aboveTwo(y) : aboveTwo(y) + log(product);
  }
  if (x === Infinity) return x;
  const t = log(x);
  if (x >= 2 ** 58) return x * (t - 1);
  const z = 1 / x;
  const s = z * z;
  const w =
    4.18938533204672725052e-1 +
    z *
      (8.33333333333329678849e-2 +
        s *
          (-2.7777777772877553647e-3 +
            s *
              (7.936505586430195585e-4 +
                s * (-5.95187557450339963135e-4 + s * (8.36339918996282139126e-4 + s * -1.63092934096575273989e-3)))));
  return (x - 0.5) * (t - 1) + w;
}
