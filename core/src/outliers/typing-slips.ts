/** A typing error or a wrong unit that would explain an extreme reading. */
export interface Slip {
  kind: 'decimal-point' | 'digits-swapped' | 'digit-twice' | 'sign' | 'inch' | 'thousand';
  /** The reading without the error. */
  value: number;
}

/** Millimetres in an inch. */
const INCH = 25.4;
const SCALES: readonly { kind: Slip['kind']; factor: number }[] = [
  ...[0.1, 10, 0.01, 100].map((factor) => ({ kind: 'decimal-point', factor }) as const),
  ...[0.001, 1000].map((factor) => ({ kind: 'thousand', factor }) as const),
  ...[1 / INCH, INCH].map((factor) => ({ kind: 'inch', factor }) as const),
];
/** A reading with more digits was not typed. */
const MOST_DIGITS = 12;

/** Texts with two neighbouring digits swapped. */
function* swapped(text: string): Generator<string> {
  for (let i = 0; i + 1 < text.length; i++) {
    const at = text[i] === '.' ? i - 1 : i;
    const next = text[i + 1] === '.' ? i + 2 : i + 1;
    const [a, b] = [text[at], text[next]];
    if (a === undefined || b === undefined || a === b) continue;
    yield text.slice(0, at) + b + text.slice(at + 1, next) + a + text.slice(next + 1);
  }
}

/** Texts without one of two equal digits side by side. */
function* without(text: string): Generator<string> {
  for (let i = 0; i + 1 < text.length; i++) if (text[i] === text[i + 1]) yield text.slice(0, i) + text.slice(i + 1);
}

/**
 * The errors that could have turned an ordinary reading into this one: a decimal point moved, a factor of 1000 or of an inch, digits swapped or typed
 * twice, a wrong sign. `fits` decides what is ordinary among the other readings; `decimals` is the number of decimals of the readings. The likeliest
 * first; nothing is changed.
 */
export function typingSlips(value: number, decimals: number, fits: (x: number) => boolean): Slip[] {
  const found: Slip[] = [];
  const offer = (kind: Slip['kind'], x: number) => {
    if (x !== value && fits(x) && !found.some((slip) => slip.value === x)) found.push({ kind, value: x });
  };
  for (const { kind, factor } of SCALES) offer(kind, Number((value * factor).toPrecision(MOST_DIGITS)));
  const text = Math.abs(value).toFixed(Math.min(MOST_DIGITS, decimals));
  const sign = Math.sign(value);
  if (text.length <= MOST_DIGITS) {
    for (const other of swapped(text)) offer('digits-swapped', sign * Number(other));
    for (const other of without(text)) offer('digit-twice', sign * Number(other));
  }
  offer('sign', -value);
  return found;
}
