import type { Alternative } from '../../claims/alternative.js';
import type { TableOrder } from '../null-table.js';

/** Readings are counted where they lie within two ends, both of which belong to it, or outside them. */
export interface Counted {
  lower: number | null;
  upper: number | null;
  of: 'within' | 'outside';
}

/** What a test holds samples against: what is true of the population as it would be without being moved, or what is claimed of it. */
export interface Claim {
  mean: number;
  median: number;
  sd: number;
  /** Of those counted. */
  share: number;
  counted: Counted | null;
}

export interface TestSetting {
  /** Readings of each group. */
  sizes: readonly number[];
  alternative: Alternative;
  claim: Claim;
  /** Statistics of samples with nothing to find, in rising order, for tests whose p has no formula. */
  table: ArrayLike<number> | null;
}

/** p of samples, one for each group, in the order drawn: not to be changed. NaN where there is none, since all are alike. With its statistic in the second place. */
export type TestOf = (samples: readonly Float64Array[], into: Float64Array) => void;

/** The reference of a test. */
export type About = 'mean' | 'median' | 'sd' | 'share' | 'normal' | 'outliers' | 'two' | 'pairs';

/** A test that can be simulated. */
export interface SimulatedTest {
  id: string;
  /** "t test of the mean". */
  name: string;
  /** Where there is little room: "signed ranks". */
  short: string;
  /** The letter of its statistic. */
  symbol: string;
  about: About;
  groups: 1 | 2;
  /** Readings that each group needs; of pairs two groups need as many. */
  least: number;
  greatest?: number;
  /** True where evidence can be sought in one direction. */
  sided: boolean;
  /** Its cost relative to a t test, approximately: chunks hold fewer samples of a costly test. */
  cost: number;
  /** What is simulated first, if p comes from a table. */
  table?: (n: number, alternative: Alternative) => TableOrder;
  make(setting: TestSetting): TestOf;
}
