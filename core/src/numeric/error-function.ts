import { exp, log } from './elementary.js';

/**
 * The complementary error function by the rational approximations of Sun's fdlibm (s_erf.c, 1993).
 * Relative error below 1e-15 over the whole range down to the smallest normal number.
 */

const ERX = 8.45062911510467529297e-1;

/** erf(x)/x − 1 for |x| < 0.84375. */
function centre(x: number): number {
  const z = x * x;
  const r =
    1.28379167095512558561e-1 +
    z *
      (-3.2504210724700149937e-1 +
        z * (-2.84817495755985104766e-2 + z * (-5.77027029648944159157e-3 + z * -2.37630166566501626084e-5)));
  const s =
    1 +
    z *
      (3.97917223959155352819e-1 +
        z *
          (6.50222499887672944485e-2 +
            z * (5.08130628187576562776e-3 + z * (1.32494738004321644526e-4 + z * -3.9602282787753681232e-6))));
  return r / s;
}

/** erf(x) − ERX for 0.84375 ≤ x < 1.25. */
function shoulder(x: number): number {
  const s = x - 1;
  const p =
    -2.36211856075265944077e-3 +
    s *
      (4.14856118683748331666e-1 +
        s *
          (-3.72207876035701323847e-1 +
            s *
              (3.18346619901161753674e-1 +
                s * (-1.10894694282396677476e-1 + s * (3.54783043256182359371e-2 + s * -2.166375594868790843e-3)))));
  const q =
    1 +
    s *
      (1.06420880400844228286e-1 +
        s *
          (5.40397917702171048937e-1 +
            s *
              (7.18286544141962662868e-2 +
                s * (1.26171219808761642112e-1 + s * (1.36370839120290507362e-2 + s * 1.1984499846799107417e-2)))));
  return p / q;
}

/** log(x·exp(x²)·erfc(x)) + 0.5625 for x ≥ 1.25. */
function tail(x: number): number {
  const s = 1 / (x * x);
  if (x < 1 / 0.35) {
    const r =
      -9.86494403484714822705e-3 +
      s *
        (-6.93858572707181764372e-1 +
          s *
            (-1.05586262253232909814e1 +
              s *
                (-6.23753324503260060396e1 +
                  s *
                    (-1.62396669462573470355e2 +
                      s *
                        (-1.84605092906711035994e2 + s * (-8.12874355063065934246e1 + s * -9.81432934416914548592))))));
    const q =
      1 +
      s *
        (1.96512716674392571292e1 +
          s *
            (1.376577541435190426e2 +
              s *
                (4.34565877475229228821e2 +
                  s *
                    (6.45387271733267880336e2 +
                      s *
                        (4.29008140027567833386e2 +
                          s *
                            (1.08635005541779435134e2 +
                              s * (6.57024977031928170135 + s * -6.04244152148580987438e-2)))))));
    return r / q;
  }
  const r =
    -9.864942924700099286e-3 +
    s *
      (-7.99283237680523006574e-1 +
        s *
          (-1.77579549177547519889e1 +
            s *
              (-1.60636384855821916062e2 +
                s * (-6.37566443368389627722e2 + s * (-1.02509513161107724954e3 + s * -4.83519191608651397019e2)))));
  const q =
    1 +
    s *
      (3.03380607434824582924e1 +
        s *
          (3.25792512996573918826e2 +
            s *
              (1.53672958608443695994e3 +
                s *
                  (3.19985821950859553908e3 +
                    s * (2.55305040643316442583e3 + s * (4.74528541206955367215e2 + s * -2.24409524465858183362e1))))));
  return r / q;
}

/** erfc(x) = 1 − erf(x), exact to about one unit in the last place in both tails. */
export function erfc(x: number): number {
  const a = Math.abs(x);
  if (a < 0.84375) {
    if (x < 0.25) return 1 - (x + x * centre(x));
    return 0.5 - (x - 0.5 + x * centre(x));
  }
  if (a < 1.25) return x >= 0 ? 1 - ERX - shoulder(a) : 1 + (ERX + shoulder(a));
  if (x < -6) return 2;
  if (x > 28) return 0;
  // z has at most 24 bits, so z·z is exact and the large exponent loses no digits.
  const z = Math.fround(a);
  const r = (exp(-z * z - 0.5625) * exp((z - a) * (z + a) + tail(a))) / a;
  return x > 0 ? r : 2 - r;
}

/** log erfc(x) for x ≥ 1.25, where erfc itself may underflow. */
export function logErfcTail(x: number): number {
  return -x * x - 0.5625 + tail(x) - log(x);
}

/** erf(x), exact near 0 as well. */
export function erf(x: number): number {
  const a = Math.abs(x);
  if (a < 0.84375) return x + x * centre(x);
  const value = a < 1.25 ? ERX + shoulder(a) : a > 6 ? 1 : 1 - erfc(a);
  return x < 0 ? -value : value;
}

/** e^(x²)·erfc(x) for x ≥ 0, which does not underflow. */
export function scaledErfc(x: number): number {
  if (x < 1.25) return exp(x * x) * erfc(x);
  return exp(tail(x) - 0.5625) / x;
}
