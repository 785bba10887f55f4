import type { BlockLayout } from '@verdict/core/readings';
import { ref, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { api, ApiError, type Changed, type Upload } from '../../../api/client.js';
import type { Incoming } from '../../../files/incoming.js';
import { openFile } from '../../../files/open-file.js';
import { useStudy } from '../../../stores/study.js';
import { useWho } from '../../../stores/who.js';
import { additionOf, type Cursor } from '../table/table-model.js';
import { below, importBody, isLarge, over, tallyOf, type Taking } from './take.js';

const TOO_LATE = 'The import was complete before it could be stopped. Undo removes it.';

/** Readings on their way in: offered, looked at, then taken as changes or streamed to the server. */
export function useIncoming() {
  const store = useStudy();
  const who = useWho();
  const router = useRouter();
  const current = shallowRef<Incoming | null>(null);
  const serial = ref(0);
  /** It was pasted while the cursor stood in the table. */
  const intoTable = ref(false);
  const refusal = ref('');
  const progress = ref<number | null>(null);
  let upload: Upload<Changed> | null = null;

  /** Columns of a stopped import: where the stop and its end fall together, they may come a moment after they were asked for. */
  const mayStillCome = shallowRef<readonly string[]>([]);
  const cameLate = () =>
    mayStillCome.value.length > 0 && mayStillCome.value.every((id) => store.columnById(id) !== null);
  watch(cameLate, (late) => {
    if (!late) return;
    refusal.value = TOO_LATE;
    current.value = null;
    mayStillCome.value = [];
  });

  function offer(incoming: Incoming, into: boolean): void {
    refusal.value = '';
    if (store.ruled) {
      refusal.value = 'This study is decided. Reopen it before adding readings.';
      return;
    }
    current.value = incoming;
    intoTable.value = into;
    serial.value++;
  }

  async function open(file: File | undefined): Promise<void> {
    if (!file) return;
    refusal.value = '';
    const opened = await openFile(file);
    if ('refusal' in opened) refusal.value = opened.refusal;
    else if ('incoming' in opened) offer(opened.incoming, false);
    else {
      try {
        const { id } = await api.openSaved(opened.study, useWho().name);
        await router.push({ name: 'readings', params: { id } });
      } catch (error) {
        refusal.value = error instanceof ApiError ? `${file.name}: ${error.problem.detail}` : String(error);
      }
    }
  }

  /** True where the columns of an import are in the study: asked once the server answers again. */
  async function arrived(ids: readonly string[]): Promise<boolean> {
    for (;;) {
      try {
        await store.reread();
        return ids.every((id) => store.columnById(id) !== null);
      } catch {
        await new Promise((resolve) => setTimeout(resolve, 1_000));
      }
    }
  }

  /** Says what became of an import that has not ended well: a connection that broke, or a stop that came too late, may have let it through. */
  async function whatCameOfIt(error: ApiError, ids: readonly string[]): Promise<boolean> {
    const { problem } = error;
    const stopped = problem.code === 'stopped';
    if (!stopped && !error.away) {
      refusal.value = `${problem.detail}${problem.code === 'stale' ? ' Import the file again.' : ''}`;
      return false;
    }
    refusal.value = stopped ? '' : 'The connection was lost during the import. Checking whether it arrived …';
    const there = await arrived(ids);
    if (stopped) {
      refusal.value = there ? TOO_LATE : problem.detail;
      mayStillCome.value = there ? [] : ids;
    } else
      refusal.value = there
        ? 'The connection was lost, but the import is complete.'
        : 'The import was interrupted. Nothing was stored. Import the file again.';
    return there;
  }

  /** Streams a file to the server; false where nothing came of it. Says which, when the connection broke. */
  async function stream(
    incoming: Extract<Incoming, { kind: 'text' }>,
    taking: Taking,
    layout: BlockLayout,
  ): Promise<boolean> {
    if (!store.study || !(await store.drained())) {
      refusal.value = 'Some changes are not saved yet. Import the file when they are.';
      return false;
    }
    const { body, ids } = importBody(incoming, layout, taking.columns, {
      revision: store.study.revision,
      who: who.name,
      positions: taking.positions,
    });
    progress.value = 0;
    upload = api.importRows(store.study.id, body, (share) => (progress.value = share));
    try {
      await upload.done;
      await store.reread();
      return true;
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      return whatCameOfIt(error, ids);
    } finally {
      progress.value = null;
      upload = null;
    }
  }

  /** Takes what is offered; false where nothing was taken. */
  async function take(
    taking: Taking,
    layout: BlockLayout,
    at: Cursor,
    rowAt: (shown: number) => number,
  ): Promise<boolean> {
    const incoming = current.value;
    if (!incoming || !store.study) return false;
    const { columns, rowCount } = store.study;
    if (incoming.kind === 'text' && isLarge(incoming)) {
      const taken = await stream(incoming, taking, layout);
      if (taken) current.value = null;
      return taken;
    }
    const from = incoming.source === 'Pasted readings' ? undefined : `opened from ${incoming.source}`;
    const [values, counts] = taking.columns;
    if (taking.tally && values && counts) {
      for (const change of tallyOf([values, counts], from)) store.change(change);
    } else if (taking.target === 'new columns') {
      store.change(additionOf(taking.columns, from));
    } else if (taking.target === 'below') {
      for (const change of below(taking, columns, rowCount, incoming.source)) store.change(change);
    } else store.change(over(taking, columns, at, rowAt));
    current.value = null;
    return true;
  }

  return {
    ...{ current, serial, intoTable, refusal, progress, offer, open, take },
    leave: () => (current.value = null),
    stop: () => upload?.stop(),
  };
}
