import type { Stage } from '../../workbench/frame/stage.js';
import { ASKS } from './asks.js';

export const fitStage: Stage = {
  name: 'fit',
  title: 'Fit',
  splits: true,
  asks: ASKS,
  view: () => import('./fit-view.vue'),
  analyses: 'fit',
  drawings: async () => (await import('./drawings.js')).DRAWINGS,
};
