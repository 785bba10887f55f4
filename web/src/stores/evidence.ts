import type { Evidence, KeepRequest, Problem, Recomputed } from '@verdict/contract';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api, ApiError } from '../api/client.js';

/** The kept evidence of the open study, in the order it was kept. */
export const useEvidence = defineStore('evidence', () => {
  const items = ref<Evidence[]>([]);
  const drawerOpen = ref(false);
  const problem = ref<Problem | null>(null);
  const recomputed = ref<Record<string, Recomputed | 'running' | Problem>>({});

  /** What the server has told of pieces, whether they were listed by then or not. */
  const told = new Map<string, Evidence['recomputed']>();
  const withTold = (list: Evidence[]) =>
    list.map((item) => ({ ...item, recomputed: item.recomputed ?? told.get(item.id) ?? null }));

  async function load(studyId: string): Promise<void> {
    items.value = [];
    recomputed.value = {};
    items.value = withTold(await api.listEvidence(studyId));
  }

  /** Asks again for what was not yet recomputed: it may have been while nothing could be told to this page. */
  async function catchUp(studyId: string): Promise<void> {
    if (items.value.length > 0 && items.value.every((item) => item.recomputed)) return;
    const list = await api.listEvidence(studyId);
    const now = new Map(withTold(list).map((item) => [item.id, item.recomputed]));
    items.value = items.value.map((item) => ({ ...item, recomputed: now.get(item.id) ?? item.recomputed }));
  }

  /** Keeps a result; false, with the problem said, when the server refused. */
  async function keep(studyId: string, request: KeepRequest): Promise<boolean> {
    problem.value = null;
    try {
      const kept = await api.keep(studyId, request);
      items.value = [...items.value, kept];
      return true;
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      problem.value = error.problem;
      return false;
    }
  }

  async function writeNote(id: string, note: string): Promise<void> {
    problem.value = null;
    try {
      const noted = await api.note(id, note);
      items.value = items.value.map((item) => (item.id === id ? noted : item));
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      problem.value = error.problem;
    }
  }

  /** The server has worked a kept result out by itself. */
  function hear({ id, recomputed: outcome }: Pick<Evidence, 'id' | 'recomputed'>): void {
    told.set(id, outcome);
    items.value = items.value.map((item) => (item.id === id ? { ...item, recomputed: outcome } : item));
  }

  async function recompute(id: string): Promise<void> {
    const say = (what: Recomputed | 'running' | Problem) => (recomputed.value = { ...recomputed.value, [id]: what });
    say('running');
    try {
      const found = await api.recompute(id);
      say(found);
      if (found.sameData) hear({ id, recomputed: { same: found.same, at: new Date().toISOString() } });
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      say(error.problem);
    }
  }

  return { items, drawerOpen, problem, recomputed, load, catchUp, keep, writeNote, hear, recompute };
});
