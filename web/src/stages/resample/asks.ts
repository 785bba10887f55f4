import { defineAsyncComponent } from 'vue';
import type { Ask } from '../../workbench/ask.js';

/** The questions of Resample. */
export const ASKS: readonly Ask[] = [
  {
    id: 'redraw',
    word: 'Redraw',
    title: 'How sure is a figure? The readings are drawn again and again, with replacement.',
    view: defineAsyncComponent(() => import('./redraw-view.vue')),
  },
  {
    id: 'shuffle',
    word: 'Shuffle',
    title: 'Could chance alone do it? Labels, signs or pairs are shuffled again and again.',
    view: defineAsyncComponent(() => import('./shuffle-view.vue')),
  },
  {
    id: 'plans',
    word: 'Larger samples',
    title: 'How much surer would a larger sample be?',
    view: defineAsyncComponent(() => import('./plans-view.vue')),
  },
];
