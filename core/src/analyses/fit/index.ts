import { normalityAnalysis } from './normality.js';
import { probabilityPlotAnalysis } from './probability-plot.js';

/** Whether readings follow a distribution. */
export const FIT = [probabilityPlotAnalysis, normalityAnalysis] as const;
