import type { Departure, DepartureKind } from '../../goodness-of-fit/normality/departures.js';
import { exp } from '../../numeric/elementary.js';
import { formatValue } from '../../numeric/format.js';
import { plural } from '../../numeric/grammar.js';

/** A way to depart from normal, from hardly to far: what a test of normality is tried on. */
export interface DepartureScale {
  kind: Extract<DepartureKind, 'lognormal' | 'student-t' | 'symmetric-beta' | 'two-groups' | 'one-far'>;
  title: string;
  /** The setting that says how far, and its word in the sentence. */
  setting: 'logSd' | 'df' | 'shape' | 'distance' | 'shift';
  word: string;
  /** What its values are, for an axis. */
  axis: string;
  /** From the least departure to the greatest. */
  values: readonly number[];
  usual: number;
  /** Which values can be asked for. */
  range: { from: number; to: number };
  of(value: number): Departure;
  /** The departure in a sentence: "a lognormal with log sd 0.5". */
  words(value: number): string;
  /** The moment that tells it, where one does. */
  moment(value: number): string;
}

const brief = (value: number) => formatValue(Number(value.toPrecision(3)));

/** Of a lognormal: (e^(s²) + 2)·√(e^(s²) − 1). */
export function lognormalSkewness(logSd: number): number {
  const w = exp(logSd * logSd);
  return (w + 2) * Math.sqrt(w - 1);
}

export const DEPARTURES: readonly DepartureScale[] = [
  {
    kind: 'lognormal',
    title: 'long right tail',
    setting: 'logSd',
    word: 'log SD',
    axis: 'log SD of a lognormal distribution',
    values: [0.1, 0.2, 0.3, 0.5, 0.7, 1, 1.5],
    usual: 0.5,
    range: { from: 0.01, to: 3 },
    of: (logSd) => ({ kind: 'lognormal', logSd }),
    words: (logSd) => `a lognormal distribution with log SD ${logSd}`,
    moment: (logSd) => `skewness ${brief(lognormalSkewness(logSd))}`,
  },
  {
    kind: 'student-t',
    title: 'heavy tails',
    setting: 'df',
    word: 'degrees of freedom',
    axis: 'degrees of freedom of a t distribution',
    values: [30, 15, 10, 7, 5, 3, 2],
    usual: 5,
    range: { from: 1, to: 1000 },
    of: (df) => ({ kind: 'student-t', df }),
    words: (df) => `a t distribution with ${plural(df, 'degree of freedom', 'degrees of freedom')}`,
    moment: (df) => (df > 4 ? `kurtosis ${brief(6 / (df - 4))}` : 'kurtosis infinite'),
  },
  {
    kind: 'symmetric-beta',
    title: 'light tails',
    setting: 'shape',
    word: 'shapes',
    axis: 'both shapes of a symmetric beta distribution (1 is uniform)',
    values: [6, 3, 2, 1.5, 1, 0.75, 0.5],
    usual: 1,
    range: { from: 0.1, to: 50 },
    of: (shape) => ({ kind: 'symmetric-beta', shape }),
    words: (shape) => (shape === 1 ? 'a uniform distribution' : `a symmetric beta distribution with shapes ${shape}`),
    moment: (shape) => `kurtosis ${brief(-6 / (2 * shape + 3))}`,
  },
  {
    kind: 'two-groups',
    title: 'two groups',
    setting: 'distance',
    word: 'distance in SDs',
    axis: 'distance between two equal normal groups, in SDs of a group',
    values: [1.5, 2, 2.5, 3, 3.5, 4, 5],
    usual: 3,
    range: { from: 0.1, to: 20 },
    of: (distance) => ({ kind: 'two-groups', distance }),
    words: (distance) => `two equal groups ${distance} SD apart`,
    moment: () => '',
  },
  {
    kind: 'one-far',
    title: 'one outlier',
    setting: 'shift',
    word: 'shift in SDs',
    axis: 'shift of one reading, in SDs',
    values: [2, 3, 4, 5, 6, 7, 8],
    usual: 5,
    range: { from: 0.5, to: 50 },
    of: (distance) => ({ kind: 'one-far', distance }),
    words: (distance) => `one reading moved up by ${distance} SD`,
    moment: () => '',
  },
];

export const departureOf = (kind: string): DepartureScale => DEPARTURES.find((one) => one.kind === kind)!;
