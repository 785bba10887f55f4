import type { Stage } from '../../workbench/stage.js';

export const verdictStage: Stage = {
  name: 'verdict',
  title: 'Verdict',
  view: () => import('./verdict-view.vue'),
  landmarks: [
    { id: 'sheet', title: 'the sheet', key: 's' },
    { id: 'decision', title: 'the decision', key: 'd', begin: 'input, button' },
  ],
  holds: ({ state }) => state === 'ruled',
};
