/** Mean and sum of squares about it, of a stretch of readings, into two places: for hot loops, two passes without allocating. All alike gives exactly 0. */
export function momentsOf(values: Float64Array, from: number, n: number, into: Float64Array): void {
  const first = values[from]!;
  let sum = 0;
  // About the first, so that a large common offset costs no digits.
  for (let i = from + 1; i < from + n; i++) sum += values[i]! - first;
  const mean = sum / n;
  let squares = 0;
  for (let i = from; i < from + n; i++) {
    const d = values[i]! - first - mean;
    squares += d * d;
  }
  into[0] = first + mean;
  into[1] = squares;
}
