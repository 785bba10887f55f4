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
    { value: 'fit', text: 'the line of the distribution' },
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
    { value: 'quantiles', text: 'what is expected' },
    { value: 'difference', text: 'what is expected, as differences' },
  ],
  'percent',
);
const sides = choice(
  'sides',
  'sides',
  [
    { value: 'readings-across', text: 'readings across' },
    { value: 'readings-up', text: 'readings upwards' },
  ],
  'readings-across',
);
const band = choice(
  'band',
  'band',
  [
    { value: 'whole-plot', text: 'a whole-plot band' },
    { value: 'pointwise', text: 'a band for each reading alone' },
    { value: 'line', text: 'a band on the line' },
    { value: 'none', text: 'no band' },
  ],
  'whole-plot',
);
const together = choice(
  'together',
  'where the series stand',
  [
    { value: 'one', text: 'in one plot' },
    { value: 'apart', text: 'in a plot each' },
  ],
  'one',
);
const ofBand = anyConfidence('confidence of the band');
const replicates = replicatesOf('replicates for the band');
const seed = seedOf('seed of the band');
const limit = z.number('A limit is a number.').optional();

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
  { text: ' ', hideWhen: { field, is: 'undefined' } },
  { ...together.field, hideWhen: { field, is: 'undefined' } },
]);

/** The method of the plot as a sentence. */
export const plotSentence: readonly SentencePart[] = [
  'Plot ',
  { subject: true },
  ...WHERE,
  ' at ',
  positions.field,
  ' on the scale of the ',
  ...FAMILY_PARTS,
  ', against ',
  axis.field,
  ', ',
  sides.field,
  ', with ',
  line.field,
  ' and ',
  band.field,
  { text: ' at ', hideWhen: NO_BAND },
  { ...ofBand.field, hideWhen: NO_BAND },
  { text: ', from ', showWhen: SIMULATED },
  { ...replicates.field, showWhen: SIMULATED },
  { text: ' replicates, seed ', showWhen: SIMULATED },
  { ...seed.field, showWhen: SIMULATED },
  '.',
];
