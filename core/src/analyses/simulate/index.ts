import { curvesAnalysis } from './curves.js';
import { oneSampleAnalysis } from './one-sample.js';
import { planAnalysis } from './plan.js';
import { populationAnalysis } from './population.js';
import { propagateAnalysis } from './propagate.js';
import { simulateAnalysis } from './simulate.js';

/** The analyses of the stage Simulate. */
export const SIMULATE = [
  simulateAnalysis,
  oneSampleAnalysis,
  populationAnalysis,
  curvesAnalysis,
  planAnalysis,
  propagateAnalysis,
] as const;
