import { z } from 'zod';
import { NORMALITY_TESTS } from '../../goodness-of-fit/normality/battery.js';
import type { SentencePart } from '../../road/analysis.js';
import { groupSettings } from '../../road/groups.js';
import { choice, replicates as replicatesOf, seed as seedOf } from '../../road/setting.js';
import { alphaSetting, columnSetting } from '../../road/settings.js';
import { testFacts } from './normality-tests.js';

const test = choice(
  'test',
  'test of normality',
  NORMALITY_TESTS.map((value) => ({ value, text: testFacts(value, 0).name })),
  'anderson-darling',
);
const replicates = replicatesOf('number of simulated samples for the test');
const seed = seedOf('seed of the test');

export const normalityRequest = z.strictObject({
  column: columnSetting,
  ...groupSettings,
  test: test.schema,
  alpha: alphaSetting,
  replicates: replicates.schema,
  seed: seed.schema,
});
export type NormalityRequest = z.infer<typeof normalityRequest>;

/** The method of the test as a sentence. */
export const normalitySentence: readonly SentencePart[] = [
  'Test ',
  { subject: true },
  ' for normality by ',
  test.field,
  ', mean and standard deviation estimated, p from ',
  replicates.field,
  ' simulated samples, seed ',
  seed.field,
  '.',
];
