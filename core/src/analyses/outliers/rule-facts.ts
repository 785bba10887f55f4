import { sentenceCase } from '../../numeric/grammar.js';
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
      'The distance of the most extreme reading from the mean, in SDs. A second outlier can mask the first, because both increase the SD.',
    formula: 'G = |x − mean| / SD for the most extreme reading (Grubbs 1950; Grubbs & Beck 1972)',
  },
  'pair-same-end': {
    ...{
      title: 'Grubbs’ test for two on the same side',
      short: 'Grubbs, two on the same side',
      symbol: 'S² ratio',
      test: 'grubbs-pair',
    },
    ...{ leastN: PAIR_LEAST_N, statistic: 'pair-same-end' },
    meaning:
      'The sum of squares without the two most extreme readings on one side, divided by that of all. Small if both are outliers.',
    formula: 'S²(without the two) / S² (Grubbs 1969)',
  },
  'pair-both-ends': {
    ...{
      title: 'Grubbs’ test for one on each side',
      short: 'Grubbs, one on each side',
      symbol: 'range / SD',
      test: 'grubbs-pair',
    },
    ...{ leastN: PAIR_LEAST_N, statistic: 'pair-both-ends' },
    meaning: 'The range in SDs. Large if minimum and maximum are both outliers.',
    formula: '(maximum − minimum) / SD (David, Hartley & Pearson 1954; Grubbs 1969)',
  },
  dixon: {
    ...{ title: 'Dixon’s test', short: 'Dixon', symbol: 'r', test: 'dixon', leastN: DIXON_LEAST_N },
    statistic: 'dixon',
    meaning: `The gap between the most extreme reading and its neighbours, divided by the range. For up to ${DIXON_GREATEST_N} readings.`,
    formula: 'r10 for 3 to 7 readings, r11 for 8 to 10, r21 for 11 to 13, r22 for 14 to 30 (Dixon 1953)',
  },
  'generalized-esd': {
    ...{ title: 'the generalised ESD test', short: 'generalised ESD', symbol: 'R', test: 'generalized-esd' },
    ...{ leastN: ESD_LEAST_N, statistic: 'generalized-esd' },
    meaning:
      'Grubbs’ statistic for the most extreme reading, then for the most extreme of the others, and so on. It avoids masking.',
    formula: 'R = |x − mean| / SD of the remaining readings, with a critical value for every step (Rosner 1983)',
  },
  'modified-z': {
    ...{
      title: `modified z above ${MODIFIED_Z_LIMIT}`,
      short: `modified z > ${MODIFIED_Z_LIMIT}`,
      symbol: 'modified z',
    },
    ...{ test: 'modified-z', leastN: 3, statistic: 'modified-z' },
    meaning:
      'A rule of thumb: the distance from the median, in median absolute deviations, which outliers hardly change.',
    formula: '0.6745·(x − median) / MAD (Iglewicz & Hoaglin 1993)',
  },
  fences: {
    ...{ title: 'the box-plot fences', short: 'box-plot fences', symbol: 'IQR', test: 'fences', leastN: 3 },
    statistic: 'fences',
    meaning: 'A rule of thumb: more than 1.5 IQR beyond a quartile.',
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
      'A rule of thumb: more than 3 SD from the mean. Small samples cannot contain such a reading; large samples always do.',
    formula: 'z = (x − mean) / SD; at most (n − 1)/√n',
  },
};

/** Why a rule is not available for this number of readings and side, or null. */
export function whyNoRule(rule: Rule, n: number, side: Side): string | null {
  const { leastN, title } = RULE_FACTS[rule];
  if (rule === 'pair-both-ends' && side !== 'either') return 'This test needs both sides. Choose both sides.';
  if (rule === 'dixon' && n > DIXON_GREATEST_N) {
    return `Dixon’s test takes at most ${DIXON_GREATEST_N} readings; here there are ${n}.`;
  }
  if (n < leastN) return `${sentenceCase(title)} needs at least ${leastN} readings.`;
  return null;
}

export const ruleSetting = choice(
  'rule',
  'outlier rule of the study',
  RULES.map((value) => ({ value, text: RULE_FACTS[value].title })),
  'generalized-esd',
);
export const sideSetting = choice(
  'side',
  'side',
  [
    { value: 'either', text: 'on both sides' },
    { value: 'upper', text: 'on the upper side' },
    { value: 'lower', text: 'on the lower side' },
  ],
  'either',
);
export const SIDE_WORDS: Record<Side, string> = {
  either: 'both sides',
  upper: 'upper side only',
  lower: 'lower side only',
};
