import type { Stage } from '../../workbench/stage.js';

export const verdictStage: Stage = {
  name: 'verdict',
  title: 'Verdict',
  view: () => import('./verdict-view.vue'),
  holds: ({ state }) => state === 'ruled',
};
