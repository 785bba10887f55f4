import { effectScope, nextTick, ref, shallowRef, type EffectScope } from 'vue';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Cursor } from '../src/stages/readings/table/table-model.js';
import { useCellEditor } from '../src/stages/readings/table/use-cell-editor.js';

let scope: EffectScope;
let cells: string[];
let blocks: string[];
/** The reader writes decimal commas. */
let comma = false;
let written: [string, string][];
let done: string[];
let editor: ReturnType<typeof useCellEditor>;
const cursor = ref<Cursor>({ row: 1, column: 0 });
const anchor = ref<Cursor>({ row: 1, column: 0 });
const follows = ref(false);
const locked = ref(false);
const rows = ref(3);

beforeEach(() => {
  scope = effectScope();
  cells = ['8.01', '8.02', ''];
  blocks = [];
  comma = false;
  written = [];
  done = [];
  follows.value = false;
  anchor.value = { row: 1, column: 0 };
  cursor.value = { row: 1, column: 0 };
  locked.value = false;
  rows.value = 3;
  editor = scope.run(() =>
    useCellEditor({
      input: shallowRef(undefined),
      cursor,
      anchor,
      textAt: () => cells[cursor.value.row - 1] ?? '',
      shown: (text) => (comma ? text.replace('.', ',') : text),
      typed: (text) => (comma ? text.replace(',', '.') : text),
      size: () => ({ rows: rows.value, columns: 2, page: 2, spare: locked.value ? 0 : 1 }),
      locked: () => locked.value,
      follows: () => follows.value,
      write: (text, was) => {
        cells[cursor.value.row - 1] = text;
        written.push([text, was]);
      },
      refused: () => done.push('refused'),
      clear: ({ top, bottom }) => cells.fill('', top - 1, bottom),
      fillDown: ({ top, bottom }) => done.push(`fill ${top}-${bottom}`),
      copy: ({ top, bottom }) => cells.slice(top - 1, bottom).join('\n'),
      block: (text) => blocks.push(text),
    }),
  )!;
});
afterEach(() => scope.stop());

function key(name: string, more: object = {}): boolean {
  let prevented = false;
  const event = {
    key: name,
    ctrlKey: false,
    metaKey: false,
    altKey: false,
    shiftKey: false,
    preventDefault: () => (prevented = true),
    ...more,
  };
  editor.onKey(event as unknown as KeyboardEvent);
  return prevented;
}
/** What the browser does with a character: it replaces the selected text, then goes on. */
function type(text: string): void {
  for (const [i, character] of [...text].entries()) {
    key(character);
    editor.draft.value = i === 0 ? character : editor.draft.value + character;
  }
}
function paste(text: string): boolean {
  let prevented = false;
  const event = {
    clipboardData: { getData: () => text },
    stopPropagation: () => undefined,
    preventDefault: () => (prevented = true),
  };
  editor.onPaste(event as unknown as ClipboardEvent);
  return prevented;
}

describe('writing into the table', () => {
  it('stores on Enter and moves down', async () => {
    type('9.5');
    expect(key('Enter')).toBe(true);
    expect(cells[0]).toBe('9.5');
    expect(cursor.value).toEqual({ row: 2, column: 0 });
    await nextTick();
    expect(editor.draft.value).toBe('8.02');
  });

  it('writes row after row below the end, however late the table grows', () => {
    cursor.value = { row: 4, column: 0 };
    for (const text of ['11.5', '11.6', '11.7']) {
      type(text);
      key('Enter');
    }
    expect(cells.slice(3)).toEqual(['11.5', '11.6', '11.7']);
    expect(cursor.value.row).toBe(7);
  });

  it('takes the old text back on Escape', () => {
    type('9');
    key('Escape');
    expect(editor.editing.value).toBe(false);
    expect(editor.draft.value).toBe('8.01');
    key('Enter');
    expect(cells[0]).toBe('8.01');
  });

  it('clears with Delete, but only a character while editing', () => {
    type('9');
    expect(key('Backspace')).toBe(false);
    key('Escape');
    expect(key('Delete')).toBe(true);
    expect(cells[0]).toBe('');
  });

  it('lets Tab out after Escape, and arrows stay in the text while editing', () => {
    key('Escape');
    expect(key('Tab')).toBe(false);
    editor.onFocus();
    expect(key('Tab')).toBe(true);
    type('9');
    expect(key('ArrowLeft')).toBe(false);
    expect(key('z', { ctrlKey: true })).toBe(false);
  });

  it('writes nothing while locked, and still moves', () => {
    locked.value = true;
    expect(key('5')).toBe(true);
    expect(editor.editing.value).toBe(false);
    key('Delete');
    expect(cells[0]).toBe('8.01');
    // Each is told, and what only moves is not.
    expect(done).toEqual(['refused', 'refused']);
    key('ArrowDown');
    key('PageDown');
    expect(cursor.value.row).toBe(3);
  });

  it('takes one pasted cell as it is, and hands more than one on', () => {
    expect(paste('8.55\r\n')).toBe(true);
    expect(cells[0]).toBe('8.55');
    paste('1\n2');
    paste('x'.repeat(2000));
    expect(blocks).toEqual(['1\n2', 'x'.repeat(2000)]);
    expect(cells[0]).toBe('8.55');
  });

  it('chooses a range with shift, all with Ctrl + A, and works on all of it', () => {
    key('ArrowDown', { shiftKey: true });
    expect([anchor.value.row, cursor.value.row]).toEqual([1, 2]);
    key('d', { ctrlKey: true });
    expect(done).toEqual(['fill 1-2']);
    const copied: string[] = [];
    const clipboard = {
      clipboardData: { setData: (_: string, text: string) => copied.push(text) },
      preventDefault: () => undefined,
    } as unknown as ClipboardEvent;
    editor.onCopy(clipboard);
    editor.onCut(clipboard);
    expect(copied).toEqual(['8.01\n8.02', '8.01\n8.02']);
    expect(cells).toEqual(['', '', '']);
    key('a', { ctrlKey: true });
    expect([anchor.value, cursor.value]).toEqual([
      { row: 1, column: 0 },
      { row: 3, column: 1 },
    ]);
    // One text over a range is not one cell's business.
    paste('7');
    expect(blocks).toEqual(['7']);
    key('ArrowUp');
    expect(anchor.value).toEqual(cursor.value);
  });

  it('goes to the ends with Ctrl, and extends there with shift', () => {
    key('ArrowDown', { ctrlKey: true });
    expect(cursor.value.row).toBe(3);
    key('Home', { ctrlKey: true, shiftKey: true });
    expect([anchor.value.row, cursor.value.row]).toEqual([3, 1]);
  });

  it('hands on the text that stood there when writing began', () => {
    type('9');
    cells[0] = '7.77';
    key('Enter');
    expect(written).toEqual([['9', '8.01']]);
  });

  it('is read and typed with the mark of the reader, and stored with that of the column', () => {
    comma = true;
    key('F2');
    editor.draft.value = '8,01';
    key('Enter');
    expect(written).toEqual([]);
    cursor.value = { row: 1, column: 0 };
    type('9,5');
    key('Enter');
    expect(written).toEqual([['9.5', '8.01']]);
  });

  it('does not write into a column that follows others', () => {
    follows.value = true;
    expect(key('5')).toBe(true);
    expect(editor.editing.value).toBe(false);
    expect(paste('5')).toBe(true);
    key('F2');
    key('ArrowRight');
    expect(written).toEqual([]);
    expect(done).toEqual(['refused', 'refused', 'refused']);
  });
});
