import { TERMS_OF_THE_TRADE, firstPlaceOf, type Term } from './terms.js';

/** A stretch of a text; with a term where the words stand for one. */
export interface Segment {
  text: string;
  term?: Term;
}

interface Place {
  from: number;
  to: number;
  term: Term;
}

const signAfter = (words: string) => / [=<]$/.exec(words)?.[0].length ?? 0;

/** Where each term stands first, the earlier and longer ones before others; none overlaps another. */
function placesIn(text: string): Place[] {
  const found = TERMS_OF_THE_TRADE.flatMap((term): Place[] => {
    const place = firstPlaceOf(term, text);
    // The sign after "p" is no part of the term.
    return place ? [{ from: place.from, to: place.to - signAfter(text.slice(place.from, place.to)), term }] : [];
  }).sort((a, b) => a.from - b.from || b.to - a.to);
  const places: Place[] = [];
  for (const place of found) if (place.from >= (places.at(-1)?.to ?? 0)) places.push(place);
  return places;
}

/** A text cut at the terms of the trade in it, each at its first place. */
export function termSegments(text: string): Segment[] {
  const segments: Segment[] = [];
  let at = 0;
  for (const { from, to, term } of placesIn(text)) {
    if (from > at) segments.push({ text: text.slice(at, from) });
    segments.push({ text: text.slice(from, to), term });
    at = to;
  }
  if (at < text.length || segments.length === 0) segments.push({ text: text.slice(at) });
  return segments;
}
