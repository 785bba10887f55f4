import { z } from 'zod';
import {
  BIN_RULES,
  binsOf,
  countsIn,
  MOST_BINS,
  otherBins,
  type BinRequest,
  type BinRule,
} from '../../describe/histogram.js';
import { formatValue, groupThousands } from '../../numeric/format.js';
import { defineAnalysis, isUnavailable } from '../../road/analysis.js';
import { groupSettings, subjectWords } from '../../road/groups.js';
import { methodSentence } from '../../road/method-sentence.js';
import {
  CURVE_OPTIONS,
  CURVES,
  curveNotes,
  fittedCurve,
  pictured,
  type FittedCurve,
  type Picture,
  pictureSettings,
  AXIS_PARTS,
} from './picture.js';
import { columnSetting } from '../../road/settings.js';

const request = z.strictObject({
  column: columnSetting,
  ...groupSettings,
  rule: z.enum(BIN_RULES).default('suited'),
  count: z
    .int('The number of bins is whole.')
    .min(1, 'At least 1 bin.')
    .max(MOST_BINS, `At most ${MOST_BINS} bins.`)
    .default(10),
  width: z.number('The width is a number.').positive('The width of a bin is a number above 0.').optional(),
  start: z.number('The start is a number.').optional(),
  rounding: z.enum(['as-it-comes', 'round']).default('as-it-comes'),
  scale: z.enum(['count', 'share', 'density']).default('count'),
  curve: z.enum(CURVES).default('none'),
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

const ruleOptions: readonly { value: BinRule; text: string }[] = [
  { value: 'suited', text: 'single values, or 2^k ≥ n' },
  { value: 'power-of-two', text: 'the least k with 2^k ≥ n' },
  { value: 'sturges', text: 'one more than log₂ n (Sturges)' },
  { value: 'scott', text: 'by the sd (Scott)' },
  { value: 'freedman-diaconis', text: 'by the quartiles (Freedman, Diaconis)' },
  { value: 'count', text: 'a number of my own' },
  { value: 'width', text: 'a width of my own' },
];

const roundings = [
  { value: 'as-it-comes', text: 'as it comes' },
  { value: 'round', text: 'rounded up to a round width' },
];

const scales = [
  { value: 'count', text: 'counts' },
  { value: 'share', text: 'shares' },
  { value: 'density', text: 'densities' },
];

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
    { field: 'rule', label: 'rule for the bins', type: 'choice', options: ruleOptions },
    { text: ', ', showWhen: { field: 'rule', is: 'count' } },
    {
      field: 'count',
      label: 'number of bins',
      type: 'whole',
      min: 1,
      max: MOST_BINS,
      showWhen: { field: 'rule', is: 'count' },
    },
    ', each ',
    { field: 'width', label: 'width of a bin', type: 'number', above: 0, empty: 'its own width' },
    ' wide, ',
    { field: 'rounding', label: 'rounding of the width', type: 'choice', options: roundings },
    ', from ',
    { field: 'start', label: 'start of the bins', type: 'number', empty: 'the least reading' },
    ', shown as ',
    { field: 'scale', label: 'scale', type: 'choice', options: scales },
    ', with ',
    { field: 'curve', label: 'curve', type: 'choice', options: CURVE_OPTIONS },
    ...AXIS_PARTS,
  ],
  subject: subjectWords,
  sentence: (asked) => {
    const rule = ruleOptions.find(({ value }) => value === asked.rule)!.text;
    const own = asked.rule === 'count' ? `: ${asked.count}` : asked.rule === 'width' ? `: ${asked.width ?? ''}` : '';
    const start = asked.start === undefined ? '' : `, starting at ${formatValue(asked.start)}`;
    const round = asked.rounding === 'round' ? ', rounded up to a round width' : '';
    const curve = CURVE_OPTIONS.find(({ value }) => value === asked.curve)!.text;
    return `Count ${subjectWords(asked)} in bins (${rule}${own}${round})${start}, shown as ${scales.find(({ value }) => value === asked.scale)!.text}, with ${curve}${methodSentence(AXIS_PARTS, asked)}`;
  },
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
      { text: fullest, strong: true },
      { text: `, holds ${groupThousands(most)}.` },
    ];
  },
});
