import { DIXON_GREATEST_N, DIXON_LEAST_N } from '../../outliers/dixon.js';
import { ESD_LEAST_N } from '../../outliers/generalized-esd.js';
import { GRUBBS_LEAST_N } from '../../outliers/grubbs.js';
import type { OutlierStatistic } from '../../outliers/distances.js';
import { PAIR_LEAST_N } from '../../outliers/pairs.js';
import { MODIFIED_Z_LIMIT, Z_LIMIT } from '../../outliers/screens.js';
import { RULES, type Rule } from '../../outliers/rules.js';
import type { Side } from '../../outliers/grubbs.js';
import { choice } from '../../road/setting.js';

/** What is said of a rule wherever it stands. */
interface RuleFacts {
  /** In the method sentence and in findings: "by …". */
  title: string;
  /** In a row of a table. */
  short: string;
  /** The name of its statistic. */
  symbol: string;
  /** Under which name its test stands in results (STATISTICS section 6). */
  test: string;
  leastN: number;
  /** What is simulated of clean samples to judge it. */
  statistic: OutlierStatistic;
  meaning: string;
  formula: string;
}

export const RULE_FACTS: Record<Rule, RuleFacts> = {
  grubbs: {
    ...{ title: 'Grubbs’ test', short: 'Grubbs', symbol: 'G', test: 'grubbs', leastN: GRUBBS_LEAST_N },
    statistic: 'grubbs',
    meaning:
      'How many sd the farthest reading lies from the mean. A second far reading hides the first: both widen the sd.',
    formula: 'G = |x − mean| / sd of the farthest (Grubbs 1950; Grubbs & Beck 1972)',
  },
  'pair-same-end': {
    ...{ title: 'Grubbs’ pair at one end', short: 'pair at one end', symbol: 'S² ratio', test: 'grubbs-pair' },
    ...{ leastN: PAIR_LEAST_N, statistic: 'pair-same-end' },
    meaning: 'What is left of the sum of squares without the two farthest at one end; small where both lie far out.',
    formula: 'S²(without the two) / S² (Grubbs 1969)',
  },
  'pair-both-ends': {
    ...{ title: 'one at each end', short: 'one at each end', symbol: 'range / sd', test: 'grubbs-pair' },
    ...{ leastN: PAIR_LEAST_N, statistic: 'pair-both-ends' },
    meaning: 'The range in sd; large where the least and the greatest both lie far out.',
    formula: '(greatest − least) / sd (David, Hartley & Pearson 1954; Grubbs 1969)',
  },
  dixon: {
    ...{ title: 'Dixon’s ratio', short: 'Dixon', symbol: 'r', test: 'dixon', leastN: DIXON_LEAST_N },
    statistic: 'dixon',
    meaning: `The gap between the farthest reading and its neighbours over the range; for up to ${DIXON_GREATEST_N} readings.`,
    formula: 'r10 for 3 to 7 readings, r11 for 8 to 10, r21 for 11 to 13, r22 for 14 to 30 (Dixon 1953)',
  },
  'generalized-esd': {
    ...{ title: 'the generalised ESD', short: 'generalised ESD', symbol: 'R', test: 'generalized-esd' },
    ...{ leastN: ESD_LEAST_N, statistic: 'generalized-esd' },
    meaning:
      'The farthest reading is taken away, the next farthest of the rest, and so on, each in sd of those left: a second one cannot hide behind the first.',
    formula: 'R = |x − mean| / sd of those left, against its own value at every step (Rosner 1983)',
  },
  'modified-z': {
    ...{
      title: `modified z above ${MODIFIED_Z_LIMIT}`,
      short: `modified z > ${MODIFIED_Z_LIMIT}`,
      symbol: 'modified z',
    },
    ...{ test: 'modified-z', leastN: 3, statistic: 'modified-z' },
    meaning:
      'A rule of thumb: how far out by the median and the median distance from it, which far readings hardly move.',
    formula: '0.6745·(x − median) / MAD (Iglewicz & Hoaglin 1993)',
  },
  fences: {
    ...{ title: 'the fences of the box', short: 'fences', symbol: 'quartile ranges', test: 'fences', leastN: 3 },
    statistic: 'fences',
    meaning: 'A rule of thumb: more than 1.5 quartile ranges beyond a quartile.',
    formula: 'quartile ± 1.5·(q3 − q1)',
  },
  'z-score': {
    ...{
      title: `z above ${Z_LIMIT}`,
      short: `z > ${Z_LIMIT}`,
      symbol: 'z',
      test: 'z-score',
      leastN: 3,
      statistic: 'grubbs',
    },
    meaning:
      'A rule of thumb: more than 3 sd from the mean. Small samples cannot have such a reading, large ones always do.',
    formula: 'z = (x − mean) / sd; at most (n − 1)/√n',
  },
};

/** Why a rule says nothing of so many readings on a side, or null. */
export function whyNoRule(rule: Rule, n: number, side: Side): string | null {
  const { leastN, title } = RULE_FACTS[rule];
  if (rule === 'pair-both-ends' && side !== 'either') return 'One at each end has a meaning on either side only.';
  if (rule === 'dixon' && n > DIXON_GREATEST_N) {
    return `Dixon gave no ratio for more than ${DIXON_GREATEST_N} readings: ${n} have more to hide one than the two at the ends.`;
  }
  if (n < leastN) return `${title[0]!.toUpperCase()}${title.slice(1)} needs at least ${leastN} readings.`;
  return null;
}

export const ruleSetting = choice(
  'rule',
  'rule of the study',
  RULES.map((value) => ({ value, text: RULE_FACTS[value].title })),
  'generalized-esd',
);
export const sideSetting = choice(
  'side',
  'side',
  [
    { value: 'either', text: 'on either side' },
    { value: 'upper', text: 'above' },
    { value: 'lower', text: 'below' },
  ],
  'either',
);
export const SIDE_WORDS: Record<Side, string> = {
  either: 'either side',
  upper: 'above only',
  lower: 'below only',
};
