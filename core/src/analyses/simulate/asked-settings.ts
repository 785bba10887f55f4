import { z } from 'zod';
import { SIMULATED_INTERVALS, simulatedInterval, type IntervalId } from '../../simulation/intervals.js';
import { SIMULATED_TESTS, simulatedTest } from '../../simulation/simulated-tests/registry.js';
import type { Condition, SentencePart } from '../../road/analysis.js';
import type { NamedParts } from '../../road/method-sentence.js';
import { anyConfidence, choice, number, seed, whole } from '../../road/setting.js';
import { alphaSetting, MOST_REPLICATES } from '../../road/settings.js';
import {
  lower,
  of,
  statistic,
  STATISTIC_FACTS,
  STATISTIC_IDS,
  STATISTIC_REST,
  statisticShape,
  upper,
  type StatisticAsked,
  type StatisticId,
} from '../../road/statistic-settings.js';

/** Of several groups nothing is simulated: samples come as one group, or two. */
const OF_SEVERAL: readonly StatisticId[] = ['f', 'largest-difference'];
export const SIMULATED_STATISTICS = STATISTIC_IDS.filter((id) => !OF_SEVERAL.includes(id));
const PAIRED: readonly StatisticId[] = ['mean-of-differences', 'median-of-differences', 'correlation', 'slope'];
export const isPaired = (id: StatisticId): boolean => PAIRED.includes(id);
const statisticIsOfTwo = (id: StatisticId): boolean => STATISTIC_FACTS[id].group !== 'one column' && id !== 'formula';

const testIds = SIMULATED_TESTS.map(({ id }) => id) as [string, ...string[]];
export const test = choice(
  'test',
  'test',
  SIMULATED_TESTS.map(({ id: value, name: text }) => ({ value, text })),
  't',
);
const interval = choice(
  'interval',
  'interval',
  SIMULATED_INTERVALS.map(({ id: value, name: text }) => ({ value, text })),
  'mean',
);
export const alternative = choice(
  'alternative',
  'alternative',
  [
    { value: 'two-sided', text: 'different' },
    { value: 'less', text: 'less' },
    { value: 'greater', text: 'greater' },
  ],
  'two-sided',
);
export const claimed = number('claimed', 'claimed value', {}, 'the true value');
export const MOST_IN_SAMPLE = 100_000;
export const n = whole('n', 'sample size', { min: 1, max: MOST_IN_SAMPLE }, 10, 'The sample size');
const SECOND = `The size of the second sample must be a whole number from 1 to ${MOST_IN_SAMPLE}.`;
const secondN = {
  schema: z.int(SECOND).min(1, SECOND).max(MOST_IN_SAMPLE, SECOND).optional(),
  field: {
    ...{ field: 'secondN', label: 'size of the second sample', type: 'number' as const },
    ...{ from: 1, to: MOST_IN_SAMPLE, whole: true, empty: 'the same number of' },
  },
};
export const shift = number('shift', 'shift in the unit of the readings', {}, '0');
export const shiftInSd = number('shiftInSd', 'shift in SDs', {}, '0');
export const ratio = number('ratio', 'ratio of the standard deviations', { above: 0, to: 1e6 }, '1');
export const confidence = anyConfidence('confidence level of the interval');
export const seedOf = seed('seed of the random numbers');
const replicates = whole(
  'replicates',
  'number of samples',
  { min: 1, max: MOST_REPLICATES },
  1_000,
  'The number of samples',
);

/** How the samples are drawn. */
export const samplesShape = {
  n: n.schema,
  /** Of the second group; as many as of the first where it is left out. */
  secondN: secondN.schema,
  shift: shift.schema,
  shiftInSd: shiftInSd.schema,
  ratio: ratio.schema,
};
/** What is worked out of each: a figure, a test, or an interval. */
export const repeatedShape = {
  statistic: z.enum(SIMULATED_STATISTICS).optional(),
  ...statisticShape,
  test: z.enum(testIds).optional(),
  interval: z.enum(SIMULATED_INTERVALS.map(({ id }) => id)).optional(),
  alternative: alternative.schema,
  claimed: claimed.schema,
  confidence: confidence.schema,
  alpha: alphaSetting,
  /** Filled in: whether samples come as one group or two. */
  groups: z.enum(['one', 'two']).optional(),
};
export const runShape = { replicates: replicates.schema, seed: seedOf.schema };

export interface SamplesAsked {
  n: number;
  secondN?: number | undefined;
  shift?: number | undefined;
  shiftInSd?: number | undefined;
  ratio?: number | undefined;
}

export interface RepeatedAsked extends Omit<StatisticAsked, 'statistic'> {
  statistic?: StatisticId | undefined;
  test?: string | undefined;
  interval?: IntervalId | undefined;
  alternative: 'two-sided' | 'less' | 'greater';
  claimed?: number | undefined;
  confidence: number;
  alpha: number;
  groups?: 'one' | 'two' | undefined;
}

/** Only one of them is looked at. */
export const asksOne = ({ statistic: a, test: b, interval: c }: RepeatedAsked): boolean =>
  [a, b, c].filter((one) => one !== undefined).length <= 1;
export const ASKS_ONE = {
  message: 'Choose one: a statistic, a test or an interval.',
  path: ['test'],
};
export const movesOnce = ({ shift: a, shiftInSd: b }: Pick<SamplesAsked, 'shift' | 'shiftInSd'>): boolean =>
  a === undefined || b === undefined;
export const MOVES_ONCE = {
  message: 'Give the shift either in SDs or in the unit of the readings, not both.',
  path: ['shiftInSd'],
};

/** Whether it takes one group or two. */
export function groupsOf({
  statistic: figure,
  test: done,
  interval: ends,
  formula = '',
}: RepeatedAsked): 'one' | 'two' {
  if (done !== undefined) return simulatedTest(done).groups === 2 ? 'two' : 'one';
  if (ends !== undefined) return simulatedInterval(ends).groups === 2 ? 'two' : 'one';
  if (figure === 'formula') return /[a-z]2\b/.test(formula) ? 'two' : 'one';
  return figure !== undefined && statisticIsOfTwo(figure) ? 'two' : 'one';
}

/** What is asked, settled: the mean where nothing is said. */
export function settled<R extends RepeatedAsked>(request: R): R {
  const { statistic: a, test: b, interval: c } = request;
  const nothing = a === undefined && b === undefined && c === undefined;
  const asked = nothing ? { ...request, statistic: 'mean' as const } : request;
  return { ...asked, groups: groupsOf(asked) };
}

const defined = (field: string) => ({ hideWhen: { field, is: 'undefined' } as Condition });
export const SHARE_TESTS = ['share', 'fisher'];
const SHARE_INTERVALS = ['share', 'exact-share', 'difference-of-shares'];
/** Readings are counted beyond limits, or within them. */
export const limitParts = (shown: { showWhen: Condition }): SentencePart[] => [
  { text: ', ', ...shown },
  { ...of.field, ...shown },
  { text: ' (lower: ', ...shown },
  { ...lower.field, ...shown },
  { text: ', upper: ', ...shown },
  { ...upper.field, ...shown },
  { text: ')', ...shown },
];
const offered = new Set<string>(SIMULATED_STATISTICS);
const figureField = { ...statistic.field, options: statistic.field.options.filter(({ value }) => offered.has(value)) };
const unsided = SIMULATED_TESTS.filter(({ sided }) => !sided).map(({ id }) => id);
const sided = { showWhen: { field: 'test', is: testIds.filter((id) => !unsided.includes(id)) } };
const CLAIMS = ['mean', 'median', 'sd', 'share'];
const claiming = SIMULATED_TESTS.filter(({ about }) => CLAIMS.includes(about)).map(({ id }) => id);
/** ", claimed value [the true value]", where a test claims a value. */
export const claimParts = (field: 'test' | 'tests'): SentencePart[] => [
  { text: ', claimed value ', showWhen: { field, is: claiming } },
  { ...claimed.field, showWhen: { field, is: claiming } },
];

/** What stands before the quantity, by the setting that holds it. */
export const QUANTITY_LEADS = { statistic: 'Statistic: ', test: 'Test: ', interval: 'Interval: ' } as const;
const QUANTITIES = ['statistic', 'test', 'interval'] as const;
/** Of the three only one is asked: its lead, the choice itself, and what belongs to it. */
export const REPEATED = {
  lead: QUANTITIES.map((setting) => ({ text: QUANTITY_LEADS[setting], ...defined(setting) })),
  quantity: [
    { ...figureField, ...defined('statistic') },
    { ...test.field, ...defined('test') },
    { ...interval.field, ...defined('interval') },
  ],
  rest: [
    ...STATISTIC_REST,
    ...limitParts({ showWhen: { field: 'test', is: SHARE_TESTS } }),
    ...claimParts('test'),
    { text: ', alternative: ', ...sided },
    { ...alternative.field, ...sided },
    ...limitParts({ showWhen: { field: 'interval', is: SHARE_INTERVALS } }),
    { text: ' at ', ...defined('interval') },
    { ...confidence.field, ...defined('interval') },
  ],
} as const satisfies NamedParts;

const TWO = { showWhen: { field: 'groups', is: 'two' } };
const NOT_IN_SD = { showWhen: { field: 'shiftInSd', is: 'undefined' } };
const NOT_IN_UNIT = { showWhen: { field: 'shift', is: 'undefined' } };
/** "; shift in SDs: [0.5]"; nothing is given twice. */
export const MOVE_PARTS: readonly SentencePart[] = [
  '; shift',
  { text: ' of the first group', ...TWO },
  { text: ' in SDs: ', ...NOT_IN_UNIT },
  { ...shiftInSd.field, ...NOT_IN_UNIT },
  { text: ',', showWhen: [NOT_IN_SD.showWhen, NOT_IN_UNIT.showWhen] },
  { text: ' in the unit: ', ...NOT_IN_SD },
  { ...shift.field, ...NOT_IN_SD },
];
/** "; ratio of the standard deviations: [1]". */
export const WIDTH_PARTS: readonly SentencePart[] = ['; ratio of the standard deviations: ', ratio.field];

export const SHIFT_PARTS: readonly SentencePart[] = [...MOVE_PARTS, ...WIDTH_PARTS];

export const RUN_PARTS: readonly SentencePart[] = ['Simulate ', replicates.field, ' samples, seed ', seedOf.field, '.'];
export const SIZE_PARTS: readonly SentencePart[] = [
  n.field,
  ' readings',
  { text: ' in the first group and ', ...TWO },
  { ...secondN.field, ...TWO },
  { text: ' in the second', ...TWO },
];
