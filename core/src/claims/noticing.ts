import { bracketedRoot } from '../numeric/bracketed-root.js';

/** As often as a difference that matters should be noticed: 8 times in 10. */
export const USUAL_CHANCE = 0.8;

const GREATEST = 1e12;

/**
 * The least difference that is noticed with a chance, from 0 up to `most`, which may be no end; null where none is. `noticed` is the chance, rising with the difference.
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

/** Beyond so many nobody measures. */
export const MOST_READINGS = 1_000_000;

/** The least n, from `least` on, with which something is noticed with a chance; null beyond a million. `noticed` is the chance by n. */
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
 * The same for tests of counts, whose power goes up and down with n: the least n from which on it never falls below the chance again, and the first n that suffices by itself.
 */
export function readingsFromWhichOn(
  noticed: (n: number) => number,
  /** How far beyond the first sufficient n, and before it, the power is followed. */
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
