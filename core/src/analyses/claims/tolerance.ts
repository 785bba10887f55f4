import { z } from 'zod';
import { confidenceOfExtremes, oneSidedFactor, twoSidedFactor } from '../../claims/tolerance.js';
import { leastReadings } from '../../claims/noticing.js';
import { power } from '../../numeric/elementary.js';
import { formatFigure, formatPercentOf, groupThousands } from '../../numeric/format.js';
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
import { toldFigure, type Scale } from '../../road/told.js';

const method = choice(
  'method',
  'how the limits are found',
  [
    { value: 'normal', text: 'mean and sd of a normal' },
    { value: 'extremes', text: 'the least and the greatest reading' },
  ],
  'normal',
);
const side = choice(
  'side',
  'which limits',
  [
    { value: 'both', text: 'two limits' },
    { value: 'lower', text: 'a lower limit' },
    { value: 'upper', text: 'an upper limit' },
  ],
  'both',
);
const SHARE = 'The share lies between 50 % and 99.999 %; 0.99 means 99 %.';
const share = {
  schema: z.number(SHARE).min(0.5, SHARE).max(0.99999, SHARE).default(0.99),
  field: { field: 'share', label: 'share of the population', type: 'percent', min: 0.5, max: 0.99999 },
} as const;
const ofLimits = anyConfidence('confidence of the limits');
const lower = number('lower', 'lower limit allowed', {}, 'none');
const upper = number('upper', 'upper limit allowed', {}, 'none');

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
  ' of all that ',
  { subject: true },
  ' is a sample of is claimed to lie within ',
  lower.field,
  ' and ',
  upper.field,
  '.',
];
export const TOLERANCE_METHOD: readonly SentencePart[] = [
  'Limits that hold that share, by ',
  method.field,
  ', ',
  side.field,
  ', with a confidence of ',
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
  const told = (value: number) => toldFigure(value, scale);
  if (low !== null && high !== null) return `between ${told(low)} and ${told(high)}`;
  return low !== null ? `above ${told(low)}` : `below ${told(high!)}`;
};

function toleranceFinding(result: ToleranceResult): Piece[] {
  const { share: held, confidence, name, limits, reached, within } = result;
  const scale: Scale = { ...result, as: 'reading' };
  const sure = reached === null || reached >= confidence;
  const lead: Piece[] = [
    { text: `With a confidence of ${formatPercentOf(sure ? confidence : reached)} ` },
    {
      text: `${formatPercentOf(held)} of all ${name} lies ${limitWords(limits, scale)}`,
      strong: true,
      code: 'interval',
    },
    { text: sure ? '.' : `: less than the ${formatPercentOf(confidence)} asked for.` },
  ];
  if (within === null) return lead;
  if (within && sure)
    return [
      ...lead,
      { text: ' That is ' },
      { text: 'within what is allowed', strong: true, code: 'evidence' },
      { text: ': the claim is shown.' },
    ];
  return [
    ...lead,
    { text: ' That so much lies within what is allowed is ' },
    { text: 'not shown', strong: true, code: 'no-evidence' },
    { text: '.' },
  ];
}

function toleranceNotes({ confidence, reached, needed, held, n, method: by, share: wanted }: ToleranceResult): Note[] {
  const notes = confidenceNote(confidence);
  if (by === 'extremes' && reached !== null && reached < confidence) {
    const ask = needed === null ? 'more than a million readings' : `${groupThousands(needed)} readings`;
    const text = `The extremes of ${groupThousands(n)} readings hold ${formatPercentOf(held!)} with the confidence asked for; for ${formatPercentOf(wanted)} it takes ${ask}.`;
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
    value === null ? null : toldFigure(value, scale, kind);
  return [
    ...row('n', 'readings', 'How many the limits are found from.', 'n', groupThousands(n)),
    ...row(
      'lower',
      'lower limit',
      'Above it lies the share, with the confidence.',
      factor === null ? 'the least reading' : 'mean − factor·s',
      told(limits.lower),
    ),
    ...row(
      'upper',
      'upper limit',
      'Below it lies the share, with the confidence.',
      factor === null ? 'the greatest reading' : 'mean + factor·s',
      told(limits.upper),
    ),
    ...row(
      'factor',
      'factor',
      'How many sd the limits lie from the mean.',
      'Wald and Wolfowitz (1946), Odeh (1978); one limit by the noncentral t (Owen 1963)',
      factor === null ? null : formatFigure(factor, 'statistic'),
    ),
    ...row('mean', 'mean', 'The centre of the readings.', 'Σx/n', told(mean)),
    ...row('sd', 'sd', 'Their spread, divisor n − 1.', '√(Σ(x − mean)²/(n − 1))', told(sd, 'spread')),
    ...row(
      'reached',
      'confidence reached',
      'How sure it is that the extremes hold the share.',
      'Wilks (1941)',
      reached === null ? null : formatPercentOf(reached),
    ),
    ...row(
      'held',
      'share held',
      'The share that the extremes hold with the confidence asked for.',
      'Wilks (1941)',
      held === null ? null : formatPercentOf(held),
    ),
    ...row(
      'needed',
      'readings needed',
      'The least n whose extremes hold the share with the confidence.',
      'Wilks (1941)',
      held === null ? null : needed === null ? 'more than a million' : groupThousands(needed),
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
  ['of', 'n', 'mean', 'sd', 'share', 'confidence', 'factor', 'lower limit', 'upper limit'],
  [name, n, mean, sd ?? '', held, confidence, factor ?? '', limits.lower ?? '', limits.upper ?? ''],
];

/** Limits that hold a share of the population with a confidence. */
export const toleranceAnalysis = defineAnalysis<Request, ToleranceResult>({
  id: 'tolerance',
  version: 1,
  name: 'Tolerance limits',
  title: 'limits that hold a share of the population with a confidence (normal; the extremes)',
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
      return { available: false, reason: 'The extremes need the readings themselves.', n: 0, missing: 0, setAside: 0 };
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
                instead: 'the extremes, which ask for no distribution',
              }),
            ]
          : [
              {
                text: normal
                  ? 'Normality: not to be told from typed figures, and the limits lean on it.'
                  : 'The extremes ask for no distribution.',
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
