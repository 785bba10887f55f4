import { studentT } from '../distributions/families/student-t.js';
import { normalCumulative, normalQuantile, normalSurvival } from '../numeric/standard-normal.js';
import { intervalFor, pOfTails, type Alternative, type Interval, type Tails } from './alternative.js';

/** Summary of a sample for its mean. */
export interface MeanFigures {
  n: number;
  mean: number;
  /** Divisor n − 1. */
  sd: number;
}

/** A difference divided by its standard error, with its distribution under the claim. */
export interface TestOfMean {
  statistic: number;
  /** Null for a normal. */
  df: number | null;
  /** The estimate: a mean, or a difference of two. */
  standardError: number;
  tails: Tails;
}

/** The last margin that was asked for: simulated intervals ask for the same one again and again. */
const last = { df: NaN, tail: NaN, margin: NaN };

/** The point of t that a share `tail` lies above. */
function marginOf(df: number, tail: number): number {
  if (last.df !== df || last.tail !== tail)
    Object.assign(last, { df, tail, margin: studentT.of({ df, location: 0, scale: 1 }).survivalQuantile(tail) });
  return last.margin;
}

const lawOf = (df: number | null) =>
  df === null
    ? { cumulative: normalCumulative, survival: normalSurvival, margin: (tail: number) => -normalQuantile(tail) }
    : (({ cumulative, survival }) => ({ cumulative, survival, margin: (tail: number) => marginOf(df, tail) }))(
        studentT.of({ df, location: 0, scale: 1 }),
      );

function tested(difference: number, standardError: number, df: number | null): TestOfMean {
  const statistic = difference / standardError;
  // An interval asks for no tails: they are taken when somebody asks.
  let tails: Tails | null = null;
  return {
    statistic,
    df,
    standardError,
    get tails() {
      const law = lawOf(df);
      return (tails ??= { lower: law.cumulative(statistic), upper: law.survival(statistic) });
    },
  };
}

/**
 * One-sample t test of a mean (Student 1908), n − 1 degrees of freedom. At least two readings with some spread; paired t: the same for their
 * differences.
 */
export const meanByT = ({ n, mean, sd }: MeanFigures, claimed: number): TestOfMean =>
  tested(mean - claimed, sd / Math.sqrt(n), n - 1);

/** One-sample z test of a mean with a claimed SD. */
export const meanByZ = ({ n, mean }: Pick<MeanFigures, 'n' | 'mean'>, claimed: number, knownSd: number): TestOfMean =>
  tested(mean - claimed, knownSd / Math.sqrt(n), null);

/** Two means with unequal variances (Welch 1947): degrees of freedom by Welch & Satterthwaite. */
export function welch(a: MeanFigures, b: MeanFigures, claimed = 0): TestOfMean {
  const [u, v] = [a.sd ** 2 / a.n, b.sd ** 2 / b.n];
  const df = (u + v) ** 2 / (u ** 2 / (a.n - 1) + v ** 2 / (b.n - 1));
  return tested(a.mean - b.mean - claimed, Math.sqrt(u + v), df);
}

/** Two means with equal variances: t on n₁ + n₂ − 2 degrees of freedom. */
export function pooled(a: MeanFigures, b: MeanFigures, claimed = 0): TestOfMean {
  const df = a.n + b.n - 2;
  const variance = ((a.n - 1) * a.sd ** 2 + (b.n - 1) * b.sd ** 2) / df;
  return tested(a.mean - b.mean - claimed, Math.sqrt(variance * (1 / a.n + 1 / b.n)), df);
}

export const pOfMean = ({ tails }: TestOfMean, alternative: Alternative): number => pOfTails(tails, alternative);

/** The interval of a mean, or of a difference. */
export const meanInterval = (
  estimate: number,
  { standardError, df }: TestOfMean,
  confidence: number,
  alternative: Alternative,
): Interval => intervalFor(estimate, (tail) => standardError * lawOf(df).margin(tail), confidence, alternative);

/** Two one-sided tests (Schuirmann 1987): the p of equivalence within a margin of the claim; small if the mean is shown to be close enough. */
export function equivalenceP(difference: number, { standardError, df }: TestOfMean, margin: number): number {
  const law = lawOf(df);
  return Math.max(
    law.survival((difference + margin) / standardError),
    law.cumulative((difference - margin) / standardError),
  );
}
