import { z } from 'zod';
import { binsOf, countsIn, MOST_BINS, otherBins, type BinRequest, type BinRule } from '../../describe/histogram.js';
import { formatValue, groupThousands } from '../../numeric/format.js';
import { plural } from '../../numeric/grammar.js';
import { defineAnalysis, isUnavailable } from '../../road/analysis.js';
import { groupSettings, subjectWords } from '../../road/groups.js';
import { choice, whole } from '../../road/setting.js';
import {
  curveChoice,
  curveNotes,
  fittedCurve,
  pictured,
  type FittedCurve,
  type Picture,
  pictureSettings,
  AXIS_PARTS,
} from './picture.js';
import { columnSetting } from '../../road/settings.js';

const rule = choice(
  'rule',
  'rule for the bins',
  [
    { value: 'suited', text: 'automatic' },
    { value: 'power-of-two', text: 'smallest k with 2^k ≥ n' },
    { value: 'sturges', text: 'log₂ n + 1 (Sturges)' },
    { value: 'scott', text: 'from the standard deviation (Scott)' },
    { value: 'freedman-diaconis', text: 'from the interquartile range (Freedman–Diaconis)' },
    { value: 'count', text: 'chosen number of bins' },
    { value: 'width', text: 'chosen bin width' },
  ] satisfies { value: BinRule; text: string }[],
  'suited',
);
const count = whole('count', 'number of bins', { min: 1, max: MOST_BINS }, 10, 'The number of bins');
const rounding = choice(
  'rounding',
  'rounding of the bin width',
  [
    { value: 'as-it-comes', text: 'not rounded' },
    { value: 'round', text: 'rounded up' },
  ],
  'as-it-comes',
);
const scale = choice(
  'scale',
  'scale',
  [
    { value: 'count', text: 'counts' },
    { value: 'share', text: 'proportions' },
    { value: 'density', text: 'densities' },
  ],
  'count',
);
const curve = curveChoice('fitted distribution', 'none');

const request = z.strictObject({
  column: columnSetting,
  ...groupSettings,
  rule: rule.schema,
  count: count.schema,
  width: z.number('The bin width must be a number.').positive('The bin width must be above 0.').optional(),
  start: z.number('The start of the bins must be a number.').optional(),
  rounding: rounding.schema,
  scale: scale.schema,
  curve: curve.schema,
  ...pictureSettings,
});
export type HistogramRequest = z.infer<typeof request>;
type HistogramScale = HistogramRequest['scale'];

export interface HistogramPart {
  counts: number[];
  curve: FittedCurve;
}

export interface HistogramResult extends Picture<HistogramPart> {
  edges: number[];
  rule: BinRule;
  width: number;
  scale: HistogramScale;
  /** The same readings in three other binnings. */
  others: { words: string; edges: number[]; counts: number[] }[];
}

const OWN_COUNT = { field: 'rule', is: 'count' } as const;
const OWN_WIDTH = { field: 'rule', is: 'width' } as const;

/** Readings counted in bins, with three alternative binnings (STATISTICS section 2). */
export const histogramAnalysis = defineAnalysis<HistogramRequest, HistogramResult>({
  id: 'histogram',
  version: 3,
  name: 'Histogram',
  title: 'readings counted in bins, with three alternative binnings',
  request,
  method: [
    'Histogram of ',
    { subject: true },
    ', bins: ',
    rule.field,
    { text: ', ', showWhen: OWN_COUNT },
    { ...count.field, showWhen: OWN_COUNT },
    { text: ', bin width ', hideWhen: OWN_WIDTH },
    { text: ', ', showWhen: OWN_WIDTH },
    { field: 'width', label: 'bin width', type: 'number', above: 0, empty: 'from the rule' },
    ', ',
    rounding.field,
    ', starting at ',
    { field: 'start', label: 'start of the bins', type: 'number', empty: 'the minimum' },
    ', shown as ',
    scale.field,
    ', with ',
    curve.field,
    ...AXIS_PARTS,
  ],
  subject: subjectWords,
  resolve: (settings) => settings,
  *run(asked, sample) {
    const bins: BinRequest = {
      ...{ rule: asked.rule, count: asked.count, width: asked.width, start: asked.start },
      roundUp: asked.rounding === 'round',
    };
    const found = pictured(
      sample,
      asked,
      (values, resolution) => binsOf(values, resolution, bins),
      (part, { edges }): HistogramPart => ({
        counts: Array.from(countsIn(part.values, edges)),
        curve: fittedCurve(part, asked.curve),
      }),
    );
    if (isUnavailable(found)) return found;
    const { picture, shared, shown } = found;
    return {
      ...picture,
      edges: Array.from(shared.edges),
      rule: asked.rule,
      width: shared.width,
      scale: asked.scale,
      others: otherBins(shown, picture.resolution, shared).map(({ words, bins: other }) => ({
        words,
        edges: Array.from(other.edges),
        counts: Array.from(countsIn(shown, other.edges)),
      })),
      notes: [...picture.notes, ...shared.notes, ...curveNotes(picture.parts, picture.grouped)],
    };
  },
  finding: ({ n, edges, width, unit, parts, grouped }) => {
    const of = unit ? `\u00a0${unit}` : '';
    const bins = edges.length - 1;
    const cut = `${plural(bins, 'bin')} of width ${formatValue(width)}${of} from ${formatValue(edges[0]!)}`;
    if (grouped) return [{ text: `${plural(n, 'reading')} in ${plural(parts.length, 'group')}, common bins: ${cut}.` }];
    const { counts } = parts[0]!;
    const most = counts.reduce((a, b) => Math.max(a, b), 0);
    const at = counts.indexOf(most);
    const fullest = `${formatValue(edges[at]!)} to ${formatValue(edges[at + 1]!)}${of}`;
    return [
      { text: `${plural(n, 'reading')} in ${cut}. The bin with the most readings is ` },
      { text: fullest, strong: true, code: 'figure' },
      { text: ` (${groupThousands(most)}).` },
    ];
  },
});
