/**
 * Readings of which only bounds are known: each lies above `lower` and not above `upper`, in any order. −Infinity and Infinity where there is no such
 * bound: left-censored readings have no lower one, right-censored ones no upper one, interval-censored ones have both.
 */
export interface CensoredReadings {
  lower: Float64Array;
  upper: Float64Array;
}

/** Equal bounds once, with how often they occur. */
export interface CountedBounds {
  lower: number;
  upper: number;
  count: number;
}

export function countedBounds({ lower, upper }: CensoredReadings): CountedBounds[] {
  const known = new Map<string, CountedBounds>();
  lower.forEach((from, i) => {
    const to = upper[i]!;
    const key = `${from} ${to}`;
    const same = known.get(key);
    if (same) same.count++;
    else known.set(key, { lower: from, upper: to, count: 1 });
  });
  return [...known.values()];
}

/**
 * Approximate values of censored readings, from which a search starts: half-way between their bounds, with `floor` in place of an unknown lower bound
 * below the upper one, else the known bound; none without bounds.
 */
export function substituted({ lower, upper }: CensoredReadings, floor: number): Float64Array {
  const about = lower.map((from, i) => {
    const to = upper[i]!;
    if (to === Infinity) return from;
    if (from !== -Infinity) return from + (to - from) / 2;
    return to > floor ? floor + (to - floor) / 2 : to;
  });
  return about.filter(Number.isFinite);
}
