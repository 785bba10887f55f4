import type { Alternative } from '../../claims/alternative.js';
import { createSorter } from '../../numeric/sort.js';
import { createDistances, type OutlierStatistic, type RuleSettings } from '../../outliers/distances.js';
import { DIXON_GREATEST_N, DIXON_LEAST_N } from '../../outliers/dixon.js';
import { GRUBBS_LEAST_N, grubbsP, type Side } from '../../outliers/grubbs.js';
import { PAIR_LEAST_N } from '../../outliers/pairs.js';
import { pByTable } from '../null-table.js';
import type { SimulatedTest, TestOf, TestSetting } from './simulated-test.js';

const SIDES: Record<Alternative, Side> = { 'two-sided': 'either', less: 'lower', greater: 'upper' };

const rules = (alternative: Alternative): RuleSettings => ({
  side: SIDES[alternative],
  ...{ most: 1, alpha: 0.05, quartiles: 7 },
});

function outlierTest(one: OutlierStatistic, { sizes: [n], alternative, table }: TestSetting): TestOf {
  const measure = createDistances(n!, [one], rules(alternative));
  const [sorted, found, sort] = [new Float64Array(n!), new Float64Array(1), createSorter(n!)];
  return ([values], into) => {
    sorted.set(values!);
    sort(sorted);
    if (sorted[0] === sorted[n! - 1]) return void into.fill(NaN, 0, 2);
    measure(sorted, found, 0);
    const statistic = found[0]!;
    into[0] = table ? pByTable(table, statistic) : grubbsP(statistic, n!, SIDES[alternative]).pValue;
    into[1] = statistic;
  };
}

const byTable = (one: OutlierStatistic) => (n: number, alternative: Alternative) => ({
  kernel: 'outlier-replicates' as const,
  input: { n, which: [one], extremes: 0, law: null, rounding: null, ...rules(alternative) },
});

export const OUTLIERS: readonly SimulatedTest[] = [
  {
    ...{
      id: 'grubbs',
      short: 'Grubbs',
      name: 'Grubbs’ test',
      symbol: 'G',
      about: 'outliers',
      groups: 1,
    },
    ...{ least: GRUBBS_LEAST_N, sided: true, cost: 30 },
    make: (setting) => outlierTest('grubbs', setting),
  },
  {
    ...{
      id: 'dixon',
      short: 'Dixon',
      name: 'Dixon’s test',
      symbol: 'r',
      about: 'outliers',
      groups: 1,
    },
    ...{ least: DIXON_LEAST_N, greatest: DIXON_GREATEST_N, sided: true, cost: 10 },
    table: byTable('dixon'),
    make: (setting) => outlierTest('dixon', setting),
  },
  {
    ...{
      id: 'grubbs-pair',
      short: 'Grubbs, two',
      name: 'Grubbs’ test for two on the same side',
      symbol: 'share',
      about: 'outliers',
      groups: 1,
    },
    ...{ least: PAIR_LEAST_N, sided: true, cost: 10 },
    table: byTable('pair-same-end'),
    make: (setting) => outlierTest('pair-same-end', setting),
  },
];
