import { z } from 'zod';
import { SIMULATED_TESTS, simulatedTest } from '../../simulation/simulated-tests/registry.js';
import type { SentencePart } from '../../road/analysis.js';
import { wholeSentence, type NamedParts } from '../../road/method-sentence.js';
import { choice, choices, numbers, share, whole } from '../../road/setting.js';
import { alphaSetting } from '../../road/settings.js';
import { of, lower, upper } from '../../road/statistic-settings.js';
import {
  alternative,
  claimed,
  claimParts,
  limitParts,
  MOVE_PARTS,
  MOVES_ONCE,
  movesOnce,
  samplesShape,
  seedOf,
  SHARE_TESTS,
  WIDTH_PARTS,
  SIZE_PARTS,
} from './asked-settings.js';
import {
  hasItsColumn,
  ITS_COLUMN,
  MIXING,
  POPULATION,
  populationShape,
  withLawsRead,
  type PopulationAsked,
} from './population-settings.js';

export const MOST_TESTS = 6;
export const MOST_POINTS = 15;

export const tests = choices(
  'tests',
  'tests',
  SIMULATED_TESTS.map(({ id: value, name: text }) => ({ value, text })),
  { usual: ['t'], most: MOST_TESTS, what: 'tests' },
);
export const along = choice(
  'along',
  'quantity on the axis',
  [
    { value: 'n', text: 'sample size' },
    { value: 'shiftInSd', text: 'shift in SDs' },
    { value: 'shift', text: 'shift in the unit of the readings' },
    { value: 'ratio', text: 'ratio of the standard deviations' },
    { value: 'mixedShare', text: 'proportion of contamination' },
  ],
  'n',
);
export type Along = z.infer<typeof along.schema>;
const values = numbers('values', 'values along the axis', { least: 1, most: MOST_POINTS }, 'the default values');
const power = share('power', 'power to reach', { min: 0.01, max: 0.999 }, '80 %');
const replicates = whole(
  'replicates',
  'simulated samples per point',
  { min: 100, max: 200_000 },
  2_000,
  'The number of simulated samples',
);

/** Where nothing is said: what is usually looked at. */
export const USUAL_VALUES: Readonly<Record<Along, readonly number[]>> = {
  n: [5, 10, 15, 20, 30, 50, 80],
  shiftInSd: [0, 0.25, 0.5, 0.75, 1, 1.25, 1.5],
  shift: [],
  ratio: [1, 1.25, 1.5, 1.75, 2, 2.5, 3],
  mixedShare: [0, 0.01, 0.02, 0.05, 0.1, 0.2],
};
export const USUAL_POWER = 0.8;

const shape = {
  ...populationShape,
  ...samplesShape,
  tests: tests.schema,
  along: along.schema,
  values: values.schema,
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
};

const sameGroups = ({ tests: ids }: { tests: readonly string[] }): boolean =>
  new Set(ids.map((id) => simulatedTest(id).groups)).size === 1;

export const curvesRequest = z
  .strictObject(shape)
  .refine((asked) => hasItsColumn(asked), ITS_COLUMN)
  .refine(movesOnce, MOVES_ONCE)
  .refine(sameGroups, {
    message: 'Tests for one group and for two groups cannot be compared on the same samples. Choose one kind.',
    path: ['tests'],
  })
  .transform((asked, context) => withLawsRead(asked, context) as typeof asked & PopulationAsked);
export type CurvesRequest = z.infer<typeof curvesRequest>;

/** Not said where it stands along the axis. */
const unless = (along_: readonly Along[], parts: readonly SentencePart[]): SentencePart[] =>
  parts.map((part): SentencePart => {
    const shown = typeof part === 'string' ? { text: part } : part;
    const own = shown.showWhen === undefined ? [] : [shown.showWhen].flat();
    const others = along.field.options.map(({ value }) => value).filter((value) => !along_.includes(value));
    return { ...shown, showWhen: [...own, { field: 'along', is: others }] } as SentencePart;
  });

export const CURVES = {
  population: [
    'Population: ',
    ...unless(['mixedShare'], wholeSentence(POPULATION)),
    ...unless(['n', 'shiftInSd', 'shift', 'ratio'], wholeSentence(MIXING)),
  ],
  ask: [
    '. Tests: ',
    tests.field,
    ...limitParts({ showWhen: { field: 'tests', is: SHARE_TESTS } }),
    ...claimParts('tests'),
    ', alternative: ',
    alternative.field,
    '; axis: ',
    along.field,
    ': ',
    values.field,
    '. ',
  ],
  how: [
    ...unless(['n'], ['Each sample has ', ...SIZE_PARTS]),
    { text: 'The sample size is on the axis', showWhen: { field: 'along', is: 'n' } },
    ...unless(['shift', 'shiftInSd'], MOVE_PARTS),
    ...unless(['ratio'], WIDTH_PARTS),
    '. Simulate ',
    replicates.field,
    ' samples per point, the same for all tests, seed ',
    seedOf.field,
    '; find where the power reaches ',
    power.field,
    '.',
  ],
} as const satisfies NamedParts;
