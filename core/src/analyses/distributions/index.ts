import { distributionAnalysis } from './distribution.js';

/** What a distribution says, with or without readings. */
export const DISTRIBUTIONS = [distributionAnalysis] as const;
