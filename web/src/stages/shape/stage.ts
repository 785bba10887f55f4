import type { Stage } from '../../workbench/stage.js';

const DRAWN = ['histogram', 'box', 'empirical', 'dots', 'in-order'];

export const shapeStage: Stage = {
  name: 'shape',
  title: 'Shape',
  view: () => import('./shape-view.vue'),
  splits: true,
  keeps: ['describe', 'shares', 'stem-and-leaf', ...DRAWN],
  draws: { analyses: DRAWN, load: async () => (await import('./kept.js')).drawKept },
};
