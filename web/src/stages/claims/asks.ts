import { defineAsyncComponent } from 'vue';
import type { Ask } from '../../workbench/ask.js';

/** The questions of Claims. */
export const ASKS: readonly Ask[] = [
  {
    id: 'one',
    word: 'One claim',
    title: 'Is it what was claimed, and do these differ?',
    view: defineAsyncComponent(() => import('./one/one-view.vue')),
  },
  {
    id: 'many',
    word: 'Many at once',
    title: 'Which of many columns or groups are not what is claimed?',
    view: defineAsyncComponent(() => import('./many/many-view.vue')),
  },
];
