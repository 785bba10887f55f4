import { z } from 'zod';
import type { Field, SentencePart } from '../../road/analysis.js';
import { choice, replicates as replicatesOf, seed as seedOf } from '../../road/setting.js';
import { alphaSetting, columnSetting } from '../../road/settings.js';
import { noticeableShare } from './share-settings.js';

/** How p is found. */
export const byMethod = choice(
  'method',
  'how p is found',
  [
    { value: 'suited', text: 'what suits the counts' },
    { value: 'chi-square', text: 'χ²' },
    { value: 'exact', text: 'counting out' },
    { value: 'simulated', text: 'simulation' },
  ],
  'suited',
);
const spread = choice(
  'spread',
  'how the counts are claimed to be spread',
  [
    { value: 'evenly', text: 'evenly' },
    { value: 'given', text: 'as their claimed shares say' },
  ],
  'evenly',
);
export const replicates = replicatesOf('replicates of the counts');
export const seed = seedOf('seed of the replicates');

/** As many places are compared. */
export const MOST_CELLS = 200;
const LABEL = z.string().min(1, 'A place has a name.').max(200, 'A name has at most 200 characters.');
const COUNT = 'A count is a whole number from 0 to 10¹².';
export const typedCount = z.int(COUNT).min(0, COUNT).max(1e12, COUNT);
const SHARE = 'A share lies between 0 and 1; 0.25 means 25 %.';
const fewEnough = (record: object) => Object.keys(record).length <= MOST_CELLS;
const FEW = `At most ${MOST_CELLS} places are compared.`;

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
    message: 'Counts are typed in place of a column: leave one of the two out.',
    path: ['counts'],
  })
  .refine(({ spread: how, shares }) => shares === undefined || how === 'given', {
    message:
      'Shares are claimed only with the spread “given”: the counts are claimed to be spread evenly here. Leave one of the two out.',
    path: ['shares'],
  });
export type CountsRequest = z.infer<typeof countsSettings>;
export const countsRequest: z.ZodType<CountsRequest> = z.preprocess(sharesCount, countsSettings);

export const COUNTS_CLAIM: readonly SentencePart[] = [
  'The counts of ',
  { subject: true },
  ' are claimed to be spread ',
  spread.field,
  '; evidence is sought that they are not.',
];
const SIMULATED = { field: 'method', is: ['suited', 'simulated'] };
/** How p is found, with replicates and seed where it may be simulated. */
export const byParts = (method: Field): readonly SentencePart[] => [
  method,
  { text: ' in ', showWhen: SIMULATED },
  { ...replicates.field, showWhen: SIMULATED },
  { text: ' replicates, seed ', showWhen: SIMULATED },
  { ...seed.field, showWhen: SIMULATED },
];
export const COUNTS_METHOD: readonly SentencePart[] = [
  'With p by ',
  ...byParts(byMethod.field),
  '. A difference of a share that matters: ',
  noticeableShare.field,
  '.',
];
