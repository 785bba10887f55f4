/** The decimals that a number is written with: 0.05 → 2, 1e-7 → 7, 20 → 0. */
export function decimalsWritten(x: number): number {
  const [mantissa, exponent = '0'] = String(x).split('e');
  const behind = mantissa!.includes('.') ? mantissa!.length - mantissa!.indexOf('.') - 1 : 0;
  return Math.max(0, behind - Number(exponent));
}

/**
 * Rounds to the nearest whole step, halves away from zero, or up. A half that a double only nearly holds (8.125 in steps of 0.05) counts as a half;
 * what comes out has the digits of the step, not the dust of the product.
 */
export function rounderOf(step: number, halves: 'away' | 'up' = 'away'): (x: number) => number {
  const decimals = decimalsWritten(step);
  // A step is a whole number over a power of ten, and so is what is rounded to it: one division, rightly rounded.
  const power = 10 ** decimals;
  const whole = Math.round(step * power);
  const held = decimals <= 22 && whole / power === step;
  return (x) => {
    const exact = Math.abs(x) / step;
    const below = Math.floor(exact);
    // Two roundings, of x and of the quotient, can each take half a unit in the last place from a half.
    const dust = Math.min(0.25, 2 * Number.EPSILON * exact);
    const goesOut = x < 0 && halves === 'up' ? exact - below > 0.5 + dust : exact - below >= 0.5 - dust;
    const steps = goesOut ? below + 1 : below;
    const wholes = steps * whole;
    const size = held && wholes <= Number.MAX_SAFE_INTEGER ? wholes / power : inDigits(steps * step, step, decimals);
    return x < 0 && size !== 0 ? -size : size;
  };
}

const inDigits = (product: number, step: number, decimals: number): number =>
  Number.isInteger(step) || product >= 1e21 ? product : Number(product.toFixed(Math.min(100, decimals)));

/** x to the nearest whole step, as `rounderOf` does it. */
export const roundTo = (x: number, step: number): number => rounderOf(step)(x);
