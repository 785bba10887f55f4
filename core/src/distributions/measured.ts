import { hasFittedEnds } from './fit/akaike.js';
import { FAMILIES } from './registry.js';

/** The families of continuous readings. */
export const CONTINUOUS = FAMILIES.filter(({ discrete }) => !discrete);
/** Distributions of test statistics, which measurements do not follow. */
export const OF_STATISTICS = new Set(['chi-square', 'f']);
/** The families that a measurement may follow and that AICc can compare. */
export const RANKED = CONTINUOUS.filter((one) => !OF_STATISTICS.has(one.family) && !hasFittedEnds(one)).map(
  ({ family }) => family,
);
