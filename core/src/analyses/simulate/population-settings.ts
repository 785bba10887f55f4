import type { z } from 'zod';
import type { Parameters } from '../../distributions/family.js';
import { isRefusal } from '../../distributions/family.js';
import { distributionName } from '../../distributions/names.js';
import { completed, FAMILIES, familyByName, parameterFaults } from '../../distributions/registry.js';
import { parametersSetting, readParameters } from '../../road/family-parameters.js';
import type { Condition, Field, SentencePart } from '../../road/analysis.js';
import { isField, wholeSentence, type NamedParts } from '../../road/method-sentence.js';
import { choice, number, share } from '../../road/setting.js';
import { columnSetting } from '../../road/settings.js';

/** Where the readings come from: a law, the readings of a column, or a law fitted to them. */
const from = choice(
  'from',
  'source of the population',
  [
    { value: 'family', text: 'a distribution' },
    { value: 'column', text: 'the readings' },
    { value: 'fit', text: 'a fitted distribution' },
  ],
  'family',
);
const replacement = choice(
  'replacement',
  'sampling',
  [
    { value: 'with', text: 'with replacement' },
    { value: 'without', text: 'without replacement' },
  ],
  'with',
);
const families = FAMILIES.map(({ family: value, title }) => ({ value, text: `${title} distribution` }));
const family = choice('family', 'distribution', families, 'normal');
const mixture = choice(
  'mixture',
  'kind of contamination',
  [
    { value: 'wider', text: 'a larger standard deviation' },
    { value: 'moved', text: 'a shift' },
    { value: 'family', text: 'another distribution' },
  ],
  'wider',
);
const mixedShare = share('mixedShare', 'proportion of contamination', { min: 0, max: 1 }, 'none');
const mixedTimes = number('mixedTimes', 'ratio of the standard deviations', { above: 0, to: 1e6 }, '3');
const mixedBy = number('mixedBy', 'shift in SDs', { from: -1e6, to: 1e6 }, '3');
const mixedFamily = choice('mixedFamily', 'distribution of the contamination', families, 'normal');
const step = number('step', 'resolution of the instrument', { above: 0 }, 'not rounded');

/** What a population is asked with. Parameters that are left out stand at their usual values. */
export const populationShape = {
  column: columnSetting.optional(),
  /** The readings where a column is named, else a law. */
  from: from.schema.unwrap().optional(),
  family: family.schema,
  parameters: parametersSetting,
  replacement: replacement.schema,
  mixedShare: mixedShare.schema,
  mixture: mixture.schema,
  mixedTimes: mixedTimes.schema,
  mixedBy: mixedBy.schema,
  mixedFamily: mixedFamily.schema,
  mixedParameters: parametersSetting,
  step: step.schema,
};

/** Of a request, what says which population. */
export interface PopulationAsked {
  column?: string | undefined;
  from: 'family' | 'column' | 'fit';
  family: string;
  parameters?: Parameters | readonly number[] | undefined;
  replacement: 'with' | 'without';
  mixedShare?: number | undefined;
  mixture: 'wider' | 'moved' | 'family';
  mixedTimes?: number | undefined;
  mixedBy?: number | undefined;
  mixedFamily: string;
  mixedParameters?: Parameters | readonly number[] | undefined;
  step?: number | undefined;
}
export const USUAL_TIMES = 3;

/** Every parameter of a family, those left out at their usual values, or as they are given where it is fitted; what is wrong with them. */
export function allParameters(
  name: string,
  given: Parameters | readonly number[] | undefined,
  fitted: boolean,
): Parameters | string | undefined {
  const family = familyByName(name);
  const usual = Object.fromEntries(family.parameters.map((spec) => [spec.name, spec.usual]));
  const read = given === undefined ? {} : readParameters(family, given);
  if (isRefusal(read)) return (read as { refused: string }).refused;
  if (fitted) return given && (read as Parameters);
  const full = completed(family, { ...usual, ...read });
  return parameterFaults(family, full)[0]?.message ?? full;
}

/** Reads parameters by the families that are named, and fills in those left out: for `z.transform`. */
export function withLawsRead<R extends Unread>(unread: R, context: z.RefinementCtx): R & PopulationAsked {
  const request = { ...unread, from: fromOf(unread) };
  const read: Record<string, Parameters> = {};
  const wanted = [
    ['parameters', request.from, request.family, request.parameters],
    [
      'mixedParameters',
      request.mixture === 'family' ? 'family' : 'nothing',
      request.mixedFamily,
      request.mixedParameters,
    ],
  ] as const;
  for (const [path, used, name, given] of wanted) {
    // What is written is right, used or not; what is left out is filled in where it is used.
    if (used !== 'family' && given === undefined) continue;
    const found = allParameters(name, given, used !== 'family');
    if (typeof found === 'string') context.addIssue({ code: 'custom', message: found, path: [path] });
    else if (found) read[path] = found;
  }
  return { ...request, ...read };
}

type Unread = Omit<PopulationAsked, 'from'> & { from?: PopulationAsked['from'] | undefined };
const fromOf = ({ from: where, column }: Unread) => where ?? (column === undefined ? 'family' : 'column');

/** A column is named where readings come from one, and only there. */
export const hasItsColumn = (asked: Unread): boolean => (fromOf(asked) === 'family') === (asked.column === undefined);
export const ITS_COLUMN = {
  message: 'Choose the column to sample from, or a distribution without a column.',
  path: ['column'],
};

export const isMixed = ({ mixedShare: odd = 0 }: Unread): boolean => odd > 0;
const isMixedWithFamily = (asked: Unread) => isMixed(asked) && asked.mixture === 'family';

const when = (field: string, is: string | readonly string[]): Condition => ({ field, is });
const parametersField = (name: string, label: string): Field => ({
  ...{ field: name, label, type: 'parameters' as const, empty: 'the default parameters' },
});
const NOT_MIXED = when('mixedShare', ['undefined', '0']);
const ofMixture = (of: 'wider' | 'moved' | 'family', ...parts: SentencePart[]): SentencePart[] =>
  parts.map((part) => ({ ...(part as Field), showWhen: when('mixture', of) }));
/** "some of them [wider], [3] times": in what those that are different are so. */
const DIFFERENCE: readonly SentencePart[] = [
  mixture.field,
  ...ofMixture('wider', { text: ', ' }, mixedTimes.field, { text: ' times' }),
  ...ofMixture('moved', { text: ' by ' }, mixedBy.field, { text: ' SD' }),
  ...ofMixture(
    'family',
    { text: ', the ' },
    mixedFamily.field,
    { text: ' with ' },
    parametersField('mixedParameters', 'parameters of the contamination'),
  ),
];

const BASE_PARTS: readonly SentencePart[] = [
  { text: ', the ', hideWhen: when('from', 'column') },
  { ...family.field, hideWhen: when('from', 'column') },
  { text: ' with ', showWhen: when('from', 'family') },
  { ...parametersField('parameters', 'parameters'), showWhen: when('from', 'family') },
  { text: ', fitted to ', showWhen: when('from', 'fit') },
  { text: ' of ', showWhen: when('from', 'column') },
  { subject: true, hideWhen: when('from', 'family') },
  { text: ', sampling ', showWhen: when('from', 'column') },
  { ...replacement.field, showWhen: when('from', 'column') },
  '; ',
];
const STEP_PARTS: readonly SentencePart[] = [
  { text: '; ', showWhen: when('step', 'undefined') },
  { text: '; rounded to a resolution of ', hideWhen: when('step', 'undefined') },
  step.field,
];

/** "a distribution, the normal distribution with mean 0, standard deviation 1; contamination: 5 %, a larger standard deviation, 3 times". */
export const POPULATION = {
  from: [from.field],
  rest: [
    ...BASE_PARTS,
    'contamination: ',
    mixedShare.field,
    { text: ', ', hideWhen: NOT_MIXED },
    ...DIFFERENCE.map((part) => ({ ...(part as Field), hideWhen: NOT_MIXED })),
    ...STEP_PARTS,
  ],
} as const satisfies NamedParts;
/** The fields of it, wherever they stand. */
export const POPULATION_FIELDS: readonly string[] = wholeSentence(POPULATION)
  .filter(isField)
  .map(({ field }) => field);

/** The same where the proportion of contamination is on the axis: "contamination: a larger standard deviation, 3 times". */
export const MIXING = {
  from: [from.field],
  rest: [...BASE_PARTS, 'contamination: ', ...DIFFERENCE, ...STEP_PARTS],
} as const satisfies NamedParts;

const percent = (odd: number) => `${Number((100 * odd).toPrecision(4))}\u00a0%`;

/** Five figures: more than a fit is known to. */
const shortened = (fitted: Parameters): Parameters =>
  Object.fromEntries(Object.entries(fitted).map(([name, value]) => [name, Number(value.toPrecision(5))]));

/** "a normal distribution with mean 8 and sd 0.1, 5 % of it 3 times as wide, in steps of 0.5". */
export function populationWords(asked: PopulationAsked, name: string, fitted: Parameters | null): string {
  const { mixedShare: odd = 0, mixedTimes: times = USUAL_TIMES, mixedBy: by = USUAL_TIMES } = asked;
  const base =
    asked.from === 'column'
      ? `the readings of ${name}`
      : distributionName(asked.family, fitted ? shortened(fitted) : (asked.parameters as Parameters));
  const mixed = {
    wider: `with ${times} times the standard deviation`,
    moved: `shifted by ${by} SD`.replace('-', '−'),
    family: `from ${isMixedWithFamily(asked) ? distributionName(asked.mixedFamily, asked.mixedParameters as Parameters) : ''}`,
  }[asked.mixture];
  return [
    base,
    isMixed(asked) ? `, ${percent(odd)} contamination ${mixed}` : '',
    asked.step === undefined ? '' : `, rounded to ${asked.step}`,
  ].join('');
}
