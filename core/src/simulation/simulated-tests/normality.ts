import {
  createBattery,
  extremeness,
  LEAST_N,
  NORMALITY_TESTS,
  type NormalityTestName,
} from '../../goodness-of-fit/normality/battery.js';
import { pByFormula } from '../../goodness-of-fit/normality/by-formula.js';
import { SHAPIRO_WILK_GREATEST_N } from '../../goodness-of-fit/normality/shapiro-wilk.js';
import { pByTable } from '../null-table.js';
import type { SimulatedTest, TestOf, TestSetting } from './simulated-test.js';

/** Of a test by formula: a statistic so far out that the formula does not reach it. */
const BEYOND = 0;

function normalityTest(test: NormalityTestName, { sizes: [n], table }: TestSetting): TestOf {
  const battery = createBattery(n!);
  const found = new Float64Array(NORMALITY_TESTS.length);
  const place = NORMALITY_TESTS.indexOf(test);
  return ([values], into) => {
    battery.values.set(values!);
    if (values!.every((value) => value === values![0])) return void into.fill(NaN, 0, 2);
    battery.measure(found);
    const statistic = found[place]!;
    into[0] = table ? pByTable(table, extremeness(test, statistic)) : (pByFormula(test, statistic, n!) ?? BEYOND);
    into[1] = statistic;
  };
}

interface Facts {
  name: string;
  symbol: string;
  /** From this n on its p has a formula. */
  least: number;
  greatest?: number;
}
const BY_FORMULA: Partial<Record<NormalityTestName, Facts>> = {
  'anderson-darling': { name: 'Anderson–Darling', symbol: 'A²', least: 8 },
  'shapiro-wilk': { name: 'Shapiro–Wilk', symbol: 'W', least: 3, greatest: SHAPIRO_WILK_GREATEST_N },
  'cramer-von-mises': { name: 'Cramér–von Mises', symbol: 'W²', least: 8 },
  skewness: { name: 'skewness', symbol: 'z', least: 8 },
  kurtosis: { name: 'kurtosis', symbol: 'z', least: 20 },
  omnibus: { name: 'skewness and kurtosis', symbol: 'K²', least: 20 },
};
/** Their p is read from a table that is drawn first. */
const BY_TABLE: Partial<Record<NormalityTestName, Facts>> = {
  lilliefors: { name: 'Lilliefors', symbol: 'D', least: LEAST_N.lilliefors },
  'jarque-bera': { name: 'Jarque–Bera', symbol: 'JB', least: LEAST_N['jarque-bera'] },
  'plot-correlation': { name: 'plot correlation', symbol: 'r', least: LEAST_N['plot-correlation'] },
};

const testOf = (test: NormalityTestName, { name, ...facts }: Facts, byTable: boolean): SimulatedTest => ({
  ...{ id: test, short: name, name: `${name} test of normality`, ...facts },
  ...{ about: 'normal', groups: 1, sided: false, cost: 60 },
  ...(byTable
    ? {
        table: (n: number) => ({
          kernel: 'normality-replicates' as const,
          input: { test, n, population: 'normal' as const, rounding: null },
        }),
      }
    : {}),
  make: (setting) => normalityTest(test, setting),
});

const all = (facts: Partial<Record<NormalityTestName, Facts>>, byTable: boolean) =>
  Object.entries(facts).map(([test, own]) => testOf(test as NormalityTestName, own, byTable));

export const NORMALITY: readonly SimulatedTest[] = [...all(BY_FORMULA, false), ...all(BY_TABLE, true)];
