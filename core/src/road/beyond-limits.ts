import { beyondLimits, type BeyondLimit, type WithCensored } from '../readings/censored.js';
import type { CensoredReadings } from '../distributions/fit/censored-readings.js';
import { formatFigure, formatPercentOf, groupThousands } from '../numeric/format.js';
import { listed, plural, sentenceCase } from '../numeric/grammar.js';
import type { Sample } from '../readings/sample.js';
import type { Note } from './analysis.js';

/** The bounds of censored readings, as a likelihood takes them. */
export function boundsOf(censored: Bounded | undefined): CensoredReadings | undefined {
  return (
    censored && {
      lower: Float64Array.from(censored.limits, (limit, i) => (censored.sides[i]! < 0 ? -Infinity : limit)),
      upper: Float64Array.from(censored.limits, (limit, i) => (censored.sides[i]! < 0 ? limit : Infinity)),
    }
  );
}

/** Above this part beyond a limit a fit rests mainly on its family; above the second, no family is chosen and no mean is given by itself. */
export const MUCH_BEYOND = 0.5;
export const TOO_MUCH_BEYOND = 0.8;

/** Limits and sides as they travel: typed arrays, or lists out of a kept result. */
type Bounded = { limits: ArrayLike<number>; sides: ArrayLike<number> };

type Limited = WithCensored & Pick<Sample, 'resolution'>;
const MOST_NAMED = 3;

/** "3 below 0.05 and 1 above 30": how many lie beyond which limit; of many limits only the ends. */
export const beyondWords = (sample: Limited): string => limitsWords(beyondLimits(sample), sample.resolution);

export function limitsWords(all: readonly BeyondLimit[], resolution: number | null): string {
  const told = (limit: number) => formatFigure(limit, 'reading', resolution);
  const parts = (['below', 'above'] as const).flatMap((side) => {
    const own = all.filter((one) => one.side === side);
    if (own.length <= MOST_NAMED)
      return own.map(({ limit, count }) => `${groupThousands(count)} ${side} ${told(limit)}`);
    const count = own.reduce((sum, one) => sum + one.count, 0);
    return [`${groupThousands(count)} ${side} limits from ${told(own[0]!.limit)} to ${told(own.at(-1)!.limit)}`];
  });
  return listed(parts);
}

/** A fit to so many readings that are not known rests on its family. */
const mostlyBeyond = (share: number): string =>
  share > MUCH_BEYOND
    ? `; with ${formatPercentOf(share, 1 - share, 2)} censored, the parameters depend mainly on the chosen distribution`
    : '';

/** That readings beyond a limit take part, and how; nothing where there are none. */
export function censoredNote(sample: Limited & Pick<Sample, 'values'>): Note[] {
  if (!sample.censored) return [];
  const n = sample.values.length + sample.censored.limits.length;
  const text = `${plural(n, 'reading')}, ${beyondWords(sample)}. The censored readings enter with the probability beyond their limit${mostlyBeyond(sample.censored.limits.length / n)}.`;
  return [{ code: 'censored', text }];
}

/** Why a test that needs every reading cannot be had, or null. */
export function whyCensored(sample: Limited & Pick<Sample, 'values'>, what: string): string | null {
  if (!sample.censored) return null;
  const n = sample.values.length + sample.censored.limits.length;
  return `${sentenceCase(what)} needs every reading as a number (${plural(n, 'reading')}, ${beyondWords(sample)}). The probability plot and the fit of a distribution can use censored readings.`;
}
