import { PLAIN_FORMAT, readNumber } from './number-format.js';

/** Formula signs, full-width ones too, behind anything that a reader may drop: blanks, breaks, controls, marks without width. */
const FORMULA_START =
  /^[\s\p{Cc}\p{Cf}\p{Zs}\p{Mn}\u115f\u1160\u2800\u3164\uffa0]*[=+\-@\u2212\uff1d\uff0b\uff0d\uff20\ufe62\ufe63\ufe66\ufe6b]/u;

/** A cell that cannot be taken for a formula by whoever opens the file: what starts with = + - @ and is no number gets an apostrophe in front. */
export function defused(cell: string): string {
  if (!FORMULA_START.test(cell)) return cell;
  const comma = { decimal: 'comma', thousands: 'none' } as const;
  const isNumber = readNumber(cell, PLAIN_FORMAT) !== null || readNumber(cell, comma) !== null;
  return isNumber || cell.trim() === '-' ? cell : `'${cell}`;
}

/** Rows as delimited text (RFC 4180): quoted where a cell needs it, every cell defused. */
export function toDelimited(rows: Iterable<readonly string[]>, delimiter: string): string {
  // Blanks at the ends too: some readers drop them, and a file of blanks only would look empty.
  const special = new RegExp(`["\\r\\n${delimiter}]|^\\ufeff|^\\s|\\s$`);
  const quoted = (cell: string) => (special.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell);
  const lines: string[] = [];
  for (const row of rows) {
    const line = row.map((cell) => quoted(defused(cell))).join(delimiter);
    // A row of empty cells could be an empty line, which readers drop at the end of a file.
    lines.push(line.trim() === '' ? `""${line}` : line);
  }
  return lines.join('\r\n') + '\r\n';
}
