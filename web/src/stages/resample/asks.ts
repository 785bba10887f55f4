import { defineAsyncComponent } from 'vue';
import type { Ask } from '../../workbench/frame/ask.js';

/** The questions of Resample. */
export const ASKS: readonly Ask[] = [
  {
    id: 'redraw',
    word: 'Bootstrap',
    title: 'How precise is a result? The readings are resampled with replacement.',
    view: defineAsyncComponent(() => import('./redraw-view.vue')),
  },
  {
    id: 'shuffle',
    word: 'Permutation test',
    title: 'Is a difference or an association more than chance? Labels, signs or pairs are permuted.',
    view: defineAsyncComponent(() => import('./shuffle-view.vue')),
  },
  {
    id: 'plans',
    word: 'Larger samples',
    title: 'How precise would a larger sample be?',
    view: defineAsyncComponent(() => import('./plans-view.vue')),
  },
];
