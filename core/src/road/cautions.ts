import { formatFigure, formatPercent, formatValue, groupThousands } from '../numeric/format.js';
import { plural } from '../numeric/grammar.js';
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
    return `${name} has readings beyond 1e150, which are too large to calculate with. Choose a larger unit.`;
  }
  if (greatest > least && greatest - least < LEAST) {
    return `The readings of ${name} differ by less than 1e-150, too little to calculate with. Choose a smaller unit.`;
  }
  return null;
}

/** Why labels are not worked with, where numbers are wanted; null for numbers. */
export function whyLabels(sample: Sample): string | null {
  const labels = [sample, ...(sample.groups?.samples ?? [])].find(({ levels }) => levels);
  return labels ? `${labels.name} is a label column; this analysis needs numbers.` : null;
}

/** Why a picture or test of the spread cannot be had from this sample, or null when it can. */
export function whyNot(sample: Sample, leastN: number, purpose: string): string | null {
  const { values, name } = sample;
  const n = values.length;
  const short = whyNotEven(sample, leastN, purpose);
  if (short) return short;
  if (values.every((value) => value === values[0])) {
    return `All ${n} readings of ${name} are ${formatFigure(values[0]!, 'reading', sample.resolution)}; ${purpose} needs readings that vary.`;
  }
  return null;
}

/** Why not even something that asks for no spread can be had, or null. */
export function whyNotEven(sample: Sample, leastN: number, purpose: string): string | null {
  const { values, name } = sample;
  const n = values.length;
  if (n === 0) return whyEmpty(sample);
  if (n < leastN) return `${name} has ${plural(n, 'reading')}; ${purpose} needs at least ${leastN}.`;
  return outOfScale(sample);
}

/** That a column has no readings, and what its cells are instead. */
export function whyEmpty(sample: Sample): string {
  return `${sample.name} has no readings${leftOut(sample)}.`;
}

function leftOut({ missing, setAside, unreadable, beyondLimit }: Sample): string {
  const parts = [
    missing ? `${missing} missing` : '',
    setAside ? `${setAside} set aside` : '',
    unreadable ? `${unreadable} not ${unreadable === 1 ? 'a number' : 'numbers'}` : '',
    beyondLimit ? `${beyondLimit} censored` : '',
  ].filter(Boolean);
  return parts.length ? ` (${parts.join(', ')})` : '';
}

/** What is said of cells that are no numbers. */
export function unreadableNotes({ unreadable }: Sample): Note[] {
  if (!unreadable) return [];
  const cells = plural(unreadable, 'cell is not a number', 'cells are not numbers');
  return [
    {
      code: 'unreadable',
      text: `${cells} and ${unreadable === 1 ? 'is' : 'are'} left out. Correct ${unreadable === 1 ? 'it' : 'them'} in Readings.`,
    },
  ];
}

/** What is said of cells that hold something a calculation cannot take, readings beyond a limit among them. */
export function leftOutNotes(sample: Sample): Note[] {
  const notes = unreadableNotes(sample);
  const { beyondLimit } = sample;
  if (beyondLimit) {
    const cells = plural(beyondLimit, 'reading is', 'readings are');
    const text = `${cells} known only by a detection limit, such as “<0.05”, and ${beyondLimit === 1 ? 'is' : 'are'} left out.`;
    notes.push({ code: 'beyond-limit', text });
  }
  return notes;
}

/** The significance level behind a p, where it is not the usual one. */
export const levelWords = (alpha: number): string => (alpha === 0.05 ? '' : `, significance level ${alpha}`);

/** "significance level 0.05, Holm-adjusted for 3 tests": the level of a finding over several tests. */
export const holmLevel = (alpha: number, tests: number): string =>
  `significance level ${formatValue(alpha)}${tests > 1 ? `, Holm-adjusted for ${groupThousands(tests)} tests` : ''}`;

export function levelNote(alpha: number): Note[] {
  if (alpha >= 0.0005 && alpha <= 0.2) return [];
  const meant = alpha > 0.2 && alpha >= 0.5 ? ` Did you mean ${Number((1 - alpha).toPrecision(6))}?` : '';
  return [
    { code: 'unusual-level', text: `The significance level ${alpha} is unusual; 0.05 and 0.01 are common.${meant}` },
  ];
}

/** An interval that is hardly ever wanted: 9.5 % typed for 95 %. */
export function confidenceNote(confidence: number): Note[] {
  if (confidence >= 0.8 && confidence <= 0.9999) return [];
  const percent = confidence * 100;
  const typed = (times: number) => Number((percent * times).toPrecision(6));
  // 9.5 for 95, and a share where a percentage is typed.
  const tenfold = percent >= 9 && percent < 10 ? ` Did you mean ${typed(10)}\u00a0%?` : '';
  const meant = percent < 1 ? ` For ${typed(100)}\u00a0%, enter ${typed(100)}.` : tenfold;
  const text = `The confidence level ${formatPercent(confidence)} is unusual; 95\u00a0% and 99\u00a0% are common.${meant}`;
  return [{ code: 'unusual-confidence', text }];
}

/** How many readings share their value with another. */
export function tiedCount(sorted: Float64Array): number {
  let tied = 0;
  for (let i = 0; i < sorted.length; i++) if (sorted[i] === sorted[i - 1] || sorted[i] === sorted[i + 1]) tied++;
  return tied;
}
