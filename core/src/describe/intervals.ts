import { chiSquare } from '../distributions/families/chi-square.js';
import { studentT } from '../distributions/families/student-t.js';
import { betaLower } from '../numeric/beta-tails.js';

/** Half the width of the t interval for the mean: t(n − 1)·s/√n (n ≥ 2). */
export function meanMargin(n: number, sd: number, confidence: number): number {
  const t = studentT.of({ df: n - 1, location: 0, scale: 1 }).survivalQuantile((1 - confidence) / 2);
  return (t * sd) / Math.sqrt(n);
}

/** The chi-square interval for the sd of a normal, s·√((n − 1)/χ²) (n ≥ 2). */
export function sdInterval(n: number, sd: number, confidence: number): [number, number] {
  const tail = (1 - confidence) / 2;
  const chi = chiSquare.of({ df: n - 1 });
  return [sd * Math.sqrt((n - 1) / chi.survivalQuantile(tail)), sd * Math.sqrt((n - 1) / chi.quantile(tail))];
}

/** The interval for the median between two order statistics, given by their ranks from either end, with its actual coverage. */
export interface MedianRanks {
  /** The rank from 1 of the lower end; the upper end has the same rank from the top. */
  rank: number;
  coverage: number;
}

/** P(X ≤ k) of a binomial with n trials of ½. */
const halvesAtMost = (k: number, n: number) => (k < 0 ? 0 : k >= n ? 1 : betaLower(n - k, k + 1, 0.5, 0.5));

/**
 * The sign-test interval for the median (Thompson 1936; David & Nagaraja 2003, section 7.1): from the k-th least to the k-th greatest reading, with
 * the greatest k whose coverage 1 − 2·P(Bin(n, ½) ≤ k − 1) reaches the confidence; k = 1 where none does.
 */
export function medianRanks(n: number, confidence: number): MedianRanks {
  const tail = (1 - confidence) / 2;
  let low = 1;
  let high = Math.max(1, (n + 1) >> 1);
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (halvesAtMost(middle - 1, n) <= tail) low = middle;
    else high = middle - 1;
  }
  return { rank: low, coverage: 1 - 2 * halvesAtMost(low - 1, n) };
}
