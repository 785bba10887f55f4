import { hasFittedEnds } from './fit/akaike.js';
import { FAMILIES } from './registry.js';

/** The families of continuous readings. */
export const CONTINUOUS = FAMILIES.filter(({ discrete }) => !discrete);
/** Laws of test statistics: nobody measures what follows them. */
export const OF_STATISTICS = new Set(['chi-square', 'f']);
/** The families that a measure may follow and that AICc can compare. */
export const RANKED = CONTINUOUS.filter((one) => !OF_STATISTICS.has(one.family) && !hasFittedEnds(one)).map(
  ({ family }) => family,
);
