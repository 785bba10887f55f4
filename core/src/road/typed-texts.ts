/** A field in which a figure is typed, in place of readings. */
export interface TypedField {
  key: string;
  label: string;
  /** What it takes, shown while it is empty. */
  example: string;
  optional?: true;
}

export type TypedTexts = Readonly<Record<string, string>>;
/** What was typed, by field; or the field at fault and what is wrong with it. */
export type FieldsReading = { values: Record<string, unknown> } | { field: string; problem: string };

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
        throw new Odd(field, `“${part}” is not a name with a number. Type, for example, “chipped 24, pinholed 12”.`);
      return [found[1]!.trim(), value];
    });
  const names = pairs.map(([name]) => name);
  const twice = names.find((name, i) => names.indexOf(name) !== i);
  if (twice !== undefined) throw new Odd(field, `“${twice}” occurs twice.`);
  return Object.fromEntries(pairs);
}

const numbersOf = (text: string, field: string): number[] =>
  text
    .split(/[\s,]+/)
    .filter(Boolean)
    .map((word) => {
      const value = numberOf(word);
      if (!Number.isFinite(value)) throw new Odd(field, `“${word}” is not a number.`);
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
  if (!Number.isFinite(value)) throw new Odd(field, `“${text}” is not a number.`);
  return value;
};

/** What was typed into fields; what is missing or no number is said, with its field. */
export function readFields(fields: readonly TypedField[], texts: TypedTexts): FieldsReading {
  const values: Record<string, unknown> = {};
  try {
    for (const { key, label, optional } of fields) {
      const text = texts[key]?.trim() ?? '';
      if (text !== '') values[key] = (READERS[key] ?? single)(text, key);
      else if (!optional) return { field: key, problem: `Enter ${label}.` };
    }
  } catch (odd) {
    if (!(odd instanceof Odd)) throw odd;
    return { field: odd.field, problem: odd.message };
  }
  return { values };
}
