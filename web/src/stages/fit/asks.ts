import { defineAsyncComponent } from 'vue';
import type { Ask } from '../../workbench/frame/ask.js';

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
    word: 'Reference samples',
    title: 'What do simulated samples of this size look like?',
    view: defineAsyncComponent(() => import('./gallery/gallery-view.vue')),
  },
  {
    id: 'line-up',
    word: 'Line-up',
    title: 'Can viewers pick the readings among samples from the distribution?',
    view: defineAsyncComponent(() => import('./line-up/line-up-view.vue')),
  },
  {
    id: 'missed',
    word: 'Power',
    title: 'Which departures are detected at this sample size, and how many readings are needed?',
    view: defineAsyncComponent(() => import('./missed/missed-view.vue')),
  },
  {
    id: 'counts',
    word: 'Counts',
    title: 'Do counts follow a Poisson or another count distribution?',
    view: defineAsyncComponent(() => import('./counts/counts-view.vue')),
  },
  {
    id: 'transformed',
    word: 'Transformation',
    title: 'Does a transformation make the readings normal?',
    view: defineAsyncComponent(() => import('./transformed/transform-view.vue')),
  },
  {
    id: 'many',
    word: 'Many columns',
    title: 'Which of many columns or groups depart from a normal distribution?',
    view: defineAsyncComponent(() => import('./many/many-view.vue')),
  },
  {
    id: 'two',
    word: 'Two samples',
    title: 'Do two groups or columns have the same distribution?',
    view: defineAsyncComponent(() => import('./two/two-view.vue')),
  },
];
