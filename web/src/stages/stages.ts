import type { Stage } from '../workbench/frame/stage.js';
import { claimsStage } from './claims/stage.js';
import { distributionsStage } from './distributions/stage.js';
import { fitStage } from './fit/stage.js';
import { outliersStage } from './outliers/stage.js';
import { readingsStage } from './readings/stage.js';
import { resampleStage } from './resample/stage.js';
import { simulateStage } from './simulate/stage.js';
import { shapeStage } from './shape/stage.js';
import { verdictStage } from './verdict/stage.js';

/** The stages that stand, in the order of the work. */
export const STAGES: readonly Stage[] = [
  readingsStage,
  shapeStage,
  fitStage,
  outliersStage,
  claimsStage,
  resampleStage,
  simulateStage,
  verdictStage,
  distributionsStage,
];

/** The path, with the keys 1, 2, 3 …, and the pages beside it. */
export const PATH = STAGES.filter(({ beside }) => !beside);
export const BESIDE = STAGES.filter(({ beside }) => beside);
