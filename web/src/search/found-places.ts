import type { Place } from './places.js';

/** The number of hits shown in a group. */
const MOST = 5;

/** A place with what it is searched by. */
export interface Searched {
  place: Place;
  title: string;
  all: string;
}
/** Hyphens, dashes and blanks are one: "t-test" finds the t test, "q-q plot" the Q–Q plot. */
const folded = (text: string) =>
  text
    .toLowerCase()
    .replace(/[-–—−]/g, ' ')
    .replaceAll('’', "'");

export const searched = (places: readonly Place[]): Searched[] =>
  places.map((place) => {
    const title = folded(place.title);
    return { place, title, all: `${title}\n${folded(place.about)}` };
  });

/** How well words fit: the whole title, its beginning, the beginning of a word in it, anywhere in it, only in what it is; null where one is missing. */
function fit({ title, all }: Searched, words: readonly string[], typed: string): number | null {
  if (!words.every((word) => all.includes(word))) return null;
  if (title === typed) return 0;
  if (title.startsWith(typed)) return 1;
  if (words.every((word) => title.startsWith(word) || title.includes(` ${word}`))) return 2;
  return words.every((word) => title.includes(word)) ? 3 : 4;
}

/** The places that hold all words, in groups, the group with the best of them first. Nothing where nothing is typed. */
export function foundPlaces(all: readonly Searched[], text: string): { group: string; places: Place[] }[] {
  const typed = folded(text.trim());
  const words = typed.split(/\s+/).filter(Boolean);
  if (words.length === 0) return [];
  const groups = new Map<string, { place: Place; rank: number }[]>();
  for (const one of all) {
    const rank = fit(one, words, typed);
    if (rank === null) continue;
    const own = groups.get(one.place.group);
    if (own) own.push({ place: one.place, rank });
    else groups.set(one.place.group, [{ place: one.place, rank }]);
  }
  return [...groups]
    .map(([group, found]) => ({ group, found: found.sort((a, b) => a.rank - b.rank).slice(0, MOST) }))
    .sort((a, b) => a.found[0]!.rank - b.found[0]!.rank)
    .map(({ group, found }) => ({ group, places: found.map(({ place }) => place) }));
}
