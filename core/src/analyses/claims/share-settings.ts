import { z } from 'zod';
import type { Sample } from '../../readings/sample.js';
import type { Condition, SentencePart } from '../../road/analysis.js';
import { choice, number, share } from '../../road/setting.js';

/** Of what the share is. */
export const shareOf = choice(
  'of',
  'what is counted',
  [
    { value: 'outside', text: 'outside the limits' },
    { value: 'within', text: 'within the limits' },
    { value: 'below', text: 'below the lower limit' },
    { value: 'above', text: 'above the upper limit' },
    { value: 'level', text: 'among all labels' },
    { value: 'counts', text: 'of the trials' },
    { value: 'typed', text: 'as typed' },
  ],
  'outside',
);
export const lower = number('lower', 'lower limit', {}, 'none');
export const upper = number('upper', 'upper limit', {}, 'none');
export const trials = number('trials', 'trials of each count', { from: 1, to: 1e9 }, 'enter a value');
const LEVEL = 'Choose a label.';
export const level = z.string(LEVEL).min(1, LEVEL).max(1_000, LEVEL).optional();
export const claimedShare = share('claimed', 'claimed proportion', { min: 0, max: 1 }, 'enter a value');
export const noticeableShare = share(
  'noticeable',
  'smallest difference of interest',
  { min: 0.000001, max: 1 },
  'not set',
);

export const shareBasis = {
  of: shareOf.schema,
  lower: lower.schema,
  upper: upper.schema,
  level,
  trials: trials.schema,
};

const BOTH: Condition = { field: 'of', is: ['outside', 'within'] };
const LOWER: Condition = { field: 'of', is: ['outside', 'within', 'below'] };
const UPPER: Condition = { field: 'of', is: ['outside', 'within', 'above'] };
const TRIALS: Condition = { field: 'of', is: 'counts' };

/** "outside the limits (lower: 7.7, upper: 8.3)". */
export const SHARE_PARTS: readonly SentencePart[] = [
  shareOf.field,
  { text: ' (lower: ', showWhen: BOTH },
  { text: ' ', showWhen: { field: 'of', is: 'below' } },
  { ...lower.field, showWhen: LOWER },
  { text: ', upper: ', showWhen: BOTH },
  { text: ' ', showWhen: { field: 'of', is: 'above' } },
  { ...upper.field, showWhen: UPPER },
  { text: ')', showWhen: BOTH },
  { text: ', ', showWhen: TRIALS },
  { ...trials.field, showWhen: TRIALS },
  { text: ' each', showWhen: TRIALS },
];

/** What is counted follows from what there is: of labels a level, of typed figures these. */
export function ofResolved<Of extends string>(
  { of, figures }: { of: Of; figures?: unknown },
  { levels }: Pick<Sample, 'levels'>,
): Of | 'level' | 'typed' {
  if (figures !== undefined) return 'typed';
  return levels ? 'level' : of;
}
