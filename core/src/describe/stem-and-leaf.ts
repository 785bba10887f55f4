/** One line: its stem, its leaves, and how many readings lie from the nearer end up to and including it. */
export interface StemLine {
  stem: string;
  leaves: string;
  depth: number;
  /** True for the line (or, between two, both lines) that hold the middle of the readings. */
  median: boolean;
}

export interface StemAndLeaf {
  /** What one leaf stands for: a stem of 17 with a leaf of 8 is 178 leaf units. */
  leafUnit: number;
  /** Into how many lines a stem is split: 1, 2 or 5. */
  split: 1 | 2 | 5;
  lines: StemLine[];
  /** True where readings have digits behind the leaf, which are cut off. */
  cut: boolean;
}

export type StemSplit = 1 | 2 | 5;
const MOST_LINES = 60;
/** Below 1e-300 doubles have no room for a leaf. */
const LEAST_POWER = -300;

/** The most lines that are easily read. */
const SUITABLE_AT_MOST = 20;

/** The number of lines that suits n readings: 10·log10 n (Hoaglin, Mosteller & Tukey 1983, chapter 1), counted from n's digits; 5 to 20. */
function suitableLines(n: number): number {
  const [lead, power] = n.toExponential().split('e').map(Number) as [number, number];
  const steps = [1, 1.26, 1.58, 2, 2.51, 3.16, 3.98, 5.01, 6.31, 7.94];
  return Math.min(SUITABLE_AT_MOST, Math.max(5, 10 * power + steps.filter((step) => lead >= step).length - 1));
}

/** Splits and leaf units in the order of the width of a line: 2, 5, 10, 20, 50 … leaf units of the finest. */
function* layouts(finest: number): Generator<{ leafUnit: number; split: StemSplit; width: number }> {
  for (let power = finest; ; power++) {
    const leafUnit = Number(`1e${power}`);
    for (const split of [5, 2, 1] as const) yield { leafUnit, split, width: (10 * leafUnit) / split };
  }
}

/** A reading in whole leaf units, truncated towards 0; a value within rounding error of a whole number is that number. */
function inLeaves(x: number, leafUnit: number): number {
  const exact = x / leafUnit;
  const whole = Math.round(exact);
  return Math.abs(exact - whole) < 1e-9 * Math.max(1, Math.abs(exact)) ? whole : Math.trunc(exact);
}

/** The line of a reading; −1 − k below 0, so that −0 and 0 are separate lines. */
const lineOf = (leaves: number, below: boolean, width: number) => {
  const k = Math.floor(Math.abs(leaves) / width);
  return below ? -1 - k : k;
};

/** The stems, leaves and lines that several groups share. */
export interface StemLayout {
  leafUnit: number;
  split: StemSplit;
  first: number;
  last: number;
}

/**
 * The layout that suits readings in rising order, not empty.
 * @param resolution leaves finer than the step of the instrument are not shown
 * @param split lines of a stem; null chooses them, and the leaf unit, so that about 10·log10 n lines come out
 */
export function stemLayout(sorted: Float64Array, resolution: number | null, split: StemSplit | null): StemLayout {
  const n = sorted.length;
  const [least, greatest] = [sorted[0]!, sorted[n - 1]!];
  const range = greatest - least;
  const size = Math.max(Math.abs(least), Math.abs(greatest));
  const power = (x: number) => Number(x.toExponential().split('e')[1]);
  // No leaf below the step of the instrument, nor below what a double holds.
  const coarsest = size > 0 ? power(size) - 14 : 0;
  const finest = Math.max(resolution === null ? coarsest : power(resolution), range > 0 ? power(range) - 3 : coarsest);
  const alike = resolution === null && range === 0 ? power(size || 1) - 1 : finest;
  const most = split === null ? suitableLines(n) : Math.min(MOST_LINES, suitableLines(n) * 2.5);
  for (const layout of layouts(Math.max(finest, alike, LEAST_POWER))) {
    if ((split !== null && layout.split !== split) || range / layout.width > most) continue;
    const { leafUnit, split: found } = layout;
    const at = (x: number) => lineOf(inLeaves(x, leafUnit), x < 0, 10 / found);
    return { leafUnit, split: found, first: at(least), last: at(greatest) };
  }
  throw new RangeError('Every range has a layout.');
}

/**
 * Stem-and-leaf display (Tukey 1977, chapter 1; Hoaglin, Mosteller & Tukey 1983, chapter 1) of readings in rising order, not empty, over a layout
 * that holds them all.
 */
export function stemAndLeaf(sorted: Float64Array, { leafUnit, split, first, last }: StemLayout): StemAndLeaf {
  const n = sorted.length;
  const width = 10 / split;
  const whole = Array.from(sorted, (x) => inLeaves(x, leafUnit));
  const leaves: string[][] = Array.from({ length: last - first + 1 }, () => []);
  whole.forEach((t, i) => leaves[lineOf(t, sorted[i]! < 0, width) - first]!.push(String(Math.abs(t) % 10)));
  let before = 0;
  const lines = leaves.map((found, i) => {
    const line = first + i;
    const stem = Math.floor(((line < 0 ? -1 - line : line) * width) / 10);
    const upTo = before + found.length;
    const from = n - before;
    // The middle reading, or the two middle ones.
    const median = found.length > 0 && before < (n >> 1) + 1 && upTo > (n - 1) >> 1;
    before = upTo;
    return { stem: `${line < 0 ? '\u2212' : ''}${stem}`, leaves: found.join(''), depth: Math.min(upTo, from), median };
  });
  const cut = whole.some((t, i) => Math.abs(sorted[i]! / leafUnit - t) > 1e-9 * Math.max(1, Math.abs(t)));
  return { leafUnit, split, lines, cut };
}
