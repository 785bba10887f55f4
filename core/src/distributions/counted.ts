/** Values in rising order, each once, and how often each occurs. */
export interface Counted {
  values: number[];
  counts: number[];
}

/** Equal ones among sorted readings once, with how often they occur. */
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
