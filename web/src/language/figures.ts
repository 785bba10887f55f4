import type { DecimalMark, NumberFormat } from '@verdict/core/readings';

/**
 * A figure with a decimal point. Not one: part of a word or of a file name, a row of points such as a version or a date, and the prefix of a DOI.
 */
const FIGURE = /(?<![\w.])(?!10\.\d{4,}\/)(\d+)\.(\d+(?:e[+-]?\d+)?)(?!\w|\.\w)/g;

const QUOTED = /“[^”]*”/g;

/** The decimal mark of a language. Marks other than a comma are shown as a point, which fields and cells understand. */
export function decimalMarkOf(locale: string | undefined): DecimalMark {
  const parts = new Intl.NumberFormat(locale).formatToParts(1.5);
  return parts.find(({ type }) => type === 'decimal')?.value === ',' ? 'comma' : 'point';
}

/**
 * A text of the core as it is read: its figures with this decimal mark. Thousands are separated by a narrow space in every language (ISO 80000-1), so that neither
 * mark is ever one between thousands. What somebody typed stays as it is: texts in quotation marks, and the names in `asWritten`.
 */
export function withMark(text: string, mark: DecimalMark, asWritten: RegExp | null = null): string {
  if (mark === 'point' || !text.includes('.')) return text;
  const turned = (part: string) => part.replace(FIGURE, '$1,$2');
  const typed = asWritten ? new RegExp(`${QUOTED.source}|${asWritten.source}`, 'gu') : QUOTED;
  let at = 0;
  let result = '';
  for (const { index, 0: name } of text.matchAll(typed)) {
    result += turned(text.slice(at, index)) + name;
    at = index + name.length;
  }
  return result + turned(text.slice(at));
}

/** Names that contain a figure. A name that is a figure alone ("2.5") is read as one. */
const withFigures = (names: readonly string[]): string[] =>
  names.filter((name) => /\d\.\d/.test(name) && /\p{L}/u.test(name));

/** More names would make every text slow. */
const MOST_NAMES = 500;

/** A pattern that finds those of these names that contain a figure, the longest first; null if there are none. */
export function patternOfNames(names: readonly string[]): RegExp | null {
  const found = [...new Set(withFigures(names))].slice(0, MOST_NAMES).sort((a, b) => b.length - a.length);
  if (found.length === 0) return null;
  const escaped = found.map((name) => name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'));
  return new RegExp(`(?<![\\p{L}\\d])(?:${escaped.join('|')})(?![\\p{L}\\d])`, 'gu');
}

/** How a reader with this mark writes numbers. */
export const formatOf = (decimal: DecimalMark): NumberFormat => ({ decimal, thousands: 'blank' });
