import type { Stage } from '../../workbench/frame/stage.js';
import { ASKS } from './asks.js';

export const outliersStage: Stage = {
  name: 'outliers',
  title: 'Outliers',
  splits: true,
  asks: ASKS,
  view: () => import('./outliers-view.vue'),
  analyses: 'outliers',
  drawings: async () => (await import('./drawings.js')).DRAWINGS,
};
