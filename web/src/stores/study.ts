import type { Change, Problem, Study, StudyCells } from '@verdict/contract';
import { toSample, type Sample } from '@verdict/core';
import { until } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { api, ApiError } from '../api/client.js';
import { applyLocally } from './apply-locally.js';
import { useWho } from './who.js';

/** A change made on the page that the server has not confirmed. */
interface Waiting {
  token: string;
  change: Change;
}

const RETRY_MILLISECONDS = 1500;

/**
 * The open study: the page's copy, and the changes on their way. Changes are shown at once and sent one after the other; while the
 * server or its database is away they wait here and are sent again, under the same token, so that none is done twice.
 */
export const useStudy = defineStore('study', () => {
  const who = useWho();
  const study = shallowRef<Study | null>(null);
  const cells = shallowRef<StudyCells>({});
  const state = ref<'loading' | 'ready' | 'failed'>('loading');
  const failure = ref<Problem | null>(null);
  const waiting = ref<Waiting[]>([]);
  /** Why changes wait, while the server is away. */
  const away = ref<string | null>(null);
  /** Somebody else has changed the study: what the server said. */
  const conflict = ref<Problem | null>(null);
  /** The last change the server refused, to be shown to the analyst. */
  const refused = ref<Problem | null>(null);
  let removed = new Map();
  let sending = false;
  let openedId = '';

  async function read(id: string): Promise<void> {
    // Cells and study are two requests; when a change falls between them, the pair is read again.
    for (let attempt = 0; attempt < 5; attempt++) {
      const [read, withCells] = await Promise.all([api.readStudy(id), api.readCells(id)]);
      if (id !== openedId) return;
      if (read.revision !== withCells.revision) continue;
      removed = new Map();
      study.value = read;
      cells.value = withCells.cells;
      return;
    }
    throw new Error('The study keeps changing while it is read.');
  }

  async function open(id: string): Promise<void> {
    openedId = id;
    if (study.value?.id !== id) {
      study.value = null;
      state.value = 'loading';
      waiting.value = [];
      conflict.value = null;
    }
    try {
      await read(id);
      if (id === openedId) state.value = 'ready';
    } catch (error) {
      if (id !== openedId) return;
      state.value = 'failed';
      failure.value = error instanceof ApiError ? error.problem : null;
    }
  }

  function showLocally(change: Change): void {
    const local = { study: structuredClone(study.value!), cells: { ...cells.value }, removed };
    applyLocally(local, change, who.name, new Date().toISOString());
    study.value = local.study;
    cells.value = local.cells;
  }

  /** Makes a change: seen at once, stored as soon as the server answers. */
  function change(wanted: Change): void {
    if (!study.value) return;
    showLocally(wanted);
    waiting.value = [...waiting.value, { token: crypto.randomUUID(), change: wanted }];
    void flush();
  }

  async function flush(): Promise<void> {
    if (sending || conflict.value) return;
    sending = true;
    try {
      while (waiting.value.length > 0 && study.value && !conflict.value)
        await sendFirst(study.value, waiting.value[0]!);
    } finally {
      sending = false;
    }
  }

  async function sendFirst(current: Study, { token, change: wanted }: Waiting): Promise<void> {
    try {
      const done = await api.change(current.id, { token, revision: current.revision, who: who.name, change: wanted });
      away.value = null;
      waiting.value = waiting.value.slice(1);
      study.value = { ...study.value!, revision: done.revision, canUndo: done.text, canRedo: null };
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      if (error.away) {
        away.value = error.problem.detail;
        await new Promise((resolve) => setTimeout(resolve, RETRY_MILLISECONDS));
      } else if (error.problem.code === 'stale') conflict.value = error.problem;
      else {
        // Refused: this one is taken out; what the study is now comes from the server, what still waits is shown on top.
        refused.value = error.problem;
        waiting.value = waiting.value.slice(1);
        await reread();
      }
    }
  }

  async function reread(): Promise<void> {
    if (!study.value) return;
    await read(study.value.id);
    for (const { change: pending } of waiting.value) showLocally(pending);
  }

  /** After somebody else's change: reads the newer state and sends the own waiting changes after it, or drops them. */
  async function takeOver(keepOwn: boolean): Promise<void> {
    if (!keepOwn) waiting.value = [];
    try {
      await reread();
      conflict.value = null;
    } catch (error) {
      if (error instanceof ApiError) refused.value = error.problem;
    }
    void flush();
  }

  /** Waits until every change is stored; false where that has to wait for the server or for the analyst. */
  async function drained(): Promise<boolean> {
    await until(() => waiting.value.length === 0 || away.value !== null || conflict.value !== null).toBe(true);
    return waiting.value.length === 0;
  }

  /** Runs a call that needs every change stored first, then reads the study again. */
  async function settled(call: (current: Study) => Promise<unknown>): Promise<boolean> {
    if (!study.value) return false;
    if (!(await drained())) {
      const detail = 'Some changes are not stored yet; try again when they are.';
      refused.value = { type: 'about:blank', title: 'Not yet', status: 0, code: 'waiting', detail };
      return false;
    }
    try {
      await call(study.value);
      await reread();
      return true;
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      if (error.problem.code === 'stale') conflict.value = error.problem;
      else refused.value = error.problem;
      return false;
    }
  }

  const step = (direction: 'undo' | 'redo') =>
    settled(({ id, revision }) =>
      api.step(id, { token: crypto.randomUUID(), revision, who: who.name, step: direction }),
    );

  const subject = computed(() => study.value?.columns.find(({ id }) => id === study.value?.subject) ?? null);

  const samples = new Map<string, { cells: string[]; settings: string; sample: Sample }>();

  /** A column's readings; worked out again only when its cells, its settings or its set-aside readings have changed. */
  function sampleOf(columnId: string): Sample | null {
    const column = study.value?.columns.find(({ id }) => id === columnId);
    if (!column || !study.value) return null;
    const aside = study.value.setAside.filter((reading) => reading.column === columnId).map(({ row }) => row);
    const settings = JSON.stringify([column, aside]);
    const own = cells.value[columnId] ?? [];
    const known = samples.get(columnId);
    if (known?.cells === own && known.settings === settings) return known.sample;
    const found = toSample(column, own, new Set(aside));
    samples.set(columnId, { cells: own, settings, sample: found });
    return found;
  }

  const sample = computed(() => (subject.value ? sampleOf(subject.value.id) : null));
  const ruled = computed(() => study.value?.state === 'ruled');

  return {
    ...{ study, cells, state, failure, waiting, away, conflict, refused, subject, sample, ruled },
    ...{ open, change, takeOver, settled, drained, sampleOf, undo: () => step('undo'), redo: () => step('redo') },
  };
});
