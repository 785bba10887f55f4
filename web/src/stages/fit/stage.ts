import type { Stage } from '../../workbench/stage.js';
import { ASKS } from './asks.js';

export const fitStage: Stage = {
  name: 'fit',
  title: 'Fit',
  splits: true,
  asks: ASKS,
  view: () => import('./fit-view.vue'),
  keeps: [
    'probability-plot',
    'normality',
    'goodness-of-fit',
    'compare-families',
    'line-up',
    'power',
    'count-fit',
    'transform',
    'two-samples',
    'screen',
  ],
  draws: {
    analyses: ['probability-plot', 'line-up', 'power', 'count-fit', 'transform', 'two-samples'],
    load: async () => (await import('./kept.js')).drawKept,
  },
};
