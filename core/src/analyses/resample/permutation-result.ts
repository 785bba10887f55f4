import type { Alternative } from '../../claims/alternative.js';
import type { SimulatedP } from '../../goodness-of-fit/simulated-p.js';
import type { Counted } from '../../resampling/tails.js';
import type { ResampledHead } from './bootstrap-result.js';

/** p in each direction, and twice the smaller of the two. */
export interface AllP {
  less: number;
  greater: number;
  twoSided: number;
  doubled: number;
}

export interface PermutationResult extends ResampledHead {
  design: 'labels' | 'signs' | 'pairs';
  /** "kiln makes no difference to thickness". */
  null: string;
  /** What the statistic would be about if that were so. */
  centre: number;
  /** True where a statistic is never below 0, so that only great ones speak against. */
  oneSided: boolean;
  alternative: Alternative;
  alpha: number;
  /** How many arrangements there are, equal readings taken as different; null where they are more than a double holds. */
  arrangements: number | null;
  /** Counted among all arrangements; null where these are too many. */
  exact: Counted | null;
  /** Counted among those drawn; null where none were. */
  drawn: Counted | null;
  /** Those of what the finding goes by. */
  below: number;
  above: number;
  atLeastAsFar: number;
  pValue: number | null;
  pMethod: 'exact' | 'simulated';
  pExact: number | null;
  pSimulated: SimulatedP | null;
  /** By what the finding goes by. */
  p: AllP | null;
  /** The test by formula beside, in the same direction. */
  formula: { name: string; pValue: number } | null;
}
