import type { ClaimDraws } from '../../claims/draws.js';
import type { Alternative, Interval } from '../../claims/alternative.js';
import type { SimulatedP } from '../../goodness-of-fit/simulated-p.js';
import type { Note } from '../../readings/note.js';

/** How the figures of a claim are written: as readings and their unit, as a share, as a rate, or as a bare ratio. */
export type FigureUnit = 'reading' | 'share' | 'rate' | 'ratio';

/** The distribution of the statistic under the claim, drawn: a curve, or a column for each possible value. */
export interface LawPicture {
  /** "t distribution with 47 degrees of freedom". */
  name: string;
  /** What stands on its axis. */
  axis: string;
  discrete: boolean;
  x: number[];
  y: number[];
  /** What is counted into p: of columns which, of a curve from where to where. */
  counted: boolean[];
  tails: [number, number][];
  /** The probability counted into p under this distribution: p, if p is computed from it. */
  p: number;
  /** The statistics that count into p: at most this, or at least that. */
  beyond: { atMost: number | null; atLeast: number | null };
  statistic: number;
  /** Where p would be the level. */
  critical: number[];
}

/** One of several groups, or a sample by itself. */
export interface ClaimGroup {
  name: string;
  n: number;
  /** What is claimed of: a mean, a median, a share. */
  centre: number;
  /** Null where there is none: a single reading, or counts. */
  sd: number | null;
  interval: Interval | null;
  /** Readings to be drawn, in order; at most 300. */
  dots: number[];
}

/** What was counted in one place. */
export interface ClaimCell {
  label: string;
  /** Of a table: its row, and its column. */
  group?: string;
  place?: string;
  observed: number;
  expected: number;
  difference: number;
  contribution: number;
  standardised: number;
}

/** An assumption of the method and whether the readings support it, with the alternative method. */
export interface Assumption {
  text: string;
  holds: boolean;
  /** The method without this assumption; empty if nothing speaks against it. */
  instead: string;
}

/** What this number of readings can detect. */
export interface ClaimPower {
  /** The difference of interest and the power to detect it; null if none was given. */
  noticeable: number | null;
  chance: number | null;
  /** The number needed to detect it 8 times in 10; null above a million. */
  needed: number | null;
  /** Of tests of counts, whose power goes up and down with n: the first n that suffices by itself, where it is below `needed`. */
  suffices?: number;
  /** "readings", "readings in all", "pairs". */
  per: string;
  /** "With n = 48", where it is not that. */
  with?: string;
  /** What the difference is in, where it is not what the figures are in. */
  as?: FigureUnit;
  /** "a difference of", "a standard deviation greater by". */
  of: string;
  /** By an approximation, within 0.03 of simulation. */
  approximate: boolean;
}

/** The result of the test of equivalence. */
export interface Closeness {
  margin: number;
  pValue: number;
  shown: boolean;
  /** At 1 − 2·level: what both one-sided tests look at. */
  interval: Interval;
}

/** A further figure. */
export interface ClaimExtra {
  key: string;
  name: string;
  meaning: string;
  formula: string;
  value: number | readonly [number, number] | string;
  as: FigureUnit | 'p' | 'statistic' | 'count' | 'spread';
}

/** Two of several groups. */
export interface ClaimPair {
  first: string;
  second: string;
  difference: number;
  interval: [number, number];
  pValue: number;
}

/** The result of any claim. */
export interface ClaimResult {
  available: true;
  /** True where figures were typed, and no readings looked at. */
  typed: boolean;
  n: number;
  missing: number;
  setAside: number;
  unit: string;
  resolution: number | null;
  alpha: number;
  /** The claim in words: "the mean of thickness is 8.00 mm". */
  null: string;
  /** The alternative in words: "the mean of thickness is below 8.00 mm". */
  sought: string;
  alternative: Alternative;
  method: string;
  as: FigureUnit;
  claimed: number | null;
  estimate: number | null;
  difference: number | null;
  /** The difference in sd; null where there is none. */
  standardised: number | null;
  symbol: string;
  statistic: number | null;
  df: number | readonly number[] | null;
  /** Null while it is being simulated. */
  pValue: number | null;
  pMethod: 'exact' | 'asymptotic' | 'simulated';
  pSimulated: SimulatedP | null;
  /** Of counts, tables and ranks: p off the curve, and counted out, whichever the finding goes by; null where there is none. */
  pAsymptotic: number | null;
  pExact: number | null;
  /** Of what `intervalOf` says, at the confidence. */
  interval: Interval | null;
  intervalOf: string;
  confidence: number;
  /** The numbers after the answer: "Mean 7.98 mm, 95 % confidence interval 7.95 to 8.01 mm". */
  measured: string;
  power: ClaimPower | null;
  smallestNoticeable: number | null;
  closeness: Closeness | null;
  assumptions: Assumption[];
  law: LawPicture | null;
  /** How samples are drawn as if the claim were true; null where that is not done. */
  draws: ClaimDraws | null;
  groups: ClaimGroup[];
  cells: ClaimCell[];
  pairs: ClaimPair[];
  extras: ClaimExtra[];
  notes: Note[];
}
