import type { Stage } from '../../workbench/frame/stage.js';
import { ASKS } from './asks.js';

export const simulateStage: Stage = {
  name: 'simulate',
  title: 'Simulate',
  asks: ASKS,
  view: () => import('./simulate-view.vue'),
  analyses: 'simulate',
  drawings: async () => (await import('./drawings.js')).DRAWINGS,
};
