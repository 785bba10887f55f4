import type { Stage } from '../../workbench/frame/stage.js';
import { ASKS } from './asks.js';

export const claimsStage: Stage = {
  name: 'claims',
  title: 'Claims',
  splits: true,
  takesLabels: true,
  asks: ASKS,
  view: () => import('./claims-view.vue'),
  analyses: 'claims',
  drawings: async () => (await import('./drawings.js')).DRAWINGS,
};
