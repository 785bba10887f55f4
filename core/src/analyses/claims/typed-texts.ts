import { readFields, type TypedField, type TypedTexts } from '../../road/typed-texts.js';

const SAMPLE: readonly TypedField[] = [
  { key: 'n', label: 'n', example: '12' },
  { key: 'mean', label: 'mean', example: '8.02' },
  { key: 'sd', label: 'SD', example: '0.11' },
];
const second = (fields: readonly TypedField[]) =>
  fields.map((field) => ({ ...field, key: `${field.key}2`, label: `${field.label} of the second sample` }));
const COUNT: readonly TypedField[] = [
  { key: 'count', label: 'count', example: '3' },
  { key: 'n', label: 'total n', example: '110' },
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
    { key: 'exposure', label: 'exposure', example: '48' },
  ],
  'two-means': [...SAMPLE, ...second(SAMPLE)],
  'two-spreads': [...SAMPLE, ...second(SAMPLE)],
  'two-shares': [...COUNT, ...second(COUNT)],
  'counts-claim': [
    { key: 'counts', label: 'counts', example: 'chipped 24, pinholed 12, crazed 9' },
    { key: 'total', label: 'total', example: '45', optional: true },
    { key: 'shares', label: 'claimed proportions in %', example: 'chipped 50, pinholed 30, crazed 20', optional: true },
  ],
  'table-claim': [
    { key: 'table', label: 'rows of counts', example: '12 5; 3 14' },
    { key: 'rowTotals', label: 'row totals', example: '17 17', optional: true },
    { key: 'columnTotals', label: 'column totals', example: '15 19', optional: true },
  ],
};

/** Settings of a request, or the field at fault and what is wrong with it. */
export type TypedReading = { settings: Record<string, unknown> } | { field: string; problem: string };

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
  const read = readFields(TYPED_FIELDS[claim] ?? [], texts);
  return 'problem' in read ? read : { settings: settingsOf(claim, read.values) };
}

const SHARES: readonly TypedField[] = [{ key: 'shares', label: 'claimed proportions in %', example: '' }];

/** Claimed shares in percent, as they are typed for a column of labels. */
export function readShares(text: string): TypedReading {
  const read = readFields(SHARES, { shares: text });
  return 'problem' in read ? read : { settings: { spread: 'given', ...read.values } };
}
