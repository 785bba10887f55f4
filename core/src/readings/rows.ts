import Papa from 'papaparse';
import type { Separator } from './layout.js';

const DELIMITER: Record<Exclude<Separator, 'blanks' | 'none'>, string> = { tab: '\t', comma: ',', semicolon: ';' };

const QUOTE = 34;
const NEW_LINE = 10;
const RETURN = 13;
const LINE_BREAK = /\r\n|\n|\r/;

type Newline = '\r\n' | '\n' | '\r';

/** Cuts a text into rows of cells. A byte order mark, CRLF and trailing empty lines are dropped; quoted cells may hold line breaks. */
export function splitRows(text: string, separator: Separator): string[][] {
  const body = trimmed(text);
  return /\S/.test(body) ? rowsOf(body, separator, null) : [];
}

/** Without byte order mark and trailing breaks. By hand: a pattern at the end of a large text looks at every break in it. */
function trimmed(text: string): string {
  const from = text.charCodeAt(0) === 0xfeff ? 1 : 0;
  let to = text.length;
  while (to > from && (text.charCodeAt(to - 1) === NEW_LINE || text.charCodeAt(to - 1) === RETURN)) to--;
  return from === 0 && to === text.length ? text : text.slice(from, to);
}

function rowsOf(body: string, separator: Separator, newline: Newline | null): string[][] {
  if (separator === 'none') return body.split(LINE_BREAK).map((line) => [line]);
  if (separator === 'blanks') {
    const lines = body.split(LINE_BREAK).filter((line) => line.trim() !== '');
    return lines.map((line) => line.trim().split(/[ \t]+/));
  }
  const config = { delimiter: DELIMITER[separator], ...(newline ? { newline } : {}) };
  return Papa.parse<string[]>(body, config).data;
}

/** Rows of a text that arrives in pieces: `push` gives those that are complete, `end` the rest. */
export interface RowCutter {
  push(piece: string): string[][];
  end(): string[][];
}

/** Where a piece of text stands: at the start of a cell, in a plain one, in a quoted one, or behind a quote that may close it. */
type State = 'start' | 'plain' | 'quoted' | 'behind quote';

/** Follows cells through pieces of text, to tell the line breaks between rows from those inside quotes. */
function createScanner(delimiter: number) {
  let state: State = 'start';
  let newline: Newline | null = null;
  /** The place after the last row break in the text, from `from` on; −1 without one. */
  function lastBreak(text: string, from: number): number {
    let end = -1;
    for (let i = from; i < text.length; i++) {
      const code = text.charCodeAt(i);
      if (state === 'quoted') {
        if (code === QUOTE) state = 'behind quote';
      } else if (code === NEW_LINE || code === RETURN) {
        newline ??= code === NEW_LINE ? '\n' : text.charCodeAt(i + 1) === NEW_LINE ? '\r\n' : '\r';
        state = 'start';
        if (newline !== '\r\n' || code === NEW_LINE) end = i + 1;
      } else if (code === delimiter) state = 'start';
      else if (code === QUOTE) state = state === 'start' || state === 'behind quote' ? 'quoted' : 'plain';
      else if (state !== 'behind quote') state = 'plain';
    }
    return end;
  }
  return { lastBreak, newline: () => newline };
}

/** Cuts a text that arrives in pieces into the rows that `splitRows` cuts the whole of it into. */
export function createRowCutter(separator: Separator): RowCutter {
  const delimiter = separator in DELIMITER ? DELIMITER[separator as keyof typeof DELIMITER] : '';
  const scanner = createScanner(delimiter === '' ? -1 : delimiter.charCodeAt(0));
  const quotes = delimiter !== '';
  let rest = '';
  let scanned = 0;
  let first = true;
  /** Breaks of empty lines, which are rows only if something follows them. */
  let pending = '';

  function cut(end: number): string[][] {
    const text = rest.slice(0, end);
    rest = rest.slice(end);
    scanned -= end;
    const [breaks] = /[\r\n]*$/.exec(text)!;
    const body = text.slice(0, text.length - breaks.length);
    if (body === '') {
      pending += breaks;
      return [];
    }
    const rows = rowsOf(pending + body, separator, scanner.newline());
    // The first break ends the row; those behind it are empty lines.
    pending = breaks.replace(/^(\r\n|\n|\r)/, '');
    return rows;
  }

  return {
    push(piece) {
      rest += piece;
      if (first && rest !== '') {
        rest = rest.replace(/^\ufeff/, '');
        first = false;
      }
      // A carriage return at the very end may be half of a break, and a quote the first of two.
      const sure = /[\r"]$/.test(rest) ? rest.length - 1 : rest.length;
      if (sure <= scanned) return [];
      const seen = rest.slice(0, sure);
      const end = quotes
        ? scanner.lastBreak(seen, scanned)
        : Math.max(seen.lastIndexOf('\n'), seen.lastIndexOf('\r')) + 1;
      scanned = sure;
      return end > 0 ? cut(end) : [];
    },
    end() {
      if (quotes) scanner.lastBreak(rest, scanned);
      return rest === '' ? [] : cut(rest.length);
    },
  };
}
