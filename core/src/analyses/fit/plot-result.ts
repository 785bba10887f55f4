import type { PlottedLaw } from '../../distributions/fit/fitted-law.js';
import type { Note } from '../../road/analysis.js';
import { boundsOf } from '../../road/beyond-limits.js';
import type { FittedTo } from '../../probability-plot/likelihood-region.js';
import type { PlotShape } from '../../probability-plot/shapes.js';
import type { PlotAxis, PlotBand, PlotLine, Sides } from './plot-settings.js';

/** A column of the table: typed while it travels between threads, an array once it came over the wire. */
export type Column = readonly number[] | Float64Array | Int32Array;

export interface Interval {
  lower: number;
  upper: number;
}

export interface ProbabilityPlotResult {
  available: true;
  n: number;
  missing: number;
  setAside: number;
  unit: string;
  resolution: number | null;
  law: PlottedLaw;
  axis: PlotAxis;
  sides: Sides;
  /** Readings beyond a limit: their rows and limits, −1 for a reading below its limit and 1 for one above. They count in n and have no place in the table. */
  censored?: { rows: Column; limits: Column; sides: Column };
  /** Where there are such, the ranks of the others among them all (Kaplan & Meier 1958); 1 … n otherwise. */
  ranks?: Column;
  /** On the family's own scale: place = intercept + slope · score. */
  line: { by: PlotLine; intercept: number; slope: number };
  /** Correlation of the places of the readings with their scores. */
  correlation: number;
  /** The table behind the plot, sorted by reading: row (from 1), reading, cumulated share p and its score. */
  rows: Column;
  readings: Column;
  positions: Column;
  scores: Column;
  band: PlottedBand | null;
  /** What the plot shows that is no chance at the level; absent where it is not judged (readings beyond a limit), and in results kept before it was read. */
  shapes?: PlotShape[];
  /** Target and limits, and the share of the distribution outside the limits with its interval (null for a claim). */
  limits: {
    lower: number | null;
    target: number | null;
    upper: number | null;
    outside: number | null;
    interval: Interval | null;
    confidence: number;
  };
  notes: Note[];
}

/** The readings that the distribution was fitted to. */
export const fittedTo = ({ readings, censored }: Pick<ProbabilityPlotResult, 'readings' | 'censored'>): FittedTo => ({
  sorted: Float64Array.from(readings),
  censored: boundsOf(censored),
});

export interface PlottedBand {
  kind: Exclude<PlotBand, 'none'>;
  /** Indices into the table at which it was worked out, and its limits there in the unit of the readings. */
  ranks: number[];
  lower: number[];
  upper: number[];
  confidence: number;
  /** What was simulated; null where nothing was. */
  simulated: { coverage: number; replicates: number; seed: number } | null;
  /** Rows of the first 20 readings outside it, and how many there are in all; none for a band on the line. */
  outside: number[];
  outsideCount: number;
}

/** Results that were kept before there were other families than the normal. */
interface Version3 {
  mean: number;
  sd: number;
  band: (Omit<PlottedBand, 'kind' | 'simulated'> & { coverage: number; replicates: number; seed: number }) | null;
}

/** A kept result as it is told today. */
export function readPlot(kept: unknown): ProbabilityPlotResult {
  if ('law' in (kept as object)) return kept as ProbabilityPlotResult;
  const { mean, sd, band, ...same } = kept as Version3 & Omit<ProbabilityPlotResult, 'band'>;
  return {
    ...same,
    law: {
      family: 'normal',
      parameters: { mean, sd },
      estimated: ['mean', 'sd'],
      standardErrors: {},
      covariance: null,
    },
    axis: 'percent',
    sides: 'readings-across',
    line: { by: 'fit', intercept: mean, slope: sd },
    band: band && { ...band, kind: 'whole-plot', simulated: band },
    limits: { lower: null, target: null, upper: null, outside: null, interval: null, confidence: 0.95 },
  };
}
