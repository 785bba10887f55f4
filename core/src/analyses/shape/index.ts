import { boxAnalysis } from './box.js';
import { describeAnalysis } from './describe.js';
import { dotsAnalysis } from './dots.js';
import { empiricalAnalysis } from './empirical.js';
import { histogramAnalysis } from './histogram.js';
import { inOrderAnalysis } from './in-order.js';
import { sharesAnalysis } from './shares.js';
import { stemAndLeafAnalysis } from './stem-and-leaf.js';

/** What a column looks like, in figures and pictures. */
export const SHAPE = [
  describeAnalysis,
  histogramAnalysis,
  boxAnalysis,
  stemAndLeafAnalysis,
  empiricalAnalysis,
  dotsAnalysis,
  inOrderAnalysis,
  sharesAnalysis,
] as const;
