import { statisticOf, notationOf, whatWords } from '../../road/statistic-asked.js';
import { formatFigure } from '../../numeric/format.js';
import { plural, sentenceCase } from '../../numeric/grammar.js';
import type { Note } from '../../readings/note.js';
import type { Sample } from '../../readings/sample.js';
import { readFiguresFormula } from '../../resampling/formula.js';
import { evaluatorOf, isOfPairs, type Statistic } from '../../resampling/statistic.js';
import type { Unavailable } from '../../road/analysis.js';
import { whyCensored } from '../../road/beyond-limits.js';
import { leftOutNotes, unavailable, whyEmpty, whyLabels, whyNotEven } from '../../road/cautions.js';
import { pairsOf } from '../../road/pairs.js';
import type { Scale } from '../../road/formatted.js';
import { twoOf } from '../../road/two-of.js';
import type { Asked } from './resample-settings.js';

/** What is redrawn or shuffled, and what is looked at. */
export interface Source {
  statistic: Statistic;
  /** Each in rising order; of pairs two columns in the order of the rows. */
  groups: Float64Array[];
  /** The row of every reading, in the same order; empty where counts were typed. */
  rows: Int32Array[];
  names: string[];
  /** What the groups are levels of; null for columns, or for one group. */
  by: string | null;
  observed: number;
  /** "the mean of thickness". */
  what: string;
  scale: Scale;
  /** What the statistic is: a place, a spread, a difference, or a bare number. */
  kind: 'location' | 'spread' | 'difference';
  head: {
    typed: boolean;
    n: number;
    missing: number;
    setAside: number;
    unit: string;
    resolution: number | null;
    notes: Note[];
  };
}

interface Part {
  name: string;
  values: Float64Array;
  rows: Int32Array;
}

/** In rising order, rows with them; of equal readings the earlier row first. */
function inOrder({ name, values, rows }: Part): Part {
  const order = Array.from(values.keys()).sort((a, b) => values[a]! - values[b]! || a - b);
  return {
    name,
    values: Float64Array.from(order, (i) => values[i]!),
    rows: Int32Array.from(order, (i) => rows[i] ?? 0),
  };
}

/** 1 for every reading that is counted, 0 for the others; why it cannot be told. */
function asShares(sample: Sample, { of, lower, upper, level }: Asked): Float64Array | string {
  if (sample.levels) {
    const named = level === undefined ? -1 : sample.levels.indexOf(level);
    if (named < 0) return `Choose a label of ${sample.name} from: ${sample.levels.join(', ')}.`;
    return sample.values.map((place) => (place === named ? 1 : 0));
  }
  if (lower === undefined && upper === undefined)
    return `Enter the limits, or enter specification limits for ${sample.name} in Readings.`;
  if (lower !== undefined && upper !== undefined && lower > upper)
    return `The upper limit ${upper} is below the lower limit ${lower}.`;
  const [low, high] = [lower ?? -Infinity, upper ?? Infinity];
  return sample.values.map((x) => (x >= low && x <= high === (of === 'within') ? 1 : 0));
}

const isShare = ({ statistic }: Asked) => statistic === 'share' || statistic === 'difference-of-shares';
const ofTwo = ({ statistic }: Asked) => statistic.startsWith('difference-of-') || statistic === 'log-ratio-of-sds';
const ofPairs = ({ statistic }: Asked) =>
  statistic.endsWith('-of-differences') || statistic === 'correlation' || statistic === 'slope';
const ofSeveral = ({ statistic }: Asked) => statistic === 'f' || statistic === 'largest-difference';

/** Typed counts, each as its trials one by one. */
function typedParts(figures: NonNullable<Asked['figures']>, asked: Asked): Part[] | string {
  const needed = asked.statistic === 'share' ? 1 : asked.statistic === 'difference-of-shares' ? 2 : 0;
  if (needed === 0) return 'For typed counts, choose a proportion or the difference of two proportions.';
  if (figures.length !== needed)
    return needed === 1
      ? 'A single proportion needs one count. Remove the second.'
      : 'Two proportions need two counts. Type the second.';
  return figures.map(({ count, n }, g) => ({
    name: figures.length === 1 ? 'the typed count' : g === 0 ? 'the first sample' : 'the second sample',
    values: new Float64Array(n).fill(1, n - count),
    rows: new Int32Array(0),
  }));
}

/** One column as a whole, two groups or columns, or all groups: as the statistic asks. */
function samplesFor(sample: Sample, asked: Asked): Sample[] | string {
  if (ofSeveral(asked)) {
    const filled = (sample.groups?.samples ?? []).filter(({ values }) => values.length > 0);
    if (filled.length < 2) return 'Choose a label column to split by, or several columns.';
    if (filled.length > 200) return `There are ${filled.length} groups; at most 200 are compared.`;
    return filled;
  }
  const two = ofTwo(asked) || ofPairs(asked) || (asked.statistic === 'formula' && sample.groups !== undefined);
  if (!two) return [sample];
  if (!sample.groups)
    return ofPairs(asked)
      ? 'Pairs need two columns whose rows belong together. Choose the second column.'
      : 'Choose a label column to split by, or a second column.';
  if (ofPairs(asked) && sample.groups.by !== null)
    return 'Pairs need two columns whose rows belong together. Choose a second column instead of a split.';
  return twoOf(sample, asked);
}

function whyNotPart(part: Sample, asked: Asked, least: number, purpose: string): string | null {
  if (!isShare(asked) && whyLabels(part)) return whyLabels(part);
  if (part.values.length === 0) return whyEmpty(part);
  return whyNotEven(part, least, purpose) ?? whyCensored(part, purpose);
}

/** Two columns row by row: their differences, or both in the order of the rows. */
function paired([a, b]: readonly Sample[], asked: Asked, least: number): { parts: Part[]; without: number } | string {
  if (a!.tallied || b!.tallied) return 'Readings entered as frequencies cannot be paired.';
  const { first, second, without } = pairsOf(a!, b!);
  if (first.length < least)
    return `${a!.name} and ${b!.name} have ${first.length} ${first.length === 1 ? 'row' : 'rows'} with both readings; at least ${least} are needed.`;
  const known = new Set(b!.rows);
  const rows = a!.rows.filter((row) => known.has(row));
  const both = [
    { name: a!.name, values: first, rows },
    { name: b!.name, values: second, rows },
  ];
  if (!asked.statistic.endsWith('-of-differences')) return { parts: both, without };
  const values = first.map((x, i) => x - second[i]!);
  return { parts: [inOrder({ name: `${a!.name} less ${b!.name}`, values, rows })], without };
}

interface Wanted {
  /** Readings that each group needs. */
  least: number;
  /** What they are needed for. */
  purpose: string;
}

/** What is asked of which readings; why it cannot be had. */
export function resampleSource(sample: Sample, asked: Asked, { least, purpose }: Wanted): Source | Unavailable {
  const refuse = (reason: string) => unavailable(sample, reason);
  if (asked.figures) {
    const parts = typedParts(asked.figures, asked);
    if (typeof parts === 'string') return refuse(parts);
    return sourceOf(parts, asked, {
      ...{ typed: true, n: parts.reduce((sum, { values }) => sum + values.length, 0), missing: 0, setAside: 0 },
      ...{ unit: '', resolution: null, notes: [], by: null, name: 'typed figures' },
    });
  }
  if (asked.column === undefined) return refuse('Choose a column of readings, or type counts.');
  const samples = samplesFor(sample, asked);
  if (typeof samples === 'string') return refuse(samples);
  for (const part of samples) {
    const reason = whyNotPart(part, asked, ofPairs(asked) ? 1 : least, purpose);
    if (reason) return refuse(reason);
  }
  const inPairs = ofPairs(asked) || formulaOfPairs(asked, sample);
  const notes = samples.flatMap((part) =>
    leftOutNotes(part).map((note) => (samples.length > 1 ? { ...note, text: `${part.name}: ${note.text}` } : note)),
  );
  const [first] = samples;
  const same = <K extends 'unit' | 'resolution'>(key: K) => samples.every((part) => part[key] === first![key]);
  const head = {
    typed: false,
    missing: samples.reduce((sum, part) => sum + part.missing, 0),
    setAside: samples.reduce((sum, part) => sum + part.setAside, 0),
    unit: same('unit') ? first!.unit : '',
    resolution: same('resolution') ? first!.resolution : null,
    by: sample.groups?.by ?? null,
    name: sample.name,
  };
  const without = sample.groups?.without ?? 0;
  if (without > 0 && samples.length > 1)
    notes.push({
      code: 'no-label',
      text: `${plural(without, 'reading has', 'readings have')} no ${sample.groups!.by} and ${without === 1 ? 'is' : 'are'} left out.`,
    });
  if (inPairs) {
    const found = paired(samples, asked, Math.max(least, 3));
    if (typeof found === 'string') return refuse(found);
    const left = found.without;
    if (left > 0)
      notes.push({
        code: 'no-partner',
        text: `${left} ${left === 1 ? 'reading has' : 'readings have'} no partner in the same row: left out.`,
      });
    return sourceOf(found.parts, asked, { ...head, n: found.parts[0]!.values.length, notes }, true);
  }
  const parts: Part[] = [];
  for (const part of samples) {
    const values = isShare(asked) ? asShares(part, asked) : part.values;
    if (typeof values === 'string') return refuse(values);
    parts.push(inOrder({ name: part.name, values, rows: part.rows }));
  }
  const n = parts.reduce((sum, { values }) => sum + values.length, 0);
  return sourceOf(parts, asked, { ...head, n, notes });
}

/** A formula that names the correlation or the slope is one over pairs. */
function formulaOfPairs({ statistic, formula }: Asked, { groups }: Sample): boolean {
  return statistic === 'formula' && groups?.by === null && /\b(correlation|slope)\b/.test(formula ?? '');
}

function sourceOf(
  parts: readonly Part[],
  asked: Asked,
  { by, name, ...head }: Source['head'] & { by: string | null; name: string },
  inPairs = false,
): Source | Unavailable {
  const refuse = (reason: string): Unavailable => ({
    ...{ available: false, reason, n: head.n },
    ...{ missing: head.missing, setAside: head.setAside },
  });
  if (asked.statistic === 'formula') {
    if (asked.formula === undefined)
      return refuse('Enter a formula, for example sd / mean, or mean1 / mean2 for two groups.');
    const read = readFiguresFormula(asked.formula, Math.min(2, parts.length), inPairs);
    if ('problem' in read) return refuse(read.problem);
  }
  const statistic = statisticOf(asked, inPairs);
  const groups = parts.map(({ values }) => values);
  const observed = evaluatorOf(statistic)(groups);
  const names = parts.map((part) => part.name);
  const what = whatWords(asked, { name, by, names, told: (x) => formatFigure(x, 'reading', head.resolution) });
  if (!Number.isFinite(observed))
    return refuse(`${sentenceCase(what)} cannot be calculated from these readings, because the divisor is 0.`);
  return {
    ...{ statistic, groups, rows: parts.map(({ rows }) => rows), names, observed, what },
    by: parts.length > 1 && !isOfPairs(statistic) ? by : null,
    ...notationOf(asked, { unit: head.unit, resolution: head.resolution }),
    head,
  };
}
