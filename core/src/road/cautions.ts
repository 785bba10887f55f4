import { formatFigure, formatPercent, groupThousands } from '../numeric/format.js';
import type { Sample } from '../readings/sample.js';
import type { Note, Unavailable } from './analysis.js';

export function unavailable(sample: Sample, reason: string): Unavailable {
  return {
    available: false,
    reason,
    n: sample.values.length,
    missing: sample.missing,
    setAside: sample.setAside,
  };
}

const count = (n: number, one: string, many: string) => `${groupThousands(n)} ${n === 1 ? one : many}`;

/** Squares of what lies outside these cannot be held as doubles, and with them no spread. */
const GREATEST = 1e150;
const LEAST = 1e-150;

/** Why readings of this size cannot be worked with, or null. */
export function outOfScale({ values, name }: Sample): string | null {
  let least = Infinity;
  let greatest = -Infinity;
  for (const value of values) {
    if (value < least) least = value;
    if (value > greatest) greatest = value;
  }
  if (greatest > GREATEST || least < -GREATEST) {
    return `${name} holds readings beyond 1e150, whose spread cannot be worked out. Choose a larger unit.`;
  }
  if (greatest > least && greatest - least < LEAST) {
    return `The readings of ${name} differ by less than 1e-150, too little to work out a spread. Choose a smaller unit.`;
  }
  return null;
}

/** Why labels are not worked with, where numbers are wanted; null for numbers. */
export function whyLabels(sample: Sample): string | null {
  const labels = [sample, ...(sample.groups?.samples ?? [])].find(({ levels }) => levels);
  return labels ? `${labels.name} is a column of labels; numbers are worked with here.` : null;
}

/** Why a picture or test of the spread cannot be had from this sample, or null when it can. */
export function whyNot(sample: Sample, leastN: number, purpose: string): string | null {
  const { values, name } = sample;
  const n = values.length;
  const short = whyNotEven(sample, leastN, purpose);
  if (short) return short;
  if (values.every((value) => value === values[0])) {
    return `All ${n} readings of ${name} are ${formatFigure(values[0]!, 'reading', sample.resolution)}: without any spread there is nothing to compare with a distribution.`;
  }
  return null;
}

/** Why not even something that asks for no spread can be had, or null. */
export function whyNotEven(sample: Sample, leastN: number, purpose: string): string | null {
  const { values, name } = sample;
  const n = values.length;
  if (n === 0) return whyEmpty(sample);
  if (n < leastN) return `${name} has ${count(n, 'reading', 'readings')}; ${purpose} needs at least ${leastN}.`;
  return outOfScale(sample);
}

/** That a column has no readings, and what its cells are instead. */
export function whyEmpty(sample: Sample): string {
  return `${sample.name} has no readings to work with${leftOut(sample)}.`;
}

function leftOut({ missing, setAside, unreadable, beyondLimit }: Sample): string {
  const parts = [
    missing ? `${missing} missing` : '',
    setAside ? `${setAside} set aside` : '',
    unreadable ? `${unreadable} that ${unreadable === 1 ? 'is no number' : 'are no numbers'}` : '',
    beyondLimit ? `${beyondLimit} beyond a limit` : '',
  ].filter(Boolean);
  return parts.length ? ` (${parts.join(', ')})` : '';
}

/** What is said of cells that are no numbers. */
export function unreadableNotes({ unreadable }: Sample): Note[] {
  if (!unreadable) return [];
  const cells = count(unreadable, 'cell is no number', 'cells are no numbers');
  return [{ code: 'unreadable', text: `${cells}: kept as written, left out here until mended in Readings.` }];
}

/** What is said of cells that hold something a calculation cannot take, readings beyond a limit among them. */
export function leftOutNotes(sample: Sample): Note[] {
  const notes = unreadableNotes(sample);
  const { beyondLimit } = sample;
  if (beyondLimit) {
    const cells = count(beyondLimit, 'reading lies', 'readings lie');
    const text = `${cells} beyond a limit, such as “<0.05”: left out here.`;
    notes.push({ code: 'beyond-limit', text });
  }
  return notes;
}

/** The significance level behind a p, where it is not the usual one. */
export const levelWords = (alpha: number): string => (alpha === 0.05 ? '' : `, significance level ${alpha}`);

export function levelNote(alpha: number): Note[] {
  if (alpha >= 0.0005 && alpha <= 0.2) return [];
  const meant = alpha > 0.2 && alpha >= 0.5 ? ` Was ${Number((1 - alpha).toPrecision(6))} meant?` : '';
  return [{ code: 'unusual-level', text: `A level of ${alpha} is unusual; 0.05 and 0.01 are customary.${meant}` }];
}

/** An interval that is hardly ever wanted: 9.5 % typed for 95 %. */
export function confidenceNote(confidence: number): Note[] {
  if (confidence >= 0.8 && confidence <= 0.9999) return [];
  const percent = confidence * 100;
  const typed = (times: number) => Number((percent * times).toPrecision(6));
  // 9.5 for 95, and a share where a percentage is typed.
  const tenfold = percent >= 9 && percent < 10 ? ` Was ${typed(10)}\u00a0% meant?` : '';
  const meant = percent < 1 ? ` For ${typed(100)}\u00a0% type ${typed(100)}.` : tenfold;
  const text = `Intervals at ${formatPercent(confidence)} are unusual; 95\u00a0% and 99\u00a0% are customary.${meant}`;
  return [{ code: 'unusual-confidence', text }];
}

/** How many readings share their value with another. */
export function tiedCount(sorted: Float64Array): number {
  let tied = 0;
  for (let i = 0; i < sorted.length; i++) if (sorted[i] === sorted[i - 1] || sorted[i] === sorted[i + 1]) tied++;
  return tied;
}
