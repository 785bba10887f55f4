import type { Stage } from '../../workbench/frame/stage.js';

export const verdictStage: Stage = {
  name: 'verdict',
  title: 'Verdict',
  view: () => import('./verdict-view.vue'),
  landmarks: [
    { id: 'evidence', title: 'the evidence', key: 'e' },
    { id: 'decision', title: 'the decision', key: 'd', begin: 'input, button' },
  ],
  holds: ({ state }) => state === 'ruled',
};
