export type DecimalMark = 'point' | 'comma';
export type ThousandsMark = 'none' | 'comma' | 'point' | 'blank' | 'apostrophe';

/** How the numbers of a column are written. */
export interface NumberFormat {
  decimal: DecimalMark;
  thousands: ThousandsMark;
}

export const PLAIN_FORMAT: NumberFormat = { decimal: 'point', thousands: 'none' };

const MARKS: Record<ThousandsMark, string> = {
  none: '',
  comma: ',',
  point: '\\.',
  blank: '[ \u00a0\u2009\u202f]',
  apostrophe: "['\u2019]",
};

const patterns = new Map<string, RegExp>();

function patternOf(format: NumberFormat): RegExp {
  const key = `${format.decimal}/${format.thousands}`;
  let pattern = patterns.get(key);
  if (!pattern) {
    const mark = format.decimal === 'point' ? '\\.' : ',';
    const group = MARKS[format.thousands];
    const whole = group ? `(?:\\d{1,3}(?:${group}\\d{3})+|\\d+)` : '\\d+';
    pattern = new RegExp(`^([+-]?)(?:(${whole})(?:${mark}(\\d*))?|${mark}(\\d+))(?:[eE]([+-]?\\d{1,4}))?$`);
    patterns.set(key, pattern);
  }
  return pattern;
}

/**
 * What a cell holds: nothing ("", "n/a", "-"), a number (with the decimals it is written with), a limit that the reading lies beyond
 * ("<0.05"), or text with the reason why it is no number.
 */
export type CellReading =
  | { kind: 'missing' }
  | { kind: 'number'; value: number; decimals: number }
  | { kind: 'limit'; side: 'below' | 'above'; value: number; decimals: number }
  | { kind: 'text'; reason: string };

const MISSING: CellReading = { kind: 'missing' };

/** Ways in which "no reading" is written. Not "Na": that is sodium. */
const MISSING_WORDS = new Set([
  '-',
  '\u2013',
  '\u2014',
  'n/a',
  'N/A',
  '#N/A',
  'NA',
  'na',
  'n.a.',
  'null',
  'missing',
  'Missing',
]);

const BEYOND = /^(<=?|>=?|\u2264|\u2265)\s*(.+)$/;

/** The value that `scanPlain` found last: a second result without an object for each of a million cells. */
let scanned = 0;

/**
 * The decimals of a cell that is written in figures with at most a sign and one decimal mark, and −1 for any other cell. Its value is
 * left in `scanned`: a whole number of at most 15 figures over a power of ten up to 1e15, which the division rounds correctly (Clinger 1990).
 */
function scanPlain(text: string, mark: number): number {
  const n = text.length;
  const first = text.charCodeAt(0);
  let i = first === 45 || first === 43 ? 1 : 0;
  if (n - i > 15 || n === i) return -1;
  let figures = 0;
  let point = -1;
  for (; i < n; i++) {
    const code = text.charCodeAt(i);
    if (code >= 48 && code <= 57) figures = figures * 10 + (code - 48);
    else if (code === mark && point < 0) point = i;
    else return -1;
  }
  // A lone mark is no number; a number that ends in its mark is.
  if (point >= 0 && n - (first === 45 || first === 43 ? 1 : 0) === 1) return -1;
  const decimals = point < 0 ? 0 : n - 1 - point;
  const size = figures / TENS[decimals]!;
  scanned = first === 45 && size !== 0 ? -size : size;
  return decimals;
}

const TENS = Float64Array.from({ length: 17 }, (_, k) => Number(`1e${k}`));

const markOf = (format: NumberFormat) => (format.decimal === 'point' ? 46 : 44);

/** The decimals of a cell in plain figures, −1 for any other; its value is `plainValue()` until the next call. For hot loops over columns. */
export const plainDecimals = (text: string, format: NumberFormat): number =>
  text === '' ? -1 : scanPlain(text, markOf(format));
export const plainValue = (): number => scanned;

/**
 * True where the cell is missing or a number: all that the search for problems in a large column needs to know. Plain figures are told by
 * their characters alone.
 */
export function isMissingOrNumber(text: string, format: NumberFormat): boolean {
  const n = text.length;
  const mark = markOf(format);
  let figures = 0;
  let marks = 0;
  for (let i = 0; i < n; i++) {
    const code = text.charCodeAt(i);
    if (code >= 48 && code <= 57) figures++;
    else if (code === mark) marks++;
    else if (i > 0 || (code !== 45 && code !== 43)) return isOtherwise(text, format);
  }
  return n === 0 || (figures > 0 && marks < 2 && n < 60) || isOtherwise(text, format);
}

function isOtherwise(text: string, format: NumberFormat): boolean {
  const { kind } = readCell(text, format);
  return kind === 'missing' || kind === 'number';
}

/**
 * Reads one cell strictly: the whole cell is a number in the given format, or it is not a number.
 * A number too large for a double is text with that reason, never Infinity.
 */
export function readCell(text: string, format: NumberFormat): CellReading {
  if (text === '') return MISSING;
  const plain = scanPlain(text, markOf(format));
  if (plain >= 0) return { kind: 'number', value: scanned, decimals: plain };
  const trimmed = text.trim();
  if (trimmed === '' || MISSING_WORDS.has(trimmed)) return MISSING;
  if (trimmed.length > 60) return { kind: 'text', reason: 'too long for a number' };
  const match = patternOf(format).exec(trimmed.replace(/^\u2212/, '-'));
  if (!match) return beyondOrText(trimmed, format);
  const whole = (match[2] ?? '0').replace(/\D/g, '');
  const fraction = match[3] ?? match[4] ?? '';
  const exponent = Number(match[5] ?? 0);
  const value = Number(`${match[1]}${whole}.${fraction}e${exponent}`);
  if (!Number.isFinite(value)) return { kind: 'text', reason: 'too large (above 1.8e308)' };
  return { kind: 'number', value: value === 0 ? 0 : value, decimals: Math.max(0, fraction.length - exponent) };
}

function beyondOrText(trimmed: string, format: NumberFormat): CellReading {
  const beyond = BEYOND.exec(trimmed);
  const limit = beyond && readCell(beyond[2]!, format);
  if (limit?.kind !== 'number') return { kind: 'text', reason: reasonFor(trimmed, format) };
  const side = beyond![1]!.startsWith('<') || beyond![1] === '\u2264' ? 'below' : 'above';
  return { kind: 'limit', side, value: limit.value, decimals: limit.decimals };
}

function reasonFor(text: string, format: NumberFormat): string {
  const other: NumberFormat = { decimal: format.decimal === 'point' ? 'comma' : 'point', thousands: 'none' };
  if (patternOf(other).test(text)) return `a decimal ${other.decimal}, but the column has a decimal ${format.decimal}`;
  if (/^[+-]?(inf|infinity|nan)$/i.test(text)) return 'not a finite number';
  if (/^[\d.,]*[lIoO][\d.,lIoO]*$/.test(text) && /\d/.test(text)) return 'perhaps a letter instead of a digit';
  if (/^[\d.,\s]+$/.test(text)) return 'separators in unexpected positions';
  return 'not a number';
}

/** The finite number a cell holds, or null. */
export function readNumber(text: string, format: NumberFormat): number | null {
  const cell = readCell(text, format);
  return cell.kind === 'number' ? cell.value : null;
}

const plainNumber = (text: string) => readNumber(text, PLAIN_FORMAT) !== null;

/**
 * How the numbers among these cells are written, from their marks alone. A comma before exactly three figures is read as a
 * thousands mark only where something else shows it (two of them, a point behind it, or whole numbers without it).
 */
export function recogniseNumberFormat(cells: readonly string[]): NumberFormat {
  let commaDecimal = 0;
  let commaThree = 0;
  let commaSure = 0;
  let pointSure = 0;
  let point = 0;
  let whole = 0;
  let blank = 0;
  let apostrophe = 0;
  for (const cell of cells) {
    const t = cell.trim().replace(BEYOND, '$2');
    if (/^[+\-\u2212]?\d{1,3}([ \u00a0\u2009\u202f]\d{3})+([.,]\d+)?$/.test(t)) blank++;
    if (/^[+\-\u2212]?\d{1,3}(['\u2019]\d{3})+([.,]\d+)?$/.test(t)) apostrophe++;
    if (/^[+\-\u2212]?\d{1,3}(,\d{3}){2,}(\.\d+)?$|^[+\-\u2212]?\d{1,3}(,\d{3})+\.\d+$/.test(t)) commaSure++;
    else if (/^[+\-\u2212]?\d{1,3}(\.\d{3}){2,}(,\d+)?$|^[+\-\u2212]?\d{1,3}(\.\d{3})+,\d+$/.test(t)) pointSure++;
    else if (/,\d*([eE][+-]?\d+)?$/.test(t) && /^[+\-\u2212]?[\d\s\u00a0\u2009\u202f'\u2019]*,\d*/.test(t)) {
      commaDecimal++;
      if (/^[+\-\u2212]?\d{1,3},\d{3}$/.test(t)) commaThree++;
    } else if (plainNumber(t)) {
      if (t.includes('.')) point++;
      else whole++;
    }
  }
  if (commaSure > 0 && commaSure >= pointSure) return { decimal: 'point', thousands: 'comma' };
  if (pointSure > 0) return { decimal: 'comma', thousands: 'point' };
  const gap: ThousandsMark = blank > 0 ? 'blank' : apostrophe > 0 ? 'apostrophe' : 'none';
  if (commaDecimal > point) {
    if (gap === 'none' && commaThree === commaDecimal && whole > 0) return { decimal: 'point', thousands: 'comma' };
    return { decimal: 'comma', thousands: gap };
  }
  return { decimal: 'point', thousands: gap };
}

/** A number in the marks of another format, digit for digit: "1.234,50" → "1234.50". What is no number stays as it is. */
export function rewritten(text: string, from: NumberFormat, to: NumberFormat): string {
  const { kind } = readCell(text, from);
  if (kind !== 'number' && kind !== 'limit') return text;
  const bare = from.thousands === 'none' ? text : text.replace(new RegExp(MARKS[from.thousands], 'g'), '');
  if (from.decimal === to.decimal) return bare;
  return from.decimal === 'comma' ? bare.replace(',', '.') : bare.replace('.', ',');
}
