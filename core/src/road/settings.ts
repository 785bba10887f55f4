import '../readings/refusals.js';
import { z } from 'zod';
import { QUANTILE_TYPES } from '../describe/quantiles.js';
import { GREATEST_SEED } from '../random/stream.js';

/** The settings that several analyses share, under the names of STATISTICS section 0. */
const COLUMN = 'A column name must have 1 to 200 characters.';
export const columnSetting = z.string(COLUMN).min(1, COLUMN).max(200, COLUMN);
export const alphaSetting = z
  .number('The significance level must be a number between 0 and 1.')
  .gt(0, 'The significance level must lie between 0 and 1; 0.05 means 5 %.')
  .lt(1, 'The significance level must lie between 0 and 1; 0.05 means 5 %.')
  .default(0.05);
/** The confidence of what is calibrated at it, and of an interval. */
export const CONFIDENCE = { min: 0.5, max: 0.999 };
export const ANY_CONFIDENCE = { min: 0.001, max: 0.99999 };
export const confidenceSetting = z
  .number('The confidence level must be a number between 0.5 and 0.999; 0.95 means 95 %.')
  .min(CONFIDENCE.min, 'The confidence level must lie between 50 % and 99.9 %.')
  .max(CONFIDENCE.max, 'The confidence level must lie between 50 % and 99.9 %.')
  .default(0.95);
export const decimalsSetting = z
  .int('The number of decimal places must be a whole number.')
  .min(0, 'The number of decimal places must lie between 0 and 12.')
  .max(12, 'The number of decimal places must lie between 0 and 12.')
  .optional();

/** Of an interval whose level may be anything: an unusual one is pointed out, not refused. */
export const anyConfidenceSetting = z
  .number('The confidence level must be a number between 0 and 1; 0.95 means 95 %.')
  .min(ANY_CONFIDENCE.min, 'The confidence level must lie between 0.1 % and 99.999 %; 0.95 means 95 %.')
  .max(ANY_CONFIDENCE.max, 'The confidence level must lie between 0.1 % and 99.999 %; 0.95 means 95 %.')
  .default(0.95);
/** A definition of quantiles by its number, as a number or as text, or `hinges`. */
export const quantileTypeSetting = z
  .preprocess(
    (value) => (typeof value === 'string' && /^[1-9]$/.test(value) ? Number(value) : value),
    z.union(
      QUANTILE_TYPES.map((type) => z.literal(type)),
      'The quantile type must be 1 to 9 or "hinges".',
    ),
  )
  .default(7);
export const seedSetting = z
  .int('The seed must be a whole number.')
  .min(0, 'The seed must be at least 0.')
  .max(GREATEST_SEED, `The seed must be at most ${GREATEST_SEED}.`)
  .default(4711);

export const LEAST_REPLICATES = 199;
export const MOST_REPLICATES = 1_000_000;
/** Left out, it is chosen by n when the request is resolved. */
export const replicatesSetting = z
  .int('The number of replicates must be a whole number.')
  .min(LEAST_REPLICATES, `At least ${LEAST_REPLICATES} replicates are needed.`)
  .max(MOST_REPLICATES, `At most ${MOST_REPLICATES} replicates are allowed.`)
  .optional();

/** As many replicates as `wanted`, fewer for long columns: about the same number of draws, but never below `least`. */
export function affordableReplicates(n: number, wanted: number, least: number): number {
  if (n <= 1000) return wanted;
  return Math.max(least, Math.round((wanted * 1000) / n / 1000) * 1000);
}
