import type { Side } from '../../outliers/grubbs.js';
import type { Arrangement } from '../../outliers/rule-trials.js';
import type { Rule } from '../../outliers/rules.js';
import type { Note } from '../../road/analysis.js';
import type { FoundShare } from './outliers-result.js';

/** A sort of sample that the rules are tried on: what is far out in it, and by how many sd. */
export interface Trial {
  arrangement: Arrangement;
  shift: number;
}

export interface RuleAtWork {
  rule: Rule;
  /** Why it cannot be tried, or null. */
  reason: string | null;
  /** How often it names anything of a clean sample. */
  falseAlarms: FoundShare | null;
  /** How often it names all that was shifted, and how often something else as well or instead. */
  power: (Trial & { found: FoundShare; others: number })[];
}

export interface OutlierRulesResult {
  available: true;
  n: number;
  missing: number;
  setAside: number;
  unit: string;
  resolution: number | null;
  alpha: number;
  side: Side;
  most: number;
  replicates: number;
  /** Empty while the samples are drawn. */
  rules: RuleAtWork[];
  notes: Note[];
}
