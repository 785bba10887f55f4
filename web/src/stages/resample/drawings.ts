import { bootstrapAnalysis, permutationAnalysis, plansAnalysis } from '@verdict/core/analyses';
import { bootstrapPanels, permutationPanels, plansPanels } from '../../charts/pictures/resample.js';
import type { Panels } from '../../charts/picture.js';
import { drawing } from '../../workbench/evidence/drawing.js';
import type { Drawing } from '../../workbench/frame/stage.js';

const titled = ({ what }: { what: string }, by: string, panels: Panels | null) =>
  panels && { title: `${what}, ${by}`, panels };

export const DRAWINGS: readonly Drawing[] = [
  drawing(bootstrapAnalysis, ({ result }) => titled(result, 'bootstrap', bootstrapPanels(result, null))),
  drawing(permutationAnalysis, ({ result }) => titled(result, 'permutation test', permutationPanels(result, null))),
  drawing(plansAnalysis, ({ result }) => titled(result, 'at larger sample sizes', plansPanels(result))),
];
