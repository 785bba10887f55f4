import { z } from 'zod';
import { binsOf, countsIn, MOST_BINS, otherBins, type BinRequest, type BinRule } from '../../describe/histogram.js';
import { formatValue, groupThousands } from '../../numeric/format.js';
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
    { value: 'suited', text: 'single values, or 2^k ≥ n' },
    { value: 'power-of-two', text: 'the least k with 2^k ≥ n' },
    { value: 'sturges', text: 'one more than log₂ n (Sturges)' },
    { value: 'scott', text: 'by the sd (Scott)' },
    { value: 'freedman-diaconis', text: 'by the quartiles (Freedman, Diaconis)' },
    { value: 'count', text: 'a number of my own' },
    { value: 'width', text: 'a width of my own' },
  ] satisfies { value: BinRule; text: string }[],
  'suited',
);
const count = whole('count', 'number of bins', { min: 1, max: MOST_BINS }, 10, 'The number of bins');
const rounding = choice(
  'rounding',
  'rounding of the width',
  [
    { value: 'as-it-comes', text: 'not rounded' },
    { value: 'round', text: 'rounded up to a round width' },
  ],
  'as-it-comes',
);
const scale = choice(
  'scale',
  'scale',
  [
    { value: 'count', text: 'counts' },
    { value: 'share', text: 'shares' },
    { value: 'density', text: 'densities' },
  ],
  'count',
);
const curve = curveChoice('curve', 'none');

const request = z.strictObject({
  column: columnSetting,
  ...groupSettings,
  rule: rule.schema,
  count: count.schema,
  width: z.number('The width is a number.').positive('The width of a bin is a number above 0.').optional(),
  start: z.number('The start is a number.').optional(),
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
/** Of a width that is left to the rule, as a kept request has it. */
const NO_WIDTH = { field: 'width', is: 'undefined' } as const;

/** Readings counted in bins, with three other binnings beside (STATISTICS section 2). */
export const histogramAnalysis = defineAnalysis<HistogramRequest, HistogramResult>({
  id: 'histogram',
  version: 3,
  name: 'Histogram',
  title: 'readings counted in bins, with three other binnings beside',
  request,
  method: [
    'Count ',
    { subject: true },
    ' in bins: ',
    rule.field,
    { text: ', ', showWhen: OWN_COUNT },
    { ...count.field, showWhen: OWN_COUNT },
    ', ',
    { field: 'width', label: 'width of a bin', type: 'number', above: 0, empty: 'as wide as that makes them' },
    { text: ' wide', hideWhen: NO_WIDTH },
    ', ',
    rounding.field,
    ', from ',
    { field: 'start', label: 'start of the bins', type: 'number', empty: 'the least reading' },
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
    const cut = `${bins} ${bins === 1 ? 'bin' : 'bins'} of ${formatValue(width)}${of} from ${formatValue(edges[0]!)}`;
    if (grouped) return [{ text: `${groupThousands(n)} readings in ${parts.length} parts over common bins: ${cut}.` }];
    const { counts } = parts[0]!;
    const most = counts.reduce((a, b) => Math.max(a, b), 0);
    const at = counts.indexOf(most);
    const fullest = `${formatValue(edges[at]!)} to ${formatValue(edges[at + 1]!)}${of}`;
    return [
      { text: `${groupThousands(n)} readings in ${cut}; the fullest, ` },
      { text: fullest, strong: true, code: 'figure' },
      { text: `, holds ${groupThousands(most)}.` },
    ];
  },
});
