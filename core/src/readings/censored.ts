/** Readings of which only a limit is known, such as "<0.05" and ">30", in row order. */
export interface Censored {
  rows: Int32Array;
  limits: Float64Array;
  /** −1 where the reading lies below its limit, 1 where it lies above. */
  sides: Int32Array;
}

export interface CensoredReading {
  row: number;
  limit: number;
  side: -1 | 1;
}

/** None as undefined: a column without limits stays as it always was. */
export function toCensored(readings: readonly CensoredReading[]): { censored?: Censored } {
  if (readings.length === 0) return {};
  const censored = {
    rows: Int32Array.from(readings, ({ row }) => row),
    limits: Float64Array.from(readings, ({ limit }) => limit),
    sides: Int32Array.from(readings, ({ side }) => side),
  };
  return { censored };
}

/** Such readings of a sample, or of a result, whose numbers came over the wire as plain arrays. */
export interface WithCensored {
  censored?: { [K in keyof Censored]: ArrayLike<number> } | undefined;
}

/** The censored readings of a sample one by one. */
export function censoredReadings({ censored }: WithCensored): CensoredReading[] {
  if (!censored) return [];
  return Array.from(censored.rows, (row, i): CensoredReading => ({
    row,
    limit: censored.limits[i]!,
    side: censored.sides[i]! < 0 ? -1 : 1,
  }));
}

/** So many readings beyond one limit. */
export interface BeyondLimit {
  side: 'below' | 'above';
  limit: number;
  count: number;
}

/** How many lie beyond each limit: those below first, each side by its limits. */
export function beyondLimits(sample: WithCensored): BeyondLimit[] {
  const counts = new Map<string, BeyondLimit>();
  for (const { limit, side } of censoredReadings(sample)) {
    const key = `${side} ${limit}`;
    const known = counts.get(key);
    if (known) known.count++;
    else counts.set(key, { side: side < 0 ? 'below' : 'above', limit, count: 1 });
  }
  const first = ({ side }: BeyondLimit) => (side === 'below' ? 0 : 1);
  return [...counts.values()].sort((a, b) => first(a) - first(b) || a.limit - b.limit);
}
