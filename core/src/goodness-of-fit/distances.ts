import { log } from '../numeric/elementary.js';

/**
 * Distances between the empirical distribution and a distribution: `cumulative` holds its probabilities at the readings in rising order, `survival`
 * those above each. Whether the parameters were estimated decides the distribution of these statistics, not their formula.
 */

/** W² = 1/(12n) + Σ (F(xᵢ) − (2i − 1)/(2n))² (Cramér 1928, von Mises 1931). */
export function cramerVonMises(cumulative: Float64Array): number {
  const n = cumulative.length;
  let sum = 1 / (12 * n);
  for (let i = 0; i < n; i++) {
    const gap = cumulative[i]! - (2 * i + 1) / (2 * n);
    sum += gap * gap;
  }
  return sum;
}

/** D, the greatest distance (Kolmogorov 1933); with estimated parameters the statistic of Lilliefors (1967). */
export function kolmogorovSmirnov(cumulative: Float64Array): number {
  const n = cumulative.length;
  let greatest = 0;
  for (let i = 0; i < n; i++) {
    const p = cumulative[i]!;
    const above = (i + 1) / n - p;
    const below = p - i / n;
    if (above > greatest) greatest = above;
    if (below > greatest) greatest = below;
  }
  return greatest;
}

/** Probabilities below this are replaced by it, so that their logarithm is finite. */
const LEAST = 1e-300;

/** A² = −n − Σ (2i − 1)/n · (log F(xᵢ) + log S(xₙ₊₁₋ᵢ)) (Anderson & Darling 1954), the two logarithms taken together. */
export function andersonDarlingDistance(cumulative: Float64Array, survival: Float64Array): number {
  const n = cumulative.length;
  let sum = 0;
  for (let i = 0; i < n; i++) {
    const product = cumulative[i]! * survival[n - 1 - i]!;
    const logarithm =
      product > LEAST
        ? log(product)
        : log(Math.max(LEAST, cumulative[i]!)) + log(Math.max(LEAST, survival[n - 1 - i]!));
    sum += (2 * i + 1) * logarithm;
  }
  return -n - sum / n;
}

/** Pearson's (1900) χ² of k equally likely cells: Σ (observed − n/k)²/(n/k). */
export function equalCellsChiSquare(cumulative: Float64Array, cells: number, counts: Int32Array): number {
  const n = cumulative.length;
  counts.fill(0);
  for (let i = 0; i < n; i++) {
    const cell = Math.min(cells - 1, Math.floor(cumulative[i]! * cells));
    counts[cell] = counts[cell]! + 1;
  }
  const expected = n / cells;
  let sum = 0;
  for (let k = 0; k < cells; k++) sum += (counts[k]! - expected) ** 2 / expected;
  return sum;
}
