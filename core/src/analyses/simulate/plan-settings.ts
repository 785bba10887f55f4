import { z } from 'zod';
import { SIMULATED_TESTS } from '../../simulation/simulated-tests/registry.js';
import { wholeSentence, type NamedParts } from '../../road/method-sentence.js';
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
  POPULATION,
  populationShape,
  withLawsRead,
  type PopulationAsked,
} from './population-settings.js';

const test = choice(
  'test',
  'test',
  SIMULATED_TESTS.map(({ id: value, name: text }) => ({ value, text })),
  't',
);
const power = share('power', 'power', { min: 0.01, max: 0.999 }, '80 %');
const replicates = whole(
  'replicates',
  'samples',
  { min: 500, max: 100_000 },
  4_000,
  'The number of simulated samples per size',
);

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

export const PLAN = {
  ask: [
    'Sample size for the ',
    test.field,
    ...limitParts({ showWhen: { field: 'test', is: SHARE_TESTS } }),
    ' to reach a power of ',
    power.field,
    '. ',
  ],
  population: ['Population: ', ...wholeSentence(POPULATION)],
  shift: [...SHIFT_PARTS, '. '],
  how: [
    'Alternative: ',
    alternative.field,
    ...claimParts('test'),
    '. From an exact formula where there is one, else from ',
    replicates.field,
    ' simulated samples per size tried, seed ',
    seedOf.field,
    '.',
  ],
} as const satisfies NamedParts;
