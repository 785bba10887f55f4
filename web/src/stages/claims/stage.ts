import type { Stage } from '../../workbench/stage.js';
import { ASKS } from './asks.js';

const DRAWN = [
  'mean-claim',
  'spread-claim',
  'mean-and-sd-claim',
  'median-claim',
  'share-claim',
  'rate-claim',
  'tolerance',
  'two-means',
  'two-medians',
  'two-spreads',
  'two-shares',
  'several-means',
  'several-medians',
  'several-spreads',
  'counts-claim',
  'table-claim',
];

export const claimsStage: Stage = {
  name: 'claims',
  title: 'Claims',
  splits: true,
  takesLabels: true,
  asks: ASKS,
  view: () => import('./claims-view.vue'),
  keeps: [...DRAWN, 'claim-screen'],
  draws: { analyses: DRAWN, load: async () => (await import('./kept.js')).drawKept },
};
