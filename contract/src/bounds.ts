/** Lower limit, target and upper limit of a column, where they are given. */
export interface Bounds {
  lowerLimit: number | null;
  target: number | null;
  upperLimit: number | null;
}

const IN_ORDER = [
  ['lowerLimit', 'lower limit'],
  ['target', 'target'],
  ['upperLimit', 'upper limit'],
] as const;

/** The first two bounds that are not in rising order, and a sentence that says so; null when all are. */
export function crossedBounds(bounds: Bounds): { low: keyof Bounds; high: keyof Bounds; text: string } | null {
  const given = IN_ORDER.filter(([key]) => bounds[key] !== null);
  for (const [i, [low, words]] of given.entries()) {
    const next = given[i + 1];
    if (!next || bounds[low]! < bounds[next[0]]!) continue;
    const text = `The ${words} (${bounds[low]}) must be below the ${next[1]} (${bounds[next[0]]}).`;
    return { low, high: next[0], text };
  }
  return null;
}
