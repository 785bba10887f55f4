import { normalSurvival } from '../../numeric/standard-normal.js';
import { andersonDarlingAsymptotic } from './anderson-darling.js';
import type { NormalityTestName } from './battery.js';
import { cramerVonMisesAsymptotic } from './cramer-von-mises.js';
import { chiSquareTwo } from './moments.js';
import { shapiroWilkAsymptotic } from './shapiro-wilk.js';

/** The formulas of the kurtosis score hold from here on (Anscombe & Glynn 1983). */
const KURTOSIS_LEAST_N = 20;

/** The largest statistics of the published ranges, adjusted for n as the formulas want them. */
const ENDS: Partial<Record<NormalityTestName, (n: number) => number>> = {
  'anderson-darling': (n) => 13 / (1 + 0.75 / n + 2.25 / (n * n)),
  'cramer-von-mises': (n) => 1.1 / (1 + 0.5 / n),
};

/**
 * An upper bound on p: by the formula, and beyond its published range its value at the end of the range. Null if there is no formula. For departures
 * so clear that a simulation is not needed.
 */
export function pAtMost(name: NormalityTestName, statistic: number, n: number): number | null {
  const inside = pByFormula(name, statistic, n);
  const end = ENDS[name]?.(n);
  return inside !== null || end === undefined || statistic <= end ? inside : pByFormula(name, end * (1 - 1e-9), n);
}

/** The p of a published formula, inside its range. */
export function pByFormula(name: NormalityTestName, statistic: number, n: number): number | null {
  switch (name) {
    case 'anderson-darling':
      return andersonDarlingAsymptotic(statistic, n);
    case 'shapiro-wilk':
      return shapiroWilkAsymptotic(statistic, n);
    case 'cramer-von-mises':
      return cramerVonMisesAsymptotic(statistic, n);
    case 'skewness':
      return Math.min(1, 2 * normalSurvival(Math.abs(statistic)));
    case 'kurtosis':
      return n < KURTOSIS_LEAST_N ? null : Math.min(1, 2 * normalSurvival(Math.abs(statistic)));
    case 'omnibus':
      return n < KURTOSIS_LEAST_N ? null : chiSquareTwo(statistic);
    case 'jarque-bera':
      return chiSquareTwo(statistic);
    default:
      return null;
  }
}
