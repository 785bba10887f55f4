import { defineAsyncComponent } from 'vue';
import type { Ask } from '../../workbench/ask.js';

/** The questions of Fit in the order in which an analyst comes to ask them. */
export const ASKS: readonly Ask[] = [
  {
    id: 'follows',
    word: 'Plot and test',
    title: 'Do the readings follow the distribution?',
    view: defineAsyncComponent(() => import('./follows/follows-view.vue')),
  },
  {
    id: 'known',
    word: 'Known samples',
    title: 'What do samples of this size look like whose origin is known?',
    view: defineAsyncComponent(() => import('./gallery/gallery-view.vue')),
  },
  {
    id: 'line-up',
    word: 'Line-up',
    title: 'Would an eye pick the readings out from among samples of the distribution?',
    view: defineAsyncComponent(() => import('./line-up/line-up-view.vue')),
  },
  {
    id: 'missed',
    word: 'What n could miss',
    title: 'What could so many readings have missed, and how many would notice it?',
    view: defineAsyncComponent(() => import('./missed/missed-view.vue')),
  },
  {
    id: 'counts',
    word: 'Counts',
    title: 'Do counts follow Poisson, or another family of counts?',
    view: defineAsyncComponent(() => import('./counts/counts-view.vue')),
  },
  {
    id: 'transformed',
    word: 'Transformed',
    title: 'Does a power, a logarithm or another transformation make the readings normal?',
    view: defineAsyncComponent(() => import('./transformed/transform-view.vue')),
  },
  {
    id: 'many',
    word: 'Many columns',
    title: 'Which of many columns or groups depart from normal?',
    view: defineAsyncComponent(() => import('./many/many-view.vue')),
  },
  {
    id: 'two',
    word: 'Two samples',
    title: 'Do two groups or columns come from the same distribution?',
    view: defineAsyncComponent(() => import('./two/two-view.vue')),
  },
];
