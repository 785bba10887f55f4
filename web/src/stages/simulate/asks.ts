import { defineAsyncComponent } from 'vue';
import type { Ask } from '../../workbench/frame/ask.js';

/** The questions of Simulate. */
export const ASKS: readonly Ask[] = [
  {
    id: 'samples',
    word: 'Simulate samples',
    title: 'How do a statistic, a test or an interval behave in repeated samples?',
    view: defineAsyncComponent(() => import('./samples-view.vue')),
  },
  {
    id: 'curves',
    word: 'Power curves',
    title: 'How do the power and the false-alarm rate of tests depend on sample size or shift?',
    view: defineAsyncComponent(() => import('./curves-view.vue')),
  },
  {
    id: 'plan',
    word: 'Sample size',
    title: 'How many readings does a test need?',
    view: defineAsyncComponent(() => import('./plan-view.vue')),
  },
  {
    id: 'propagate',
    word: 'Uncertainty propagation',
    title: 'What is the uncertainty of a calculated result, and which input contributes most?',
    view: defineAsyncComponent(() => import('./propagate-view.vue')),
  },
];
