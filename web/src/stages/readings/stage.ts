import type { Stage } from '../../workbench/stage.js';

export const readingsStage: Stage = {
  name: 'readings',
  title: 'Readings',
  view: () => import('./readings-view.vue'),
  bar: () => import('./record-actions.vue'),
  takesPastes: true,
  holds: ({ rowCount }) => rowCount > 0,
};
