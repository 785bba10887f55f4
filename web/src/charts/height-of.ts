import { isSheet, type Drawn } from './picture.js';

/** A line of words beside an axis, in pixels; and what stands above and below the panels. */
const LINE = 14;
const AROUND = 95;
const MOST = 460;

/** How high a picture has to be so that words beside its axis do not lie over each other; at least `least`. */
export function heightOf(drawn: Drawn, least: number): number {
  if (isSheet(drawn)) return Math.max(least, Math.round(least * 1.3));
  const { y, panels } = drawn;
  const places = (y.ticks ?? []).flatMap(({ at, words }) => (/\p{L}/u.test(words) ? [at] : [])).sort((a, b) => a - b);
  const gaps = places.slice(1).map((at, i) => at - places[i]!);
  const lines = gaps.length ? (y.to - y.from) / Math.min(...gaps) : 0;
  const needed = panels.length * Math.max(lines * LINE, panels.length > 1 ? 90 : 0) + AROUND;
  return Math.round(Math.min(MOST, Math.max(least, needed)));
}
