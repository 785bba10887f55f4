import type { Stage } from '../../workbench/frame/stage.js';

export const readingsStage: Stage = {
  name: 'readings',
  title: 'Readings',
  view: () => import('./readings-view.vue'),
  bar: () => import('./record-actions.vue'),
  takesPastes: true,
  landmarks: [
    { id: 'table', title: 'the table', key: 't', begin: '[data-grid-cursor]' },
    { id: 'column', title: 'the column', key: 'c', begin: 'input, button' },
  ],
  holds: ({ rowCount }) => rowCount > 0,
};
