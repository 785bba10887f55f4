import type { Stage } from '../../workbench/stage.js';
import { ASKS } from './asks.js';

const DRAWN = ['outliers', 'outlier-rules', 'outlying-groups'];

export const outliersStage: Stage = {
  name: 'outliers',
  title: 'Outliers',
  splits: true,
  asks: ASKS,
  view: () => import('./outliers-view.vue'),
  keeps: [...DRAWN, 'outlier-screen'],
  draws: { analyses: DRAWN, load: async () => (await import('./kept.js')).drawKept },
};
