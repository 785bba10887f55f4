import { groupThousands } from '@verdict/core/format';
import { MOST_CELLS } from '@verdict/core/readings';
import { columnNumber, shownDate, shownNumber } from '../shown-values.js';
import { dateOf, isDateFormat } from './number-formats.js';
import { readXml } from './xml.js';

/** A sheet that is more than a table of readings can be, in a sentence. */
export class SheetTooLarge extends Error {}

/** What the cells of a sheet refer to. */
export interface Book {
  texts: readonly string[];
  formats: readonly string[];
  from1904: boolean;
}

/** Rows and columns of the largest sheet that the format knows. */
const LAST_ROW = 1_048_576;
const LAST_COLUMN = 16_384;

/** Cells from A1 to the corners of what is written: a stray word far out makes a sheet of millions. */
const MOST_SPANNED = 5_000_000;

/** Characters of all cells: one long text that many cells share fills the memory from a small file. */
const MOST_CHARACTERS = 100_000_000;

function shown(type: string, value: string, style: number, { texts, formats, from1904 }: Book): string {
  if (type === 's') return texts[Number(value)] ?? '';
  if (type === 'b') return value === '1' ? 'true' : 'false';
  if (type !== 'n' || value === '') return value;
  const number = Number(value);
  const format = formats[style] ?? '';
  if (!Number.isFinite(number)) return value;
  // A day that no calendar has is shown as the number it is.
  const date = isDateFormat(format) ? dateOf(number, from1904) : null;
  return date && !Number.isNaN(date.getTime()) ? shownDate(date, format) : shownNumber(number, format);
}

/** Characters that XML cannot hold stand in a text by their code: _x000D_ (ISO/IEC 29500-1, 22.9.2.19). */
const withCharacters = (text: string) =>
  text.includes('_x')
    ? text.replace(/_x([0-9A-Fa-f]{4})_/g, (_, code: string) => String.fromCharCode(parseInt(code, 16))).toWellFormed()
    : text;

/** The place that a cell names ("BC17"); one that names none follows the one before. */
function placeOf(reference: string | undefined, row: number, column: number): { row: number; column: number } {
  const match = /^([A-Z]{1,3})(\d+)$/.exec(reference ?? '');
  return match ? { row: Number(match[2]), column: columnNumber(match[1]!) } : { row, column };
}

/** The cells of a sheet as it shows them, from A1 on, row by row. Throws SheetTooLarge before it fills the memory. */
export function readSheet(xml: string, book: Book): string[][] {
  const rows: string[][] = [];
  let at = { row: 0, column: 0 };
  let type = 'n';
  let style = 0;
  let value = '';
  let inValue = false;
  let written = 0;
  let spanned = 0;
  let characters = 0;

  function put(text: string): void {
    const { row, column } = at;
    if (text === '') return;
    if (row > LAST_ROW || column > LAST_COLUMN)
      throw new SheetTooLarge(`names row ${groupThousands(row)}; a sheet has ${groupThousands(LAST_ROW)}`);
    characters += text.length;
    if (characters > MOST_CHARACTERS)
      throw new SheetTooLarge(`has more than ${groupThousands(MOST_CHARACTERS)} characters`);
    while (rows.length < row) rows.push([]);
    const cells = rows[row - 1]!;
    spanned += Math.max(0, column - cells.length);
    if (++written > MOST_CELLS) throw new SheetTooLarge(`has more than ${groupThousands(MOST_CELLS)} cells`);
    if (spanned > MOST_SPANNED) throw new SheetTooLarge(`covers more than ${groupThousands(MOST_SPANNED)} cells`);
    while (cells.length < column) cells.push('');
    cells[column - 1] = text;
  }

  readXml(xml, {
    open(name, attributes) {
      if (name === 'row') at = { row: Number(attributes.r ?? at.row + 1), column: 0 };
      else if (name === 'c') {
        at = placeOf(attributes.r, at.row, at.column + 1);
        type = attributes.t ?? 'n';
        style = Number(attributes.s ?? 0);
        value = '';
      } else if (name === 'v' || name === 't') inValue = true;
    },
    text(text) {
      if (inValue) value += text;
    },
    close(name) {
      if (name === 'v' || name === 't') inValue = false;
      else if (name === 'c') put(withCharacters(shown(type, value, style, book)));
    },
  });
  return rows;
}
