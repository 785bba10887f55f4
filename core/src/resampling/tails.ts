import type { Alternative } from '../claims/alternative.js';

/** Counts of arrangements in each tail, including ties with the observed one. */
export interface Counted {
  total: number;
  /** At most, and at least, as great as the observed one. */
  below: number;
  above: number;
  /** At least as far from the centre as the observed one, below and above. */
  farBelow: number;
  farAbove: number;
  atLeastAsFar: number;
}

/** Counts statistics relative to the observed one; undefined ones count as extreme. */
export function countTails(
  chunks: readonly Float64Array[],
  { observed, centre, tie }: { observed: number; centre: number; tie: number },
): Counted {
  const distance = Math.abs(observed - centre);
  const [low, high] = [centre - distance + tie, centre + distance - tie];
  const found: Counted = { total: 0, below: 0, above: 0, farBelow: 0, farAbove: 0, atLeastAsFar: 0 };
  for (const chunk of chunks) {
    found.total += chunk.length;
    for (let i = 0; i < chunk.length; i++) {
      const value = chunk[i]!;
      if (!(value > observed + tie)) found.below++;
      if (!(value < observed - tie)) found.above++;
      const isLow = value <= low;
      const isHigh = value >= high;
      if (isLow) found.farBelow++;
      if (isHigh) found.farAbove++;
      if (isLow || isHigh || Number.isNaN(value)) found.atLeastAsFar++;
    }
  }
  return found;
}

/** The count for an alternative. */
export function countedFor({ below, above, atLeastAsFar }: Counted, alternative: Alternative): number {
  return alternative === 'less' ? below : alternative === 'greater' ? above : atLeastAsFar;
}
