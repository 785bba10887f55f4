import { recogniseKind, type ColumnKind } from './kind.js';
import type { BlockLayout } from './layout.js';
import { readCell, type NumberFormat } from './number-format.js';
import { splitRows } from './rows.js';

/** A column as it was written, with what was recognised about it. */
export interface ParsedColumn extends NumberFormat {
  name: string;
  unit: string;
  kind: ColumnKind;
  cells: string[];
}

/** Something to look at in a block, with its place: `row` counts the data rows from 1, `line` the rows of the text. */
export interface BlockProblem {
  code: 'not-a-number' | 'too-long' | 'ragged' | 'same-name';
  row: number | null;
  line: number | null;
  column: string;
  text: string;
}

export interface ParsedBlock {
  columns: ParsedColumn[];
  rows: number;
  problems: BlockProblem[];
  /** A sentence when nothing can be stored as it stands, else null. */
  refusal: string | null;
}

/** A cell holds at most this many characters; nothing is cut silently. */
export const LONGEST_CELL = 1_000;
export const MOST_COLUMNS = 200;
export const MOST_CELLS = 1_000_000;
export const LONGEST_NAME = 80;

/** "thickness (mm)", "thickness [mm]" and "thickness, mm" name a column and its unit. */
export function splitUnit(header: string): { name: string; unit: string } {
  const text = header.trim().replace(/\s+/g, ' ');
  const match = /^(.*\S)\s*[([]\s*([^()[\]]{1,12})\s*[)\]]$/.exec(text) ?? /^(.*\S),\s*([^\s,]{1,6})$/.exec(text);
  return match ? { name: match[1]!, unit: match[2]!.trim() } : { name: text, unit: '' };
}

/** A name that is not taken yet: "thickness", "thickness (2)". Case does not tell two columns apart. */
export function freeName(wanted: string, taken: Iterable<string>): string {
  const used = new Set([...taken].map((name) => name.toLowerCase()));
  if (!used.has(wanted.toLowerCase())) return wanted;
  for (let k = 2; ; k++) {
    const name = `${wanted} (${k})`;
    if (!used.has(name.toLowerCase())) return name;
  }
}

function refusalOf(rows: string[][], width: number, firstLine: number): string | null {
  if (rows.length === 0) return 'There is nothing to read here: the text is empty or has only names.';
  if (width > MOST_COLUMNS) return `The text has ${width} columns; a study takes at most ${MOST_COLUMNS} at once.`;
  if (rows.length * width > MOST_CELLS) {
    return `The text has ${rows.length * width} cells; at most ${MOST_CELLS} are taken at once. Split it and paste the parts.`;
  }
  for (const [i, row] of rows.entries()) {
    const j = row.findIndex((cell) => cell.length > LONGEST_CELL);
    if (j >= 0) {
      return `Row ${i + firstLine}, column ${j + 1} has a cell of ${row[j]!.length} characters; a cell holds at most ${LONGEST_CELL}. Shorten it and paste again.`;
    }
  }
  return null;
}

function nameColumns(rows: string[][], layout: BlockLayout, width: number, taken: readonly string[]) {
  const header = layout.names === 'row 1' ? (rows[0] ?? []) : [];
  const units = layout.units === 'row 2' ? (rows[1] ?? []) : [];
  const problems: BlockProblem[] = [];
  const names: { name: string; unit: string }[] = [];
  for (let j = 0; j < width; j++) {
    const split = splitUnit(header[j] ?? '');
    const wanted = (split.name || `column ${j + 1}`).slice(0, LONGEST_NAME);
    const name = freeName(wanted, [...taken, ...names.map((n) => n.name)]);
    if (name !== wanted) {
      const text = `The name “${wanted}” is already taken; this column is called “${name}”.`;
      problems.push({ code: 'same-name', row: null, line: header[j] ? 1 : null, column: name, text });
    }
    names.push({ name, unit: (units[j]?.trim() || split.unit).slice(0, 20) });
  }
  return { names, problems };
}

/**
 * Reads a pasted block by its layout. Every cell is kept as written; what a calculation could not use is listed with its place.
 * Rows shorter than the widest are filled with empty cells, and listed. Nothing is thrown.
 * @param taken names that the study already has
 */
export function parseBlock(text: string, layout: BlockLayout, taken: readonly string[] = []): ParsedBlock {
  const all = splitRows(text, layout.separator);
  const skip = (layout.names === 'row 1' ? 1 : 0) + (layout.units === 'row 2' ? 1 : 0);
  const rows = all.slice(skip);
  // Trailing separators at the end of every row are not a column.
  let width = all.reduce((most, row) => Math.max(most, row.length), 0);
  while (width > 1 && all.every((row) => (row[width - 1] ?? '').trim() === '')) width--;
  const refusal = refusalOf(rows, width, skip + 1);
  if (refusal) return { columns: [], rows: 0, problems: [], refusal };

  const { names, problems } = nameColumns(all, layout, width, taken);
  const format: NumberFormat = { decimal: layout.decimal, thousands: layout.thousands };
  const columns = names.map(({ name, unit }, j) => {
    const cells = rows.map((row) => row[j] ?? '');
    return { name, unit, kind: recogniseKind(cells, format, unit), ...format, cells };
  });
  const usual = mostFrequent(rows.map((row) => row.length));
  rows.forEach((row, i) => {
    if (row.length !== usual) {
      const text = `Row ${i + 1} has ${row.length} ${row.length === 1 ? 'cell' : 'cells'}, most have ${usual}.`;
      problems.push({ code: 'ragged', row: i + 1, line: i + 1 + skip, column: '', text });
    }
  });
  for (const column of columns) problems.push(...problemCells(column, skip));
  return { columns, rows: rows.length, problems, refusal: null };
}

function mostFrequent(widths: readonly number[]): number {
  const counts = new Map<number, number>();
  for (const w of widths) counts.set(w, (counts.get(w) ?? 0) + 1);
  return [...counts].reduce((best, entry) => (entry[1] > best[1] ? entry : best), [0, 0])[0];
}

/** The cells of a measure or count that are no numbers, each with its place and the likely reason. */
export function problemCells(column: ParsedColumn, skip = 0): BlockProblem[] {
  if (column.kind === 'label') return [];
  const found: BlockProblem[] = [];
  column.cells.forEach((cell, i) => {
    const read = readCell(cell, column);
    if (read.kind !== 'text') return;
    const shown = cell.length > 24 ? `${cell.slice(0, 24)}…` : cell;
    const text = `Row ${i + 1} of ${column.name} holds “${shown}”: ${read.reason}.`;
    found.push({ code: 'not-a-number', row: i + 1, line: i + 1 + skip, column: column.name, text });
  });
  return found;
}
