import { defineAsyncComponent } from 'vue';
import type { Ask } from '../../workbench/frame/ask.js';

/** The questions of Outliers in the order in which an analyst comes to ask them. */
export const ASKS: readonly Ask[] = [
  {
    id: 'far',
    word: 'Outliers',
    title: 'Which readings are outliers, by which test, and what changes without them?',
    view: defineAsyncComponent(() => import('./far/far-view.vue')),
  },
  {
    id: 'which',
    word: 'Compare rules',
    title: 'What are the false-alarm rate and the power of each rule at this sample size?',
    view: defineAsyncComponent(() => import('./which/which-view.vue')),
  },
  {
    id: 'groups',
    word: 'Groups',
    title: 'Does a group differ in spread or mean from the others?',
    view: defineAsyncComponent(() => import('./groups/groups-view.vue')),
  },
  {
    id: 'many',
    word: 'Many columns',
    title: 'Which of many columns or groups contain outliers?',
    view: defineAsyncComponent(() => import('./many/many-view.vue')),
  },
];
