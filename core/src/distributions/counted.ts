/** Distinct values in rising order, and the frequency of each. */
export interface Counted {
  values: number[];
  counts: number[];
}

/** Distinct values of sorted readings with their frequencies. */
export function counted(sorted: Float64Array): Counted {
  const values: number[] = [];
  const counts: number[] = [];
  for (const x of sorted) {
    if (x === values[values.length - 1]) counts[counts.length - 1]!++;
    else {
      values.push(x);
      counts.push(1);
    }
  }
  return { values, counts };
}
