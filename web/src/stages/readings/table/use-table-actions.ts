import type { ChangeInput } from '@verdict/contract';
import { freeName, splitRows } from '@verdict/core/readings';
import { followersObjection, followsSentence } from '@verdict/core/table';
import { ElMessage } from 'element-plus';
import { computed, ref, type Ref } from 'vue';
import { useStudy } from '../../../stores/study.js';
import { clipboardText, isOneCell, rangeOf, rising, runsOf, type Cursor, type Range } from './table-model.js';

/** A conflict of two windows in one cell: its present text, and the text being written. */
export interface Clash {
  column: string;
  row: number;
  theirs: string;
  mine: string;
}

/** What can be done with the chosen cells: each is one change. Rows are shown ones; the store gets stored ones. */
export function useTableActions(cursor: Ref<Cursor>, anchor: Ref<Cursor>, rows: Ref<Int32Array | null>) {
  const store = useStudy();
  const columns = computed(() => store.study?.columns ?? []);
  const rowAt = (shown: number) => rows.value?.[shown - 1] ?? shown;
  const range = computed(() => rangeOf(cursor.value, anchor.value));
  const clash = ref<Clash | null>(null);
  /** The last copy from this table: pasting it back needs no preview, and no cell is defused. */
  let copied: { text: string; rows: string[][] } | null = null;

  const shownCount = () => rows.value?.length ?? store.study?.rowCount ?? 0;
  /** Rows of a range that are there: the row for writing on is none yet. */
  const rowsIn = ({ top, bottom }: Range) => {
    const list: number[] = [];
    for (let shown = top; shown <= Math.min(bottom, shownCount()); shown++) list.push(rowAt(shown));
    return list;
  };
  const columnsIn = ({ left, right }: Range) => columns.value.slice(left, right + 1);
  const textsIn = (from: Range) => {
    const own = columnsIn(from).map(({ id }) => store.textsOf(id));
    return rowsIn(from).map((row) => own.map((texts) => texts[row - 1] ?? ''));
  };

  /** One message, however many keys were pressed. */
  const say = (message: string) => ElMessage.warning({ message, grouping: true });
  function sayFollows(id: string | undefined): void {
    const column = id === undefined ? null : store.columnById(id);
    if (column?.derivation) say(followsSentence({ ...column, derivation: column.derivation }, columns.value));
  }
  /** Why the column under the cursor cannot be written into. */
  const sayClosed = () =>
    store.ruled
      ? say('The study is decided. Reopen it in Verdict to make changes.')
      : sayFollows(columns.value[cursor.value.column]?.id);

  function edit(runs: { column: string; row: number; texts: string[] }[], note?: string): void {
    const open = runs.filter(({ column }) => !store.columnById(column)?.derivation);
    if (!open.length) sayFollows(runs[0]?.column);
    else store.change({ kind: 'edit-cells', runs: open, ...(note ? { note } : {}) });
  }

  function write(text: string, was: string): void {
    const column = columns.value[cursor.value.column];
    if (!column) return;
    const row = rowAt(cursor.value.row);
    const now = store.textsOf(column.id)[row - 1] ?? '';
    if (now !== was && now !== text) clash.value = { column: column.id, row, theirs: now, mine: text };
    else edit([{ column: column.id, row, texts: [text] }]);
  }
  function settleClash(mine: boolean): void {
    const { column, row, mine: text } = clash.value!;
    clash.value = null;
    if (mine) edit([{ column, row, texts: [text] }]);
  }

  /** Writes rows of cells from a corner on. */
  const writeRows = (cells: readonly (readonly string[])[], { top, left }: Range, note?: string) =>
    edit(runsOf(cells, columns.value, { row: top, column: left }, rowAt), note);

  function clear(from: Range): void {
    const cells = textsIn(from);
    if (cells.flat().some((text) => text !== ''))
      writeRows(
        cells.map((row) => row.map(() => '')),
        from,
      );
  }
  function fillDown(from: Range): void {
    const [first, ...others] = textsIn(from);
    if (first && others.length)
      writeRows(
        others.map(() => first),
        { ...from, top: from.top + 1 },
        'filled down',
      );
  }
  function copyRange(from: Range): string {
    const cells = textsIn(from);
    copied = { text: clipboardText(cells), rows: cells };
    return copied.text;
  }

  /** Pastes the last copy from this table, or one text over the whole range; false for anything that needs a preview. */
  function pasteKnown(text: string, into: Range): boolean {
    const body = text.replace(/\r?\n$/, '');
    if (copied && body.replaceAll('\r\n', '\n') === copied.text.replaceAll('\r\n', '\n')) {
      const width = copied.rows[0]?.length ?? 0;
      if (into.left + width > columns.value.length) return false;
      writeRows(copied.rows, into, 'pasted');
      return true;
    }
    const [row, ...more] = splitRows(body, 'tab');
    if (isOneCell(into) || more.length || row?.length !== 1) return false;
    writeRows(
      rowsIn(into).map(() => columnsIn(into).map(() => row[0]!)),
      into,
      'pasted',
    );
    return true;
  }

  const change = (wanted: ChangeInput) => store.change(wanted);
  const insertRows = (below: boolean) => {
    const { top, bottom } = range.value;
    const first = (below ? rowAt(bottom) + 1 : rowAt(top)) || 1;
    const count = rowsIn(range.value).length || 1;
    change({ kind: 'insert-rows', rows: Array.from({ length: count }, (_, i) => first + i) });
  };
  const removeRows = () => {
    const going = rising(rowsIn(range.value));
    if (going.length) change({ kind: 'remove-rows', rows: going });
    anchor.value = cursor.value = { row: Math.max(1, range.value.top), column: cursor.value.column };
  };

  const asideKeys = computed(() => new Set((store.study?.setAside ?? []).map(({ column, row }) => `${column}/${row}`)));
  /** The chosen readings that count (or, with `back`, those set aside): written cells of columns of numbers, or of whatever is chosen. */
  function readingsIn(back: boolean): { column: string; row: number }[] {
    const chosen = columnsIn(range.value);
    const numeric = chosen.filter(({ kind }) => kind !== 'label');
    return (numeric.length ? numeric : chosen).flatMap(({ id }) => {
      const texts = store.textsOf(id);
      return rowsIn(range.value)
        .filter((row) => (texts[row - 1] ?? '').trim() !== '' && asideKeys.value.has(`${id}/${row}`) === back)
        .map((row) => ({ column: id, row }));
    });
  }
  /** The numbers of the rows that are chosen as a whole. */
  const wholeRows = computed(() => {
    const { left, right } = range.value;
    return columns.value.length > 1 && left === 0 && right === columns.value.length - 1 ? rowsIn(range.value) : [];
  });
  const setAside = (reason: string) => {
    const readings = readingsIn(false).map((place) => ({ ...place, reason }));
    if (readings.length) change({ kind: 'set-aside', readings });
  };
  const putBack = () => {
    const readings = readingsIn(true);
    if (readings.length) change({ kind: 'put-back', readings });
  };

  function moveColumn(by: number): void {
    const ids = columns.value.map(({ id }) => id);
    const from = cursor.value.column;
    const to = from + by;
    if (to < 0 || to >= ids.length) return;
    ids.splice(to, 0, ...ids.splice(from, 1));
    change({ kind: 'order-columns', columns: ids });
    anchor.value = cursor.value = { row: cursor.value.row, column: to };
  }
  function duplicateColumn(): void {
    const column = columns.value[cursor.value.column];
    if (!column) return;
    const name = freeName(
      column.name,
      columns.value.map((c) => c.name),
    );
    const aside = (store.study?.setAside ?? []).filter((reading) => reading.column === column.id);
    const copy = {
      ...column,
      ...{ id: crypto.randomUUID(), name, aside: aside.map(({ row, reason }) => ({ row, reason })) },
      cells: column.derivation ? [] : [...store.textsOf(column.id)],
    };
    change({ kind: 'add-columns', columns: [copy], note: `a copy of ${column.name}`.slice(0, 200) });
  }
  function removeColumns(): void {
    const going = columnsIn(range.value).map(({ id }) => id);
    if (!going.length) return;
    const objection = followersObjection(columns.value, going);
    if (objection) return store.refuse(objection);
    change({ kind: 'remove-columns', columns: going });
    anchor.value = cursor.value = { row: cursor.value.row, column: Math.max(0, range.value.left - 1) };
  }

  return {
    ...{ range, wholeRows, rowAt, rowsIn, columnsIn, readingsIn, clash, settleClash },
    ...{ write, sayClosed, clear, fillDown, copyRange, pasteKnown, insertRows, removeRows, setAside, putBack },
    ...{ moveColumn, duplicateColumn, removeColumns },
  };
}
