/**
 * What a strong piece of a finding states. Each is registered in `calibrate/statements` with what would make it false and how that is measured: a finding may say nothing else
 * (docs/statistics.md has the table).
 */
export const STATEMENT_CODES = [
  /** A departure, a difference, an outlier: something beyond chance at the level. */
  'evidence',
  'no-evidence',
  /** Where one further reading would be flagged. */
  'threshold',
  /** How often something so extreme comes by chance. */
  'probability',
  'interval',
  'power',
  'n-needed',
  /** Which families the readings leave open. */
  'plausible',
  'pattern',
  'recommended',
  /** A figure of the readings, or of a distribution that is given: it holds whatever the population is. */
  'figure',
] as const;
export type StatementCode = (typeof STATEMENT_CODES)[number];
