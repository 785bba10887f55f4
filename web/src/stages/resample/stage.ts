import type { Stage } from '../../workbench/stage.js';
import { ASKS } from './asks.js';

const KEPT = ['bootstrap', 'permutation', 'bootstrap-plans'];

export const resampleStage: Stage = {
  name: 'resample',
  title: 'Resample',
  splits: true,
  takesLabels: true,
  asks: ASKS,
  view: () => import('./resample-view.vue'),
  keeps: KEPT,
  draws: { analyses: KEPT, load: async () => (await import('./kept.js')).drawKept },
};
