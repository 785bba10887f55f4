import { NOTHING_SAID, type ChangeInput, type StudyColumn } from '@verdict/contract';
import { formatFigure } from '@verdict/core/format';
import { freeName, toDelimited, type ParsedColumn } from '@verdict/core/readings';
import { decimalsToShow, derivationWords } from '@verdict/core/table';
import { local } from '../../../language/language.js';

export interface Cursor {
  /** Row as shown, from 1; column index from 0. */
  row: number;
  column: number;
}

export interface Range {
  top: number;
  bottom: number;
  left: number;
  right: number;
}

export interface TableSize {
  rows: number;
  columns: number;
  page: number;
  /** Rows behind the last one that can be written into: one, or none. */
  spare: number;
}

/** Where a key moves the cursor; with `far`, to the end in that direction. */
export function moved(cursor: Cursor, key: string, size: TableSize, far = false): Cursor {
  const rows = Math.max(1, size.rows + size.spare);
  const at = (row: number, column: number): Cursor => ({
    row: Math.max(1, Math.min(rows, row)),
    column: Math.max(0, Math.min(size.columns - 1, column)),
  });
  const { row, column } = cursor;
  const last = Math.max(1, size.rows);
  switch (key) {
    case 'ArrowUp':
      return far ? at(1, column) : at(row - 1, column);
    case 'ArrowDown':
      return far ? at(last, column) : at(row + 1, column);
    case 'Enter':
      return at(row + 1, column);
    case 'ArrowLeft':
      return far ? at(row, 0) : at(row, column - 1);
    case 'ArrowRight':
      return far ? at(row, size.columns - 1) : at(row, column + 1);
    case 'Tab':
      return at(row, column + 1);
    case 'PageUp':
      return at(row - size.page, column);
    case 'PageDown':
      return at(row + size.page, column);
    case 'Home':
      return at(far ? 1 : row, 0);
    case 'End':
      return at(far ? last : row, size.columns - 1);
    default:
      return cursor;
  }
}

/** The cells between two corners. */
export function rangeOf(a: Cursor, b: Cursor): Range {
  return {
    top: Math.min(a.row, b.row),
    bottom: Math.max(a.row, b.row),
    left: Math.min(a.column, b.column),
    right: Math.max(a.column, b.column),
  };
}

export const isOneCell = ({ top, bottom, left, right }: Range) => top === bottom && left === right;

export const isIn = ({ top, bottom, left, right }: Range, row: number, column: number) =>
  row >= top && row <= bottom && column >= left && column <= right;

/** A pasted text that belongs into one cell: no line break but a trailing one, no tab. */
export function singleCell(text: string): string | null {
  const body = text.replace(/\r?\n$/, '');
  return /[\t\n\r]/.test(body) ? null : body;
}

/** Rows of cells as the clipboard carries them to other programs. */
export const clipboardText = (rows: readonly (readonly string[])[]): string =>
  toDelimited(rows, '\t').replace(/\r\n$/, '');

/** Rows of cells written from a place on, as runs down each column; `rowAt` gives the stored row of a shown one. */
export function runsOf(
  rows: readonly (readonly string[])[],
  columns: readonly { id: string }[],
  from: Cursor,
  rowAt: (shown: number) => number,
): { column: string; row: number; texts: string[] }[] {
  const width = rows.reduce((most, row) => Math.max(most, row.length), 0);
  const runs: { column: string; row: number; texts: string[] }[] = [];
  for (let j = 0; j < width; j++) {
    const column = columns[from.column + j];
    if (!column) continue;
    let run: (typeof runs)[number] | null = null;
    rows.forEach((cells, i) => {
      const text = cells[j];
      if (text === undefined) return;
      const row = rowAt(from.row + i);
      if (run && row === run.row + run.texts.length) run.texts.push(text);
      else runs.push((run = { column: column.id, row, texts: [text] }));
    });
  }
  return runs;
}

/** Rows by number in rising order, each once. */
export const rising = (rows: Iterable<number>): number[] => [...new Set(rows)].sort((a, b) => a - b);

/** Parsed columns as the change that adds them. */
export function additionOf(columns: readonly (ParsedColumn & Partial<StudyColumn>)[], note?: string): ChangeInput {
  const added = columns.map((column) => ({ ...NOTHING_SAID, ...column, id: crypto.randomUUID() }));
  return { kind: 'add-columns', columns: added, ...(note ? { note: note.slice(0, 200) } : {}) };
}

/** An empty column to type into. */
export function emptyColumn(taken: readonly string[]): ChangeInput {
  const name = freeName('readings', taken);
  const format = { decimal: 'point', thousands: 'none' } as const;
  return additionOf([{ name, unit: '', kind: 'measure', ...format, cells: [''] }]);
}

/** The line under the name of a column: unit and resolution, kind, or its derivation. */
export function underName(column: StudyColumn, columns: readonly StudyColumn[], resolution: number | null): string {
  if (column.derivation) return derivationWords(column.derivation, columns);
  if (column.kind === 'label') return 'label';
  if (column.kind === 'count') return 'count';
  return (
    [column.unit, resolution === null ? '' : local(String(resolution))].filter(Boolean).join(' · ') || 'measurement'
  );
}

/** Decimals by derived column, worked out once for its values. */
const decimals = new WeakMap<Float64Array, number>();

function decimalsOf(values: Float64Array): number {
  const known = decimals.get(values) ?? decimalsToShow(values);
  decimals.set(values, known);
  return known;
}

/** The step that worked-out values are shown in: by what they are, else by their size. */
function stepToShow({ derivation }: StudyColumn, values: Float64Array): number {
  switch (derivation?.kind) {
    case 'standard-score':
    case 'given-score':
      return 0.001;
    case 'share':
      return 0.0001;
    default:
      return Number(`1e-${decimalsOf(values)}`);
  }
}

/** A derived cell as shown; copies and exports have the full value. `ofSource` is the resolution of the column it follows. */
export function shownDerived(
  column: StudyColumn,
  text: string,
  values: Float64Array,
  resolution: number | null,
  ofSource: number | null,
): string {
  if (text === '' || column.kind === 'label' || Number.isNaN(Number(text))) return text;
  const value = Number(text);
  if (resolution !== null) return formatFigure(value, 'reading', resolution);
  if (column.derivation?.kind === 'distance' && ofSource !== null) return formatFigure(value, 'location', ofSource);
  return formatFigure(value, 'reading', stepToShow(column, values));
}
