import { studentT } from '../../distributions/families/student-t.js';
import { pOfTails, type Alternative } from '../../claims/alternative.js';
import { pooled, welch, type TestOfMean } from '../../claims/means.js';
import { normalCumulative, normalSurvival } from '../../numeric/standard-normal.js';
import { tabulated } from '../../numeric/tabulated.js';
import { pairFigure } from '../../resampling/figure.js';
import { momentsOf } from '../moments.js';
import type { SimulatedTest, TestOf, TestSetting } from './simulated-test.js';

/** Up to so many standard errors the tail of t is tabulated; few lie further out. */
const TABULATED = { most: 8, width: 1 / 16 };

/** The tables made last: chunk after chunk asks for the same. */
const tails = new Map<number, (t: number) => number>();
const MOST_TAILS = 20;

function upperTailOf(df: number): (t: number) => number {
  let upper = tails.get(df);
  if (!upper) {
    if (tails.size >= MOST_TAILS) tails.clear();
    upper = tabulated(studentT.of({ df, location: 0, scale: 1 }).survival, TABULATED);
    tails.set(df, upper);
  }
  return upper;
}

/** The p of t from a table of its upper tail, within 1e-13 of `studentT`. */
export function pOfT(df: number, alternative: Alternative): (t: number) => number {
  const upper = upperTailOf(df);
  const above = (t: number) => (t >= 0 ? upper(t) : 1 - upper(-t));
  if (alternative === 'greater') return above;
  if (alternative === 'less') return (t) => above(-t);
  return (t) => 2 * upper(Math.abs(t));
}

/** t of one sample; the loop that is asked for most does the same by itself (`tReplicates`). */
function tOf({ sizes: [n], alternative, claim }: TestSetting): TestOf {
  const p = pOfT(n! - 1, alternative);
  const figures = new Float64Array(2);
  return ([values], into) => {
    momentsOf(values!, 0, n!, figures);
    const t = tStatistic(figures[0]!, figures[1]!, n!, claim.mean);
    into[0] = p(t);
    into[1] = t;
  };
}

/** NaN without any spread. */
export const tStatistic = (mean: number, squares: number, n: number, claimed: number): number =>
  squares > 0 ? (mean - claimed) / Math.sqrt(squares / (n - 1) / n) : NaN;

/** t of the differences of pairs. */
function pairedT({ sizes: [n], alternative }: TestSetting): TestOf {
  const p = pOfT(n! - 1, alternative);
  const [differences, figures] = [new Float64Array(n!), new Float64Array(2)];
  return ([a, b], into) => {
    for (let i = 0; i < n!; i++) differences[i] = a![i]! - b![i]!;
    momentsOf(differences, 0, n!, figures);
    const t = tStatistic(figures[0]!, figures[1]!, n!, 0);
    into[0] = p(t);
    into[1] = t;
  };
}

/** z of one sample, the sd being known. */
function zOf({ sizes: [n], alternative, claim }: TestSetting): TestOf {
  const figures = new Float64Array(2);
  const standardError = claim.sd / Math.sqrt(n!);
  return ([values], into) => {
    momentsOf(values!, 0, n!, figures);
    const z = (figures[0]! - claim.mean) / standardError;
    into[0] = pOfTails({ lower: normalCumulative(z), upper: normalSurvival(z) }, alternative);
    into[1] = z;
  };
}

/** Two means, by one of the tests of two. */
function twoMeans(test: typeof welch, { sizes, alternative }: TestSetting): TestOf {
  const figures = new Float64Array(2);
  const of = (values: Float64Array) => {
    momentsOf(values, 0, values.length, figures);
    return { n: values.length, mean: figures[0]!, sd: Math.sqrt(figures[1]! / (values.length - 1)) };
  };
  // With one spread the degrees of freedom are always the same.
  const known = test === pooled ? pOfT(sizes[0]! + sizes[1]! - 2, alternative) : null;
  return ([a, b], into) => {
    const [first, second] = [of(a!), of(b!)];
    if (!(first.sd > 0 || second.sd > 0)) return void into.fill(NaN, 0, 2);
    const found: TestOfMean = test(first, second);
    into[0] = known ? known(found.statistic) : pOfTails(found.tails, alternative);
    into[1] = found.statistic;
  };
}

/** The correlation of two columns by t (Student 1908): r·√((n − 2)/(1 − r²)). */
function correlation({ sizes: [n], alternative }: TestSetting): TestOf {
  const p = pOfT(n! - 2, alternative);
  return ([a, b], into) => {
    const r = pairFigure('correlation', a!, b!);
    into[0] = p(r * Math.sqrt((n! - 2) / ((1 - r) * (1 + r))));
    into[1] = r;
  };
}

export const MEANS: readonly SimulatedTest[] = [
  {
    ...{
      id: 't',
      short: 't',
      name: 't test of the mean',
      symbol: 't',
      about: 'mean',
      groups: 1,
      least: 2,
      sided: true,
      cost: 1,
    },
    make: tOf,
  },
  {
    ...{
      id: 'z',
      short: 'z',
      name: 'z test of the mean (known standard deviation)',
      symbol: 'z',
      about: 'mean',
      groups: 1,
    },
    ...{ least: 1, sided: true, cost: 2 },
    make: zOf,
  },
  {
    ...{ id: 'welch', short: 'Welch', name: 'Welch’s t test of two means', symbol: 't', about: 'two', groups: 2 },
    ...{ least: 2, sided: true, cost: 20 },
    make: (setting) => twoMeans(welch, setting),
  },
  {
    ...{
      id: 'pooled-t',
      short: 'pooled t',
      name: 'pooled t test of two means',
      symbol: 't',
      about: 'two',
      groups: 2,
    },
    ...{ least: 2, sided: true, cost: 20 },
    make: (setting) => twoMeans(pooled, setting),
  },
  {
    ...{ id: 'paired-t', short: 'paired t', name: 'paired t test', symbol: 't', about: 'pairs', groups: 2 },
    ...{ least: 2, sided: true, cost: 1 },
    make: pairedT,
  },
  {
    ...{
      id: 'correlation',
      short: 'correlation',
      name: 't test of the correlation',
      symbol: 'r',
      about: 'pairs',
      groups: 2,
    },
    ...{ least: 3, sided: true, cost: 4 },
    make: correlation,
  },
];
