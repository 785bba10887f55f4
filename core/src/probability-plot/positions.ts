import { betaLowerQuantile } from '../numeric/beta-quantile.js';

export const POSITION_RULES = ['midpoint', 'blom', 'benard', 'weibull', 'median-rank'] as const;
export type PositionRule = (typeof POSITION_RULES)[number];

const A: Record<Exclude<PositionRule, 'median-rank'>, number> = { midpoint: 0.5, blom: 0.375, benard: 0.3, weibull: 0 };

/**
 * Plotting positions p_1 … p_n of sorted readings: (i − a)/(n + 1 − 2a) with a = 0.5 (midpoint, Hazen 1914), 0.375 (Blom 1958), 0.3 (Benard &
 * Bos-Levenbach 1953), 0 (Weibull 1939), or the median of Beta(i, n + 1 − i). All inside (0, 1).
 */
export function plottingPositions(n: number, rule: PositionRule): Float64Array {
  const p = new Float64Array(n);
  if (rule === 'median-rank') {
    for (let i = 1; 2 * i <= n + 1; i++) {
      p[i - 1] = betaLowerQuantile(i, n + 1 - i, 0.5).x;
      p[n - i] = 1 - p[i - 1]!;
    }
    return p;
  }
  const a = A[rule];
  for (let i = 1; i <= n; i++) p[i - 1] = (i - a) / (n + 1 - 2 * a);
  return p;
}

/**
 * The same for ranks that need not be whole, such as those of uncensored readings among censored ones (Meeker & Escobar 1998, section 6.4 for a =
 * 0.5).
 */
export function positionsOfRanks(ranks: Float64Array, n: number, rule: PositionRule): Float64Array {
  if (rule === 'median-rank') return ranks.map((i) => betaLowerQuantile(i, n + 1 - i, 0.5).x);
  const a = A[rule];
  return ranks.map((i) => (i - a) / (n + 1 - 2 * a));
}
