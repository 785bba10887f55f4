import { z } from 'zod';
import { SIMULATED_TESTS } from '../../simulation/tests/registry.js';
import type { SentencePart } from '../../road/analysis.js';
import { choice, share, whole } from '../../road/setting.js';
import { alphaSetting } from '../../road/settings.js';
import { lower, of, upper } from '../../road/statistic-settings.js';
import {
  alternative,
  claimed,
  claimParts,
  limitParts,
  MOVES_ONCE,
  movesOnce,
  ratio,
  seedOf,
  SHARE_TESTS,
  SHIFT_PARTS,
  shift,
  shiftInSd,
} from './asked-settings.js';
import {
  hasItsColumn,
  ITS_COLUMN,
  POPULATION_PARTS,
  populationShape,
  withLawsRead,
  type PopulationAsked,
} from './population-settings.js';

const test = choice(
  'test',
  'test that is to notice it',
  SIMULATED_TESTS.map(({ id: value, name: text }) => ({ value, text })),
  't',
);
const power = share('power', 'chance of noticing it', { min: 0.01, max: 0.999 }, '80 %');
const replicates = whole('replicates', 'samples', { min: 500, max: 100_000 }, 4_000, 'The number of samples a size');

export const planRequest = z
  .strictObject({
    ...populationShape,
    test: test.schema,
    shift: shift.schema,
    shiftInSd: shiftInSd.schema,
    ratio: ratio.schema,
    alternative: alternative.schema,
    claimed: claimed.schema,
    of: of.schema,
    lower: lower.schema,
    upper: upper.schema,
    power: power.schema,
    alpha: alphaSetting,
    replicates: replicates.schema,
    seed: seedOf.schema,
    /** Filled in: whether samples come as one group or two. */
    groups: z.enum(['one', 'two']).optional(),
  })
  .refine((asked) => hasItsColumn(asked), ITS_COLUMN)
  .refine(movesOnce, MOVES_ONCE)
  .transform((asked, context) => withLawsRead(asked, context) as typeof asked & PopulationAsked);
export type PlanRequest = z.infer<typeof planRequest>;

export const PLAN_ASK: readonly SentencePart[] = [
  'How many readings does the ',
  test.field,
  ...limitParts({ showWhen: { field: 'test', is: SHARE_TESTS } }),
  ' need to notice, ',
  power.field,
  ' of the time, what it claims is not so? Draw from ',
  ...POPULATION_PARTS,
  ...SHIFT_PARTS,
  '.',
];
export const PLAN_HOW: readonly SentencePart[] = [
  'Evidence is sought ',
  alternative.field,
  ...claimParts('test'),
  '. By a formula where it is exact, else by ',
  replicates.field,
  ' samples of each size that is tried, seed ',
  seedOf.field,
  '.',
];
