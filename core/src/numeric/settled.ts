/** The number of rounding errors of the greatest part by which a sum with cancellation can be off. */
const ROUNDINGS = 4;

/** A sum or a mean, or 0 where it is zero up to rounding beside `size`, the greatest of what it was made from. */
export function settled(figure: number, size: number): number {
  return Math.abs(figure) <= ROUNDINGS * Number.EPSILON * size ? 0 : figure;
}
