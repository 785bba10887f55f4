/** The decimals that a number is written with: 0.05 → 2, 1e-7 → 7, 20 → 0. */
export function decimalsWritten(x: number): number {
  const [mantissa, exponent = '0'] = String(x).split('e');
  const behind = mantissa!.includes('.') ? mantissa!.length - mantissa!.indexOf('.') - 1 : 0;
  return Math.max(0, behind - Number(exponent));
}

/**
 * x to the nearest whole step, halves away from zero. A half that a double only nearly holds (8.125 in steps of 0.05) counts as a half;
 * the result has the digits of the step, not the dust of the product.
 */
export function roundTo(x: number, step: number): number {
  const exact = Math.abs(x) / step;
  const below = Math.floor(exact);
  // Two roundings, of x and of the quotient, can each take half a unit in the last place from a half.
  const steps = exact - below >= 0.5 - Math.min(0.25, 2 * Number.EPSILON * exact) ? below + 1 : below;
  const product = steps * step;
  const size =
    Number.isInteger(step) || product >= 1e21 ? product : Number(product.toFixed(Math.min(100, decimalsWritten(step))));
  return x < 0 && size !== 0 ? -size : size;
}
