import type { StatementCode } from '../../core/src/road/statements.ts';

/** How often statements of a kind came out false in a case: so many of so many. */
export interface Found {
  case: string;
  false: number;
  of: number;
}

/** A kind of statement: which codes are of it, what would make one false, and how that is measured. */
export interface StatementKind {
  code: StatementCode;
  /** Codes of notes that say the same kind of thing. */
  notes: readonly string[];
  falseWhen: string;
  how: string;
  /** The share of false statements that is allowed, in each case. */
  allowed: number;
  /** `thorough` multiplies the samples of the slice that runs with the tests. */
  measure(thorough: number): Promise<Found[]>;
}
