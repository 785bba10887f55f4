/** Sorts in place, ascending. Insertion sort to 32 values, the engine's typed sort above: the faster of the two on each side. */
export function sortAscending(values: Float64Array): void {
  const n = values.length;
  if (n > 32) {
    values.sort();
    return;
  }
  for (let i = 1; i < n; i++) {
    const x = values[i]!;
    let j = i - 1;
    while (j >= 0 && values[j]! > x) {
      values[j + 1] = values[j]!;
      j--;
    }
    values[j + 1] = x;
  }
}
