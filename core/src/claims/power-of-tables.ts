import { rejectionLimit } from '../goodness-of-fit/simulated-p.js';
import { chiSquare } from '../distributions/families/chi-square.js';
import { exactPowerOfTwoShares, MOST_SUMMED } from './power-of-two-shares.js';
import { powerOfChiSquare } from './several-means.js';
import { createStream } from '../random/stream.js';
import { dealerOf, permutedTables } from './simulated-counts.js';
import { powerBySimulation, SEED, sizesOf, type PowerModel } from './simulated-power.js';
import { greatestTie, scaleOfSum } from '../numeric/ties.js';

/** Row and column totals. */
export interface TableMargins {
  rows: readonly number[];
  columns: readonly number[];
}

/** How p is found: off the curve of χ², by Fisher's sum (two by two), or by permutation. */
export type TableTest = 'curve' | 'exact' | 'permuted';

/** Above this number of counts the noncentral χ² is within 0.03 of simulation (tested). */
export const MOST_TABLE_SIMULATED = 1_000;

/**
 * Up to this number of counts the critical χ² is that of the table's own totals; above, one is simulated for all tables (power can then be 0.05 too
 * high if a column has few counts).
 */
export const MOST_PERMUTED = 150;

const total = (counts: readonly number[]) => counts.reduce((a, b) => a + b, 0);
const proportionsOf = (counts: readonly number[]) => counts.map((count) => count / total(counts));

/**
 * The probabilities with the strongest association for these margins: the largest row with the largest column, and so on (north-west corner rule).
 */
function strongestTable(rows: readonly number[], columns: readonly number[]): number[][] {
  const falling = (shares: readonly number[]) =>
    shares.map((_, i) => i).sort((i, j) => shares[j]! - shares[i]! || i - j);
  const table = rows.map(() => columns.map(() => 0));
  const [rowOrder, columnOrder] = [falling(rows), falling(columns)];
  const [left, open] = [[...rows], [...columns]];
  for (let i = 0, j = 0; i < rows.length && j < columns.length;) {
    const [row, column] = [rowOrder[i]!, columnOrder[j]!];
    const share = Math.min(left[row]!, open[column]!);
    table[row]![column] = share;
    left[row]! -= share;
    open[column]! -= share;
    if (left[row]! <= open[column]!) i++;
    else j++;
  }
  return table;
}

/** χ² of a table with these row totals; columns in which nothing was counted add nothing. */
function chiSquareOf(counts: readonly Float64Array[], sizes: readonly number[], columns: readonly number[]): number {
  let sum = 0;
  columns.forEach((column, j) => {
    if (column > 0) for (let i = 0; i < sizes.length; i++) sum += counts[i]![j]! ** 2 / (sizes[i]! * column);
  });
  return total(sizes) * (sum - 1);
}

/** Permutations that give a critical χ²: more of small tables, whose p has few values. */
const permutationsOf = (n: number) => Math.max(199, Math.min(999, Math.round(20_000 / n)));

/** Totals of columns for which the critical χ² is found; among more of them each matters little, and their mean stands for the rest. */
const MOST_TOTALS = 200;

/** The critical χ² of the permutation test of a table with these row totals, by the totals of its columns; the work for each is done once. */
function permutationLimits(rows: readonly number[], alpha: number) {
  const limits = new Map<string, number>();
  // Infinite where no such table can be rejected.
  const finite = { sum: 0, count: 0 };
  const wanted = permutationsOf(total(rows));
  // A stream of its own: the tables that are drawn stay the same whatever is known already.
  const state = createStream(SEED, 2);
  return (columns: readonly number[]): number => {
    const sorted = columns.filter((column) => column > 0).sort((a, b) => a - b);
    const key = sorted.join(' ');
    const known = limits.get(key);
    if (known !== undefined) return known;
    if (finite.count >= MOST_TOTALS) return finite.sum / finite.count;
    const limit = rejectionLimit([permutedTables({ rows, columns: sorted }, state, wanted)], alpha);
    limits.set(key, limit);
    if (limit < Infinity) {
      finite.sum += limit;
      finite.count++;
    }
    return limit;
  };
}

interface Model {
  margins: TableMargins;
  test: TableTest;
  alpha: number;
  /** The proportion of a column in a row, d being the part of the strongest table in a mixture with independence. */
  mixed: (d: number, row: number, column: number) => number;
  /** The critical χ² of the curve. */
  limit: number;
}

/** Tables whose rows have fixed totals, tested as the analysis tests them. */
function tableModel({ margins: { rows, columns }, test: kind, alpha, mixed, limit }: Model): PowerModel {
  const isPermuted = (n: number) => kind === 'permuted' && n <= MOST_PERMUTED;
  const permuted = new Map<number, ReturnType<typeof permutationLimits>>();
  return {
    limit: (n) => (isPermuted(n) ? 0 : kind === 'permuted' ? null : limit),
    drawer(n) {
      const sizes = sizesOf(rows, n, 1);
      const counts = sizes.map(() => new Float64Array(columns.length));
      const dealers = new Map<number, ReturnType<typeof dealerOf>[]>();
      const dealersFor = (d: number) => {
        const found = dealers.get(d);
        if (found) return found;
        const made = sizes.map((one, i) => dealerOf({ n: one, shares: columns.map((_, j) => mixed(d, i, j)) }));
        dealers.set(d, made);
        return made;
      };
      const limitsOf = isPermuted(n) ? (permuted.get(n) ?? permutationLimits(sizes, alpha)) : null;
      if (limitsOf) permuted.set(n, limitsOf);
      return (d, state) => {
        dealersFor(d).forEach((deal, i) => deal(state, counts[i]!));
        const sums = columns.map((_, j) => counts.reduce((all, row) => all + row[j]!, 0));
        const statistic = chiSquareOf(counts, sizes, sums);
        return limitsOf ? statistic - greatestTie(limitsOf(sums), scaleOfSum(statistic)) : statistic;
      };
    },
  };
}

/**
 * The probability that the test of a table detects a Cramér's V, by n and V, for tables with these margins: the strongest association mixed with
 * independence. Exact for two by two up to 500 a row, simulated up to 1 000 counts, by the noncentral χ² beyond. `most` is the greatest V of that mixture.
 */
export function powerOfTable(margins: TableMargins, test: TableTest, alpha: number) {
  const { rows, columns } = margins;
  const [rowShares, columnShares] = [proportionsOf(rows), proportionsOf(columns)];
  const strongest = strongestTable(rowShares, columnShares);
  const squared = strongest.reduce(
    (sum, row, i) => sum + row.reduce((all, share, j) => all + share ** 2 / (rowShares[i]! * columnShares[j]!), 0),
    -1,
  );
  const df = (rows.length - 1) * (columns.length - 1);
  const root = Math.sqrt(Math.min(rows.length, columns.length) - 1);
  const most = Math.sqrt(squared) / root;
  const limit = chiSquare.of({ df }).quantile(1 - alpha);
  /** Proportion of a column in a row where the strongest table makes up this part. */
  const shareAt = (part: number, i: number, j: number) =>
    (1 - part) * columnShares[j]! + (part * strongest[i]![j]!) / rowShares[i]!;
  const simulated = powerBySimulation(tableModel({ margins, test, alpha, mixed: shareAt, limit }), alpha);
  const exact = exactPowerOfTwoShares(alpha, 'two-sided');
  return {
    most,
    chanceAt(n: number, v: number): number {
      const part = Math.min(1, v / most);
      if (test === 'exact') {
        const sizes = sizesOf(rows, n, 1) as [number, number];
        if (Math.max(...sizes) <= MOST_SUMMED)
          return exact(sizes, [0, 1].map((i) => Math.min(1, shareAt(part, i, 0))) as [number, number]);
      } else if (n <= MOST_TABLE_SIMULATED) return simulated(n, part);
      return powerOfChiSquare(n, df, v * root, alpha);
    },
  };
}
