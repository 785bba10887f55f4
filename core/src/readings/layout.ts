import { readCell, readNumber, recogniseNumberFormat, type NumberFormat } from './number-format.js';
import { splitRows, type Separator } from './rows.js';

/** How rows of cells are to be read: how numbers look, and which rows hold names and units. */
export interface TableLayout extends NumberFormat {
  names: 'row 1' | 'none';
  units: 'row 2' | 'none';
}

/** How a pasted text is written: a table, and what stands between its columns. */
export interface BlockLayout extends TableLayout {
  separator: Separator;
}

const SAMPLE_ROWS = 200;
const SAMPLE_CHARACTERS = 200_000;

/** With a sign or as a limit: "−1 234,5", "<0,05". */
const DECIMAL_COMMA = /^(?:[<>]=?|[\u2264\u2265])?\s*[+-]?[\d\s.']*\d,\d+$/;

const isNumberInAnyFormat = (cell: string) => readNumber(cell, recogniseNumberFormat([cell])) !== null;

/** The share of rows that have the most frequent number of cells, and that number. */
function regularity(rows: readonly string[][]): { width: number; share: number } {
  const counts = new Map<number, number>();
  for (const row of rows) counts.set(row.length, (counts.get(row.length) ?? 0) + 1);
  let width = 1;
  let most = 0;
  for (const [w, count] of counts) {
    if (count > most || (count === most && w > width)) [width, most] = [w, count];
  }
  return { width, share: rows.length ? most / rows.length : 0 };
}

function recogniseSeparator(text: string): Separator {
  const lines = splitRows(text, 'none').slice(0, SAMPLE_ROWS);
  const body = lines.map((row) => row[0]!.trim());
  if (lines.some((row) => row[0]!.includes('\t'))) return 'tab';
  const numbers = body.slice(1);
  // A column of decimal commas is one column, unless its heading is two: "force,count" is, "thickness, mm" is not.
  const oneHeading = !/,\S/.test(body[0] ?? '') || DECIMAL_COMMA.test(body[0]!);
  // A line without a comma ("n/a") says nothing against it.
  if (oneHeading && numbers.some((line) => DECIMAL_COMMA.test(line))) {
    if (numbers.every((line) => !line.includes(',') || DECIMAL_COMMA.test(line))) return 'none';
  }
  for (const separator of ['semicolon', 'comma'] as const) {
    const { width, share } = regularity(splitRows(text, separator).slice(0, SAMPLE_ROWS));
    if (width > 1 && share >= 0.6) return separator;
  }
  const blanks = splitRows(text, 'blanks').slice(0, SAMPLE_ROWS);
  const { width, share } = regularity(blanks);
  if (width > 1 && share >= 0.6) {
    const cells = blanks.slice(blanks.length > 1 ? 1 : 0).flat();
    const one = body.slice(1).filter((line) => line !== '');
    const grouped = one.length > 0 && one.every((line) => isNumberInAnyFormat(line));
    if (!grouped && cells.filter(isNumberInAnyFormat).length >= cells.length / 3) return 'blanks';
  }
  return 'none';
}

/**
 * Row 1 holds names when a column goes on in numbers without starting in one, or when its word never comes again while others do. "n/a" and "<0.05" are
 * readings; limits are names only beside other words that never come again (sieve sizes: "<5", "5–10", ">10").
 */
function recogniseNames(rows: readonly string[][], format: NumberFormat): boolean {
  const [first, ...rest] = rows;
  if (!first || rest.length === 0) return false;
  const kinds = first.map((cell) => readCell(cell, format).kind);
  if (kinds.includes('number') || !kinds.includes('text')) return false;
  const comesAgain = (name: string, j: number) => kinds[j] === 'text' && rest.some((row) => row[j] === name);
  if (kinds.includes('limit') && first.some(comesAgain)) return false;
  const columns = first.map((_, j) => rest.map((row) => row[j] ?? '').filter((cell) => cell.trim() !== ''));
  if (columns.some((cells) => cells.some((cell) => readNumber(cell, format) !== null))) return true;
  return first.every((name, j) => {
    const cells = columns[j]!;
    return name.trim() !== '' && !cells.includes(name) && new Set(cells).size < cells.length;
  });
}

function recogniseUnits(rows: readonly string[][], format: NumberFormat): boolean {
  const units = rows[1];
  if (!units || rows.length < 3) return false;
  const kinds = units.map((cell) => readCell(cell, format).kind);
  if (kinds.includes('number') || kinds.includes('limit')) return false;
  // A missing first reading is no unit row: some unit must stand over a number.
  return units.some(
    (cell, j) => kinds[j] === 'text' && cell.trim().length <= 12 && readNumber(rows[2]![j] ?? '', format) !== null,
  );
}

/** How these rows are most likely laid out, from the first 200 of them. */
export function recogniseRows(all: readonly string[][]): TableLayout {
  const rows = all.slice(0, SAMPLE_ROWS);
  const format = recogniseNumberFormat(rows.flat());
  const names = recogniseNames(rows, format);
  const units = names && recogniseUnits(rows, format);
  return { ...format, names: names ? 'row 1' : 'none', units: units ? 'row 2' : 'none' };
}

/** How this text is most likely laid out, from its first 200 rows. */
export function recogniseLayout(text: string): BlockLayout {
  const sample = text.slice(0, SAMPLE_CHARACTERS);
  const separator = recogniseSeparator(sample);
  return { separator, ...recogniseRows(splitRows(sample, separator)) };
}
