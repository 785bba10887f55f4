import { chiSquare } from '../distributions/families/chi-square.js';
import { fillGammas } from '../random/gamma.js';
import { fillNormals } from '../random/normal.js';
import type { StreamState } from '../random/stream.js';
import { f } from '../distributions/families/f.js';
import { noncentralChiSquareSurvival, noncentralFSurvival } from './noncentral-chi-square.js';
import type { MeanFigures } from './means.js';
import type { GroupsF } from './spreads.js';

/**
 * Several means with unequal variances (Welch 1951): each weighted by the precision of its mean, with estimated degrees of freedom. Every group needs
 * some spread.
 */
export function welchSeveral(groups: readonly MeanFigures[]): GroupsF {
  const k = groups.length;
  const weights = groups.map(({ n, sd }) => n / sd ** 2);
  const total = weights.reduce((a, b) => a + b, 0);
  const centre = groups.reduce((sum, { mean }, i) => sum + (weights[i]! / total) * mean, 0);
  const amid = groups.reduce((sum, { mean }, i) => sum + weights[i]! * (mean - centre) ** 2, 0) / (k - 1);
  const uneven = groups.reduce((sum, { n }, i) => sum + (1 - weights[i]! / total) ** 2 / (n - 1), 0);
  const statistic = amid / (1 + ((2 * (k - 2)) / (k * k - 1)) * uneven);
  const df = [k - 1, (k * k - 1) / (3 * uneven)] as const;
  return { statistic, df, pValue: f.of({ df1: df[0], df2: df[1] }).survival(statistic) };
}

/**
 * The contrast of several means with unequal variances (Krishnamoorthy, Lu & Mathew 2007, equation 2.2): Σ nᵢx̄ᵢ²/sᵢ² minus its part along the common
 * mean. Computed about the weighted mean, so that a common offset costs no digits.
 */
export function welchContrast(groups: readonly MeanFigures[]): number {
  let [total, centre] = [0, 0];
  for (const { n, mean, sd } of groups) {
    const weight = n / (sd * sd);
    total += weight;
    centre += (weight / total) * (mean - centre);
  }
  return groups.reduce((sum, { n, mean, sd }) => sum + (n / (sd * sd)) * (mean - centre) ** 2, 0);
}

export interface WelchReplicates {
  sizes: readonly number[];
  sds: readonly number[];
  /** The contrast of the readings. */
  observed: number;
}

/**
 * The parametric bootstrap of Krishnamoorthy, Lu & Mathew (2007): the number of simulated samples with equal means and these spreads whose contrast
 * is at least the observed one. x̄ᵢ* = sᵢzᵢ/√nᵢ, sᵢ*² = sᵢ²χ²(nᵢ − 1)/(nᵢ − 1).
 */
export function tallyWelch({ sizes, sds, observed }: WelchReplicates, state: StreamState, replicates: number) {
  const draw = severalMeansDrawer(sizes, sds);
  let far = 0;
  for (let r = 0; r < replicates; r++) if (draw(state) >= observed) far++;
  return Float64Array.of(far);
}

/** So many draws are made ahead for each group. */
const AHEAD = 256;

/** Draws means and sds of normal groups with these sizes and spreads, not their readings; the centres are all 0, or those given, times d. Hands out one array again and again. */
export function figuresDrawer(
  sizes: readonly number[],
  sds: readonly number[],
  centres: readonly number[] | null = null,
): (state: StreamState, d?: number) => MeanFigures[] {
  const figures = sizes.map((n) => ({ n, mean: 0, sd: 1 }));
  const ahead = sizes.map(() => ({ z: new Float64Array(AHEAD), u: new Float64Array(AHEAD) }));
  let at = AHEAD;
  return (state, d = 0) => {
    if (at === AHEAD) {
      ahead.forEach(({ z, u }, i) => {
        fillNormals(state, z);
        fillGammas(state, (sizes[i]! - 1) / 2, u);
      });
      at = 0;
    }
    for (let i = 0; i < figures.length; i++) {
      const { z, u } = ahead[i]!;
      figures[i]!.mean = (centres ? centres[i]! * d : 0) + (z[at]! * sds[i]!) / Math.sqrt(sizes[i]!);
      figures[i]!.sd = sds[i]! * Math.sqrt((2 * u[at]!) / (sizes[i]! - 1));
    }
    at++;
    return figures;
  };
}

/** Draws the contrast of such groups. */
export function severalMeansDrawer(
  sizes: readonly number[],
  sds: readonly number[],
  centres: readonly number[] | null = null,
): (state: StreamState, d?: number) => number {
  const draw = figuresDrawer(sizes, sds, centres);
  return (state, d) => welchContrast(draw(state, d));
}

/**
 * The noncentrality of F if two means differ by d SD and all others lie midway: n·d²/2 for equal group sizes. The two smallest groups are used, for
 * which it is least.
 */
function noncentralityOf(sizes: readonly number[], difference: number): number {
  const [a, b] = [...sizes].sort((x, y) => x - y) as [number, number];
  const total = sizes.reduce((x, y) => x + y, 0);
  const centre = ((a - b) * difference) / 2 / total;
  return a * (difference / 2 - centre) ** 2 + b * (difference / 2 + centre) ** 2 + (total - a - b) * centre ** 2;
}

/** The power of the one-way F for two means that differ by d SD, the others midway: exact for normal readings with equal variances. */
export function powerOfSeveralMeans(sizes: readonly number[], difference: number, alpha: number): number {
  const n = sizes.reduce((a, b) => a + b, 0);
  const df = [sizes.length - 1, n - sizes.length] as const;
  const limit = f.of({ df1: df[0], df2: df[1] }).survivalQuantile(alpha);
  return noncentralFSurvival(limit, df, noncentralityOf(sizes, difference));
}

/** The efficiency of ranks for normal readings, as a factor of the noncentrality (Hodges & Lehmann 1956). */
const KEPT_BY_RANKS = 3 / Math.PI;

/** The same for the Kruskal–Wallis test, for large groups (Andrews 1954). */
export function powerOfSeveralMedians(sizes: readonly number[], difference: number, alpha: number): number {
  const df = sizes.length - 1;
  const limit = chiSquare.of({ df }).survivalQuantile(alpha);
  return noncentralChiSquareSurvival(limit, df, KEPT_BY_RANKS * noncentralityOf(sizes, difference));
}

/** The power of χ² for counts: n·w² is the noncentrality, w² = Σ(difference²/claimed proportion) (Cohen 1988). */
export function powerOfChiSquare(n: number, df: number, w: number, alpha: number): number {
  return noncentralChiSquareSurvival(chiSquare.of({ df }).survivalQuantile(alpha), df, n * w * w);
}
