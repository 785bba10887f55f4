import type { Parameters } from '../distributions/family.js';
import type { Statistic } from '../resampling/statistic.js';
import type { Law } from './laws.js';
import { familyLaw, lawOf, type Population } from './population.js';
import type { Group } from './samples.js';

/** The theoretical distribution of a statistic of samples. */
export interface Theory {
  /** "normal with sd/√n". */
  name: string;
  /** False if it holds for large samples only. */
  exact: boolean;
  mean: number;
  sd: number;
  /** What follows the law of a family: the statistic so many times, its square so many times, or the count that it is out of so many. */
  of: 'itself' | 'square' | 'count';
  times: number;
  family: string;
  parameters: Parameters;
}

/** P(statistic ≤ x). */
export function theoryCumulative({ of, times, ...part }: Theory): (x: number) => number {
  const law = familyLaw(part);
  if (of === 'itself') return (x) => law.cumulative(times * x);
  if (of === 'square') return (x) => (x <= 0 ? 0 : law.cumulative(times * x * x));
  // A share that rounding alone keeps off a count has it.
  return (x) => law.cumulative(Math.floor(x * times + 1e-9));
}

/** The finite population correction: √((N − n)/(N − 1)) without replacement (Isserlis 1918), else 1. */
export function finiteFactor({ base }: Population, n: number): number {
  if (!('values' in base) || base.replacement) return 1;
  const { length } = base.values;
  return length > 1 ? Math.sqrt((length - n) / (length - 1)) : 0;
}

const normalLaw = (name: string, exact: boolean, mean: number, sd: number): Theory => ({
  ...{ name, exact, mean, sd, of: 'itself', times: 1 },
  ...{ family: 'normal', parameters: { mean, sd } },
});

const isNormal = ({ base, mixed, step }: Population): boolean =>
  'family' in base && base.family === 'normal' && mixed === null && step === null;

/** A sum of squares of normals over its degrees of freedom, or the root of it. */
function spreadLaw(name: 'sd' | 'variance', variance: number, df: number): Theory {
  const law = { times: df / variance, family: 'chi-square', parameters: { df } };
  if (name === 'variance')
    return {
      ...{ name: 'σ²·χ²/(n − 1)', exact: true, mean: variance, sd: variance * Math.sqrt(2 / df), of: 'itself' },
      ...law,
    };
  const mean = Math.sqrt(variance) * meanOfRoot(df);
  const sd = Math.sqrt(variance - mean * mean);
  return { ...{ name: 'σ·√(χ²/(n − 1))', exact: true, mean, sd, of: 'square' }, ...law };
}

/** E s/σ of a normal: √(2/df)·Γ((df + 1)/2)/Γ(df/2), by its product: that of df + 2 is (df + 1)/√(df(df + 2)) times as great. */
function meanOfRoot(df: number): number {
  let [times, at] = [1, df];
  while (at < 400) {
    times *= Math.sqrt(at * (at + 2)) / (at + 1);
    at += 2;
  }
  const d = 1 / at;
  // The series in 1/df (Johnson & Welch 1940), good to 1e-16 from 400 on.
  return times * (1 - d / 4 + (d * d) / 32 + (5 * d * d * d) / 128 - (21 * d ** 4) / 2048);
}

/** The law of a count over n. */
function shareLaw({ population: { base }, n }: Group, share: number): Theory {
  const finite = 'values' in base && !base.replacement;
  const size = finite ? base.values.length : 0;
  const part = finite
    ? {
        family: 'hypergeometric',
        parameters: { population: size, successes: Math.round(share * size), draws: n },
      }
    : { family: 'binomial', parameters: { trials: n, probability: share } };
  const law = familyLaw(part);
  return {
    ...{ name: finite ? 'hypergeometric/n' : 'binomial/n', exact: true },
    ...{ mean: law.mean / n, sd: Math.sqrt(law.variance) / n, of: 'count', times: n },
    ...part,
  };
}

/** The theoretical distribution of a statistic of these groups; null if there is none. */
export function theoryOf(
  statistic: Statistic,
  groups: readonly Group[],
  { shares, differences }: { shares: readonly number[] | null; differences: boolean },
): Theory | null {
  const [first] = groups;
  if (shares) return shares.length === 1 && shares[0]! > 0 && shares[0]! < 1 ? shareLaw(first!, shares[0]!) : null;
  if (statistic.of !== 'one' && statistic.of !== 'difference') return null;
  const { name } = statistic.figure;
  const laws = groups.map(({ population }) => lawOf(population));
  if (name === 'mean') return meansLaw(groups, laws);
  const plain = statistic.of === 'one' && !differences && isNormal(first!.population) && first!.n > 1;
  if (plain && (name === 'sd' || name === 'variance')) return spreadLaw(name, laws[0]!.variance, first!.n - 1);
  return null;
}

function meansLaw(groups: readonly Group[], laws: readonly Law[]): Theory | null {
  const variance = laws.reduce(
    (sum, law, g) => sum + (law.variance * finiteFactor(groups[g]!.population, groups[g]!.n) ** 2) / groups[g]!.n,
    0,
  );
  if (!Number.isFinite(variance) || !(variance > 0)) return null;
  const mean = laws.reduce((sum, law, g) => sum + (g === 0 ? law.mean : -law.mean), 0);
  const finite = groups.some(({ population, n }) => finiteFactor(population, n) < 1);
  const two = groups.length > 1;
  const name = finite
    ? 'normal with σ/√n and finite population correction'
    : two
      ? 'normal with √(σ₁²/n₁ + σ₂²/n₂)'
      : 'normal with σ/√n';
  return normalLaw(
    name,
    groups.every(({ population }) => isNormal(population)),
    mean,
    Math.sqrt(variance),
  );
}
