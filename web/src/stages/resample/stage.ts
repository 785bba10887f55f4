import type { Stage } from '../../workbench/frame/stage.js';
import { ASKS } from './asks.js';

export const resampleStage: Stage = {
  name: 'resample',
  title: 'Resample',
  splits: true,
  takesLabels: true,
  asks: ASKS,
  view: () => import('./resample-view.vue'),
  analyses: 'resample',
  drawings: async () => (await import('./drawings.js')).DRAWINGS,
};
