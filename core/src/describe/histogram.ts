import { root } from '../numeric/elementary.js';
import { decimalsOf, formatValue } from '../numeric/format.js';
import { roundTo } from '../numeric/round-to.js';
import { centralMoments } from '../numeric/sums.js';
import type { Note } from '../readings/note.js';
import { quartilesOfSorted } from './quantiles.js';
import { worked } from './working-unit.js';

export const BIN_RULES = ['suited', 'power-of-two', 'sturges', 'scott', 'freedman-diaconis', 'count', 'width'] as const;
export type BinRule = (typeof BIN_RULES)[number];

export interface BinRequest {
  rule: BinRule;
  /** For the rule `count`. */
  count?: number | undefined;
  /** For the rule `width`. */
  width?: number | undefined;
  start?: number | undefined;
  /** Round the width up to 1, 2, 2.5 or 5 × 10^k, and begin at a multiple of it. */
  roundUp?: boolean | undefined;
}

/** Bins [edge, next edge), the last one closed, and the readings in each. The counts sum to n. */
export interface Histogram {
  edges: number[];
  counts: number[];
  rule: BinRule;
  width: number;
  notes: Note[];
}

/** Bins without their counts: what several groups share. */
export interface Bins {
  edges: Float64Array;
  width: number;
  notes: Note[];
}

export const MOST_BINS = 500;
/** The least width of a bin relative to the greatest reading: below it edges would coincide as doubles. */
const LEAST_SHARE = 32 * Number.EPSILON;
/** Below this doubles are too sparse for edges, and densities too great to be held. */
const LEAST_WIDTH = 1e-305;

interface Ends {
  least: number;
  greatest: number;
}

function endsOf(values: Float64Array): Ends {
  let least = values[0]!;
  let greatest = least;
  for (let i = 1; i < values.length; i++) {
    const x = values[i]!;
    if (x < least) least = x;
    else if (x > greatest) greatest = x;
  }
  return { least, greatest };
}

/** The smallest k with 2^k ≥ n. */
function doublings(n: number): number {
  let k = 0;
  for (let size = 1; size < n; size *= 2) k++;
  return k;
}

/** Up to so many possible values, one value a bin is the default. */
const FEW_VALUES = 30;

/** The width or number of bins that a rule gives; null where it gives none: the middle half of the readings is one value, or no width is given. */
function byRule(
  values: Float64Array,
  possible: number,
  { rule, count, width }: BinRequest,
): { bins: number } | { width: number } | null {
  const n = values.length;
  switch (rule) {
    case 'suited':
      return { bins: possible <= FEW_VALUES ? possible : Math.max(1, doublings(n)) };
    case 'power-of-two':
      return { bins: Math.max(1, doublings(n)) };
    case 'sturges':
      return { bins: doublings(n) + 1 };
    case 'scott': {
      const { values: own, back } = worked(values, null);
      const sd = n > 1 ? back(Math.sqrt(centralMoments(own).s2 / (n - 1))) : 0;
      return sd > 0 ? { width: (3.49 * sd) / root(n, 3) } : null;
    }
    case 'freedman-diaconis': {
      const [q1, q3] = quartilesOfSorted(values.slice().sort(), 7);
      return q3 > q1 ? { width: (2 * (q3 - q1)) / root(n, 3) } : null;
    }
    case 'count':
      return { bins: count ?? 10 };
    case 'width':
      return width === undefined ? null : { width };
  }
}

/** The least of 1, 2, 2.5 and 5 × 10^k that is no less than the width; with a step, the least that is whole steps. */
function roundedUp(width: number, step: number | null): number {
  const power = Number(width.toExponential().split('e')[1]);
  for (let k = power; k < power + 4; k++) {
    for (const lead of [1, 2, 2.5, 5]) {
      const round = Number(`${lead}e${k}`);
      if (round < width * (1 - 1e-12)) continue;
      if (step === null || isWhole(round / step)) return round;
    }
  }
  return width;
}

const isWhole = (x: number) => Math.abs(x - Math.round(x)) < 1e-9 * Math.max(1, Math.abs(x));

/** The width of the bins on the grid of the resolution: automatic widths are whole steps, so that every bin holds equally many possible values. */
function widthOf(
  values: Float64Array,
  { least, greatest }: Ends,
  step: number | null,
  asked: BinRequest,
  notes: Note[],
) {
  const range = greatest - least;
  const possible = step === null ? Infinity : Math.round(range / step) + 1;
  let found = byRule(values, possible, asked);
  if (found === null) {
    found = { bins: doublings(values.length) + 1 };
    const instead = 'Sturges’ rule gives the number of bins.';
    if (asked.rule === 'width') notes.push({ code: 'no-width', text: `No bin width is given: ${instead}` });
    else if (range > 0) {
      const text = `Half of the readings are equal, so the rule gives no bin width: ${instead}`;
      notes.push({ code: 'rule-without-width', text });
    }
  }
  const from = asked.start !== undefined && asked.start < least ? asked.start : least - (step ?? 0) / 2;
  const reach = 'bins' in found ? greatest + (step ?? 0) / 2 - from : 0;
  let width = 'bins' in found ? reach / found.bins : found.width;
  const own = asked.rule === 'width' && 'width' in found;
  if (asked.roundUp && width > 0) width = own ? roundedUp(width, null) : roundedUp(Math.max(width, step ?? 0), step);
  if (own || step === null || isWhole(width / step)) return width;
  // A number of bins has to reach over all readings; a width is only meant about.
  const steps = width / step;
  return roundTo(Math.max(1, 'bins' in found ? Math.ceil(steps - 1e-9) : Math.round(steps)) * step, step);
}

/** A note if a chosen width makes bins with unequal numbers of possible values: such bins show peaks that are not in the readings. */
function unevenNote(width: number, step: number | null): Note[] {
  if (step === null || isWhole(width / step)) return [];
  const text = `The heights of the bins may mislead: a bin width of ${formatValue(width)} is ${formatValue(width / step)} steps of ${formatValue(step)}, so bins contain unequal numbers of possible values.`;
  return [{ code: 'uneven-bins', text }];
}

/** The bins of a request over readings (not empty) whose range is a double. */
export function binsOf(values: Float64Array, resolution: number | null, asked: BinRequest): Bins {
  const notes: Note[] = [];
  const ends = endsOf(values);
  const { least, greatest } = ends;
  const size = Math.max(Math.abs(least), Math.abs(greatest));
  // A grid finer than the doubles at this size is no grid.
  const step = resolution !== null && resolution > LEAST_SHARE * size ? resolution : null;
  let width = widthOf(values, ends, step, asked, notes);
  if (!(width > 0)) width = step ?? (size > 0 ? size * 0.01 : 1);
  const tooNarrow = Math.max((greatest - least + (step ?? 0)) / (MOST_BINS - 1), LEAST_SHARE * size, LEAST_WIDTH);
  if (width < tooNarrow) {
    width = step === null ? roundedUp(tooNarrow, null) : roundTo(Math.ceil(tooNarrow / step) * step, step);
    const text = `At most ${MOST_BINS} bins are drawn; they are widened to ${formatValue(width)}.`;
    notes.push({ code: 'widened', text });
  }
  notes.push(...unevenNote(width, step));
  const start = startOf(ends, width, step, asked, notes);
  const bins = Math.max(1, Math.ceil((greatest - start) / width - 1e-9));
  return { edges: edgesFrom(start, width, bins, ends), width, notes };
}

/**
 * The first edge: as chosen, moved by whole widths so that it covers the least reading; otherwise on the grid of the resolution or at a round number.
 */
function startOf(
  { least, greatest }: Ends,
  width: number,
  step: number | null,
  asked: BinRequest,
  notes: Note[],
): number {
  const half = (step ?? 0) / 2;
  if (asked.start !== undefined) {
    const moved = asked.start + Math.floor((least - asked.start) / width + 1e-9) * width;
    const whole = moved > least ? moved - width : moved;
    // A start so far away that whole widths from it are lost in rounding says nothing about where bins begin.
    const start = whole <= least && least - whole <= 1.5 * width ? whole : least;
    if (asked.start > least) {
      const text = `A start at ${formatValue(asked.start)} would exclude readings below it, so the bins start at ${formatValue(start)}.`;
      notes.push({ code: 'start-moved', text });
    }
    return start;
  }
  if (greatest === least) return least - width / 2;
  if (asked.roundUp) return Math.floor(least / width + 1e-9) * width - half;
  return least - half;
}

/** Edges as exact decimals, so that a width of 0.1 does not show 0.30000000000000004 on the axis; the outer edges cover all readings. */
function edgesFrom(start: number, width: number, bins: number, { least, greatest }: Ends): Float64Array {
  const digits = Math.min(100, Math.max(decimalsOf(width), decimalsOf(Math.abs(start) || 1)));
  const clean = (x: number) => {
    const decimal = digits < 12 && Math.abs(x) < 1e12 ? Number(x.toFixed(digits)) : x;
    return Math.abs(decimal - x) < 1e-6 * width ? decimal : x;
  };
  const edges = Float64Array.from({ length: bins + 1 }, (_, i) => clean(start + i * width));
  if (edges[0]! > least) edges[0] = least;
  if (edges[bins]! < greatest) edges[bins] = greatest;
  return edges;
}

/** The number of readings in each bin. A hot loop: the quotient gives an approximate bin, and comparison with the edges decides. */
export function countsIn(values: Float64Array, edges: Float64Array): Int32Array {
  const last = edges.length - 2;
  const counts = new Int32Array(last + 1);
  const start = edges[0]!;
  const scale = (last + 1) / (edges[last + 1]! - start);
  for (let i = 0; i < values.length; i++) {
    const x = values[i]!;
    let bin = ((x - start) * scale) | 0;
    if (bin > last) bin = last;
    while (bin > 0 && x < edges[bin]!) bin--;
    while (bin < last && x >= edges[bin + 1]!) bin++;
    counts[bin]!++;
  }
  return counts;
}

/** The indices of the readings that fall in some of the bins. */
export function inBins(values: Float64Array, edges: readonly number[], bins: ReadonlySet<number>): number[] {
  const last = edges.length - 2;
  const found: number[] = [];
  for (let i = 0; i < values.length; i++) {
    const x = values[i]!;
    for (const bin of bins) {
      if (x >= edges[bin]! && (bin === last ? x <= edges[bin + 1]! : x < edges[bin + 1]!)) found.push(i);
    }
  }
  return found;
}

/**
 * Counts of readings (not empty) in bins: one bin a value where few values are possible, else by one of the rules of STATISTICS section 2: Sturges
 * (1926), Scott (1979), Freedman & Diaconis (1981), the least k with 2^k ≥ n, a number, a width. With a known resolution the edges lie half a step
 * off the grid of readings. Every reading is in exactly one bin.
 */
export function histogram(values: Float64Array, resolution: number | null, asked: BinRequest): Histogram {
  const { edges, width, notes } = binsOf(values, resolution, asked);
  return { edges: Array.from(edges), counts: Array.from(countsIn(values, edges)), rule: asked.rule, width, notes };
}

/** The same readings in other bins, because a single histogram may mislead. */
export interface OtherBins {
  words: string;
  bins: Bins;
}

/**
 * Three other histograms of the same readings: half as many bins, twice as many, shifted by half a bin; wider bins if the resolution does not allow
 * narrower ones.
 */
export function otherBins(values: Float64Array, resolution: number | null, { edges, width }: Bins): OtherBins[] {
  const whole = resolution === null ? null : Math.round(width / resolution);
  // On the grid half a width is whole steps, or it is no cut at all.
  const half = whole === null ? width / 2 : Math.floor(whole / 2) * resolution!;
  const start = edges[0]!;
  const wanted = [
    { words: 'half as many bins', width: 2 * width, start },
    { words: 'about twice as many', width: half, start },
    { words: 'shifted by half a bin', width: half > 0 ? width : 0, start: start - half },
    { words: 'a third as many bins', width: 3 * width, start },
    { words: 'shifted, half as many', width: 2 * width, start: start - width },
  ];
  return wanted
    .filter((other) => other.width > 0)
    .slice(0, 3)
    .map(({ words, ...other }) => ({ words, bins: binsOf(values, resolution, { rule: 'width', ...other }) }));
}

/** The heights of the bars: counts, proportions of their group, or densities whose areas sum to one. */
export function binHeights(
  edges: readonly number[],
  counts: readonly number[],
  scale: 'count' | 'share' | 'density',
): number[] {
  const n = counts.reduce((a, b) => a + b, 0) || 1;
  if (scale === 'count') return [...counts];
  return counts.map((count, i) => count / n / (scale === 'density' ? edges[i + 1]! - edges[i]! : 1));
}
