import { outliersAnalysis } from './outliers.js';

/** Which readings lie too far out. */
export const OUTLIERS = [outliersAnalysis] as const;
