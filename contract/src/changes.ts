import { QUANTILE_TYPES } from '@verdict/core/analyses';
import { LONGEST_CELL, LONGEST_NAME, MOST_COLUMNS } from '@verdict/core/readings';
import { derivationSchema } from '@verdict/core/table';
import { z } from 'zod';
import { QUESTIONS } from './decisions.js';

/**
 * Text as it may be kept: half a surrogate pair, as a cut emoji leaves behind, becomes the replacement character where it enters, so that
 * the page, the database and every file hold the same characters.
 */
export const textSchema = z.string().overwrite((text) => text.toWellFormed());

/** Ids are made where the thing is made, the page included, so that a change can be sent again without being done twice. */
export const idSchema = z.string().regex(/^[A-Za-z0-9-]{8,36}$/, 'An id must have 8 to 36 letters, digits or hyphens.');
export const whoSchema = textSchema.trim().min(1, 'Enter who is working.').max(80);
/** The definition of quartiles and percentiles of a study: one of Hyndman & Fan's nine, or the medians of the halves. */
export const quantileTypeSchema = z.union(
  QUANTILE_TYPES.map((type) => z.literal(type)),
  'The definition of quartiles must be 1 to 9 or "hinges".',
);
export const reasonSchema = textSchema
  .trim()
  .min(1, 'A reason is needed, so that the record can be understood later.')
  .max(1000, 'A reason may have at most 1 000 characters.');

export const askedKindSchema = z.enum(QUESTIONS, 'Choose one of the questions offered.');
/** Words by which studies are found again; one is not said twice. */
export const tagsSchema = z
  .array(textSchema.trim().min(1, 'A tag needs a name.').max(30, 'A tag may have at most 30 characters.'))
  .max(12, 'A study may have at most 12 tags.')
  .refine((tags) => new Set(tags).size === tags.length, 'A tag occurs twice.');

export const MOST_ROWS = 1_000_000;
const rowSchema = z.int().min(1).max(MOST_ROWS);
const cellText = textSchema.max(LONGEST_CELL, `A cell may have at most ${LONGEST_CELL} characters.`);
const nameSchema = textSchema
  .trim()
  .min(1, 'A column needs a name.')
  .max(LONGEST_NAME, `A column name may have at most ${LONGEST_NAME} characters.`);
const unitSchema = textSchema.trim().max(20, 'A unit may have at most 20 characters.');
const kindSchema = z.enum(['measure', 'label', 'count']);
const decimalSchema = z.enum(['point', 'comma']);
const thousandsSchema = z.enum(['none', 'comma', 'point', 'blank', 'apostrophe']);
const resolutionSchema = z.number().positive('The resolution must be a number above 0.').nullable();
const limitSchema = z.number().nullable();
const levelName = textSchema.max(LONGEST_CELL);
const MOST_LEVELS = 5_000;
const levelsSchema = z
  .strictObject({
    order: z.array(levelName).max(MOST_LEVELS),
    merged: z.array(z.strictObject({ from: levelName, into: levelName })).max(MOST_LEVELS),
  })
  .nullable();

/** What an analyst says about a column, beside its cells. */
const columnFacts = {
  name: nameSchema,
  unit: unitSchema,
  resolution: resolutionSchema,
  lowerLimit: limitSchema,
  target: limitSchema,
  upperLimit: limitSchema,
  claimedMean: limitSchema,
  claimedSd: z.number().positive('The claimed standard deviation must be a number above 0.').nullable(),
  levels: levelsSchema,
  frequencies: idSchema.nullable(),
};

const none = limitSchema.default(null);

/** A column without its cells. */
export const columnSchema = z.strictObject({
  ...columnFacts,
  id: idSchema,
  kind: kindSchema,
  decimal: decimalSchema,
  thousands: thousandsSchema,
  lowerLimit: none,
  target: none,
  upperLimit: none,
  claimedMean: none,
  claimedSd: columnFacts.claimedSd.default(null),
  levels: levelsSchema.default(null),
  frequencies: idSchema.nullable().default(null),
  derivation: derivationSchema.nullable().default(null),
});

/** Who set a reading aside, and when, if undoing a change restores that mark; otherwise the person who makes the change. */
const bySchema = z.strictObject({ who: whoSchema, at: z.iso.datetime() }).optional();
const asideSchema = z.strictObject({ row: rowSchema, reason: reasonSchema });

export const newColumnSchema = columnSchema.extend({
  cells: z.array(cellText).max(MOST_ROWS),
  /** Readings that arrive set aside, as in a copy of a column. */
  aside: z.array(asideSchema).max(MOST_ROWS).default([]),
});

/** A new column about which nothing has been said yet. */
export const NOTHING_SAID = {
  resolution: null,
  lowerLimit: null,
  target: null,
  upperLimit: null,
  claimedMean: null,
  claimedSd: null,
  levels: null,
  frequencies: null,
  derivation: null,
} as const;

const placeSchema = z.strictObject({ column: idSchema, row: rowSchema });
const markedSchema = (done: string) =>
  z
    .array(placeSchema.extend({ reason: reasonSchema, by: bySchema }))
    .min(1)
    .max(10_000, `At most 10 000 readings are ${done} at once.`);
/** Rows by number, rising. */
const rowsSchema = z.array(rowSchema).min(1).max(MOST_ROWS);

/** Texts of one column, one below the other from a row on. */
const runSchema = z.strictObject({ column: idSchema, row: rowSchema, texts: z.array(cellText).min(1).max(MOST_ROWS) });

/** More cells than this come as columns of their own: the record holds them once more, to take the change back. */
export const MOST_EDITED = 200_000;

const whichColumns = {
  columns: z.array(idSchema).min(1),
  /** Rows of the table afterwards, where adding or removing the columns had changed it. */
  rowCount: z.int().min(0).max(MOST_ROWS).optional(),
  /** The subject afterwards; left out, it stays or, if removed, passes to the next column of numbers. */
  subject: idSchema.nullable().optional(),
};

/** Every edit is one of these; each has an inverse of the same form, which undo applies. */
export const changeSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('edit-cells'),
    runs: z
      .array(runSchema)
      .max(MOST_EDITED)
      .refine((runs) => runs.reduce((sum, { texts }) => sum + texts.length, 0) <= MOST_EDITED, {
        message: `At most ${MOST_EDITED} cells can be overwritten at once. Import them as new columns instead.`,
      }),
    /** Rows of the table afterwards; left out, it grows as far as the cells reach. */
    rowCount: z.int().min(0).max(MOST_ROWS).optional(),
    /** What the edit was, for the record: "filled down". */
    note: textSchema.max(200).optional(),
  }),
  z.strictObject({
    kind: z.literal('add-columns'),
    columns: z.array(newColumnSchema).min(1).max(MOST_COLUMNS),
    /** Where the columns came from, for the record. */
    note: textSchema.max(200).optional(),
  }),
  z.strictObject({ kind: z.literal('remove-columns'), ...whichColumns }),
  z.strictObject({ kind: z.literal('return-columns'), ...whichColumns }),
  z.strictObject({
    kind: z.literal('change-column'),
    column: idSchema,
    columnKind: kindSchema.optional(),
    /** Another formula, seed or source of a column that is derived already. */
    derivation: derivationSchema.optional(),
    /** Columns that take their names from this one, and what they are called with its new name. */
    renames: z
      .array(z.strictObject({ column: idSchema, name: nameSchema }))
      .max(MOST_COLUMNS)
      .optional(),
    /** Columns whose limits and target follow those of this one, and what they become. */
    bounds: z
      .array(
        z.strictObject({ column: idSchema, lowerLimit: limitSchema, target: limitSchema, upperLimit: limitSchema }),
      )
      .max(MOST_COLUMNS)
      .optional(),
    ...z.object(columnFacts).partial().shape,
  }),
  /** All columns of the table in their new order. */
  z.strictObject({ kind: z.literal('order-columns'), columns: z.array(idSchema).min(1) }),
  /** A derived column becomes plain values that no longer follow anything. */
  z.strictObject({
    kind: z.literal('freeze-column'),
    column: idSchema,
    /** The values of an earlier freeze; if absent they are calculated. */
    texts: z.array(cellText).max(MOST_ROWS).optional(),
  }),
  z.strictObject({ kind: z.literal('thaw-column'), column: idSchema, derivation: derivationSchema }),
  z.strictObject({
    kind: z.literal('insert-rows'),
    /** The rows' numbers once they are in. */
    rows: rowsSchema,
    /** What they hold, one text a row; left out, they are empty. */
    contents: z.array(z.strictObject({ column: idSchema, texts: z.array(cellText) })).optional(),
    aside: z.array(asideSchema.extend({ column: idSchema, by: bySchema })).optional(),
    leftIn: z.array(asideSchema.extend({ column: idSchema, by: bySchema })).optional(),
  }),
  z.strictObject({ kind: z.literal('remove-rows'), rows: rowsSchema }),
  z.strictObject({ kind: z.literal('set-aside'), readings: markedSchema('set aside') }),
  z.strictObject({ kind: z.literal('put-back'), readings: z.array(placeSchema).min(1).max(10_000) }),
  /** Far readings that were looked at and stay in on purpose. */
  z.strictObject({ kind: z.literal('leave-in'), readings: markedSchema('kept') }),
  z.strictObject({ kind: z.literal('look-again'), readings: z.array(placeSchema).min(1).max(10_000) }),
  z.strictObject({
    kind: z.literal('change-study'),
    name: textSchema.trim().max(120, 'A study name may have at most 120 characters.').optional(),
    question: textSchema.trim().max(500, 'A question may have at most 500 characters.').optional(),
    alpha: z
      .number()
      .gt(0, 'The significance level must lie between 0 and 1.')
      .lt(1, 'The significance level must lie between 0 and 1.')
      .optional(),
    quantileType: quantileTypeSchema.optional(),
    /** What the study is about; null for none of the questions. */
    asks: askedKindSchema.nullable().optional(),
    tags: tagsSchema.optional(),
    subject: idSchema.nullable().optional(),
  }),
]);
export type Change = z.infer<typeof changeSchema>;
/** A change as the page sends it: values with a default may be left out. */
export type ChangeInput = z.input<typeof changeSchema>;
export type NewColumn = z.infer<typeof newColumnSchema>;

/** A change on its way: the token makes sending it again harmless, the revision says what the page had seen. */
export const changeRequestSchema = z.strictObject({
  token: idSchema,
  revision: z.int().min(0),
  who: whoSchema,
  change: changeSchema,
});
export type ChangeRequest = z.infer<typeof changeRequestSchema>;

/**
 * Undo takes back the last change that still stands, redo the last undo; the server knows which that is. `take-back` takes back the
 * named change, if nothing later touches what it touched.
 */
export const stepRequestSchema = z.strictObject({
  token: idSchema,
  revision: z.int().min(0),
  who: whoSchema,
  step: z.enum(['undo', 'redo', 'take-back']),
  target: z.int().min(1).optional(),
});
export type StepRequest = z.infer<typeof stepRequestSchema>;

/** The head of an import: the change without its cells, which follow as the text of the file. */
export const importHeadSchema = z.strictObject({
  token: idSchema,
  revision: z.int().min(0),
  who: whoSchema,
  columns: z.array(columnSchema).min(1).max(MOST_COLUMNS),
  /** Which column of the file each of them is, from 0; left out, they stand in it one after the other. */
  positions: z.array(z.int().min(0).max(100_000)).max(MOST_COLUMNS).optional(),
  note: textSchema.max(200).optional(),
  separator: z.enum(['tab', 'comma', 'semicolon', 'blanks', 'none']),
  /** Rows of names and units before the readings. */
  skip: z.int().min(0).max(2),
  encoding: z.enum(['utf-8', 'windows-1252']),
});
export type ImportHead = z.infer<typeof importHeadSchema>;
