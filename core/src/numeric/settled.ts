/** So many roundings of the greatest part are what a sum of parts that cancel can be off by. */
const ROUNDINGS = 4;

/** A sum or a mean, or 0 where it is zero up to rounding beside `size`, the greatest of what it was made from. */
export function settled(figure: number, size: number): number {
  return Math.abs(figure) <= ROUNDINGS * Number.EPSILON * size ? 0 : figure;
}
