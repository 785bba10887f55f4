import type { Stage } from '../../workbench/stage.js';

export const distributionsStage: Stage = {
  name: 'study-distributions',
  title: 'Distributions',
  path: 'distributions',
  view: () => import('./distributions-view.vue'),
  beside: true,
  keeps: ['distribution'],
  draws: { analyses: ['distribution'], load: async () => (await import('./kept.js')).drawKept },
};
