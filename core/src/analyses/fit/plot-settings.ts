import { z } from 'zod';
import type { PositionRule } from '../../probability-plot/positions.js';
import type { SentencePart } from '../../road/analysis.js';
import { groupSettings } from '../../road/groups.js';
import { anyConfidence, choice, replicates as replicatesOf, seed as seedOf } from '../../road/setting.js';
import { alphaSetting, columnSetting } from '../../road/settings.js';
import { withParametersRead } from '../../road/family-parameters.js';
import { FAMILY_PARTS, familyShape } from './family-settings.js';

const positions = choice(
  'positions',
  'plotting positions',
  [
    { value: 'midpoint', text: 'midpoint positions' },
    { value: 'blom', text: 'Blom positions' },
    { value: 'benard', text: 'Benard positions' },
    { value: 'weibull', text: 'Weibull positions' },
    { value: 'median-rank', text: 'exact median ranks' },
  ] satisfies { value: PositionRule; text: string }[],
  'midpoint',
);
const line = choice(
  'line',
  'line',
  [
    { value: 'fit', text: 'the line of the fitted distribution' },
    { value: 'quartiles', text: 'a line through the quartiles' },
    { value: 'least-squares', text: 'a line by least squares' },
  ],
  'fit',
);
const axis = choice(
  'axis',
  'axis',
  [
    { value: 'percent', text: 'percentages' },
    { value: 'score', text: 'scores' },
    { value: 'quantiles', text: 'expected values' },
    { value: 'difference', text: 'differences from expected values' },
  ],
  'percent',
);
const sides = choice(
  'sides',
  'sides',
  [
    { value: 'readings-across', text: 'readings on the horizontal axis' },
    { value: 'readings-up', text: 'readings on the vertical axis' },
  ],
  'readings-across',
);
const band = choice(
  'band',
  'band',
  [
    { value: 'whole-plot', text: 'a simultaneous band' },
    { value: 'pointwise', text: 'a pointwise band' },
    { value: 'line', text: 'a confidence band of the line' },
    { value: 'none', text: 'no band' },
  ],
  'whole-plot',
);
const together = choice(
  'together',
  'layout of the groups',
  [
    { value: 'one', text: 'one plot' },
    { value: 'apart', text: 'separate plots' },
  ],
  'one',
);
const ofBand = anyConfidence('confidence level of the band');
const replicates = replicatesOf('number of simulated samples for the band');
const seed = seedOf('seed of the band');
const limit = z.number('A limit must be a number.').optional();

export const plotRequest = z
  .strictObject({
    column: columnSetting,
    ...groupSettings,
    /** Several series in one plot, or a plot each on common axes. */
    together: together.schema,
    /** At which patterns are said to be no chance. */
    alpha: alphaSetting,
    ...familyShape,
    positions: positions.schema,
    line: line.schema,
    axis: axis.schema,
    sides: sides.schema,
    band: band.schema,
    confidence: ofBand.schema,
    replicates: replicates.schema,
    seed: seed.schema,
    /** Those of the column: drawn, and the share outside them told. */
    lowerLimit: limit,
    target: limit,
    upperLimit: limit,
  })
  .transform(withParametersRead);
export type PlotRequest = z.infer<typeof plotRequest>;
export type PlotAxis = PlotRequest['axis'];
export type PlotLine = PlotRequest['line'];
export type PlotBand = PlotRequest['band'];
export type Sides = PlotRequest['sides'];

const NO_BAND = { field: 'band', is: 'none' } as const;
const SIMULATED = { field: 'band', is: 'whole-plot' } as const;

/** Of several series only: a split column, or columns side by side. */
const WHERE: readonly SentencePart[] = ['split', 'beside'].flatMap((field): SentencePart[] => [
  { text: ', ', hideWhen: { field, is: 'undefined' } },
  { ...together.field, hideWhen: { field, is: 'undefined' } },
]);

/** The method of the plot as a sentence. */
export const plotSentence: readonly SentencePart[] = [
  'Probability plot of ',
  { subject: true },
  ...WHERE,
  ', ',
  positions.field,
  ', scale of the ',
  ...FAMILY_PARTS,
  ', axis: ',
  axis.field,
  ', ',
  sides.field,
  ', with ',
  line.field,
  ' and ',
  band.field,
  { text: ', ', hideWhen: NO_BAND },
  { ...ofBand.field, hideWhen: NO_BAND },
  { text: ', from ', showWhen: SIMULATED },
  { ...replicates.field, showWhen: SIMULATED },
  { text: ' simulated samples, seed ', showWhen: SIMULATED },
  { ...seed.field, showWhen: SIMULATED },
  '.',
];
