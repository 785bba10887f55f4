import type { Stage } from '../../workbench/stage.js';
import { ASKS } from './asks.js';

const KEPT = ['simulate', 'power-curves', 'plan', 'propagate'];

export const simulateStage: Stage = {
  name: 'simulate',
  title: 'Simulate',
  asks: ASKS,
  view: () => import('./simulate-view.vue'),
  keeps: KEPT,
  draws: { analyses: KEPT, load: async () => (await import('./kept.js')).drawKept },
};
