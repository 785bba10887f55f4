import type { AnyAnalysis } from '../road/analysis.js';
import * as road from '../road/runner.js';
import { CLAIMS } from './claims/index.js';
import { DISTRIBUTIONS } from './distributions/index.js';
import { FIT } from './fit/index.js';
import { OUTLIERS } from './outliers/index.js';
import { RESAMPLE } from './resample/index.js';
import { SHAPE } from './shape/index.js';
import { SIMULATE } from './simulate/index.js';

/** Every analysis of Verdict, stage by stage. The page, the server and the command line know no other list. */
export const ANALYSES = [...SHAPE, ...FIT, ...OUTLIERS, ...CLAIMS, ...RESAMPLE, ...SIMULATE, ...DISTRIBUTIONS] as const;

export class UnknownAnalysis extends Error {}

export function analysisById(id: string): AnyAnalysis {
  const found = ANALYSES.find((analysis) => analysis.id === id);
  if (!found)
    throw new UnknownAnalysis(`There is no analysis “${id}”. There are: ${ANALYSES.map((a) => a.id).join(', ')}.`);
  return found;
}

/** The road with this list under it. */
export const advance = (...job: Parameters<road.Executor['advance']>): road.Stage => road.advance(analysisById, ...job);
export const inThisThread = road.inThread(analysisById);
