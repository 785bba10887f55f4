import { compareFamiliesAnalysis } from './compare-families.js';
import { countFitAnalysis } from './count-fit.js';
import { galleryAnalysis } from './gallery.js';
import { goodnessOfFitAnalysis } from './goodness-of-fit.js';
import { lineUpAnalysis } from './line-up.js';
import { normalityAnalysis } from './normality.js';
import { powerAnalysis } from './power.js';
import { probabilityPlotAnalysis } from './probability-plot.js';
import { screenAnalysis } from './screen.js';
import { transformAnalysis } from './transform.js';
import { twoSamplesAnalysis } from './two-samples.js';

/** Whether readings follow a distribution. */
export const FIT = [
  probabilityPlotAnalysis,
  normalityAnalysis,
  goodnessOfFitAnalysis,
  compareFamiliesAnalysis,
  galleryAnalysis,
  lineUpAnalysis,
  powerAnalysis,
  countFitAnalysis,
  transformAnalysis,
  twoSamplesAnalysis,
  screenAnalysis,
] as const;
