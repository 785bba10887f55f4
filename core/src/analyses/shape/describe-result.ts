import type { Outside } from '../../describe/box.js';
import type { Description } from '../../describe/describe.js';
import type { Drift } from '../../describe/drift.js';
import type { Gap } from '../../describe/gap.js';
import type { MomentTest } from '../../goodness-of-fit/normality/skewness.js';
import type { Note } from '../../road/analysis.js';
import type { WithBeyond } from './with-beyond.js';

/** What the description of a column looks for, in the order of its sentences. */
export const LOOKS = ['lean', 'tails', 'gap', 'far', 'drift'] as const;
export type Look = (typeof LOOKS)[number];

/** Which looks found something, and how many there were in all parts: those that n and the kind of readings allow. */
export interface Claims {
  found: Look[];
  looks: number;
}

/** The figures of a column or of one group, and what is odd about it. */
export interface Described extends Description {
  name: string;
  unit: string;
  resolution: number | null;
  /** The level its claims are read against. */
  alpha: number;
  /** Decimals that figures in the unit of the readings are shown with; null: by the resolution. */
  decimals: number | null;
  missing: number;
  setAside: number;
  /** D'Agostino's and Anscombe & Glynn's tests; null where n is too small or there is no spread. */
  skewnessTest: MomentTest | null;
  kurtosisTest: MomentTest | null;
  drift: Drift | null;
  gap: Gap | null;
  /** Outside the fence of the box plot, 1.5 quartile ranges from the quartiles: the furthest first. */
  outside: Outside[];
  outsideCount: number;
  /** Beyond 3 quartile ranges. */
  farCount: number;
  /** How far out the farthest reading lies; null below four readings and without spread between the quartiles. */
  farthest: Farthest | null;
  /** Readings beyond a limit, which none of these figures holds, and centre and spread with them; absent where there are none. */
  withBeyond?: WithBeyond;
  /** What the readings show of five things looked for, at the level shared among them; of groups, among all looks at all of them. */
  claims: Claims;
}

export interface Farthest {
  /** Quartile ranges beyond the nearer quartile, as far as the steps of the resolution leave no doubt. */
  multiple: number;
  /** How often a normal sample of this size has a reading so far out, by simulation. */
  pValue: number;
  /** How often it has one outside the fence at 1.5 quartile ranges. */
  fenceShare: number;
}

export interface DescribeResult extends Described {
  available: true;
  /** The label column, or null. */
  by: string | null;
  /** One for each group that is shown; null for a column as a whole. */
  groups: Described[] | null;
  notes: Note[];
}
