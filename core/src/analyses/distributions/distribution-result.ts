import type { Parameters } from '../../distributions/family.js';
import type { Ends } from '../../distributions/region.js';
import type { Note } from '../../road/analysis.js';
import type { Question } from './distribution-request.js';

/** A figure of the distribution, or why there is none: never NaN, never Infinity. */
export interface MomentFigure {
  value: number | null;
  /** "infinite", "does not exist" where value is null. */
  reason?: 'infinite' | 'does not exist';
}

export interface DistributionResult {
  available: true;
  family: string;
  discrete: boolean;
  parameters: Parameters;
  question: Question;
  /** The limits of the region, null where there is none on that side. */
  lower: number | null;
  upper: number | null;
  outside: boolean;
  ends: Ends;
  /** P of the region, and of everything else. */
  probability: number;
  complement: number;
  /** For counts: P with the limits taken the other way. */
  otherEnds?: number;
  /** The value that was asked for with a lower or upper share. */
  value?: number;
  resolution?: number;
  points?: { x: number; density: number | null; cumulative: number; survival: number }[];
  mean: MomentFigure;
  sd: MomentFigure;
  variance: MomentFigure;
  skewness: MomentFigure;
  kurtosis: MomentFigure;
  median: number;
  support: { lower: number | null; upper: number | null };
  readings?: ReadingsInRegion;
  unit: string;
  notes: Note[];
}

/** How many readings of a column lie in the region. */
export interface ReadingsInRegion {
  column: string;
  n: number;
  missing: number;
  setAside: number;
  count: number;
  share: number;
  /** 95 % Clopper–Pearson. */
  interval: [number, number];
}
