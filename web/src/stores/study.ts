import {
  askedObjection,
  changeSchema,
  footprintOf,
  objectionTo,
  overlap,
  reachOf,
  type Announced,
  type Change,
  type ChangeInput,
} from '@verdict/contract';
import type { PartsBy, Problem, Study, StudyCells, StudyColumn } from '@verdict/contract';
import type { Sample } from '@verdict/core/readings';
import { cellsOf, derive, newMemo, sampleInParts as inParts, sampleOfColumn, type Derived } from '@verdict/core/table';
import { until } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { api, ApiError } from '../api/client.js';
import { applyLocally, studyNow, tableOf } from './apply-locally.js';
import { useEvidence } from './evidence.js';
import { useJobs } from './jobs.js';
import { useWho } from './who.js';

/** A change made on the page that the server has not confirmed. */
interface Waiting {
  token: string;
  change: Change;
}

const RETRY_MILLISECONDS = 1500;
/** What a call answers that leaves nothing to be read again. */
const UP_TO_DATE = Symbol('up to date');

/**
 * The open study: the page's copy, and the changes on their way. Changes are shown at once and sent one after the other; while the
 * server or its database is away they wait here and are sent again, under the same token, so that none is done twice.
 */
export const useStudy = defineStore('study', () => {
  const who = useWho();
  const study = shallowRef<Study | null>(null);
  const cells = shallowRef<StudyCells>({});
  const state = ref<'loading' | 'ready' | 'failed'>('loading');
  const failure = shallowRef<Problem | null>(null);
  // Shallow: a proxy of what waits must not get into the study, which is cloned.
  const waiting = shallowRef<Waiting[]>([]);
  /** Why changes wait, while the server is away. */
  const away = ref<string | null>(null);
  /** The study was changed in another window: the answer of the server. */
  const conflict = shallowRef<Problem | null>(null);
  /** The last change the server refused, to be shown to the analyst. */
  const refused = shallowRef<Problem | null>(null);
  let removed = new Map();
  let sending = false;
  let openedId = '';
  let turn: Promise<unknown> = Promise.resolve();
  let unfollow = (): void => undefined;
  /** Events during a pending request wait for its answer. */
  let heard: Announced[] = [];

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
      if (id !== openedId) return;
      state.value = 'ready';
      follow(true);
    } catch (error) {
      if (id !== openedId) return;
      state.value = 'failed';
      const ours = { type: 'about:blank', title: 'Not opened', status: 0, code: 'unexpected' };
      failure.value = error instanceof ApiError ? error.problem : { ...ours, detail: String(error) };
    }
  }

  /** Follows what other windows do to the open study, or stops: a browser has only a few connections, and a hidden page needs none. */
  function follow(on: boolean): void {
    unfollow();
    unfollow = () => undefined;
    if (on && study.value) {
      const { id } = study.value;
      const evidence = useEvidence();
      const jobs = useJobs();
      unfollow = api.follow(id, {
        standing: (revision, kept) => {
          hear({ revision });
          evidence.stands(id, kept);
          void jobs.load(id);
        },
        change: hear,
        job: jobs.hear,
        recomputed: evidence.hear,
        kept: (piece) => evidence.heardOf(id, piece),
      });
    }
  }

  /** Another window has changed the study, or this one is connected again and may have missed something. */
  function hear(told: Partial<Announced> & { revision: number }): void {
    if (!study.value || study.value.id !== openedId || told.revision <= study.value.revision) return;
    // While own changes are on their way the answer to them settles what came first.
    if (sending || waiting.value.length > 0) heard = [...heard, told as Announced];
    else if (told.change && told.change.kind !== 'return-columns' && told.revision === study.value.revision + 1) {
      showLocally(told.change, told.who);
      study.value = { ...study.value!, revision: told.revision, canUndo: told.text!, canRedo: null };
    } else void read(study.value.id).catch(() => undefined);
  }

  function hearAgain(): void {
    const missed = heard;
    heard = [];
    for (const told of missed) hear(told);
  }

  function showLocally(change: Change, by = who.name): void {
    const local = { study: structuredClone(study.value!), cells: { ...cells.value }, removed };
    applyLocally(local, change, by, new Date().toISOString());
    study.value = local.study;
    cells.value = local.cells;
  }

  /** Makes a change: seen at once, stored as soon as the server answers. */
  function change(input: ChangeInput): void {
    if (!study.value) return;
    const wanted = complete(input);
    if (!wanted) return;
    showLocally(wanted);
    waiting.value = [...waiting.value, { token: crypto.randomUUID(), change: wanted }];
    void flush();
  }

  /** The change with its defaults; null, with the reason shown, where it is none that the server would take. */
  function complete(input: ChangeInput): Change | null {
    const read = changeSchema.safeParse(input);
    if (!read.success) {
      refuse(read.error.issues[0]?.message ?? '');
      return null;
    }
    const objection = askedObjection(read.data) ?? objectionTo(read.data, studyNow(study.value!));
    if (!objection) return read.data;
    refuse(objection.detail);
    return null;
  }

  /** Says why something is not done; nothing was sent. */
  function refuse(detail: string): void {
    refused.value = { type: 'about:blank', title: 'This cannot be done', status: 422, code: 'invalid', detail };
  }

  async function flush(): Promise<void> {
    if (sending || conflict.value) return;
    sending = true;
    try {
      while (waiting.value.length > 0 && study.value && !conflict.value)
        await sendFirst(study.value, waiting.value[0]!);
    } finally {
      sending = false;
      hearAgain();
    }
  }

  const growthOf = (wanted: Change) => (reachOf(wanted) > study.value!.rowCount ? study.value!.rowCount : null);

  /** True where none of the changes that came in between touches what the own waiting changes touch: then mine simply follow. */
  function apart(between: readonly Announced[] | undefined): boolean {
    if (!between) return false;
    const mine = waiting.value.flatMap(({ change: own }) => footprintOf(own, growthOf(own)));
    return between.every(({ change: other }) => other && !overlap(mine, footprintOf(other, growthOf(other))));
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
      } else if (error.problem.code === 'stale') {
        if (apart(error.problem.between)) await reread();
        else conflict.value = error.problem;
      } else {
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

  /** After a change in another window: reads the newer state, and sends or drops the waiting changes of this window. */
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

  /** Runs a call that needs every change stored first, then reads the study again unless the call has brought it up to date: one after the other, however fast they are asked for. */
  function settled(call: (current: Study) => Promise<unknown>): Promise<boolean> {
    const mine = turn.then(() => settle(call));
    turn = mine.catch(() => undefined);
    return mine;
  }

  async function settle(call: (current: Study) => Promise<unknown>): Promise<boolean> {
    if (!study.value) return false;
    if (!(await drained())) {
      const detail = 'Some changes are not saved yet. Try again when they are.';
      refused.value = { type: 'about:blank', title: 'Not yet', status: 0, code: 'waiting', detail };
      return false;
    }
    try {
      // Only a call that has brought the page up to date itself spares reading every cell again.
      if ((await call(study.value)) !== UP_TO_DATE) await reread();
      return true;
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      if (error.problem.code === 'stale') conflict.value = error.problem;
      else refused.value = error.problem;
      return false;
    }
  }

  const step = (direction: 'undo' | 'redo' | 'take-back', target?: number) =>
    settled(async ({ id, revision }) => {
      const asked = { token: crypto.randomUUID(), revision, who: who.name, step: direction, target };
      const done = await api.step(id, asked);
      return done.change && done.change.kind !== 'return-columns' && takeStep(id, done.revision, done.change);
    });

  /** Does what a step has done to the page's own cells; the study itself, which is small, comes from the server. */
  async function takeStep(id: string, revision: number, done: Change): Promise<typeof UP_TO_DATE | null> {
    const read = await api.readStudy(id);
    if (study.value?.id !== id || read.revision !== revision) return null;
    // Told over the stream meanwhile, it is done already.
    if (study.value.revision === revision - 1) showLocally(done);
    else if (study.value.revision !== revision) return null;
    study.value = read;
    return UP_TO_DATE;
  }

  const subject = computed(() => study.value?.columns.find(({ id }) => id === study.value?.subject) ?? null);

  const table = computed(() => (study.value ? tableOf(study.value, cells.value) : null));
  /** Samples and derived columns are computed again only if their inputs have changed. */
  const memo = newMemo();
  const columnById = (id: string): StudyColumn | null =>
    study.value?.columns.find((column) => column.id === id) ?? null;

  /** The cells of a column as text: as written, or derived in full precision. */
  function textsOf(id: string): readonly string[] {
    const column = columnById(id);
    return column && table.value ? cellsOf(table.value, column, memo) : [];
  }

  function derivedOf(id: string): Derived | null {
    const column = columnById(id);
    return column?.derivation && table.value ? derive(table.value, column, memo) : null;
  }

  /** A column's readings. */
  function sampleOf(id: string): Sample | null {
    const column = columnById(id);
    return column && table.value ? sampleOfColumn(table.value, column, memo) : null;
  }

  /** A column's readings by the levels of a label column, or beside other columns; null when one of them is gone. */
  function sampleInParts(id: string, parts: PartsBy | null): Sample | null {
    const column = columnById(id);
    const others = parts === null ? [] : 'split' in parts ? [parts.split] : parts.beside;
    const found = others.flatMap((other) => columnById(other) ?? []);
    if (!column || !table.value || found.length < others.length) return null;
    const by = parts && ('split' in parts ? { split: found[0]! } : { beside: found });
    return inParts(table.value, column, by, memo);
  }

  const sample = computed(() => (subject.value ? sampleOf(subject.value.id) : null));
  const ruled = computed(() => study.value?.state === 'ruled');

  return {
    ...{ study, cells, table, state, failure, waiting, away, conflict, refused, subject, sample, ruled },
    ...{
      open,
      change,
      takeOver,
      settled,
      drained,
      sampleOf,
      sampleInParts,
      textsOf,
      derivedOf,
      columnById,
      reread,
      refuse,
    },
    ...{ undo: () => step('undo'), redo: () => step('redo'), takeBack: (target: number) => step('take-back', target) },
    follow,
  };
});
