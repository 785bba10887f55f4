/** A field in which a figure is typed, in place of readings. */
export interface TypedField {
  key: string;
  label: string;
  /** What it takes, shown while it is empty. */
  example: string;
  optional?: true;
}

const SAMPLE: readonly TypedField[] = [
  { key: 'n', label: 'n', example: '12' },
  { key: 'mean', label: 'mean', example: '8.02' },
  { key: 'sd', label: 'sd', example: '0.11' },
];
const second = (fields: readonly TypedField[]) =>
  fields.map((field) => ({ ...field, key: `${field.key}2`, label: `${field.label} of the second` }));
const COUNT: readonly TypedField[] = [
  { key: 'count', label: 'count', example: '3' },
  { key: 'n', label: 'of n', example: '110' },
];

/** What is typed for each claim that can do with figures. */
export const TYPED_FIELDS: Readonly<Record<string, readonly TypedField[]>> = {
  'mean-claim': SAMPLE,
  'spread-claim': SAMPLE,
  'mean-and-sd-claim': SAMPLE,
  tolerance: SAMPLE,
  'share-claim': COUNT,
  'rate-claim': [
    { key: 'count', label: 'count', example: '7' },
    { key: 'exposure', label: 'over an exposure of', example: '48' },
  ],
  'two-means': [...SAMPLE, ...second(SAMPLE)],
  'two-spreads': [...SAMPLE, ...second(SAMPLE)],
  'two-shares': [...COUNT, ...second(COUNT)],
  'counts-claim': [
    { key: 'counts', label: 'counts', example: 'chipped 24, pinholed 12, crazed 9' },
    { key: 'total', label: 'total', example: '45', optional: true },
    { key: 'shares', label: 'claimed shares in %', example: 'chipped 50, pinholed 30, crazed 20', optional: true },
  ],
  'table-claim': [
    { key: 'table', label: 'rows of counts', example: '12 5; 3 14' },
    { key: 'rowTotals', label: 'row totals', example: '17 17', optional: true },
    { key: 'columnTotals', label: 'column totals', example: '15 19', optional: true },
  ],
};

export type TypedTexts = Readonly<Record<string, string>>;
/** Settings of a request, or the field at fault and what is wrong with it. */
export type TypedReading = { settings: Record<string, unknown> } | { field: string; problem: string };

const numberOf = (text: string): number => {
  const plain = text
    .trim()
    .replace(/[\s\u202f]/g, '')
    .replace('−', '-')
    .replace(/^(-?\d+),(\d+)$/, '$1.$2');
  return plain === '' ? NaN : Number(plain);
};

class Odd extends Error {
  constructor(
    readonly field: string,
    message: string,
  ) {
    super(message);
  }
}

/** "chipped 24, pinholed 12" as counts by name; names may have blanks. */
export function readPairs(text: string, field: string): Record<string, number> {
  const pairs: [string, number][] = text
    .split(/[;\n]|,(?!\d)/)
    .map((part) => part.trim())
    .filter(Boolean)
    .map((part) => {
      const found = /^(.+?)[\s:=]+([-−]?[\d.,\u202f]+)\s*%?$/.exec(part);
      const value = found ? numberOf(found[2]!) : NaN;
      if (!found || !Number.isFinite(value))
        throw new Odd(field, `“${part}” is no name with its number: type “chipped 24, pinholed 12”.`);
      return [found[1]!.trim(), value];
    });
  const names = pairs.map(([name]) => name);
  const twice = names.find((name, i) => names.indexOf(name) !== i);
  if (twice !== undefined) throw new Odd(field, `“${twice}” is named twice.`);
  return Object.fromEntries(pairs);
}

const numbersOf = (text: string, field: string): number[] =>
  text
    .split(/[\s,]+/)
    .filter(Boolean)
    .map((word) => {
      const value = numberOf(word);
      if (!Number.isFinite(value)) throw new Odd(field, `“${word}” is no number.`);
      return value;
    });

const percentToShare = (percent: number) => Number((percent / 100).toPrecision(12));

const READERS: Record<string, (text: string, field: string) => unknown> = {
  counts: readPairs,
  shares: (text, field) =>
    Object.fromEntries(
      Object.entries(readPairs(text, field)).map(([name, percent]) => [name, percentToShare(percent)]),
    ),
  table: (text, field) =>
    text
      .split(/[;\n]/)
      .filter((row) => row.trim() !== '')
      .map((row) => numbersOf(row, field)),
  rowTotals: numbersOf,
  columnTotals: numbersOf,
};

const single = (text: string, field: string) => {
  const value = numberOf(text);
  if (!Number.isFinite(value)) throw new Odd(field, `“${text}” is no number.`);
  return value;
};

/** Which settings hold the figures of a claim. */
function settingsOf(claim: string, values: Record<string, unknown>): Record<string, unknown> {
  if (claim === 'counts-claim') return { ...values, ...(values.shares ? { spread: 'given' } : {}) };
  if (claim === 'table-claim') return values;
  if (!claim.startsWith('two-')) return { figures: values };
  const own = Object.entries(values);
  const first = Object.fromEntries(own.filter(([key]) => !key.endsWith('2')));
  const other = Object.fromEntries(
    own.flatMap(([key, value]) => (key.endsWith('2') ? [[key.slice(0, -1), value]] : [])),
  );
  return { figures: [first, other] };
}

/** What was typed as the settings of a claim; what is missing or no number is said, with its field. */
export function readTyped(claim: string, texts: TypedTexts): TypedReading {
  const values: Record<string, unknown> = {};
  try {
    for (const { key, label, optional } of TYPED_FIELDS[claim] ?? []) {
      const text = texts[key]?.trim() ?? '';
      if (text !== '') values[key] = (READERS[key] ?? single)(text, key);
      else if (!optional) return { field: key, problem: `Type ${label}.` };
    }
  } catch (odd) {
    if (!(odd instanceof Odd)) throw odd;
    return { field: odd.field, problem: odd.message };
  }
  return { settings: settingsOf(claim, values) };
}

/** Claimed shares in percent, as they are typed for a column of labels. */
export function readShares(text: string): TypedReading {
  try {
    return { settings: { spread: 'given', shares: READERS.shares!(text, 'shares') } };
  } catch (odd) {
    if (!(odd instanceof Odd)) throw odd;
    return { field: odd.field, problem: odd.message };
  }
}
