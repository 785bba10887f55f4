import { LONGEST_CELL } from '@verdict/core';
import { nextTick, ref, watch, type Ref } from 'vue';
import { moved, singleCell, type Cursor } from './table-model.js';

export interface CellEditor {
  /** The one input that always holds the focus. */
  input: Ref<HTMLInputElement | undefined>;
  cursor: Ref<Cursor>;
  /** The stored text of the cell under the cursor. */
  textAt: () => string;
  size: () => { rows: number; columns: number; page: number };
  locked: () => boolean;
  /** Writes into the cell under the cursor. */
  write: (text: string) => void;
  /** A pasted text that is more than one cell. */
  block: (text: string) => void;
}

const MOVES = new Set(['ArrowUp', 'ArrowDown', 'PageUp', 'PageDown', 'Enter', 'Tab']);
const MOVES_WHEN_STILL = new Set(['ArrowLeft', 'ArrowRight', 'Home', 'End']);

/** Keys, clipboard and draft of the table's cursor. The cursor is synchronous; the first character lands in the input by itself. */
export function useCellEditor({ input, cursor, textAt, size, locked, write, block }: CellEditor) {
  const editing = ref(false);
  const draft = ref('');
  let escaped = false;
  /** Rows of the table once what was just written below its end has arrived here: a fast typist is ahead of the next drawing. */
  let reach = 0;
  watch(
    () => size().rows,
    () => (reach = 0),
  );
  watch(
    () => [cursor.value, textAt()] as const,
    () => {
      if (!editing.value) draft.value = textAt();
    },
    { immediate: true },
  );

  function go(key: string): void {
    const { rows, ...others } = size();
    cursor.value = moved(cursor.value, key, { ...others, rows: locked() ? rows - 1 : Math.max(rows, reach) });
    void nextTick(() => input.value?.select());
  }

  /** Stores what was typed, if anything changed, and ends editing. */
  function commit(): void {
    if (!editing.value) return;
    editing.value = false;
    if (draft.value !== '') reach = Math.max(reach, cursor.value.row);
    if (draft.value !== textAt()) write(draft.value);
  }
  function cancel(): void {
    editing.value = false;
    draft.value = textAt();
  }

  /** What a key writes: clearing at once, anything else by opening the editor. */
  function startWriting(event: KeyboardEvent): void {
    const { key } = event;
    if (locked()) return event.preventDefault();
    if (editing.value) return;
    if (key === 'Delete' || key === 'Backspace') {
      event.preventDefault();
      if (draft.value !== '') write('');
    } else if (key === 'F2') editing.value = true;
    else if (key.length === 1) {
      // The whole old text is selected: the character that follows replaces it by itself.
      input.value?.select();
      editing.value = true;
    }
  }

  function onKey(event: KeyboardEvent): void {
    const { key } = event;
    if (event.ctrlKey || event.metaKey || event.altKey) return;
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
      return go(key);
    }
    startWriting(event);
  }

  function onPaste(event: ClipboardEvent): void {
    event.stopPropagation();
    const text = event.clipboardData?.getData('text/plain') ?? '';
    const single = singleCell(text);
    if (single === null || single.length > LONGEST_CELL) {
      event.preventDefault();
      return block(text);
    }
    if (editing.value || locked()) return;
    event.preventDefault();
    if (single !== draft.value) write(single);
  }
  function onCopy(event: ClipboardEvent): void {
    if (editing.value) return;
    event.preventDefault();
    event.clipboardData?.setData('text/plain', textAt());
  }

  return { editing, draft, commit, onKey, onPaste, onCopy, onFocus: () => (escaped = false) };
}
