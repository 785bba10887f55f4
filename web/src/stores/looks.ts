import type { Look } from '@verdict/contract';
import { defineStore } from 'pinia';
import { shallowRef } from 'vue';
import { api, ApiError } from '../api/client.js';

/** The viewed results of the open study, each once. They show what is still open, and how many tests were viewed. */
export const useLooks = defineStore('looks', () => {
  const items = shallowRef<readonly Look[]>([]);
  let shown = '';

  async function load(studyId: string): Promise<void> {
    if (shown !== studyId) items.value = [];
    shown = studyId;
    await quietly(async () => {
      const list = await api.listLooks(studyId);
      if (studyId === shown) items.value = list;
    });
  }

  /** Notes a result that is seen on the page. */
  async function note(studyId: string, look: Look): Promise<void> {
    if (studyId !== shown || items.value.some(({ digest }) => digest === look.digest)) return;
    items.value = [...items.value, look];
    await quietly(() => api.noteLooks(studyId, [look]));
  }

  /** The list of viewed results is an aid, not part of the record: without the server the page continues without it. */
  async function quietly(call: () => Promise<unknown>): Promise<void> {
    try {
      await call();
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
    }
  }

  return { items, load, note };
});
