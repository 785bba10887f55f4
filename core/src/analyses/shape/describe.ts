import { z } from 'zod';
import { boxOf } from '../../describe/box.js';
import { describeWorked } from '../../describe/describe.js';
import { driftOf } from '../../describe/drift.js';
import { widestGap } from '../../describe/gap.js';
import { farthestMultiple, shareBeyond } from '../../describe/fence-multiples.js';
import { quartilesOfSorted, type QuantileType } from '../../describe/quantiles.js';
import { worked } from '../../describe/working-unit.js';
import { kurtosisTest } from '../../goodness-of-fit/normality/kurtosis.js';
import { skewnessTest } from '../../goodness-of-fit/normality/skewness.js';
import { ordered } from '../../numeric/ordered.js';
import { formatPercent } from '../../numeric/format.js';
import { plural } from '../../numeric/grammar.js';
import type { Sample } from '../../readings/sample.js';
import { defineAnalysis, type Note } from '../../road/analysis.js';
import { claimsOf, isTooCoarse } from './describe-claims.js';
import type { Described, DescribeResult, Farthest } from './describe-result.js';
import { confidenceNote, levelNote, unavailable, unreadableNotes, whyEmpty } from '../../road/cautions.js';
import { anyConfidence } from '../../road/setting.js';
import { beyondNote, withBeyond } from './with-beyond.js';
import { describeFinding } from './describe-words.js';
import { quartiles } from './quartiles-setting.js';
import { groupSettings, partsOf, subjectWords } from '../../road/groups.js';
import { alphaSetting, columnSetting, decimalsSetting } from '../../road/settings.js';

const MOST_PERCENTILES = 12;
const ofIntervals = anyConfidence('confidence level of the intervals');

const request = z.strictObject({
  column: columnSetting,
  ...groupSettings,
  alpha: alphaSetting,
  confidence: ofIntervals.schema,
  quantileType: quartiles.schema,
  percentiles: z
    .array(
      z
        .number('A percentile must be a number from 0 to 100.')
        .min(0, 'A percentile must lie between 0 and 100; 25 is the lower quartile.')
        .max(100, 'A percentile must lie between 0 and 100; 25 is the lower quartile.'),
    )
    .max(MOST_PERCENTILES, `At most ${MOST_PERCENTILES} percentiles.`)
    .default([]),
  decimals: decimalsSetting,
});
export type DescribeRequest = z.infer<typeof request>;

const MOST_OUTSIDE = 20;

/** One column or group, not empty. */
function described(sample: Sample, options: DescribeRequest): Described {
  const { name, unit, resolution, missing, setAside } = sample;
  const work = worked(sample.values, resolution);
  const order = ordered(work.values);
  const beyond = withBeyond(sample);
  const figures = describeWorked(work, order.sorted, options);
  const { n, skewness, kurtosis, sd } = figures;
  // In the working unit, like the readings they are asked of.
  const scale = work.back(1);
  const gap = sd === null ? null : widestGap(order.sorted, figures.mean / scale, sd / scale, (resolution ?? 0) / scale);
  const quartiles = quartilesOfSorted(order.sorted, options.quantileType);
  const box = boxOf(order, sample.rows, quartiles, 'fences');
  const coarse = isTooCoarse({ resolution, sd });
  const odd = {
    skewnessTest: skewness.moment === null || coarse ? null : skewnessTest(skewness.moment, n),
    kurtosisTest: kurtosis.moment === null || coarse ? null : kurtosisTest(kurtosis.moment, n),
    drift: sample.tallied ? null : driftOf(order),
    gap: gap && { ...gap, from: work.back(gap.from), to: work.back(gap.to) },
    farthest: farthestOf(order.sorted, quartiles, (resolution ?? 0) / scale, options.quantileType),
  };
  return {
    ...figures,
    ...{ name, unit, resolution, missing, setAside, decimals: options.decimals ?? null, alpha: options.alpha },
    ...odd,
    outside: box.outside.slice(0, MOST_OUTSIDE).map((one) => ({ ...one, value: work.back(one.value) })),
    outsideCount: box.outsideCount,
    farCount: box.farCount,
    claims: claimsOf([odd], options.alpha)[0]!,
    ...(beyond ? { withBeyond: beyond } : {}),
  };
}

function farthestOf(
  sorted: Float64Array,
  [q1, q3]: readonly [number, number],
  step: number,
  type: QuantileType,
): Farthest | null {
  const multiple = farthestMultiple(sorted, [q1, q3], step);
  const pValue = shareBeyond(multiple, sorted.length, type);
  const fenceShare = shareBeyond(1.5, sorted.length, type);
  return q3 > q1 && pValue !== null && fenceShare !== null ? { multiple, pValue, fenceShare } : null;
}

const beyondNotes = (parts: readonly Described[], isPart: boolean): Note[] =>
  parts.flatMap((part) => (part.withBeyond ? [beyondNote(part, part.withBeyond, isPart)] : []));

function notesFor(sample: Sample, { n, sd, distinct, medianInterval }: Described, asked: DescribeRequest): Note[] {
  const notes = [...unreadableNotes(sample), ...confidenceNote(asked.confidence), ...levelNote(asked.alpha)];
  for (const percent of asked.percentiles.filter((p) => p > 0 && p < 1)) {
    const meant = Number((percent * 100).toPrecision(10));
    const text = `The percentile ${percent} may be a mistake: it is read as ${percent}\u00a0%. For ${meant}\u00a0%, enter ${meant}.`;
    notes.push({ code: 'percentile-below-1', text });
  }
  if (n === 1)
    notes.push({
      code: 'one-reading',
      text: 'Standard deviation and shape cannot be calculated from a single reading.',
    });
  else if (distinct === 1 || sd === 0)
    notes.push({ code: 'no-spread', text: 'All readings are equal, so the shape cannot be calculated.' });
  else if (medianInterval && medianInterval.coverage < asked.confidence) {
    const text = `The interval of the median does not reach ${formatPercent(asked.confidence)}: with ${plural(n, 'reading')}, minimum to maximum covers the median with ${formatPercent(medianInterval.coverage, 3)} confidence.`;
    notes.push({ code: 'median-coverage', text });
  }
  return notes;
}

/** Centre, spread, order and shape of a column, as a whole and by group (STATISTICS section 1). */
export const describeAnalysis = defineAnalysis<DescribeRequest, DescribeResult>({
  id: 'describe',
  version: 7,
  name: 'Description',
  title: 'centre, spread, order and shape of a column, with intervals',
  request,
  method: [
    'Describe ',
    { subject: true },
    ', quartiles by ',
    quartiles.field,
    ', additional percentiles: ',
    { field: 'percentiles', label: 'additional percentiles', type: 'numbers', min: 0, max: 100, empty: 'none' },
    ', confidence intervals at ',
    ofIntervals.field,
    ', figures with ',
    {
      field: 'decimals',
      label: 'decimal places of the figures',
      type: 'number',
      from: 0,
      to: 12,
      whole: true,
      empty: 'the usual',
    },
    ' decimal places.',
  ],
  subject: subjectWords,
  resolve: (settings) => settings,
  *run(asked, sample) {
    if (sample.values.length === 0) return unavailable(sample, whyEmpty(sample));
    const whole = described(sample, asked);
    const { by, parts, notes } = partsOf(sample);
    const groups = sample.groups ? parts.map((part) => described(part, asked)) : null;
    const claims = claimsOf(groups ?? [], asked.alpha);
    return {
      available: true,
      ...whole,
      by,
      groups: groups && groups.map((group, i) => ({ ...group, claims: claims[i]! })),
      notes: [...beyondNotes(groups ?? [whole], groups !== null), ...notesFor(sample, whole, asked), ...notes],
    };
  },
  finding: describeFinding,
});
