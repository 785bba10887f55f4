import { z } from 'zod';
import type { Field, SentencePart } from '../../road/analysis.js';
import { choice, replicates as replicatesOf, seed as seedOf } from '../../road/setting.js';
import { alphaSetting, columnSetting } from '../../road/settings.js';
import { noticeableShare } from './share-settings.js';

/** The method for p. */
export const byMethod = choice(
  'method',
  'method for p',
  [
    { value: 'suited', text: 'the method that suits the counts' },
    { value: 'chi-square', text: 'the χ² distribution' },
    { value: 'exact', text: 'the exact distribution' },
    { value: 'simulated', text: 'simulation' },
  ],
  'suited',
);
const spread = choice(
  'spread',
  'claimed proportions',
  [
    { value: 'evenly', text: 'equal proportions' },
    { value: 'given', text: 'the claimed proportions' },
  ],
  'evenly',
);
export const replicates = replicatesOf('number of simulated samples');
export const seed = seedOf('seed of the simulated samples');

/** As many categories are compared. */
export const MOST_CELLS = 200;
const LABEL = z.string().min(1, 'A category must have a name.').max(200, 'A name must have at most 200 characters.');
const COUNT = 'A count must be a whole number from 0 to 10¹².';
export const typedCount = z.int(COUNT).min(0, COUNT).max(1e12, COUNT);
const SHARE = 'A proportion must lie between 0 and 1; 0.25 means 25 %.';
const fewEnough = (record: object) => Object.keys(record).length <= MOST_CELLS;
const FEW = `At most ${MOST_CELLS} categories are compared.`;

/** Shares are given to be used: they are not left aside because it was not also said that they count. */
const sharesCount = (given: unknown): unknown =>
  typeof given === 'object' && given !== null && 'shares' in given && !('spread' in given)
    ? { ...given, spread: 'given' }
    : given;

const countsSettings = z
  .strictObject({
    column: columnSetting.optional(),
    /** Of a count column: the labels whose counts are added up. */
    split: columnSetting.optional(),
    /** Typed in place of a column. */
    counts: z.record(LABEL, typedCount).refine(fewEnough, FEW).optional(),
    /** What the typed counts should add up to. */
    total: typedCount.optional(),
    spread: spread.schema,
    shares: z.record(LABEL, z.number(SHARE).min(0, SHARE).max(1, SHARE)).refine(fewEnough, FEW).optional(),
    method: byMethod.schema,
    noticeable: noticeableShare.schema,
    alpha: alphaSetting,
    replicates: replicates.schema,
    seed: seed.schema,
  })
  .refine(({ column, counts }) => column === undefined || counts === undefined, {
    message: 'Give either a column or typed counts, not both.',
    path: ['counts'],
  })
  .refine(({ spread: how, shares }) => shares === undefined || how === 'given', {
    message: 'Claimed proportions need the setting spread “given”; here it is “evenly”. Leave one of the two out.',
    path: ['shares'],
  });
export type CountsRequest = z.infer<typeof countsSettings>;
export const countsRequest: z.ZodType<CountsRequest> = z.preprocess(sharesCount, countsSettings);

export const COUNTS_CLAIM: readonly SentencePart[] = [
  'The counts of ',
  { subject: true },
  ' are claimed to have ',
  spread.field,
  '; alternative: they do not.',
];
const SIMULATED = { field: 'method', is: ['suited', 'simulated'] };
/** The method for p, with replicates and seed where it may be simulated. */
export const byParts = (method: Field): readonly SentencePart[] => [
  method,
  { text: ', ', showWhen: SIMULATED },
  { ...replicates.field, showWhen: SIMULATED },
  { text: ' simulated samples, seed ', showWhen: SIMULATED },
  { ...seed.field, showWhen: SIMULATED },
];
export const COUNTS_METHOD: readonly SentencePart[] = [
  'p from ',
  ...byParts(byMethod.field),
  '. Smallest difference of interest in a proportion: ',
  noticeableShare.field,
  '.',
];
