import { defineAsyncComponent } from 'vue';
import type { Ask } from '../../workbench/frame/ask.js';

/** The questions of Claims. */
export const ASKS: readonly Ask[] = [
  {
    id: 'one',
    word: 'One claim',
    title: 'Does a result agree with a claim, or do groups differ?',
    view: defineAsyncComponent(() => import('./one/one-view.vue')),
  },
  {
    id: 'many',
    word: 'Many claims',
    title: 'Which of many columns or groups differ from their claims?',
    view: defineAsyncComponent(() => import('./many/many-view.vue')),
  },
];
