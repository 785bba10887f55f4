import type { SimulatedP } from '../../goodness-of-fit/simulated-p.js';
import type { SheetCell } from '../../probability-plot/sheet-cell.js';
import type { Note } from '../../road/analysis.js';
import type { FoundLambda } from '../../transform/lambda.js';
import type { Bounds, TransformationName } from '../../transform/transformation.js';

/** The readings as measured, or transformed. */
export interface TransformSide {
  mean: number;
  sd: number;
  median: number;
  skewness: number | null;
  kurtosis: number | null;
  /** A² against a normal with this mean and sd. */
  statistic: number;
  /** Null while it is simulated, and where a test says nothing (normal scores). */
  pSimulated: SimulatedP | null;
  /** The p of samples rounded as the readings are, where the plain one is below the level and the resolution is known. */
  pResolution: SimulatedP | null;
  plot: SheetCell;
  histogram: SheetCell;
  /** Limits and target on this scale. */
  bounds: Bounds;
}

/** What each of the transformations would give. */
export interface TransformOffer {
  by: TransformationName;
  lambda: number | null;
  statistic: number | null;
  skewness: number | null;
  /** Why it cannot be had. */
  reason: string | null;
}

export interface OutsideShare {
  share: number;
  interval: { lower: number; upper: number } | null;
}

export interface TransformResult {
  available: true;
  n: number;
  missing: number;
  setAside: number;
  unit: string;
  resolution: number | null;
  alpha: number;
  by: TransformationName;
  /** Of a power transformation: what is used, and what the readings say of it (null where it is given). */
  lambda: { used: number; choice: 'convenient' | 'likeliest' | 'given'; found: FoundLambda | null } | null;
  before: TransformSide;
  after: TransformSide;
  /** The mean of the transformed readings turned back: a median of the readings; null where it cannot be. */
  middle: number | null;
  offers: TransformOffer[];
  /** The share outside the limits: counted, by the transformed normal, and by the family that describes the readings best; null without limits. */
  outside: {
    counted: number;
    transformed: OutsideShare | null;
    best: ({ family: string } & OutsideShare) | null;
  } | null;
  /** The rows and their readings before and after, in the order of the rows. */
  rows: Int32Array;
  readings: Float64Array;
  transformed: Float64Array;
  notes: Note[];
}
