import { z } from 'zod';
import { PLACES } from '../../probability-plot/line-up.js';
import type { SentencePart } from '../../road/analysis.js';
import { choice, seed as seedOf } from '../../road/setting.js';
import { alphaSetting, columnSetting, seedSetting } from '../../road/settings.js';
import { withParametersRead } from '../../road/family-parameters.js';
import { FAMILY_PARTS, familyShape } from './family-settings.js';

const as = choice(
  'as',
  'kind of picture',
  [
    { value: 'plot', text: 'probability plot' },
    { value: 'histogram', text: 'histogram' },
  ],
  'plot',
);
const seed = seedOf('seed of the line-up');

const PLACE = `A position must be a whole number from 1 to ${PLACES}.`;
const place = z.int(PLACE).min(1, PLACE).max(PLACES, PLACE);
/** More viewers than one meeting has. */
const MOST_BEFORE = 29;

export const lineUpRequest = z
  .strictObject({
    column: columnSetting,
    ...familyShape,
    as: as.schema,
    alpha: alphaSetting,
    /** Of this sheet: it hides where the readings stand. */
    seed: seed.schema,
    /** What the viewer picked; left out, the sheet is made and nothing told. */
    pick: place.optional(),
    /** True where the viewer had seen a plot of these readings. */
    seen: z.boolean().default(false),
    /** Viewers before, each with a sheet of their own. */
    before: z
      .array(z.strictObject({ seed: seedSetting, pick: place, seen: z.boolean().default(false) }))
      .max(MOST_BEFORE, `At most ${MOST_BEFORE + 1} viewers are counted.`)
      .default([]),
    /** The sheet without its key, or the key without the sheet. */
    part: z.enum(['sheet', 'key'], 'The part is "sheet" or "key".').default('sheet'),
  })
  .refine(
    ({ seed: own, before }) => new Set([own, ...before.map(({ seed: other }) => other)]).size === before.length + 1,
    { message: 'Every viewer needs a line-up of their own, but one seed occurs twice.', path: ['before'] },
  )
  .transform(withParametersRead);
export type LineUpRequest = z.infer<typeof lineUpRequest>;

/** Told once the viewer has picked. */
const BEFORE_PICK = { field: 'pick', is: 'undefined' } as const;

/** The method of the line-up as a sentence. */
export const lineUpSentence: readonly SentencePart[] = [
  'Hide the ',
  as.field,
  ' of ',
  { subject: true },
  ` among ${PLACES - 1} simulated samples of the same size and resolution from the `,
  ...FAMILY_PARTS,
  ', each fitted separately',
  { text: '; last line-up from seed ', hideWhen: BEFORE_PICK },
  { ...seed.field, hideWhen: BEFORE_PICK },
  '.',
];
