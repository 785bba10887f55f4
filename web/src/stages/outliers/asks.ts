import { defineAsyncComponent } from 'vue';
import type { Ask } from '../../workbench/ask.js';

/** The questions of Outliers in the order in which an analyst comes to ask them. */
export const ASKS: readonly Ask[] = [
  {
    id: 'far',
    word: 'Far readings',
    title: 'Which readings lie too far out, by which rule, and what changes without them?',
    view: defineAsyncComponent(() => import('./far/far-view.vue')),
  },
  {
    id: 'which',
    word: 'Which rule',
    title: 'How often does each rule cry wolf at this size, and how often does it find what is far out?',
    view: defineAsyncComponent(() => import('./which/which-view.vue')),
  },
  {
    id: 'groups',
    word: 'Groups',
    title: 'Does a group have another spread or mean than the rest?',
    view: defineAsyncComponent(() => import('./groups/groups-view.vue')),
  },
  {
    id: 'many',
    word: 'Many columns',
    title: 'In which of many columns or groups do readings lie too far out?',
    view: defineAsyncComponent(() => import('./many/many-view.vue')),
  },
];
