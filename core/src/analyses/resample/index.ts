import { bootstrapAnalysis } from './bootstrap.js';
import { permutationAnalysis } from './permutation.js';
import { plansAnalysis } from './plans.js';
import { replicateAnalysis } from './replicate.js';

/** The analyses of the stage Resample. */
export const RESAMPLE = [bootstrapAnalysis, permutationAnalysis, plansAnalysis, replicateAnalysis] as const;
