import { binHeights, histogram } from '../describe/histogram.js';
import type { Distribution } from '../distributions/family.js';
import { normalScore } from '../distributions/normal-score.js';
import { normalQuantile } from '../numeric/standard-normal.js';
import { centralMoments } from '../numeric/sums.js';

/** What one cell of a sheet of many small pictures shows. */
export type CellKind = 'plot' | 'histogram';

/** Readings against their expected places, both as standard normal scores: on a straight line where they follow the distribution. */
export interface PlotCell {
  kind: 'plot';
  /** The score of each reading under its own fitted distribution. */
  readings: number[];
  /** The score of its plotting position. */
  scores: number[];
}

/** Bars about the mean of the readings in units of their sd, as densities, and the fitted curve over them. */
export interface HistogramCell {
  kind: 'histogram';
  edges: number[];
  heights: number[];
  curve: { x: number[]; y: number[] };
}

export type SheetCell = PlotCell | HistogramCell;

/** As many marks as a small picture can tell apart; the outermost are always among them. */
const MOST_MARKS = 240;
const ENDS = 30;

/** The ranks that are drawn of n readings: all of few; of many the ends, and others at even distances. */
export function drawnRanks(n: number, most = MOST_MARKS, ends = ENDS): number[] {
  if (n <= most) return Array.from({ length: n }, (_, i) => i);
  const between = most - 2 * ends;
  const first = Array.from({ length: ends }, (_, i) => i);
  const span = n - 1 - 2 * ends;
  const middle = Array.from({ length: between }, (_, k) => ends + Math.round((k * span) / (between - 1)));
  return [...first, ...middle, ...first.map((i) => n - ends + i)];
}

/** Four decimals of a score are finer than any pixel. */
const drawn = (value: number) => Math.round(value * 1e4) / 1e4;

/**
 * Quantile residuals (Dunn & Smyth 1996): each reading as the standard normal score of its share under the distribution fitted to these very
 * readings, against the score of its midpoint position. For a normal this is (x − mean)/sd, and no trace is left of mean and sd.
 */
function plotCell(sorted: Float64Array, law: Distribution): PlotCell {
  const n = sorted.length;
  const ranks = drawnRanks(n);
  return {
    kind: 'plot',
    readings: ranks.map((i) => drawn(normalScore(law, sorted[i]!))),
    scores: ranks.map((i) => drawn(normalQuantile((i + 0.5) / n))),
  };
}

const CURVE_PLACES = 41;

function histogramCell(sorted: Float64Array, law: Distribution, resolution: number | null): HistogramCell {
  const { n, mean, s2 } = centralMoments(sorted);
  // A draw that coarse rounding has left without spread is drawn all the same.
  const sd = Math.sqrt(s2 / (n - 1)) || 1;
  const { edges, counts } = histogram(sorted, resolution, { rule: 'power-of-two' });
  const score = (x: number) => drawn((x - mean) / sd);
  const [from, to] = [edges[0]!, edges.at(-1)!];
  const places = Array.from({ length: CURVE_PLACES }, (_, k) => from + ((to - from) * k) / (CURVE_PLACES - 1));
  return {
    kind: 'histogram',
    edges: edges.map(score),
    heights: binHeights(edges, counts, 'density').map((height) => drawn(height * sd)),
    curve: { x: places.map(score), y: places.map((x) => drawn(Math.min(1e6, law.density(x) * sd))) },
  };
}

/** Readings in rising order (at least two different ones) as one cell, under the distribution that was fitted to them. */
export const sheetCell = (
  kind: CellKind,
  sorted: Float64Array,
  law: Distribution,
  resolution: number | null,
): SheetCell => (kind === 'plot' ? plotCell(sorted, law) : histogramCell(sorted, law, resolution));

/** A cell as numbers, as chunks of repeated work are handed on. */
export function packCell(cell: SheetCell): Float64Array {
  if (cell.kind === 'plot') return Float64Array.from([cell.readings.length, ...cell.readings, ...cell.scores]);
  const { edges, heights, curve } = cell;
  return Float64Array.from([-heights.length, ...edges, ...heights, ...curve.x, ...curve.y]);
}

/** The cell that `packCell` made numbers of. */
export function unpackCell(numbers: Float64Array): SheetCell {
  const [count] = numbers;
  let at = 1;
  const take = (length: number) => Array.from(numbers.subarray(at, (at += length)));
  if (count! > 0) return { kind: 'plot', readings: take(count!), scores: take(count!) };
  const bars = -count!;
  const [edges, heights] = [take(bars + 1), take(bars)];
  return { kind: 'histogram', edges, heights, curve: { x: take(CURVE_PLACES), y: take(CURVE_PLACES) } };
}
