import { outlierRulesAnalysis } from './outlier-rules.js';
import { outlierScreenAnalysis } from './outlier-screen.js';
import { outliersAnalysis } from './outliers.js';
import { outlyingGroupsAnalysis } from './outlying-groups.js';

/** Which readings lie too far out. */
export const OUTLIERS = [
  outliersAnalysis,
  outlierRulesAnalysis,
  outlyingGroupsAnalysis,
  outlierScreenAnalysis,
] as const;
