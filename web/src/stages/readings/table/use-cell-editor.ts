import { LONGEST_CELL } from '@verdict/core/readings';
import { nextTick, ref, watch, type Ref } from 'vue';
import { isOneCell, moved, rangeOf, singleCell, type Cursor, type Range, type TableSize } from './table-model.js';

export interface CellEditor {
  /** The one input that always holds the focus. */
  input: Ref<HTMLInputElement | undefined>;
  cursor: Ref<Cursor>;
  /** The other corner of the chosen range; the cursor itself when one cell is chosen. */
  anchor: Ref<Cursor>;
  /** The stored text of the cell under the cursor. */
  textAt: () => string;
  /** A stored text as the reader writes it, and what the reader typed as it is stored. */
  shown: (text: string) => string;
  typed: (text: string) => string;
  size: () => TableSize;
  locked: () => boolean;
  /** True where the column under the cursor follows others and is not written into. */
  follows: () => boolean;
  /** Writes into the cell under the cursor; `was` is the text that stood there when writing began. */
  write: (text: string, was: string) => void;
  /** Called when something was typed where nothing can be written. */
  refused: () => void;
  clear: (range: Range) => void;
  fillDown: (range: Range) => void;
  /** The chosen cells as text. */
  copy: (range: Range) => string;
  /** A pasted text: one cell over a range, or more than one cell. */
  block: (text: string, range: Range) => void;
}

const MOVES = new Set(['ArrowUp', 'ArrowDown', 'PageUp', 'PageDown', 'Enter', 'Tab']);
const MOVES_WHEN_STILL = new Set(['ArrowLeft', 'ArrowRight', 'Home', 'End']);
const WRITES = new Set(['F2', 'Delete', 'Backspace']);
const FAR = new Set(['ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight', 'Home', 'End']);

/** Keys, clipboard and draft of the table's cursor. The cursor is synchronous; the first character lands in the input by itself. */
export function useCellEditor(parts: CellEditor) {
  const { input, cursor, anchor, textAt, shown, typed, size, locked, follows, write, block } = parts;
  const editing = ref(false);
  const draft = ref('');
  /** The text of the cell when writing began: should another window change it meanwhile, the analyst is asked. */
  let was = '';
  let escaped = false;
  /** The number of rows including one just written below the end: fast typing is ahead of the next rendering. */
  let reach = 0;
  watch(
    () => size().rows,
    () => (reach = 0),
  );
  watch(
    () => [cursor.value, textAt(), shown(textAt())] as const,
    () => {
      if (!editing.value) draft.value = shown((was = textAt()));
    },
    { immediate: true },
  );
  const range = () => rangeOf(cursor.value, anchor.value);
  const closed = () => locked() || follows();

  function go(to: Cursor, extend: boolean): void {
    cursor.value = to;
    if (!extend) anchor.value = to;
    void nextTick(() => input.value?.select());
  }
  function step(key: string, extend: boolean, far: boolean): void {
    const { rows, ...others } = size();
    go(moved(cursor.value, key, { ...others, rows: Math.max(rows, reach) }, far), extend);
  }

  function begin(): void {
    if (closed()) return;
    was = textAt();
    editing.value = true;
  }

  /** Stores the typed text if it changed, and ends editing. */
  function commit(): void {
    if (!editing.value) return;
    editing.value = false;
    if (draft.value !== '') reach = Math.max(reach, cursor.value.row);
    if (draft.value !== shown(was)) write(typed(draft.value), was);
  }
  function cancel(): void {
    editing.value = false;
    draft.value = shown(textAt());
    anchor.value = cursor.value;
  }

  /** What a key writes: clearing at once, anything else by opening the editor. */
  function startWriting(event: KeyboardEvent): void {
    const { key } = event;
    if (editing.value) return;
    if ((key === 'Delete' || key === 'Backspace') && !locked()) {
      event.preventDefault();
      parts.clear(range());
    } else if (closed()) {
      if (key.length > 1 && !WRITES.has(key)) return;
      event.preventDefault();
      parts.refused();
    } else if (key === 'F2') begin();
    else if (key.length === 1) {
      // The whole old text is selected: the character that follows replaces it by itself.
      input.value?.select();
      begin();
    }
  }

  /** Ctrl with a key: all, fill down, to the ends. Copy, paste and undo are the browser's and the page's. */
  function onCommand(event: KeyboardEvent): void {
    const { key } = event;
    if (editing.value || event.altKey) return;
    if (key === 'a') {
      event.preventDefault();
      anchor.value = { row: 1, column: 0 };
      cursor.value = { row: Math.max(1, size().rows), column: Math.max(0, size().columns - 1) };
    } else if (key === 'd') {
      event.preventDefault();
      if (!locked()) parts.fillDown(range());
    } else if (FAR.has(key)) {
      event.preventDefault();
      step(key, event.shiftKey, true);
    }
  }

  function onKey(event: KeyboardEvent): void {
    const { key } = event;
    if (event.ctrlKey || event.metaKey) return onCommand(event);
    if (event.altKey) return;
    if (key === 'Escape') {
      escaped = !editing.value;
      return cancel();
    }
    // After Escape, Tab leaves the table: the way out for who has no mouse.
    if (key === 'Tab' && (escaped || event.shiftKey)) return commit();
    escaped = false;
    if (MOVES.has(key) || (MOVES_WHEN_STILL.has(key) && !editing.value)) {
      event.preventDefault();
      commit();
      return step(key, event.shiftKey && key !== 'Enter' && key !== 'Tab', false);
    }
    startWriting(event);
  }

  function onPaste(event: ClipboardEvent): void {
    event.stopPropagation();
    const text = event.clipboardData?.getData('text/plain') ?? '';
    const single = singleCell(text);
    if (editing.value && single !== null && single.length <= LONGEST_CELL) return;
    event.preventDefault();
    if (single === null || single.length > LONGEST_CELL || !isOneCell(range())) return block(text, range());
    if (closed()) return parts.refused();
    if (single !== textAt()) write(single, textAt());
  }
  function onCopy(event: ClipboardEvent, cut = false): void {
    if (editing.value) return;
    event.preventDefault();
    event.clipboardData?.setData('text/plain', parts.copy(range()));
    if (cut && !locked()) parts.clear(range());
  }

  const onCut = (event: ClipboardEvent) => onCopy(event, true);
  return { editing, draft, begin, commit, range, onKey, onPaste, onCopy, onCut, onFocus: () => (escaped = false) };
}
