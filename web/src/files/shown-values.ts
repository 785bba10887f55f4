/** The decimals that a number format asks for; null for the general one. */
function decimalsOfFormat(format: string): number | null {
  const [positive = ''] = format.replace(/"[^"]*"|\[[^\]]*\]|\\./g, '').split(';');
  if (!/[0#]/.test(positive) || /[eE][+-]/.test(positive)) return null;
  return /\.([0#?]*)/.exec(positive)?.[1]?.replace(/[^0]/g, '').length ?? 0;
}

/**
 * A number of a sheet as text: with the zeros that its format shows ("12.30"), but never with fewer figures than it has. A format that
 * rounds hides figures that an analyst needs. Percent stays a share, so that 25 % is not taken for 25.
 */
export function shownNumber(value: number, format: string): string {
  const plain = plainText(value);
  const decimals = format.includes('%') ? null : decimalsOfFormat(format);
  const own = /\.(\d+)$/.exec(plain)?.[1]?.length ?? 0;
  return decimals !== null && decimals > own && !plain.includes('e') ? value.toFixed(Math.min(15, decimals)) : plain;
}

/** Spreadsheets hold 15 figures; the 16th and 17th of a double are dust of their own arithmetic. */
const plainText = (value: number) => String(Number(value.toPrecision(15)));

const two = (n: number) => String(n).padStart(2, '0');

/** A date as its format shows it, in the order year, month, day; with the time of day where the format or the value has one. */
export function shownDate(date: Date, format: string): string {
  const bare = format.replace(/"[^"]*"|\[[^\]]*\]/g, '').toLowerCase();
  const day = `${date.getUTCFullYear()}-${two(date.getUTCMonth() + 1)}-${two(date.getUTCDate())}`;
  const seconds = date.getUTCSeconds();
  const time = `${two(date.getUTCHours())}:${two(date.getUTCMinutes())}${seconds ? `:${two(seconds)}` : ''}`;
  const hasTime = /h|s/.test(bare) || date.getTime() % 86_400_000 !== 0;
  const hasDay = /[dy]/.test(bare) || !hasTime;
  return [hasDay ? day : '', hasTime ? time : ''].filter(Boolean).join(' ');
}

const CORNER = /^\$?([A-Z]{1,3})\$?(\d{1,7})$/;

export const columnNumber = (letters: string) =>
  [...letters].reduce((n, letter) => n * 26 + letter.charCodeAt(0) - 64, 0);

export function columnLetters(n: number): string {
  const rest = Math.floor((n - 1) / 26);
  return (rest > 0 ? columnLetters(rest) : '') + String.fromCharCode(65 + ((n - 1) % 26));
}

/** The cells of a sheet from one corner to the other ("B2:D40"); null where that is no range. */
export function cutRange(rows: readonly string[][], range: string): string[][] | null {
  const corners = range.trim().toUpperCase().split(':');
  const [from, to] = corners.map((corner) => CORNER.exec(corner.trim()));
  if (corners.length !== 2 || !from || !to) return null;
  const [left, right] = [columnNumber(from[1]!), columnNumber(to[1]!)];
  const [top, bottom] = [Number(from[2]), Number(to[2])];
  if (left > right || top > bottom || top < 1) return null;
  // A range may reach far beyond what is written: there are no cells there.
  const widest = rows.reduce((most, row) => Math.max(most, row.length), left);
  const width = Math.min(right, widest) - left + 1;
  return rows.slice(top - 1, bottom).map((row) => Array.from({ length: width }, (_, j) => row[left - 1 + j] ?? ''));
}

/** The smallest range that holds every written cell of a sheet. */
export function fullRange(rows: readonly string[][]): string {
  let [top, bottom, left, right] = [Infinity, 1, Infinity, 1];
  rows.forEach((row, i) =>
    row.forEach((text, j) => {
      if (!text) return;
      top = Math.min(top, i + 1);
      bottom = Math.max(bottom, i + 1);
      left = Math.min(left, j + 1);
      right = Math.max(right, j + 1);
    }),
  );
  if (top === Infinity) return 'A1:A1';
  return `${columnLetters(left)}${top}:${columnLetters(right)}${bottom}`;
}
