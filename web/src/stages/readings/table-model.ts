import type { Change, NewColumn } from '@verdict/contract';
import { freeName, type ParsedColumn } from '@verdict/core';

export interface Cursor {
  /** Row from 1, column index from 0. */
  row: number;
  column: number;
}

/** Where a key moves the cursor; the row after the last one is for writing on. */
export function moved(cursor: Cursor, key: string, size: { rows: number; columns: number; page: number }): Cursor {
  const rows = size.rows + 1;
  const at = (row: number, column: number): Cursor => ({
    row: Math.max(1, Math.min(rows, row)),
    column: Math.max(0, Math.min(size.columns - 1, column)),
  });
  const { row, column } = cursor;
  switch (key) {
    case 'ArrowUp':
      return at(row - 1, column);
    case 'ArrowDown':
    case 'Enter':
      return at(row + 1, column);
    case 'ArrowLeft':
      return at(row, column - 1);
    case 'ArrowRight':
    case 'Tab':
      return at(row, column + 1);
    case 'PageUp':
      return at(row - size.page, column);
    case 'PageDown':
      return at(row + size.page, column);
    case 'Home':
      return at(row, 0);
    case 'End':
      return at(row, size.columns - 1);
    default:
      return cursor;
  }
}

/** A pasted text that belongs into one cell: no line break but a trailing one, no tab. */
export function singleCell(text: string): string | null {
  const body = text.replace(/\r?\n$/, '');
  return /[\t\n\r]/.test(body) ? null : body;
}

/** Parsed columns as the change that adds them. */
export function additionOf(columns: readonly ParsedColumn[]): Change {
  const added: NewColumn[] = columns.map((column) => ({
    ...column,
    id: crypto.randomUUID(),
    resolution: null,
    lowerLimit: null,
    upperLimit: null,
  }));
  return { kind: 'add-columns', columns: added };
}

/** An empty column to type into. */
export function emptyColumn(taken: readonly string[]): Change {
  const name = freeName('readings', taken);
  const format = { decimal: 'point', thousands: 'none' } as const;
  return additionOf([{ name, unit: '', kind: 'measure', ...format, cells: [''] }]);
}
