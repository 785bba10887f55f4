/** The number of readings below, inside (limits included) and above two limits; either limit may be absent. */
export interface Counts {
  below: number;
  inside: number;
  above: number;
}

export function countsWithin(values: Float64Array, lower: number | null, upper: number | null): Counts {
  let below = 0;
  let above = 0;
  const [least, most] = [lower ?? -Infinity, upper ?? Infinity];
  for (let i = 0; i < values.length; i++) {
    if (values[i]! < least) below++;
    else if (values[i]! > most) above++;
  }
  return { below, inside: values.length - below - above, above };
}
