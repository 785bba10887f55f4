import type { SimulatedP } from '../../goodness-of-fit/simulated-p.js';
import type { Rule } from '../../outliers/rules.js';
import type { Note } from '../../road/analysis.js';
import type { PartOutliers } from './outlier-parts.js';

/** What is said of the groups together: of their spreads (Cochran), of their means (Grubbs). */
export interface GroupTest {
  test: 'cochran' | 'grubbs';
  /** Why it says nothing, or null. */
  reason: string | null;
  statistic: number | null;
  critical: number | null;
  pFormula: { pValue: number; exact: boolean } | null;
  pSimulated: SimulatedP | null;
  pValue: number | null;
  pMethod: 'formula' | 'simulated' | null;
  /** The group that it names, or null. */
  group: string | null;
  /** The group that it is about. */
  candidate?: string;
}

export interface GroupFigures {
  name: string;
  n: number;
  mean: number;
  sd: number | null;
  /** Its mean's z among the means; null for fewer than three groups. */
  h: number | null;
  hCritical: number[] | null;
  /** Its sd over the pooled sd; null for a single reading. */
  k: number | null;
  kCritical: number[] | null;
}

export interface OutlyingGroupsResult {
  available: true;
  n: number;
  missing: number;
  setAside: number;
  unit: string;
  resolution: number | null;
  alpha: number;
  by: string;
  rule: Rule;
  /** Readings without a label. */
  without: number;
  /** The levels of the critical values of h and k. */
  levels: number[];
  groups: GroupFigures[];
  tests: GroupTest[];
  parts: PartOutliers[];
  notes: Note[];
}
