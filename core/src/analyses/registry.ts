import type { Analysis, Settings } from './analysis.js';
import { boxAnalysis } from './box.js';
import { describeAnalysis } from './describe.js';
import { distributionAnalysis } from './distribution.js';
import { dotsAnalysis } from './dots.js';
import { empiricalAnalysis } from './empirical.js';
import { histogramAnalysis } from './histogram.js';
import { inOrderAnalysis } from './in-order.js';
import { normalityAnalysis } from './normality.js';
import { probabilityPlotAnalysis } from './probability-plot.js';
import { sharesAnalysis } from './shares.js';
import { stemAndLeafAnalysis } from './stem-and-leaf.js';

/** Every analysis of Verdict. The page, the server and the command line know no other list. */
export const ANALYSES = [
  describeAnalysis,
  histogramAnalysis,
  boxAnalysis,
  stemAndLeafAnalysis,
  empiricalAnalysis,
  dotsAnalysis,
  inOrderAnalysis,
  sharesAnalysis,
  probabilityPlotAnalysis,
  normalityAnalysis,
  distributionAnalysis,
] as const;

export type AnyAnalysis = Analysis<Settings, unknown>;

export class UnknownAnalysis extends Error {}

export function analysisById(id: string): AnyAnalysis {
  const found = ANALYSES.find((analysis) => analysis.id === id);
  if (!found)
    throw new UnknownAnalysis(`There is no analysis “${id}”. There are: ${ANALYSES.map((a) => a.id).join(', ')}.`);
  return found as unknown as AnyAnalysis;
}
