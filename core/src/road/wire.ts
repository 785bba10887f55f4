/** A result as JSON that loses nothing: typed arrays as arrays, −0 as 0. Throws where JSON would turn a number into null. */
export function toWire(value: unknown): unknown {
  if (typeof value === 'number') {
    if (!Number.isFinite(value)) throw new RangeError('A result holds a number that is not finite.');
    return value === 0 ? 0 : value;
  }
  if (Array.isArray(value)) return value.map(toWire);
  if (ArrayBuffer.isView(value)) return Array.from(value as Float64Array, toWire);
  if (typeof value === 'object' && value !== null) {
    return Object.fromEntries(
      Object.entries(value)
        .filter(([, inner]) => inner !== undefined)
        .map(([key, inner]) => [key, toWire(inner)]),
    );
  }
  return value;
}

/** The path of the first number in a result that is not finite, or null. */
export function notFiniteIn(value: unknown, path = ''): string | null {
  if (typeof value === 'number') return Number.isFinite(value) ? null : path;
  if (typeof value !== 'object' || value === null) return null;
  const entries = Array.isArray(value) || ArrayBuffer.isView(value) ? (value as ArrayLike<unknown>) : null;
  if (entries) {
    for (let i = 0; i < entries.length; i++) {
      const found = notFiniteIn(entries[i], `${path}.${i}`);
      if (found !== null) return found;
    }
    return null;
  }
  for (const [key, inner] of Object.entries(value)) {
    const found = notFiniteIn(inner, path ? `${path}.${key}` : key);
    if (found !== null) return found;
  }
  return null;
}

/** A place where two results differ, as a path such as `tests.0.pValue`. */
export interface Difference {
  path: string;
  kept: unknown;
  now: unknown;
}

const MOST_DIFFERENCES = 20;

/** Under these a result holds words for readers. Words may be improved from version to version; every figure in them stands as a number elsewhere. */
const WORDS = new Set(
  'text reason words null sought measured intervalOf instead per of with name axis meaning formula value what why claim effect title from label inputs'.split(
    ' ',
  ),
);
const isWords = (path: string, kept: unknown, now: unknown): boolean =>
  WORDS.has(path.slice(path.lastIndexOf('.') + 1)) &&
  typeof kept === 'string' &&
  typeof now === 'string' &&
  (kept.includes(' ') || now.includes(' '));

/** Where two wire values differ in any bit of a number or in a code, at most 20 places; the wording of sentences does not count. */
export function differencesBetween(kept: unknown, now: unknown, path = ''): Difference[] {
  if (Object.is(kept, now) || isWords(path, kept, now)) return [];
  if (typeof kept !== 'object' || typeof now !== 'object' || kept === null || now === null)
    return [{ path, kept, now }];
  const found: Difference[] = [];
  const a = kept as Record<string, unknown>;
  const b = now as Record<string, unknown>;
  for (const key of new Set([...Object.keys(a), ...Object.keys(b)])) {
    found.push(...differencesBetween(a[key], b[key], path ? `${path}.${key}` : key));
    if (found.length >= MOST_DIFFERENCES) return found.slice(0, MOST_DIFFERENCES);
  }
  return found;
}

/** A wire value with the words for readers left out: what remains may not change without a new version of its analysis. */
export function withoutWords(value: unknown, key = ''): unknown {
  if (typeof value === 'string') return WORDS.has(key) ? '' : value;
  if (Array.isArray(value)) return value.map((inner) => withoutWords(inner, key));
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([name, inner]) => [name, withoutWords(inner, name)]));
}
