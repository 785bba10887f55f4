import { LONGEST_CELL, LONGEST_NAME, MOST_COLUMNS } from '@verdict/core';
import { z } from 'zod';

/** Ids are made where the thing is made, the page included, so that a change can be sent again without being done twice. */
export const idSchema = z.string().regex(/^[A-Za-z0-9-]{8,36}$/, 'An id has 8 to 36 letters, figures or hyphens.');
export const whoSchema = z.string().trim().min(1, 'Say who is working.').max(80);
export const reasonSchema = z
  .string()
  .trim()
  .min(1, 'A reason is needed, so that the record can be understood later.')
  .max(1000, 'A reason has at most 1 000 characters.');

export const MOST_ROWS = 1_000_000;
const rowSchema = z.int().min(1).max(MOST_ROWS);
const cellText = z.string().max(LONGEST_CELL, `A cell holds at most ${LONGEST_CELL} characters.`);
const nameSchema = z
  .string()
  .trim()
  .min(1, 'A column needs a name.')
  .max(LONGEST_NAME, `A column name has at most ${LONGEST_NAME} characters.`);
const unitSchema = z.string().trim().max(20, 'A unit has at most 20 characters.');
const kindSchema = z.enum(['measure', 'label', 'count']);
const decimalSchema = z.enum(['point', 'comma']);
const thousandsSchema = z.enum(['none', 'comma', 'point', 'blank', 'apostrophe']);
const resolutionSchema = z.number().positive('The resolution is a number above 0.').nullable();
const limitSchema = z.number().nullable();

export const newColumnSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  unit: unitSchema,
  kind: kindSchema,
  decimal: decimalSchema,
  thousands: thousandsSchema,
  resolution: resolutionSchema,
  lowerLimit: limitSchema.default(null),
  upperLimit: limitSchema.default(null),
  cells: z.array(cellText).max(MOST_ROWS),
});

const placeSchema = z.strictObject({ column: idSchema, row: rowSchema });

/** Every edit is one of these; each has an inverse of the same form, which undo applies. */
export const changeSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('edit-cells'),
    cells: z.array(placeSchema.extend({ text: cellText })).max(MOST_ROWS),
    /** Rows of the table afterwards; left out, it grows as far as the cells reach. */
    rowCount: z.int().min(0).max(MOST_ROWS).optional(),
  }),
  z.strictObject({ kind: z.literal('add-columns'), columns: z.array(newColumnSchema).min(1).max(MOST_COLUMNS) }),
  z.strictObject({
    kind: z.literal('remove-columns'),
    columns: z.array(idSchema).min(1),
    rowCount: z.int().min(0).optional(),
    /** The subject afterwards; left out, it stays or, if removed, passes to the next column of numbers. */
    subject: idSchema.nullable().optional(),
  }),
  z.strictObject({
    kind: z.literal('return-columns'),
    columns: z.array(idSchema).min(1),
    rowCount: z.int().min(0).optional(),
    /** The subject afterwards; left out, it stays or, if removed, passes to the next column of numbers. */
    subject: idSchema.nullable().optional(),
  }),
  z.strictObject({
    kind: z.literal('change-column'),
    column: idSchema,
    name: nameSchema.optional(),
    unit: unitSchema.optional(),
    columnKind: kindSchema.optional(),
    resolution: resolutionSchema.optional(),
    lowerLimit: limitSchema.optional(),
    upperLimit: limitSchema.optional(),
  }),
  z.strictObject({
    kind: z.literal('set-aside'),
    readings: z
      .array(placeSchema.extend({ reason: reasonSchema }))
      .min(1)
      .max(10_000),
  }),
  z.strictObject({ kind: z.literal('put-back'), readings: z.array(placeSchema).min(1).max(10_000) }),
  z.strictObject({
    kind: z.literal('change-study'),
    name: z.string().trim().max(120, 'A study name has at most 120 characters.').optional(),
    question: z.string().trim().max(500, 'A question has at most 500 characters.').optional(),
    alpha: z.number().gt(0, 'The level lies between 0 and 1.').lt(1, 'The level lies between 0 and 1.').optional(),
    subject: idSchema.nullable().optional(),
  }),
]);
export type Change = z.infer<typeof changeSchema>;
export type NewColumn = z.infer<typeof newColumnSchema>;

/** A change on its way: the token makes sending it again harmless, the revision says what the page had seen. */
export const changeRequestSchema = z.strictObject({
  token: idSchema,
  revision: z.int().min(0),
  who: whoSchema,
  change: changeSchema,
});
export type ChangeRequest = z.infer<typeof changeRequestSchema>;

/** Undo takes back the last change that still stands, redo the last undo; the server knows which that is. */
export const stepRequestSchema = z.strictObject({
  token: idSchema,
  revision: z.int().min(0),
  who: whoSchema,
  step: z.enum(['undo', 'redo']),
});
export type StepRequest = z.infer<typeof stepRequestSchema>;
