import type { Evidence, KeepInput, Problem, Recomputed, SayRequest } from '@verdict/contract';
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import { api, ApiError } from '../api/client.js';
import { useWho } from './who.js';

/** The place of a piece among those that are named; where it is not, the one it had. */
function placeIn(order: readonly string[], { id, place }: Evidence): number | null {
  const named = order.indexOf(id);
  return named < 0 ? place : named;
}

/** The kept evidence of the open study, in the order it was kept. */
export const useEvidence = defineStore('evidence', () => {
  const who = useWho();
  const items = shallowRef<Evidence[]>([]);
  const drawerOpen = ref(false);
  const problem = shallowRef<Problem | null>(null);
  const recomputed = shallowRef<Record<string, Recomputed | 'running' | Problem>>({});
  /** The error if the list could not be read: then the kept evidence is unknown. */
  const unread = shallowRef<Problem | null>(null);
  /** The pieces whose readings have changed. */
  const stale = shallowRef<ReadonlySet<string>>(new Set());
  /** The open study: late answers for another one are ignored. */
  let shown = '';

  /** Recalculation outcomes from the server, whether the pieces were listed by then or not. */
  const told = new Map<string, Evidence['recomputed']>();
  const withTold = (list: Evidence[]) =>
    list.map((item) => ({ ...item, recomputed: item.recomputed ?? told.get(item.id) ?? null }));

  async function load(studyId: string): Promise<void> {
    if (shown !== studyId) {
      items.value = [];
      recomputed.value = {};
      stale.value = new Set();
      problem.value = null;
    }
    shown = studyId;
    await readAgain(studyId);
  }

  /** Reads the list again. A piece kept here since the request stays in the list: evidence is never deleted. */
  async function readAgain(studyId: string): Promise<void> {
    try {
      const list = withTold(await api.listEvidence(studyId));
      if (studyId !== shown) return;
      const read = new Set(list.map(({ id }) => id));
      items.value = [...list, ...items.value.filter(({ id }) => !read.has(id))];
      unread.value = null;
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      if (studyId === shown) unread.value = error.problem;
    }
  }

  /** After a reconnection: evidence kept or recomputed meanwhile was not reported. */
  function stands(studyId: string, kept: number): void {
    if (unread.value || kept !== items.value.length || items.value.some((item) => !item.recomputed))
      void readAgain(studyId);
  }

  /** Pieces with a pending request of this page: events about them can be ignored, since the answer follows. */
  const underWay = new Set<string>();

  /** A piece was kept, or noted on, in some window. */
  function heardOf(studyId: string, id: string): void {
    if (!underWay.has(id)) void readAgain(studyId);
  }

  /** Keeps a result; false, with the problem said, when the server refused. */
  async function keep(studyId: string, request: KeepInput): Promise<boolean> {
    problem.value = null;
    underWay.add(request.id);
    try {
      const kept = await api.keep(studyId, request);
      if (studyId === shown) {
        const others = items.value.filter(({ id }) => id !== kept.id);
        const stepsBack = (item: Evidence) =>
          item.id === kept.replaces ? { ...item, leftOut: true, leads: false } : item;
        items.value = [...others.map(stepsBack), kept];
      }
      return true;
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      if (studyId === shown) problem.value = error.problem;
      return false;
    } finally {
      underWay.delete(request.id);
    }
  }

  /** Says something about a piece: a note, an answer to a caution, whether it stands on the sheet. */
  async function say(id: string, said: SayRequest): Promise<void> {
    problem.value = null;
    underWay.add(id);
    try {
      const now = await api.say(id, { who: who.name, ...said });
      items.value = items.value.map((item) => (item.id === id ? now : said.leads ? { ...item, leads: false } : item));
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      problem.value = error.problem;
    } finally {
      underWay.delete(id);
    }
  }

  /** Puts the pieces in this order. */
  async function arrange(order: readonly string[]): Promise<void> {
    problem.value = null;
    const before = items.value;
    items.value = before.map((item) => ({ ...item, place: placeIn(order, item) }));
    try {
      await api.orderEvidence(shown, order, who.name);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      items.value = before;
      problem.value = error.problem;
    }
  }

  /** Asks which pieces are about readings that have changed since. Nothing is asked while all were kept at this very change. */
  async function lookStale(studyId: string, revision: number): Promise<void> {
    const aged = items.value.some((item) => item.column !== null && item.revision !== revision);
    try {
      const found = aged ? await api.staleEvidence(studyId) : { stale: [] };
      if (studyId === shown) stale.value = new Set(found.stale);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      if (studyId === shown) problem.value = error.problem;
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

  return {
    ...{ items, drawerOpen, problem, unread, recomputed, stale },
    ...{ load, stands, heardOf, keep, say, arrange, lookStale, hear, recompute },
  };
});
