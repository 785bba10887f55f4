import { z } from 'zod';
import type { FittedTest } from '../../goodness-of-fit/fitted/battery.js';
import { LEAST_N, NORMALITY_TESTS } from '../../goodness-of-fit/normality/battery.js';
import type { Field, SentencePart } from '../../road/analysis.js';
import { choice, replicates as replicatesOf, seed as seedOf } from '../../road/setting.js';
import { alphaSetting, columnSetting } from '../../road/settings.js';
import { withParametersRead } from '../../road/family-parameters.js';
import { FAMILY_PARTS, familyShape } from './family-settings.js';
import { testFacts } from './normality-tests.js';
import { DEPARTURES, type DepartureScale } from './power-departures.js';

const test = choice(
  'test',
  'test of normality',
  NORMALITY_TESTS.map((value) => ({ value, text: testFacts(value, 0).name })),
  'anderson-darling',
);
const fitTest = choice(
  'fitTest',
  'test of the distribution',
  [
    { value: 'anderson-darling', text: 'Anderson–Darling' },
    { value: 'cramer-von-mises', text: 'Cramér–von Mises' },
    { value: 'kolmogorov-smirnov', text: 'Kolmogorov–Smirnov' },
  ] satisfies { value: FittedTest; text: string }[],
  'anderson-darling',
);
const against = choice(
  'against',
  'departure',
  DEPARTURES.map(({ kind, title }) => ({ value: kind, text: title })),
  'lognormal',
);
const replicates = replicatesOf('simulated samples per departure');
const seed = seedOf('seed of the simulation');

/** How far a departure goes, each in figures of its own kind. */
function howFar({ setting, word, title, range, usual }: DepartureScale) {
  const said = `The ${word} of ${title} ${word.endsWith('s') ? 'are numbers' : 'is a number'} from ${range.from} to ${range.to}.`;
  const schema = z.number(said).min(range.from, said).max(range.to, said).default(usual);
  const label = `${word} of ${title}`;
  return { schema, field: { field: setting, label, type: 'number', ...range, empty: String(usual) } as const };
}
const far = Object.fromEntries(DEPARTURES.map((scale) => [scale.kind, howFar(scale)])) as Record<
  DepartureScale['kind'],
  ReturnType<typeof howFar>
>;

export const powerRequest = z
  .strictObject({
    column: columnSetting,
    ...familyShape,
    /** Of the estimated normal. */
    test: test.schema,
    /** Of any other distribution. */
    fitTest: fitTest.schema,
    alpha: alphaSetting,
    /** Of the estimated normal: the departure that the finding and the n needed are about, and how far each sort goes. */
    against: against.schema,
    logSd: far.lognormal.schema,
    df: far['student-t'].schema,
    shape: far['symmetric-beta'].schema,
    distance: far['two-groups'].schema,
    shift: far['one-far'].schema,
    replicates: replicates.schema,
    seed: seed.schema,
  })
  .transform(withParametersRead);
export type PowerRequest = z.infer<typeof powerRequest>;

/** The normal with mean and sd estimated has tests of its own. */
export const isPlain = ({ family, parameters }: Pick<PowerRequest, 'family' | 'parameters'>): boolean =>
  family === 'normal' && parameters === undefined;

/** The least n that can be asked about. */
export const leastNOf = (settings: PowerRequest): number => (isPlain(settings) ? LEAST_N[settings.test] : 5);

const NORMAL = { field: 'family', is: 'normal' } as const;
const ESTIMATED = { field: 'parameters', is: 'undefined' } as const;
type Part = { text: string } | Field;

/** The end of the sentence for the estimated normal … */
const plainly = (...parts: Part[]): SentencePart[] => parts.map((part) => ({ ...part, showWhen: [NORMAL, ESTIMATED] }));
/** … and for everything else: another family, or a claimed normal. */
const otherwise = (...parts: Part[]): SentencePart[] => [
  ...parts.map((part) => ({ ...part, hideWhen: NORMAL })),
  ...parts.map((part) => ({ ...part, showWhen: NORMAL, hideWhen: ESTIMATED })),
];

/** ", log sd [0.5]" where that is what is asked about. */
function farParts(kind: DepartureScale['kind'], word: string): SentencePart[] {
  const shown = { showWhen: [NORMAL, ESTIMATED, { field: 'against', is: kind }] };
  return [
    { text: `, ${word} `, ...shown },
    { ...far[kind].field, ...shown },
  ];
}

/** The method as a sentence. */
export const powerSentence: readonly SentencePart[] = [
  'Power for samples of the size of ',
  { subject: true },
  ', test of the ',
  ...FAMILY_PARTS,
  ...plainly({ text: ' by ' }, test.field, { text: ': ' }, against.field),
  ...DEPARTURES.flatMap(({ kind, word }) => farParts(kind, word)),
  ...otherwise({ text: ' by ' }, fitTest.field, { text: ' against the nearest other distributions' }),
  ', from ',
  replicates.field,
  ' simulated samples each, seed ',
  seed.field,
  '.',
];
