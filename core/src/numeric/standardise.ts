/** Turns a sample with some spread into its standard scores, by its own mean and sd (divisor n − 1), in place. For hot loops: allocates nothing. */
export function standardise(values: Float64Array): void {
  const n = values.length;
  let sum = 0;
  for (let i = 0; i < n; i++) sum += values[i]!;
  const mean = sum / n;
  let squares = 0;
  for (let i = 0; i < n; i++) {
    const d = values[i]! - mean;
    squares += d * d;
  }
  const scale = 1 / Math.sqrt(squares / (n - 1));
  for (let i = 0; i < n; i++) values[i] = (values[i]! - mean) * scale;
}
