import { defineAsyncComponent } from 'vue';
import type { Ask } from '../../workbench/ask.js';

/** The questions of Simulate. */
export const ASKS: readonly Ask[] = [
  {
    id: 'samples',
    word: 'Draw samples',
    title: 'What does a figure, a test or an interval do, sample after sample?',
    view: defineAsyncComponent(() => import('./samples-view.vue')),
  },
  {
    id: 'curves',
    word: 'Compare tests',
    title: 'How often do tests notice something, or err, the larger the sample or the shift?',
    view: defineAsyncComponent(() => import('./curves-view.vue')),
  },
  {
    id: 'plan',
    word: 'How many readings',
    title: 'How many readings does a test need to notice something?',
    view: defineAsyncComponent(() => import('./plan-view.vue')),
  },
  {
    id: 'propagate',
    word: 'Through a formula',
    title: 'What does a formula make of uncertain inputs, and which of them matters?',
    view: defineAsyncComponent(() => import('./propagate-view.vue')),
  },
];
