import { compareFamiliesAnalysis } from './compare-families.js';
import { goodnessOfFitAnalysis } from './goodness-of-fit.js';
import { normalityAnalysis } from './normality.js';
import { probabilityPlotAnalysis } from './probability-plot.js';

/** Whether readings follow a distribution. */
export const FIT = [
  probabilityPlotAnalysis,
  normalityAnalysis,
  goodnessOfFitAnalysis,
  compareFamiliesAnalysis,
] as const;
