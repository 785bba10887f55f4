import { MOST_CELLS } from './block.js';

/** A JSON text as rows of cells, the first of them the names; or why it is none. */
export type JsonTable = { ok: true; rows: string[][] } | { ok: false; message: string };

const TOKEN = /"(?:[^"\\]|\\.)*"|-?\d+(?:\.\d+)?(?:[eE][+-]?\d+)?/g;

/** Numbers keep the digits they were written with: 12.30 would come out of a parser as 12.3, so each is read as a text. */
const parseAsWritten = (text: string): unknown =>
  JSON.parse(text.replace(TOKEN, (token) => (token.startsWith('"') ? token : `"${token}"`)));

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const no = (message: string): JsonTable => ({ ok: false, message });

function cellText(value: unknown, place: string): string {
  if (value === null || value === undefined) return '';
  if (typeof value === 'string') return value;
  if (typeof value === 'boolean') return String(value);
  throw new TypeError(
    `${place} holds ${Array.isArray(value) ? 'a list' : 'an object'}; a cell must be a number or text.`,
  );
}

/** Few names in many rows, or many in few: every name is a column of every row, whether it is there or not. */
const tooLarge = (rows: number, names: number): JsonTable | null =>
  rows * names <= MOST_CELLS
    ? null
    : no(`The JSON makes ${names} columns of ${rows} rows; at most ${MOST_CELLS} cells can be imported at once.`);

function fromObjects(items: unknown[]): JsonTable {
  const names: string[] = [];
  const seen = new Set<string>();
  for (const [i, item] of items.entries()) {
    if (!isObject(item)) return no(`Item ${i + 1} is not an object; the list must contain one object per row.`);
    for (const name of Object.keys(item)) {
      if (!seen.has(name)) names.push(name);
      seen.add(name);
    }
  }
  const refusal = tooLarge(items.length, names.length);
  if (refusal) return refusal;
  const rows = (items as Record<string, unknown>[]).map((item, i) =>
    names.map((name) => cellText(Object.hasOwn(item, name) ? item[name] : null, `“${name}” of item ${i + 1}`)),
  );
  return { ok: true, rows: [names, ...rows] };
}

function fromArrays(columns: Record<string, unknown>): JsonTable {
  const names = Object.keys(columns);
  const lists = names.map((name) => columns[name]);
  const wrong = lists.findIndex((list) => !Array.isArray(list));
  if (wrong >= 0) return no(`“${names[wrong]}” is not a list; each name must have a list of cells.`);
  const rowCount = (lists as unknown[][]).reduce((most, list) => Math.max(most, list.length), 0);
  const refusal = tooLarge(rowCount, names.length);
  if (refusal) return refusal;
  const rows = Array.from({ length: rowCount }, (_, i) =>
    (lists as unknown[][]).map((list, j) => cellText(list[i], `Entry ${i + 1} of “${names[j]}”`)),
  );
  return { ok: true, rows: [names, ...rows] };
}

/** Reads a list of objects (one a row) or an object of lists (one a column). Nothing is thrown. */
export function readJsonTable(text: string): JsonTable {
  try {
    const value = parseAsWritten(text.replace(/^\ufeff/, ''));
    const table = Array.isArray(value) ? fromObjects(value) : isObject(value) ? fromArrays(value) : null;
    if (!table) return no('The JSON must be a list of objects or an object of lists.');
    if (table.ok && table.rows.length < 2) return no('The JSON contains no rows.');
    return table;
  } catch (error) {
    if (error instanceof TypeError) return no(error.message);
    return no(`This is not valid JSON: ${placeOf((error as Error).message)}`);
  }
}

/** The parser counts characters of the rewritten text; what helps is what it did not expect. */
const placeOf = (message: string) => message.replace(/ \(line.*$| at position.*$| in JSON.*$/, '') + '.';
