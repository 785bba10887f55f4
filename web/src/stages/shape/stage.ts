import type { Stage } from '../../workbench/frame/stage.js';

export const shapeStage: Stage = {
  name: 'shape',
  title: 'Shape',
  view: () => import('./shape-view.vue'),
  splits: true,
  analyses: 'shape',
  drawings: async () => (await import('./pictures.js')).PICTURES.flatMap(({ kept }) => kept),
};
