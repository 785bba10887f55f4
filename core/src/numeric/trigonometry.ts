/**
 * Arc tangent and tangent from + − × ÷ alone, after Sun's fdlibm (s_atan.c, k_tan.c, 1993; error below 1 unit in the last place):
 * engines round theirs differently (see numeric/elementary).
 */

const ATAN_HIGH = [
  4.63647609000806093515e-1, 7.85398163397448278999e-1, 9.82793723247329054082e-1, 1.570796326794896558,
];
const ATAN_LOW = [
  2.26987774529616870924e-17, 3.06161699786838301793e-17, 1.39033110312309984516e-17, 6.12323399573676603587e-17,
];

/** The arc tangent of x, −π/2 … π/2. */
export function atan(x: number): number {
  const a = Math.abs(x);
  if (!(a < 1e19)) return Number.isNaN(x) ? x : x < 0 ? -ATAN_HIGH[3]! : ATAN_HIGH[3]!;
  let part = -1;
  let t = a;
  if (a >= 2.4375) {
    part = 3;
    t = -1 / a;
  } else if (a >= 1.1875) {
    part = 2;
    t = (a - 1.5) / (1 + 1.5 * a);
  } else if (a >= 0.6875) {
    part = 1;
    t = (a - 1) / (a + 1);
  } else if (a >= 0.4375) {
    part = 0;
    t = (2 * a - 1) / (2 + a);
  }
  const z = t * t;
  const w = z * z;
  const odd =
    z *
    (3.33333333333329318027e-1 +
      w *
        (1.42857142725034663711e-1 +
          w *
            (9.09088713343650656196e-2 +
              w * (6.66107313738753120669e-2 + w * (4.97687799461593236017e-2 + w * 1.62858201153657823623e-2)))));
  const even =
    w *
    (-1.99999999998764832476e-1 +
      w *
        (-1.1111110405462355788e-1 +
          w * (-7.69187620504482999495e-2 + w * (-5.83357013379057348645e-2 + w * -3.6531572744216915527e-2))));
  const rest = t * (odd + even);
  const value = part < 0 ? t - rest : ATAN_HIGH[part]! - (rest - ATAN_LOW[part]! - t);
  return x < 0 ? -value : value;
}

const TAN = [
  3.33333333333334091986e-1, 1.33333333333201242699e-1, 5.39682539762260521377e-2, 2.18694882948595424599e-2,
  8.86323982359930005737e-3, 3.59207910759131235356e-3, 1.45620945432529025516e-3, 5.88041240820264096874e-4,
  2.46463134818469906812e-4, 7.817944429395570923e-5, 7.14072491382608190305e-5, -1.85586374855275456654e-5,
  2.59073051863633712884e-5,
] as const;

/** The tangent of x for 0 ≤ x ≤ π/4. */
export function tanUpToEighth(x: number): number {
  if (x > 0.67434) {
    const t = tanUpToEighth(Math.PI / 4 - x + 3.06161699786838301793e-17);
    return (1 - t) / (1 + t);
  }
  const z = x * x;
  let sum = TAN[12] as number;
  for (let k = 11; k >= 0; k--) sum = sum * z + TAN[k]!;
  return x + x * z * sum;
}
