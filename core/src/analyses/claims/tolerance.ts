import { z } from 'zod';
import { confidenceOfExtremes, oneSidedFactor, twoSidedFactor } from '../../claims/tolerance.js';
import { leastReadings } from '../../claims/noticing.js';
import { power } from '../../numeric/elementary.js';
import { formatFigure, formatPercentOf, groupThousands } from '../../numeric/format.js';
import { plural } from '../../numeric/grammar.js';
import type { Note } from '../../readings/note.js';
import { bracketedRoot } from '../../numeric/bracketed-root.js';
import { defineAnalysis, type Piece, type SentencePart } from '../../road/analysis.js';
import { confidenceNote } from '../../road/cautions.js';
import type { FoundFigure } from '../../road/figure.js';
import { anyConfidence, choice, number } from '../../road/setting.js';
import { alphaSetting, columnSetting } from '../../road/settings.js';
import { normalityLine } from './assumptions.js';
import type { Assumption, ClaimGroup } from './claim-result.js';
import { ONE_SOURCE, oneSource as onlyOne, typedFigures } from './claim-settings.js';
import { dotsOf, oneSource, type Source } from './claim-source.js';
import { formatQuantity, type Scale } from '../../road/formatted.js';

const method = choice(
  'method',
  'method for the limits',
  [
    { value: 'normal', text: 'the normal distribution' },
    { value: 'extremes', text: 'minimum and maximum (no distribution assumed)' },
  ],
  'normal',
);
const side = choice(
  'side',
  'limits to calculate',
  [
    { value: 'both', text: 'two limits' },
    { value: 'lower', text: 'a lower limit' },
    { value: 'upper', text: 'an upper limit' },
  ],
  'both',
);
const SHARE = 'The proportion must lie between 50 % and 99.999 %; 0.99 means 99 %.';
const share = {
  schema: z.number(SHARE).min(0.5, SHARE).max(0.99999, SHARE).default(0.99),
  field: { field: 'share', label: 'proportion of the population', type: 'percent', min: 0.5, max: 0.99999 },
} as const;
const ofLimits = anyConfidence('confidence level of the limits');
const lower = number('lower', 'lower specification limit', {}, 'none');
const upper = number('upper', 'upper specification limit', {}, 'none');

const request = z
  .strictObject({
    column: columnSetting.optional(),
    figures: typedFigures.optional(),
    method: method.schema,
    side: side.schema,
    share: share.schema,
    confidence: ofLimits.schema,
    lower: lower.schema,
    upper: upper.schema,
    alpha: alphaSetting,
  })
  .refine(onlyOne, ONE_SOURCE);
type Request = z.infer<typeof request>;

export const TOLERANCE_CLAIM: readonly SentencePart[] = [
  share.field,
  ' of the population of ',
  { subject: true },
  ' is claimed to lie within the specification (lower limit: ',
  lower.field,
  ', upper limit: ',
  upper.field,
  ').',
];
export const TOLERANCE_METHOD: readonly SentencePart[] = [
  'Tolerance limits for this proportion from ',
  method.field,
  ', ',
  side.field,
  ', confidence level ',
  ofLimits.field,
  '.',
];

export interface ToleranceResult {
  available: true;
  typed: boolean;
  n: number;
  missing: number;
  setAside: number;
  unit: string;
  resolution: number | null;
  name: string;
  method: Request['method'];
  side: Request['side'];
  share: number;
  confidence: number;
  mean: number;
  sd: number | null;
  /** The limits are mean ± factor·sd; null for the extremes. */
  factor: number | null;
  limits: { lower: number | null; upper: number | null };
  /** Of the extremes: with which confidence they hold the share, the share they hold with the confidence asked for, and the readings that are needed. */
  reached: number | null;
  held: number | null;
  needed: number | null;
  /** What is allowed, and whether the limits lie within; null where nothing is. */
  allowed: { lower: number | null; upper: number | null };
  within: boolean | null;
  assumptions: Assumption[];
  groups: ClaimGroup[];
  notes: Note[];
}

/** With which confidence the extremes, or one of them, of n readings hold a share: 1 − P^n for one (Wilks 1941). */
const reachedBy = (n: number, held: number, of: Request['side']): number =>
  of === 'both' ? confidenceOfExtremes(n, held) : 1 - power(held, n);

function byExtremes({ values, n }: Source, { share: held, confidence, side: of }: Request) {
  const sorted = values!.slice().sort();
  const heldWith = bracketedRoot((p) => reachedBy(n, p, of) - confidence, 0, 1);
  return {
    factor: null,
    limits: { lower: of === 'upper' ? null : sorted[0]!, upper: of === 'lower' ? null : sorted[n - 1]! },
    reached: reachedBy(n, held, of),
    held: heldWith,
    needed: leastReadings((at) => reachedBy(at, held, of), 2, confidence),
  };
}

function byNormal({ n, mean, sd }: Source, { share: held, confidence, side: of }: Request) {
  const factor = of === 'both' ? twoSidedFactor(n, held, confidence) : oneSidedFactor(n, held, confidence);
  return {
    factor,
    limits: { lower: of === 'upper' ? null : mean - factor * sd!, upper: of === 'lower' ? null : mean + factor * sd! },
    ...{ reached: null, held: null, needed: null },
  };
}

function isWithin({ lower: low, upper: high }: Request, limits: ToleranceResult['limits']): boolean | null {
  if (low === undefined && high === undefined) return null;
  const below = low !== undefined && (limits.lower === null || limits.lower < low);
  const above = high !== undefined && (limits.upper === null || limits.upper > high);
  return !below && !above;
}

const limitWords = (
  { lower: low, upper: high }: { lower: number | null; upper: number | null },
  scale: Scale,
): string => {
  const told = (value: number) => formatQuantity(value, scale);
  if (low !== null && high !== null) return `between ${told(low)} and ${told(high)}`;
  return low !== null ? `above ${told(low)}` : `below ${told(high!)}`;
};

function toleranceFinding(result: ToleranceResult): Piece[] {
  const { share: held, confidence, name, limits, reached, within } = result;
  const scale: Scale = { ...result, as: 'reading' };
  const sure = reached === null || reached >= confidence;
  const lead: Piece[] = [
    { text: `With ${formatPercentOf(sure ? confidence : reached)} confidence, ` },
    {
      text: `at least ${formatPercentOf(held)} of the population of ${name} lies ${limitWords(limits, scale)}`,
      strong: true,
      code: 'interval',
    },
    { text: sure ? '.' : `. The confidence level asked for is ${formatPercentOf(confidence)}.` },
  ];
  if (within === null) return lead;
  if (within && sure)
    return [
      ...lead,
      { text: ' These limits are ' },
      { text: 'within the specification', strong: true, code: 'evidence' },
      { text: ': the claim is supported.' },
    ];
  return [
    ...lead,
    { text: ' There is ' },
    { text: 'not enough evidence', strong: true, code: 'no-evidence' },
    { text: ' that this proportion lies within the specification.' },
  ];
}

function toleranceNotes({ confidence, reached, needed, held, n, method: by, share: wanted }: ToleranceResult): Note[] {
  const notes = confidenceNote(confidence);
  if (by === 'extremes' && reached !== null && reached < confidence) {
    const ask = needed === null ? 'more than 1 000 000 readings' : `${groupThousands(needed)} readings`;
    const text = `The minimum and maximum of ${plural(n, 'reading')} enclose only ${formatPercentOf(held!)} of the population at ${formatPercentOf(confidence)} confidence. For ${formatPercentOf(wanted)}, ${ask} are needed.`;
    notes.push({ code: 'extremes-too-few', text });
  }
  return notes;
}

/** The figures behind the limits. */
export function toleranceFigures(result: ToleranceResult): FoundFigure[] {
  const scale: Scale = { ...result, as: 'reading' };
  const { limits, factor, mean, sd, reached, held, needed, n } = result;
  const row = (key: string, name: string, meaning: string, formula: string, text: string | null): FoundFigure[] =>
    text === null ? [] : [{ key, name, meaning, formula, note: '', texts: [text] }];
  const told = (value: number | null, kind: 'location' | 'spread' = 'location') =>
    value === null ? null : formatQuantity(value, scale, kind);
  return [
    ...row('n', 'readings', 'The number of readings.', 'n', groupThousands(n)),
    ...row(
      'lower',
      'lower limit',
      'The proportion lies above it, at this confidence level.',
      factor === null ? 'the minimum' : 'mean − factor·s',
      told(limits.lower),
    ),
    ...row(
      'upper',
      'upper limit',
      'The proportion lies below it, at this confidence level.',
      factor === null ? 'the maximum' : 'mean + factor·s',
      told(limits.upper),
    ),
    ...row(
      'factor',
      'factor',
      'The distance of the limits from the mean, in standard deviations.',
      'Wald and Wolfowitz (1946), Odeh (1978); one limit from the noncentral t distribution (Owen 1963)',
      factor === null ? null : formatFigure(factor, 'statistic'),
    ),
    ...row('mean', 'mean', 'The mean of the readings.', 'Σx/n', told(mean)),
    ...row('sd', 'SD', 'Their standard deviation, divisor n − 1.', '√(Σ(x − mean)²/(n − 1))', told(sd, 'spread')),
    ...row(
      'reached',
      'confidence reached',
      'The confidence with which minimum and maximum enclose the proportion.',
      'Wilks (1941)',
      reached === null ? null : formatPercentOf(reached),
    ),
    ...row(
      'held',
      'proportion enclosed',
      'The proportion that minimum and maximum enclose at the confidence level asked for.',
      'Wilks (1941)',
      held === null ? null : formatPercentOf(held),
    ),
    ...row(
      'needed',
      'readings needed',
      'The smallest sample size whose minimum and maximum enclose the proportion at this confidence level.',
      'Wilks (1941)',
      held === null ? null : needed === null ? 'more than 1 000 000' : groupThousands(needed),
    ),
  ];
}

/** The same in full. */
export const toleranceTable = ({
  name,
  n,
  mean,
  sd,
  share: held,
  confidence,
  factor,
  limits,
}: ToleranceResult): (string | number)[][] => [
  ['column', 'n', 'mean', 'SD', 'proportion', 'confidence level', 'factor', 'lower limit', 'upper limit'],
  [name, n, mean, sd ?? '', held, confidence, factor ?? '', limits.lower ?? '', limits.upper ?? ''],
];

/** Limits that hold a share of the population with a confidence. */
export const toleranceAnalysis = defineAnalysis<Request, ToleranceResult>({
  id: 'tolerance',
  version: 1,
  name: 'Tolerance interval',
  title: 'limits that contain a stated proportion of the population (normal, or minimum and maximum)',
  needsReadings: false,
  request,
  method: [...TOLERANCE_CLAIM, ' ', ...TOLERANCE_METHOD],
  subject: ({ column }) => column ?? 'the typed readings',
  resolve: (settings) => settings,
  *run(settings, sample) {
    const normal = settings.method === 'normal';
    const found = oneSource(sample, settings, { least: 2, purpose: 'a tolerance interval', spread: normal });
    if ('available' in found) return found;
    const { source, head } = found;
    const { values, name, n, mean, sd, resolution } = source;
    if (!normal && !values)
      return {
        available: false,
        reason: 'Minimum and maximum need readings, not typed figures.',
        n: 0,
        missing: 0,
        setAside: 0,
      };
    const { side: of, share: held, confidence, alpha, method: by } = settings;
    const own = normal ? byNormal(source, settings) : byExtremes(source, settings);
    const result: ToleranceResult = {
      ...{ available: true, ...head, name, method: by, side: of, share: held, confidence, mean, sd },
      ...own,
      allowed: { lower: settings.lower ?? null, upper: settings.upper ?? null },
      within: isWithin(settings, own.limits),
      assumptions:
        normal && values
          ? [
              normalityLine([{ name, values, resolution }], {
                alpha,
                mean: false,
                instead: 'minimum and maximum, which assume no distribution',
              }),
            ]
          : [
              {
                text: normal
                  ? 'Normality: cannot be checked from typed figures, and the limits rely on it.'
                  : 'Minimum and maximum assume no distribution.',
                holds: true,
                instead: '',
              },
            ],
      groups: [{ name, n, centre: mean, sd, interval: own.limits, dots: values ? dotsOf(values) : [] }],
      notes: [],
    };
    return { ...result, notes: [...head.notes, ...toleranceNotes(result)] };
  },
  finding: toleranceFinding,
});
