import { formatFigure } from '../numeric/format.js';
import { refuse, type Refusal } from './family.js';

/** The distances of sorted readings from a threshold; refused if a reading is not above it (or is below it, with `orAt`). */
export function readingsAbove(
  sorted: Float64Array,
  threshold: number,
  title: string,
  orAt = false,
): Float64Array | Refusal {
  const least = sorted[0]!;
  if (least < threshold || (least === threshold && !orAt)) {
    const must = orAt ? 'below' : 'at or below';
    return refuse(
      `The minimum is ${formatFigure(least, 'reading')}; the ${title} distribution has no values ${must} ${formatFigure(threshold, 'reading')}.`,
    );
  }
  return threshold === 0 ? sorted : sorted.map((x) => x - threshold);
}

/** Refuses readings that are no counts: whole numbers from 0 on. */
export function countsOnly(sorted: Float64Array, title: string): Refusal | null {
  const odd = sorted.find((x) => x < 0 || !Number.isInteger(x));
  if (odd === undefined) return null;
  return refuse(
    `${formatFigure(odd, 'reading')} is not a count; the ${title} distribution needs whole numbers of at least 0.`,
  );
}

/** The mean of the logarithms and of the values. */
export function meanOf(x: Float64Array, of: (value: number) => number): number {
  let sum = 0;
  for (let i = 0; i < x.length; i++) sum += of(x[i]!);
  return sum / x.length;
}
