import { chiSquare } from '../distributions/families/chi-square.js';
import { exp, log } from '../numeric/elementary.js';
import { logGamma } from '../numeric/log-gamma.js';
import { leastTie, scaleOfSum } from '../numeric/ties.js';

/** An observed count with the expected one. */
export interface CountCell {
  observed: number;
  expected: number;
  difference: number;
  /** Its contribution to χ². */
  contribution: number;
  /** The difference divided by its SD under the claim. */
  standardised: number;
}

export interface CountsTest {
  cells: CountCell[];
  statistic: number;
  df: number;
  pAsymptotic: number;
}

/** Counts against claimed shares, which add up to 1 (Pearson 1900). A cell with nothing expected adds nothing where nothing was observed. */
export function countsAgainst(observed: readonly number[], shares: readonly number[]): CountsTest {
  const total = observed.reduce((a, b) => a + b, 0);
  const cells = observed.map((count, i): CountCell => {
    const expected = total * shares[i]!;
    const difference = count - expected;
    return {
      ...{ observed: count, expected, difference },
      contribution: expected === 0 ? (count === 0 ? 0 : Infinity) : difference ** 2 / expected,
      standardised: expected === 0 || shares[i] === 1 ? 0 : difference / Math.sqrt(expected * (1 - shares[i]!)),
    };
  });
  const statistic = cells.reduce((sum, { contribution }) => sum + contribution, 0);
  const df = shares.filter((share) => share > 0).length - 1;
  return { cells, statistic, df, pAsymptotic: chiSquare.of({ df }).survival(statistic) };
}

/** The greatest number of tables that are enumerated. */
export const MOST_TABLES = 1_000_000;

/** The number of ways to distribute a total over cells. */
export function tablesOf(total: number, cells: number): number {
  let ways = 1;
  for (let i = 1; i < cells; i++) ways = (ways * (total + i)) / i;
  return Math.round(ways);
}

/** The exact p of counts against shares: the chance of every table whose χ² is at least that observed. At most `MOST_TABLES` of them; shares above 0. */
export function exactCountsP(observed: readonly number[], shares: readonly number[]): number {
  const total = observed.reduce((a, b) => a + b, 0);
  const { statistic } = countsAgainst(observed, shares);
  const limit = leastTie(statistic, scaleOfSum(statistic));
  const logFactorial = Float64Array.from({ length: total + 1 }, (_, k) => logGamma(k + 1));
  const logShares = shares.map((share) => log(share));
  const last = shares.length - 1;
  let p = 0;
  const deal = (cell: number, left: number, chi: number, chance: number): void => {
    const expected = total * shares[cell]!;
    if (cell === last) {
      if (chi + (left - expected) ** 2 / expected >= limit)
        p += exp(chance + left * logShares[cell]! - logFactorial[left]!);
      return;
    }
    for (let k = 0; k <= left; k++)
      deal(cell + 1, left - k, chi + (k - expected) ** 2 / expected, chance + k * logShares[cell]! - logFactorial[k]!);
  };
  deal(0, total, 0, logFactorial[total]!);
  return Math.min(1, p);
}

/** A table of counts: are rows and columns independent (Pearson 1900)? Cells with what independence expects, adjusted residuals (Haberman 1973), Cramér's V (1946). */
export function tableIndependence(table: readonly (readonly number[])[]): CountsTest & { cramersV: number } {
  const rows = table.map((row) => row.reduce((a, b) => a + b, 0));
  const columns = table[0]!.map((_, j) => table.reduce((sum, row) => sum + row[j]!, 0));
  const total = rows.reduce((a, b) => a + b, 0);
  const cells = table.flatMap((row, i) =>
    row.map((observed, j): CountCell => {
      const expected = (rows[i]! * columns[j]!) / total;
      const difference = observed - expected;
      const spread = expected * (1 - rows[i]! / total) * (1 - columns[j]! / total);
      return {
        ...{ observed, expected, difference, contribution: expected === 0 ? 0 : difference ** 2 / expected },
        standardised: spread === 0 ? 0 : difference / Math.sqrt(spread),
      };
    }),
  );
  const statistic = cells.reduce((sum, { contribution }) => sum + contribution, 0);
  const df = (rows.length - 1) * (columns.length - 1);
  const least = Math.min(rows.length, columns.length) - 1;
  return {
    ...{ cells, statistic, df, pAsymptotic: chiSquare.of({ df }).survival(statistic) },
    cramersV: Math.sqrt(statistic / (total * least)),
  };
}
