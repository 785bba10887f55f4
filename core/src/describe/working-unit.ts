/** Readings in their unit of calculation, and the conversion back. */
export interface Worked {
  values: Float64Array;
  /** A figure back in the unit of the readings. */
  back(figure: number): number;
}

/** Limits of magnitude: beyond them the fourth power of a deviation may leave the range of doubles. */
const GREATEST = 1e60;
const LEAST = 1e-60;

/**
 * The readings as whole steps of the resolution, or null where they are not. "10 000 000.23" is 1 000 000 023 steps of 0.01, exactly,
 * while the nearest double is off by up to 1e-9: spread and shape keep the digits that were written.
 */
function inWholeSteps(values: Float64Array, resolution: number | null): Float64Array | null {
  if (!resolution) return null;
  const steps = new Float64Array(values.length);
  for (let i = 0; i < values.length; i++) {
    const exact = values[i]! / resolution;
    const whole = Math.round(exact);
    // The double of a reading and that of the resolution are each half a unit off what was written, and so is their quotient.
    const off = Math.min(0.25, 1e-9 + 2 * Number.EPSILON * Math.abs(exact));
    if (!Number.isSafeInteger(whole) || Math.abs(exact - whole) > off) return null;
    steps[i] = whole;
  }
  return steps;
}

/** The power of two that brings the greatest of these to between ½ and 1. */
function powerOfTwo(greatest: number): number {
  let power = 1;
  while (greatest * power > 1 && power > 0) power /= 2;
  while (greatest * power < 0.5 && power < 2 ** 1022) power *= 2;
  return power;
}

/**
 * The unit of calculation: whole steps of the resolution where all readings are such; for readings of extreme magnitude a power of two of their unit,
 * so that no power of a deviation leaves the range of doubles; else the unit of the readings.
 */
export function worked(values: Float64Array, resolution: number | null): Worked {
  const steps = inWholeSteps(values, resolution);
  if (steps) {
    // 780 steps of 0.01 are 780/100: the one double that 7.8 is, where 780 · 0.01 may miss it.
    const parts = Math.round(1 / resolution!);
    const exact = parts >= 1 && Math.abs(parts * resolution! - 1) < 1e-12;
    return { values: steps, back: exact ? (figure) => figure / parts : (figure) => figure * resolution! };
  }
  let greatest = 0;
  for (let i = 0; i < values.length; i++) if (Math.abs(values[i]!) > greatest) greatest = Math.abs(values[i]!);
  if (greatest === 0 || (greatest < GREATEST && greatest > LEAST)) return { values, back: (figure) => figure };
  const power = powerOfTwo(greatest);
  return { values: values.map((x) => x * power), back: (figure) => figure / power };
}
