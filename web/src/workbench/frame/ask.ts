import type { Component } from 'vue';

/** A question that a stage answers, with its own page under the row of questions. */
export interface Ask {
  id: string;
  /** In the row of questions. */
  word: string;
  /** What it asks, for those who point at the word. */
  title: string;
  view: Component;
}
