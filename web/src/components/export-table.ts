import { readNumber } from '@verdict/core';

/**
 * A cell that cannot be taken for a formula by whoever opens the file: what starts with = + - @ (or a tab or return before them) and
 * is no number gets an apostrophe in front.
 */
export function defused(cell: string): string {
  if (!/^[\t\r]*[=+\-@\u2212]/.test(cell)) return cell;
  return readNumber(cell, { decimal: 'point', thousands: 'none' }) === null ? `'${cell}` : cell;
}

/** Rows as delimited text, quoted where a cell needs it, every cell defused. */
export function toDelimited(rows: readonly (readonly string[])[], delimiter: string): string {
  const quoted = (cell: string) =>
    cell.includes(delimiter) || /["\r\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell;
  return rows.map((row) => row.map((cell) => quoted(defused(cell))).join(delimiter)).join('\r\n') + '\r\n';
}

export function saveText(name: string, text: string, type: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type }));
  link.download = name.replace(/[^\w .()-]/g, '_');
  link.click();
  URL.revokeObjectURL(link.href);
}
