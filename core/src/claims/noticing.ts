import { bracketedRoot } from '../numeric/bracketed-root.js';

/** The power that is aimed at: a difference of interest is detected 8 times in 10. */
export const USUAL_CHANCE = 0.8;

const GREATEST = 1e12;

/**
 * The smallest difference that is detected with a given power, from 0 up to `most`, which may be infinite; null if there is none. `noticed` is the
 * power, increasing with the difference.
 */
export function leastNoticed(
  noticed: (difference: number) => number,
  {
    most = Infinity,
    scale = 1,
    chance = USUAL_CHANCE,
    tolerance = 1e-12,
  }: { most?: number; scale?: number; chance?: number; tolerance?: number } = {},
): number | null {
  let high = Math.min(most, scale);
  while (noticed(high) < chance) {
    if (high >= most || high > GREATEST * scale) return null;
    high = Math.min(most, 2 * high);
  }
  return bracketedRoot((d) => noticed(d) - chance, 0, high, tolerance * scale);
}

/** The greatest n that is considered. */
export const MOST_READINGS = 1_000_000;

/** The smallest n, from `least` on, with a given power; null above a million. `noticed` is the power by n. */
export function leastReadings(noticed: (n: number) => number, least = 2, chance = USUAL_CHANCE): number | null {
  const enough = (n: number) => noticed(n) >= chance;
  let high = least;
  while (high < MOST_READINGS && !enough(high)) high *= 2;
  if (high >= MOST_READINGS && !enough(MOST_READINGS)) return null;
  let found = Math.min(high, MOST_READINGS);
  if (found === least) return least;
  let low = high >> 1;
  while (found - low > 1) {
    const middle = (low + found) >> 1;
    if (enough(middle)) found = middle;
    else low = middle;
  }
  return found;
}

/**
 * The same for tests of counts, whose power is not monotone in n: the smallest n from which power never falls below the target again, and the first n
 * that reaches it.
 */
export function readingsFromWhichOn(
  noticed: (n: number) => number,
  /** The range around the first sufficient n in which power is examined. */
  followed: number,
  least = 2,
  chance = USUAL_CHANCE,
): { always: number; first: number } | null {
  const found = leastReadings(noticed, least, chance);
  if (found === null) return null;
  let [always, first] = [found, found];
  // A power this far above the chance has left its last dip behind.
  for (let n = found; n <= found + followed; n++) if (noticed(n) < chance) always = n + 1;
  for (let n = Math.max(least, found - followed); n < found; n++)
    if (noticed(n) >= chance) {
      first = n;
      break;
    }
  return { always, first };
}
