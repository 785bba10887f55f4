import type { ColumnKind } from '../../readings/kind.js';
import {
  STATISTIC_FACTS,
  STATISTIC_IDS,
  type StatisticFacts,
  type StatisticId,
} from '../../road/statistic-settings.js';

/** What the bar says, or what is typed. */
export interface LookedAt {
  /** Null where figures are typed. */
  kind: ColumnKind | null;
  name: string;
  /** How many groups there are, or columns side by side; 1 for one column as a whole. */
  groups: number;
  /** True where the groups are those of a label column. */
  split: boolean;
  /** True where the card of the column has limits, within which readings can be counted. */
  limits: boolean;
}

export type Resampling = 'bootstrap' | 'permutation';
type Why = (looked: LookedAt) => string | null;

const numbers: Why = ({ kind, name }) =>
  kind === null
    ? 'needs readings, not typed counts'
    : kind === 'label'
      ? `${name} holds labels; choose a proportion`
      : null;
const shares: Why = ({ kind, limits, name }) =>
  kind === null || kind === 'label' || limits ? null : `${name} has no limits on its card`;
const alone: Why = ({ groups }) => (groups > 1 ? 'needs one column without a split' : null);
const two: Why = ({ groups }) =>
  groups >= 2 ? null : 'needs two groups: split by a label column, or add a second column';
const several: Why = ({ groups }) => (groups >= 3 ? null : 'needs at least three groups');
const pairs: Why = ({ groups, split }) =>
  groups === 2 && !split ? null : 'needs two columns whose rows belong together: add a second column';
const all =
  (...whys: readonly Why[]): Why =>
  (looked) =>
    whys.reduce<string | null>((found, why) => found ?? why(looked), null);
const twoOrTyped: Why = (looked) => (looked.kind === null && looked.groups === 2 ? null : two(looked));
const never =
  (text: string): Why =>
  () =>
    text;

/** Why a statistic does not suit what is looked at, by what is done. */
const WHYS: Readonly<Record<Resampling, Readonly<Record<StatisticId, Why>>>> = {
  bootstrap: {
    ...{ mean: all(numbers, alone), median: all(numbers, alone), 'trimmed-mean': all(numbers, alone) },
    ...{ percentile: all(numbers, alone), sd: all(numbers, alone), variance: all(numbers, alone) },
    ...{ cv: all(numbers, alone), skewness: all(numbers, alone), share: all(shares, alone) },
    ...{ 'difference-of-means': all(numbers, two), 'difference-of-medians': all(numbers, two) },
    ...{ 'difference-of-shares': all(shares, twoOrTyped), 'log-ratio-of-sds': all(numbers, two) },
    ...{ 'mean-of-differences': all(numbers, pairs), 'median-of-differences': all(numbers, pairs) },
    ...{ correlation: all(numbers, pairs), slope: all(numbers, pairs) },
    f: never('cannot be negative, so its bootstrap is biased; use a permutation test'),
    'largest-difference': never('cannot be negative, so its bootstrap is biased; use a permutation test'),
    formula: numbers,
  },
  permutation: {
    ...{ mean: all(numbers, alone), median: all(numbers, alone) },
    'trimmed-mean': never('for one column, only mean and median can be tested by permutation'),
    percentile: never('a permutation does not change it'),
    ...{ sd: never('a permutation does not change it'), variance: never('a permutation does not change it') },
    ...{ cv: never('a permutation does not change it'), skewness: never('a permutation does not change it') },
    share: never('a permutation does not change it; compare two groups'),
    ...{ 'difference-of-means': all(numbers, two), 'difference-of-medians': all(numbers, two) },
    ...{ 'difference-of-shares': all(shares, twoOrTyped), 'log-ratio-of-sds': all(numbers, two) },
    ...{ 'mean-of-differences': all(numbers, pairs), 'median-of-differences': all(numbers, pairs) },
    ...{ correlation: all(numbers, pairs), slope: all(numbers, pairs) },
    ...{ f: all(numbers, several), 'largest-difference': all(numbers, several) },
    formula: all(numbers, two),
  },
};

export interface StatisticOffer extends StatisticFacts {
  id: StatisticId;
  /** Why it does not suit; null where it does. */
  whyNot: string | null;
}

/** Every statistic, with why those that do not suit do not. */
export const statisticOffers = (what: Resampling, looked: LookedAt): StatisticOffer[] =>
  STATISTIC_IDS.map((id) => ({ id, ...STATISTIC_FACTS[id], whyNot: WHYS[what][id](looked) }));

/** What is most likely meant. */
export function usualStatistic(what: Resampling, { kind, groups, split }: LookedAt): StatisticId {
  if (kind === null || kind === 'label') return groups > 1 ? 'difference-of-shares' : 'share';
  if (groups > 2 && what === 'permutation') return 'f';
  if (groups >= 2) return split || groups > 2 ? 'difference-of-means' : 'mean-of-differences';
  return 'mean';
}
