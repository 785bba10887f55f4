/** What stands between the cells of a row; `none`: a row is one cell. */
export type Separator = 'tab' | 'comma' | 'semicolon' | 'blanks' | 'none';

const DELIMITER: Partial<Record<Separator, number>> = { tab: 9, comma: 44, semicolon: 59 };

const QUOTE = 34;
const NEW_LINE = 10;
const RETURN = 13;

/** A row longer than this, in characters, is no row of a table: somebody's line breaks are missing. */
export const LONGEST_ROW = 1_000_000;

/** Rows of a text that arrives in pieces: `push` gives those that are complete, `end` the rest. */
export interface RowCutter {
  push(piece: string): string[][];
  end(): string[][];
  /** Characters that wait for the end of their row. */
  readonly waiting: number;
}

/** The place behind the line break at `at`. */
const behindBreak = (text: string, at: number): number =>
  at + (text.charCodeAt(at) === RETURN && text.charCodeAt(at + 1) === NEW_LINE ? 2 : 1);

/** The place of the next delimiter, line break or end from `at` on. */
function endOfPlain(text: string, at: number, delimiter: number): number {
  let i = at;
  for (; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (code === delimiter || code === NEW_LINE || code === RETURN) break;
  }
  return i;
}

/** The place of the quote that closes the one at `at`; the end of the text where none does. Doubled quotes are text. */
function closingQuote(text: string, at: number): number {
  let close = text.indexOf('"', at + 1);
  while (close >= 0 && text.charCodeAt(close + 1) === QUOTE) close = text.indexOf('"', close + 2);
  return close < 0 ? text.length : close;
}

/**
 * One row from `from` on, and the place where the next one starts; null where more text could change it.
 * @param delimiter the code of the mark between cells; −1: a row is one cell, and quotes are nothing special
 * @param last no more text follows
 */
function rowAt(text: string, from: number, delimiter: number, last: boolean): { cells: string[]; next: number } | null {
  const cells: string[] = [];
  for (let at = from; ; at++) {
    const quoted = delimiter >= 0 && text.charCodeAt(at) === QUOTE;
    const close = quoted ? closingQuote(text, at) : at;
    // A quote that more text follows is a quote no more: the cell stands as it was written ("5" pipe).
    const end = endOfPlain(text, quoted ? close + 1 : at, delimiter);
    if (quoted && (close === text.length || end === close + 1))
      cells.push(text.slice(at + 1, close).replaceAll('""', '"'));
    else cells.push(text.slice(at, end));
    at = Math.min(end, text.length);
    if (at < text.length && text.charCodeAt(at) === delimiter) continue;
    // A carriage return at the very end may be half of a break; a quote there the first of two.
    if (!last && (at === text.length || (text.charCodeAt(at) === RETURN && at + 1 === text.length))) return null;
    return { cells, next: at < text.length ? behindBreak(text, at) : at };
  }
}

/**
 * Cuts a text into rows of cells, however it arrives: line breaks of any sort and mixture end a row outside quotes (RFC 4180), a quote
 * inside a plain cell is text. A byte order mark, empty lines at the end and a text of blanks only are dropped.
 */
export function createRowCutter(separator: Separator): RowCutter {
  const delimiter = DELIMITER[separator] ?? -1;
  const cellsOf = (row: string[]) => (separator === 'blanks' ? row[0]!.trim().split(/[ \t]+/) : row);
  let rest = '';
  let first = true;
  /** Nothing but blanks so far: rows that are dropped if it stays so. */
  let blank = true;
  /** Rows that only stand if something follows them. */
  let held: string[][] = [];

  function cut(last: boolean): string[][] {
    const rows: string[][] = [];
    let at = 0;
    while (at < rest.length) {
      const found = rowAt(rest, at, delimiter, last);
      if (!found) break;
      const begins = rest.charCodeAt(at);
      blank &&= rest.slice(at, found.next).trim() === '';
      at = found.next;
      const row = cellsOf(found.cells);
      if (separator === 'blanks' && row[0] === '') continue;
      // An empty line, not a cell of two quotes.
      if (blank || begins === NEW_LINE || begins === RETURN) held.push(row);
      else {
        for (const waiting of held) rows.push(waiting);
        held = [];
        rows.push(row);
      }
    }
    rest = rest.slice(at);
    return rows;
  }

  return {
    push(piece) {
      rest += piece;
      if (first && rest !== '') {
        if (rest.charCodeAt(0) === 0xfeff) rest = rest.slice(1);
        first = false;
      }
      return cut(false);
    },
    end: () => cut(true),
    get waiting() {
      return rest.length;
    },
  };
}

/** Cuts a whole text into rows of cells: what `createRowCutter` gives for it in one piece. */
export function splitRows(text: string, separator: Separator): string[][] {
  const cutter = createRowCutter(separator);
  const rows = cutter.push(text);
  for (const row of cutter.end()) rows.push(row);
  return rows;
}
