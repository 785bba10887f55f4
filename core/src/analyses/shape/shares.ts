import { z } from 'zod';
import { describe } from '../../describe/describe.js';
import { countsWithin, type Counts } from '../../describe/shares.js';
import type { Distribution } from '../../distributions/family.js';
import { distribution, familyByName } from '../../distributions/registry.js';
import { intervalProbability } from '../../distributions/interval-probability.js';
import { skewnessTest } from '../../goodness-of-fit/normality/skewness.js';
import { clopperPearson } from '../../numeric/clopper-pearson.js';
import { formatFigure, formatPercentOf, formatValue, groupThousands } from '../../numeric/format.js';
import type { Sample } from '../../readings/sample.js';
import { defineAnalysis, isUnavailable, type Note, type Piece } from '../../road/analysis.js';
import { confidenceNote } from '../../road/cautions.js';
import { groupSettings, subjectWords } from '../../road/groups.js';
import { anyConfidence, choice } from '../../road/setting.js';
import { curveChoice, curveNotes, fittedCurve, pictured, type FittedCurve, type Picture } from './picture.js';
import { alphaSetting, columnSetting } from '../../road/settings.js';

const LIMIT = 'A limit is a number.';
const of = choice(
  'of',
  'limits',
  [
    { value: 'sd', text: 'mean ± 1, 2 and 3 SD' },
    { value: 'specification', text: 'the specification limits' },
    { value: 'limits', text: 'other limits' },
  ],
  'sd',
);
const curve = curveChoice('distribution for comparison', 'normal');
const ofShares = anyConfidence('confidence level of the proportions');

const request = z
  .strictObject({
    column: columnSetting,
    ...groupSettings,
    of: of.schema,
    lower: z.number(LIMIT).optional(),
    upper: z.number(LIMIT).optional(),
    curve: curve.schema,
    confidence: ofShares.schema,
    alpha: alphaSetting,
  })
  .superRefine(({ of, lower, upper }, context) => {
    if (of === 'sd') return;
    if (lower === undefined && upper === undefined)
      context.addIssue({ code: 'custom', path: ['lower'], message: 'Give a lower limit, an upper limit, or both.' });
    if (lower !== undefined && upper !== undefined && lower > upper)
      context.addIssue({
        code: 'custom',
        path: ['upper'],
        message: `The upper limit ${upper} is below the lower limit ${lower}.`,
      });
  });
export type SharesRequest = z.infer<typeof request>;

/** One pair of limits: what was found within (ends included), below and above, beside what is expected. */
export interface Stretch extends Counts {
  /** For mean ± times·sd; null for limits of the analyst's own. */
  times: number | null;
  lower: number | null;
  upper: number | null;
  share: number;
  /** Clopper–Pearson, for the true share within. */
  interval: [number, number];
  /** What the fitted distribution expects within; null without one. */
  expected: number | null;
}

export interface SharesPart {
  mean: number;
  sd: number | null;
  stretches: Stretch[];
  curve: FittedCurve;
  /** True where the test finds skewness at the level. */
  leaning: boolean;
}
export interface SharesResult extends Picture<SharesPart> {
  of: SharesRequest['of'];
  confidence: number;
}

/** Readings on the grid that their digits show keep to it: 8.15 is inside a limit of 8.15. */
function shareOf(sample: Sample, asked: SharesRequest): SharesPart {
  const { values, resolution } = sample;
  const n = values.length;
  const { mean, sd, skewness } = describe(values, resolution);
  const curve = fittedCurve(sample, asked.curve);
  const d = curve && 'family' in curve ? distribution(familyByName(curve.family), curve.parameters) : null;
  const limits: { times: number | null; lower: number | null; upper: number | null }[] =
    asked.of !== 'sd'
      ? [{ times: null, lower: asked.lower ?? null, upper: asked.upper ?? null }]
      : sd === null || sd === 0
        ? []
        : [1, 2, 3].map((times) => ({ times, lower: mean - times * sd, upper: mean + times * sd }));
  const test = skewness.moment === null ? null : skewnessTest(skewness.moment, n);
  return {
    mean,
    sd,
    curve,
    leaning: test !== null && test.pValue < asked.alpha,
    stretches: limits.map((limit) => {
      const counts = countsWithin(values, limit.lower, limit.upper);
      return {
        ...limit,
        ...counts,
        share: counts.inside / n,
        interval: clopperPearson(counts.inside, n, asked.confidence),
        expected: d && expectedWithin(d, limit, resolution),
      };
    }),
  };
}

/** The share expected between limits; of one value alone, as often as readings are recorded as it. Null where it has no step to be recorded in. */
function expectedWithin(
  d: Distribution,
  { lower, upper }: Pick<Stretch, 'lower' | 'upper'>,
  resolution: number | null,
): number | null {
  if (lower === null || lower !== upper) return intervalProbability(d, lower ?? -Infinity, upper ?? Infinity);
  return resolution && intervalProbability(d, lower - resolution / 2, upper + resolution / 2);
}

/** "from 7.90 to 8.15 mm", "at or above 7.90 mm", "within mean ± 1 SD". */
export function stretchWords({ times, lower, upper }: Stretch, resolution: number | null, unit: string): string {
  if (times !== null) return `within mean ± ${times} SD`;
  const of = unit ? `\u00a0${unit}` : '';
  const figure = (value: number) => formatFigure(value, 'reading', resolution);
  // Limits finer than the readings are said in full.
  const exact = (value: number) =>
    Number(figure(value).replace('\u2212', '-')) === value ? figure(value) : formatValue(value);
  if (lower === null) return `at or below ${exact(upper!)}${of}`;
  if (upper === null) return `at or above ${exact(lower)}${of}`;
  return lower === upper ? `at ${exact(lower)}${of}` : `from ${exact(lower)} to ${exact(upper)}${of}`;
}

function notesFor({ parts, of }: Pick<SharesResult, 'parts' | 'of'>, asked: SharesRequest, grouped: boolean): Note[] {
  const notes = confidenceNote(asked.confidence);
  if (of === 'sd') {
    const leaning = parts.filter((part) => part.leaning).map(({ name }) => name);
    if (leaning.length > 0) {
      const which = grouped ? ` (${leaning.join(', ')})` : '';
      const text = `The comparison with a normal distribution may mislead, because the readings are skewed${which}. Compare with a skewed distribution instead.`;
      notes.push({ code: 'lopsided', text });
    }
    const still = parts.filter((part) => part.stretches.length === 0).map(({ name }) => name);
    if (still.length > 0) {
      notes.push({
        code: 'no-spread',
        text: `All readings are equal, so there is no standard deviation: ${still.join(', ')}.`,
      });
    }
  }
  return notes;
}

/** Proportions of readings within limits, beside what a distribution predicts (STATISTICS section 1). */
export const sharesAnalysis = defineAnalysis<SharesRequest, SharesResult>({
  id: 'shares',
  version: 2,
  name: 'Proportions within limits',
  title: 'observed and expected proportions of readings within limits, or within mean ± 1, 2, 3 SD',
  request,
  method: [
    'Proportion of ',
    { subject: true },
    ' within ',
    of.field,
    { text: ', from ', hideWhen: { field: 'of', is: 'sd' } },
    {
      field: 'lower',
      label: 'lower limit',
      type: 'number',
      empty: 'no lower limit',
      hideWhen: { field: 'of', is: 'sd' },
    },
    { text: ' to ', hideWhen: { field: 'of', is: 'sd' } },
    {
      field: 'upper',
      label: 'upper limit',
      type: 'number',
      empty: 'no upper limit',
      hideWhen: { field: 'of', is: 'sd' },
    },
    ', compared with ',
    curve.field,
    ', confidence intervals at ',
    ofShares.field,
    '.',
  ],
  subject: subjectWords,
  resolve: (settings) => settings,
  *run(asked, sample) {
    const found = pictured(
      sample,
      { axis: 'readings' },
      () => null,
      (part) => shareOf(part, asked),
    );
    if (isUnavailable(found)) return found;
    const { picture } = found;
    const result = { ...picture, of: asked.of, confidence: asked.confidence };
    const notes = [...notesFor(result, asked, picture.grouped), ...curveNotes(picture.parts, picture.grouped)];
    return { ...result, notes: [...picture.notes, ...notes] };
  },
  finding: ({ parts, resolution, unit, grouped }): Piece[] =>
    parts.slice(0, 3).flatMap(({ name, n, stretches, curve }, i) => {
      const [first] = stretches;
      if (!first) return [];
      if (n === 2 && first.times !== null)
        return [
          {
            text: `${grouped ? `${name}: ` : ''}With two readings this count is not informative: both always lie within one SD of their mean.`,
          },
        ];
      const expected =
        first.expected === null || !curve || !('family' in curve)
          ? ''
          : `; the fitted ${familyByName(curve.family).title} distribution predicts ${formatPercentOf(first.expected, undefined, 3)}`;
      const found = `${groupThousands(first.inside)} of ${groupThousands(n)} (${formatPercentOf(first.share, undefined, 3)})`;
      return [
        { text: `${i > 0 ? ' ' : ''}${grouped ? `${name}: ` : ''}` },
        { text: found, strong: true, code: 'figure' },
        { text: ` ${first.inside === 1 ? 'lies' : 'lie'} ${stretchWords(first, resolution, unit)}${expected}.` },
      ];
    }),
});
