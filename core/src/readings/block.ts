import { plural } from '../numeric/grammar.js';
import { recogniseKind, type ColumnKind } from './kind.js';
import type { BlockLayout, TableLayout } from './layout.js';
import { isMissingOrNumber, readCell, type NumberFormat } from './number-format.js';
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
  code: 'not-a-number' | 'beyond-limit' | 'ragged' | 'same-name' | 'name-cut';
  row: number | null;
  line: number | null;
  column: string;
  text: string;
}

export interface ParsedBlock {
  columns: ParsedColumn[];
  rows: number;
  /** At most MOST_LISTED of each sort; `problemCount` counts all. */
  problems: BlockProblem[];
  problemCount: number;
  /** A sentence when nothing can be stored as it stands, else null. */
  refusal: string | null;
}

/** A cell may have at most this many characters; nothing is cut silently. */
export const LONGEST_CELL = 1_000;
/** As many columns come into a study at once; a wider table is read, and its columns chosen from. */
export const MOST_COLUMNS = 200;
const MOST_READ_COLUMNS = 5_000;
export const MOST_CELLS = 2_000_000;
export const MOST_LISTED = 500;
export const LONGEST_NAME = 80;
const LONGEST_UNIT = 20;

/** "thickness (mm)", "thickness [mm]" and "thickness, mm" name a column and its unit. */
export function splitUnit(header: string): { name: string; unit: string } {
  const text = header.trim().replace(/\s+/g, ' ');
  const match = /^(.*\S)\s*[([]\s*([^()[\]]{1,12})\s*[)\]]$/.exec(text) ?? /^(.*\S),\s*([^\s,]{1,6})$/.exec(text);
  return match ? { name: match[1]!, unit: match[2]!.trim() } : { name: text, unit: '' };
}

/** A name that is not taken yet: "thickness", "thickness (2)". Case does not tell two columns apart. */
export const freeName = (wanted: string, taken: Iterable<string>): string =>
  freeAmong(wanted, new Set([...taken].map((name) => name.toLowerCase())));

/** @param used the names taken, in lower case */
function freeAmong(wanted: string, used: ReadonlySet<string>): string {
  if (!used.has(wanted.toLowerCase())) return wanted;
  for (let k = 2; ; k++) {
    const name = `${wanted} (${k})`;
    if (!used.has(name.toLowerCase())) return name;
  }
}

function refusalOf(rows: string[][], width: number, firstLine: number): string | null {
  if (rows.length === 0) return 'The text is empty or has only column names.';
  if (width > MOST_READ_COLUMNS) return `The text has ${width} columns; at most ${MOST_READ_COLUMNS} can be imported.`;
  if (rows.length * width > MOST_CELLS) {
    return `The text has ${rows.length * width} cells; at most ${MOST_CELLS} can be imported at once. Split it and import the parts.`;
  }
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    for (let j = 0; j < row.length; j++) {
      if (row[j]!.length > LONGEST_CELL) {
        return `Row ${i + firstLine}, column ${j + 1} has a cell of ${row[j]!.length} characters; at most ${LONGEST_CELL} are allowed. Shorten it and try again.`;
      }
    }
  }
  return null;
}

/** Columns of the widest row; separators that trail every row are not a column. */
function widthOf(rows: readonly string[][]): number {
  let width = Math.min(1, rows.length);
  for (const row of rows) {
    let end = row.length;
    while (end > width && row[end - 1]!.trim() === '') end--;
    width = Math.max(width, end);
  }
  return width;
}

function nameColumns(rows: string[][], layout: TableLayout, width: number, taken: readonly string[]) {
  const header = layout.names === 'row 1' ? (rows[0] ?? []) : [];
  // "-" stands in a row of units where there is none.
  const written = layout.units === 'row 2' ? (rows[1] ?? []) : [];
  const units = written.map((unit) => (readCell(unit, layout).kind === 'missing' ? '' : unit.trim()));
  const problems: BlockProblem[] = [];
  const names: { name: string; unit: string }[] = [];
  const used = new Set(taken.map((name) => name.toLowerCase()));
  for (let j = 0; j < width; j++) {
    const split = splitUnit(header[j] ?? '');
    const wanted = (split.name || `column ${j + 1}`).slice(0, LONGEST_NAME);
    if (split.name.length > LONGEST_NAME) {
      const text = `The heading has ${split.name.length} characters; a column name may have at most ${LONGEST_NAME}. The column is named “${wanted}”.`;
      problems.push({ code: 'name-cut', row: null, line: 1, column: wanted, text });
    }
    const longUnit = (units[j] || split.unit).length;
    if (longUnit > LONGEST_UNIT) {
      const text = `The unit of “${wanted}” has ${longUnit} characters; at most ${LONGEST_UNIT} are allowed. It is shortened.`;
      problems.push({ code: 'name-cut', row: null, line: layout.units === 'row 2' ? 2 : 1, column: wanted, text });
    }
    const name = freeAmong(wanted, used);
    used.add(name.toLowerCase());
    if (name !== wanted) {
      const text = `The name “${wanted}” occurs twice. This column is named “${name}”.`;
      problems.push({ code: 'same-name', row: null, line: header[j] ? 1 : null, column: name, text });
    }
    names.push({ name, unit: (units[j] || split.unit).slice(0, LONGEST_UNIT) });
  }
  return { names, problems };
}

/** The rows before the readings: names, units. */
export const rowsBefore = (layout: TableLayout): number =>
  (layout.names === 'row 1' ? 1 : 0) + (layout.units === 'row 2' ? 1 : 0);

function raggedRows(rows: readonly string[][], skip: number): { problems: BlockProblem[]; count: number } {
  const usual = mostFrequent(rows);
  const problems: BlockProblem[] = [];
  let count = 0;
  for (let i = 0; i < rows.length; i++) {
    const { length } = rows[i]!;
    if (length === usual || ++count > MOST_LISTED) continue;
    const text = `Row ${i + 1} has ${plural(length, 'cell')}; most rows have ${usual}.`;
    problems.push({ code: 'ragged', row: i + 1, line: i + 1 + skip, column: '', text });
  }
  return { problems, count };
}

/** The cells by column, empty where a row ends early. Row by row: each row is in the processor's cache once, not once a column. */
function turn(rows: readonly string[][], width: number): string[][] {
  const columns = Array.from({ length: width }, () => new Array<string>(rows.length));
  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    for (let j = 0; j < width; j++) columns[j]![i] = j < row.length ? row[j]! : '';
  }
  return columns;
}

/**
 * Reads rows of cells by their layout. Every cell is kept as written; what a calculation could not use is listed with its place.
 * Rows shorter than the widest are filled with empty cells, and listed. Nothing is thrown.
 * @param taken names that the study already has
 */
export function parseTable(all: string[][], layout: TableLayout, taken: readonly string[] = []): ParsedBlock {
  const skip = rowsBefore(layout);
  const rows = skip === 0 ? all : all.slice(skip);
  const width = widthOf(all);
  const refusal = refusalOf(rows, width, skip + 1);
  if (refusal) return { columns: [], rows: 0, problems: [], problemCount: 0, refusal };

  const { names, problems } = nameColumns(all, layout, width, taken);
  const format: NumberFormat = { decimal: layout.decimal, thousands: layout.thousands };
  const turned = turn(rows, width);
  const columns = names.map(({ name, unit }, j) => {
    const cells = turned[j]!;
    return { name, unit, kind: recogniseKind(cells, format, unit), ...format, cells };
  });
  const ragged = raggedRows(rows, skip);
  problems.push(...ragged.problems);
  let problemCount = problems.length - ragged.problems.length + ragged.count;
  for (const column of columns) {
    const found = problemCells(column, skip);
    problems.push(...found.problems);
    problemCount += found.count;
  }
  return { columns, rows: rows.length, problems, problemCount, refusal: null };
}

/** Reads a pasted text by its layout: `parseTable` on its rows. */
export function parseBlock(text: string, layout: BlockLayout, taken: readonly string[] = []): ParsedBlock {
  return parseTable(splitRows(text, layout.separator), layout, taken);
}

function mostFrequent(rows: readonly string[][]): number {
  const counts = new Map<number, number>();
  for (const { length } of rows) counts.set(length, (counts.get(length) ?? 0) + 1);
  return [...counts].reduce((best, entry) => (entry[1] > best[1] ? entry : best), [0, 0])[0];
}

type Written = Pick<ParsedColumn, 'name' | 'kind' | keyof NumberFormat> & { cells: readonly string[] };

/** The cells of a measure or count that are no numbers, or only limits, each with its place and the likely reason; the first MOST_LISTED. */
export function problemCells(column: Written, skip = 0): { problems: BlockProblem[]; count: number } {
  const problems: BlockProblem[] = [];
  let count = 0;
  if (column.kind === 'label') return { problems, count };
  const { cells, name } = column;
  for (let i = 0; i < cells.length; i++) {
    const cell = cells[i]!;
    if (isMissingOrNumber(cell, column) || ++count > MOST_LISTED) continue;
    const read = readCell(cell, column);
    const shown = cell.length > 24 ? `${cell.slice(0, 24)}…` : cell;
    const why =
      read.kind === 'limit' ? `a reading ${read.side} a detection limit` : read.kind === 'text' ? read.reason : '';
    const code = read.kind === 'limit' ? 'beyond-limit' : 'not-a-number';
    const text = `Row ${i + 1} of ${name} holds “${shown}”: ${why}.`;
    problems.push({ code, row: i + 1, line: i + 1 + skip, column: name, text });
  }
  return { problems, count };
}
