import type { Stage } from '../../workbench/frame/stage.js';

export const distributionsStage: Stage = {
  name: 'study-distributions',
  title: 'Distributions',
  path: 'distributions',
  view: () => import('./distributions-view.vue'),
  beside: true,
  analyses: 'distributions',
  drawings: async () => (await import('./drawings.js')).DRAWINGS,
};
