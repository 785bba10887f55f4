/** How unlikely a run of coarse last figures must be before it is taken for the instrument's step. */
const CHANCE = 1e-4;

/**
 * The step of the instrument as the written digits show it: one unit of the last decimal in use, or 10, 5 or 2 of these
 * where every reading is a multiple and that would be a freak of chance otherwise (probability step^−n below 1e-4).
 * `decimals[i]` is the number of decimals that `values[i]` is written with. Null without readings.
 */
export function recogniseResolution(values: ArrayLike<number>, decimals: ArrayLike<number>): number | null {
  const n = values.length;
  if (n === 0) return null;
  let places = 0;
  for (let i = 0; i < n; i++) places = Math.max(places, decimals[i]!);
  // No instrument reads to so many decimals: these are results of a calculation.
  if (places > 10) return null;
  // Parsed, not raised: powers are not exact in every engine.
  const unit = Number(`1e${places}`);
  for (const step of [10, 5, 2]) {
    if (step ** -n >= CHANCE) continue;
    let multiple = true;
    let spread = false;
    for (let i = 0; i < n && multiple; i++) {
      const figures = Math.round(values[i]! * unit);
      multiple = Number.isSafeInteger(figures) && figures % step === 0;
      spread ||= values[i] !== values[0];
    }
    // Whole numbers are counted in ones: 10, 20, 30 says nothing about the instrument. Half steps have a decimal.
    if (multiple && spread && places > 0) return Number((step / unit).toPrecision(12));
  }
  return Number((1 / unit).toPrecision(12));
}
