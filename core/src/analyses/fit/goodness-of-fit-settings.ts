import { z } from 'zod';
import type { FittedTest } from '../../goodness-of-fit/fitted/battery.js';
import type { SentencePart } from '../../road/analysis.js';
import { groupSettings } from '../../road/groups.js';
import { choice, replicates as replicatesOf, seed as seedOf } from '../../road/setting.js';
import { alphaSetting, columnSetting } from '../../road/settings.js';
import { withParametersRead } from '../../road/family-parameters.js';
import { FAMILY_PARTS, familyShape } from './family-settings.js';

const test = choice(
  'test',
  'test',
  [
    { value: 'anderson-darling', text: 'Anderson–Darling' },
    { value: 'cramer-von-mises', text: 'Cramér–von Mises' },
    { value: 'kolmogorov-smirnov', text: 'Kolmogorov–Smirnov' },
    { value: 'chi-square', text: 'χ² with equal-probability cells' },
  ] satisfies { value: FittedTest; text: string }[],
  'anderson-darling',
);
const replicates = replicatesOf('number of simulated samples for the test');
const seed = seedOf('seed of the test');

export const fitRequest = z
  .strictObject({
    column: columnSetting,
    ...groupSettings,
    ...familyShape,
    test: test.schema,
    alpha: alphaSetting,
    replicates: replicates.schema,
    seed: seed.schema,
  })
  .transform(withParametersRead);
export type FitTestRequest = z.infer<typeof fitRequest>;

/** The method of the test as a sentence. */
export const fitSentence: readonly SentencePart[] = [
  'Test ',
  { subject: true },
  ' for the ',
  ...FAMILY_PARTS,
  ' by ',
  test.field,
  ', p from ',
  replicates.field,
  ' simulated samples, seed ',
  seed.field,
  '.',
];
