/** Below this many values insertion is faster than counting digits. */
const FEW = 48;
/** More moves than this for each value, and the lower bits are dealt too. */
const MOVES = 4;
const BITS = 11;
const BASE = 1 << BITS;
const MASK = BASE - 1;

/** Values in rising order, with the place (from 0) that each had before; equal values keep their order. */
export interface Ordered {
  sorted: Float64Array;
  order: Int32Array;
}

/** Moves each value up to where it belongs; false, with the work half done, once that takes more than `most` moves. */
function settle({ sorted, order }: Ordered, most: number): boolean {
  let moves = 0;
  for (let i = 1; i < sorted.length; i++) {
    const x = sorted[i]!;
    if (sorted[i - 1]! <= x) continue;
    const place = order[i]!;
    let j = i - 1;
    while (j >= 0 && sorted[j]! > x) {
      sorted[j + 1] = sorted[j]!;
      order[j + 1] = order[j]!;
      j--;
    }
    sorted[j + 1] = x;
    order[j + 1] = place;
    moves += i - j;
    if (moves > most) return false;
  }
  return true;
}

/**
 * The bits of the doubles as two words that compare, read as unsigned, like the numbers: negative ones turned over, positive ones above them.
 * −0 becomes 0. Signed arrays, because the engine keeps words above 2^31 as doubles otherwise.
 */
function keysOf(values: Float64Array): [high: Int32Array, low: Int32Array] {
  const n = values.length;
  const plain = new Float64Array(n);
  for (let i = 0; i < n; i++) plain[i] = values[i]! + 0;
  const words = new Int32Array(plain.buffer);
  const high = new Int32Array(n);
  const low = new Int32Array(n);
  // The order of the two words is that of the machine.
  const first = new Int32Array(Float64Array.of(1).buffer)[0] === 0 ? 1 : 0;
  for (let i = 0; i < n; i++) {
    const h = words[2 * i + first]!;
    const turned = h >> 31;
    high[i] = h ^ (turned | 0x80000000);
    low[i] = words[2 * i + 1 - first]! ^ turned;
  }
  return [high, low];
}

/** One pass: deals the words, and what goes with them, by the 11 bits of the first from `shift` on; nothing is done when all are the same. */
function deal(from: Int32Array[], into: Int32Array[], shift: number, starts: Int32Array): boolean {
  const [word, ...others] = from as [Int32Array, ...Int32Array[]];
  const n = word.length;
  starts.fill(0);
  for (let i = 0; i < n; i++) starts[(word[i]! >>> shift) & MASK]!++;
  if (starts[(word[0]! >>> shift) & MASK] === n) return false;
  let end = 0;
  for (let b = 0; b < BASE; b++) {
    const count = starts[b]!;
    starts[b] = end;
    end += count;
  }
  const [a, second, third] = [others[0]!, others[1], into[2]];
  const [wordNext, aNext] = [into[0]!, into[1]!];
  for (let i = 0; i < n; i++) {
    const w = word[i]!;
    const at = starts[(w >>> shift) & MASK]!++;
    wordNext[at] = w;
    aNext[at] = a[i]!;
    if (second) third![at] = second[i]!;
  }
  return true;
}

/** Puts all of these in the order of the first, 11 bits at a time from the low end. */
function byDigits(words: Int32Array[]): Int32Array[] {
  const starts = new Int32Array(BASE);
  let from = words;
  let into: Int32Array[] = words.map(({ length }) => new Int32Array(length));
  for (const shift of [0, BITS, 2 * BITS]) if (deal(from, into, shift, starts)) [from, into] = [into, from];
  return from;
}

function gathered(values: Float64Array, order: Int32Array): Ordered {
  const sorted = new Float64Array(order.length);
  for (let i = 0; i < order.length; i++) sorted[i] = values[order[i]!]!;
  return { sorted, order };
}

/** Where each value lies between the least and the greatest, in 2^32 steps; null where their distance is no double. */
function linearKeys(values: Float64Array): Int32Array | null {
  let least = Infinity;
  let greatest = -Infinity;
  for (let i = 0; i < values.length; i++) {
    const x = values[i]!;
    if (x < least) least = x;
    if (x > greatest) greatest = x;
  }
  const scale = 0xffffffff / (greatest - least);
  if (!(scale > 0 && scale < Infinity)) return null;
  const keys = new Int32Array(values.length);
  for (let i = 0; i < values.length; i++) keys[i] = (values[i]! - least) * scale;
  return keys;
}

/**
 * The values in rising order and where each stood. First by where they lie between the least and the greatest, digit by digit from the low end (Knuth
 * 1998, section 5.2.5, algorithm R), and the few that share a step settled by insertion; where these are many, as beside a far outlier, by
 * all bits of the doubles. In proportion to n for any values, and about as fast as the engine's sort, which gives no places. No NaN.
 */
export function ordered(values: Float64Array): Ordered {
  const n = values.length;
  const places = new Int32Array(n);
  for (let i = 0; i < n; i++) places[i] = i;
  if (n > FEW) {
    const keys = linearKeys(values);
    if (keys) {
      const found = gathered(values, byDigits([keys, places.slice()])[1]!);
      if (settle(found, MOVES * n)) return found;
    }
    const [high, low] = keysOf(values);
    const [, byLow, highByLow] = byDigits([low, places, high]);
    return gathered(values, byDigits([highByLow!, byLow!])[1]!);
  }
  const found = gathered(values, places);
  settle(found, Infinity);
  return found;
}
