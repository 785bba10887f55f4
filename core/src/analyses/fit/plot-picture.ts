import { normalQuantile } from '../../numeric/standard-normal.js';
import { percentTicks, scoreRange, type ScoreRange } from '../../probability-plot/percent-axis.js';
import { outsideBand } from '../../probability-plot/whole-plot-band.js';
import type { ProbabilityPlotResult } from './probability-plot.js';

/** A way through the plot: readings across, normal scores upwards. */
export interface PlotPath {
  readings: number[];
  scores: number[];
}

/** What the picture of a probability plot is made of, in the units of its axes. */
export interface PlotPicture {
  scores: ScoreRange;
  readings: { min: number; max: number };
  ticks: { percent: number; score: number }[];
  line: PlotPath;
  /** The edge of the band, once around. */
  band: PlotPath | null;
  /** Indices into the table of the readings outside the band. */
  outside: ReadonlySet<number>;
}

/** The readings that the plot spans: all marks, the band, and a little air. */
function readingRange({ mean, sd, readings, band }: ProbabilityPlotResult, { min, max }: ScoreRange) {
  const low = Math.min(readings[0]!, band?.lower[0] ?? Infinity, mean + 0.9 * min * sd);
  const high = Math.max(readings.at(-1)!, band?.upper.at(-1) ?? -Infinity, mean + 0.9 * max * sd);
  const air = (high - low) * 0.02;
  return { min: low - air, max: high + air };
}

/** Both edges as one closed path: they do not meet at the same readings. */
function aroundBand({ band, scores }: ProbabilityPlotResult): PlotPath | null {
  if (!band) return null;
  const up = band.ranks.map((rank) => scores[rank]!);
  return { readings: [...band.lower, ...band.upper.toReversed()], scores: [...up, ...up.toReversed()] };
}

/** Axes, line and band of a probability plot. */
export function plotPicture(result: ProbabilityPlotResult): PlotPicture {
  const { mean, sd, readings, band } = result;
  const scores = scoreRange(result.scores);
  const ends = [scores.min, scores.max];
  return {
    scores,
    readings: readingRange(result, scores),
    ticks: percentTicks(scores),
    line: { readings: ends.map((score) => mean + sd * score), scores: ends },
    band: aroundBand(result),
    outside: new Set(band ? outsideBand(readings, result.scores, band, sd) : []),
  };
}

/** The table behind the plot, its head first: rank, row, reading, p, score, what the line expects there, and how far off the reading is. */
export function plotTable(result: ProbabilityPlotResult): (readonly (string | number)[])[] {
  const { rows, readings, positions, scores, mean, sd } = result;
  const lines = Array.from(readings, (reading, i) => {
    const expected = mean + sd * normalQuantile(positions[i]!);
    return [i + 1, rows[i]!, reading, positions[i]!, scores[i]!, expected, reading - expected];
  });
  return [['i', 'row', 'reading', 'p', 'score', 'expected', 'observed − expected'], ...lines];
}
