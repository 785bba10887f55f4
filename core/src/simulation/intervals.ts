import { welch, meanInterval, pooled } from '../claims/means.js';
import { newcombe, wilson } from '../claims/shares.js';
import { meanMargin, medianRanks, sdInterval } from '../describe/intervals.js';
import { f } from '../distributions/families/f.js';
import { clopperPearson } from '../numeric/clopper-pearson.js';
import { createSorter } from '../numeric/sort.js';
import { momentsOf } from './moments.js';
import { countIn } from './simulated-tests/shares.js';
import type { Claim } from './simulated-tests/simulated-test.js';

export interface IntervalSetting {
  sizes: readonly number[];
  confidence: number;
  claim: Claim;
}

/** The interval of the samples of each group, in the order drawn; NaN if there is none. */
export type IntervalOf = (samples: readonly Float64Array[], into: Float64Array) => void;

/** An interval whose coverage can be simulated. */
export interface SimulatedInterval {
  id: string;
  /** "t interval of the mean". */
  name: string;
  /** The parameter that it estimates. */
  truth: 'mean' | 'median' | 'sd' | 'share' | 'difference-of-means' | 'ratio-of-sds' | 'difference-of-shares';
  groups: 1 | 2;
  least: number;
  cost: number;
  make(setting: IntervalSetting): IntervalOf;
}

const put = (into: Float64Array, [lower, upper]: readonly [number, number]) => {
  into[0] = lower;
  into[1] = upper;
};

/** What is worked out of a count is worked out once. */
function byCount(n: number, of: (count: number) => [number, number]): (count: number) => [number, number] {
  const known = new Array<[number, number] | undefined>(n + 1);
  return (count) => (known[count] ??= of(count));
}

const figuresOf = (values: Float64Array, into: Float64Array) => {
  momentsOf(values, 0, values.length, into);
  return { n: values.length, mean: into[0]!, sd: Math.sqrt(into[1]! / (values.length - 1)) };
};

function mean({ sizes: [n], confidence }: IntervalSetting): IntervalOf {
  const margin = meanMargin(n!, 1, confidence);
  const figures = new Float64Array(2);
  return ([values], into) => {
    const { mean: middle, sd } = figuresOf(values!, figures);
    put(into, [middle - margin * sd, middle + margin * sd]);
  };
}

/** Between two readings in order; NaN where so few reach the confidence by none. */
function median({ sizes: [n], confidence }: IntervalSetting): IntervalOf {
  const { rank, coverage } = medianRanks(n!, confidence);
  const [sorted, sort] = [new Float64Array(n!), createSorter(n!)];
  return ([values], into) => {
    if (coverage < confidence) return put(into, [NaN, NaN]);
    sorted.set(values!);
    sort(sorted);
    put(into, [sorted[rank - 1]!, sorted[n! - rank]!]);
  };
}

function sd({ sizes: [n], confidence }: IntervalSetting): IntervalOf {
  const [low, high] = sdInterval(n!, 1, confidence);
  const figures = new Float64Array(2);
  return ([values], into) => {
    const { sd: found } = figuresOf(values!, figures);
    put(into, [low * found, high * found]);
  };
}

const share =
  (of: (count: number, n: number, confidence: number) => [number, number]) =>
  ({ sizes: [n], confidence, claim }: IntervalSetting): IntervalOf => {
    const interval = byCount(n!, (count) => of(count, n!, confidence));
    return ([values], into) => put(into, interval(countIn(values!, claim.counted!)));
  };

const difference =
  (test: typeof welch) =>
  ({ confidence }: IntervalSetting): IntervalOf => {
    const figures = new Float64Array(2);
    return ([a, b], into) => {
      const [first, second] = [figuresOf(a!, figures), figuresOf(b!, figures)];
      if (!(first.sd > 0 || second.sd > 0)) return put(into, [NaN, NaN]);
      const { lower, upper } = meanInterval(first.mean - second.mean, test(first, second), confidence, 'two-sided');
      put(into, [lower!, upper!]);
    };
  };

/** The interval of the ratio of two sds by F. */
function ratioOfSds({ sizes, confidence }: IntervalSetting): IntervalOf {
  const law = f.of({ df1: sizes[0]! - 1, df2: sizes[1]! - 1 });
  const tail = (1 - confidence) / 2;
  const [low, high] = [1 / Math.sqrt(law.survivalQuantile(tail)), 1 / Math.sqrt(law.quantile(tail))];
  const figures = new Float64Array(2);
  return ([a, b], into) => {
    const ratio = figuresOf(a!, figures).sd / figuresOf(b!, figures).sd;
    put(into, Number.isFinite(ratio) ? [low * ratio, high * ratio] : [NaN, NaN]);
  };
}

function differenceOfShares({ sizes, confidence, claim }: IntervalSetting): IntervalOf {
  const [m, n] = [sizes[0]!, sizes[1]!];
  const interval = byCount(m * (n + 1) + n, (key) =>
    newcombe({ count: Math.floor(key / (n + 1)), n: m }, { count: key % (n + 1), n }, confidence),
  );
  return ([a, b], into) => put(into, interval(countIn(a!, claim.counted!) * (n + 1) + countIn(b!, claim.counted!)));
}

/** The registry of intervals whose coverage can be simulated. */
export const SIMULATED_INTERVALS = [
  {
    ...{ id: 'mean', name: 't interval of the mean', truth: 'mean', groups: 1, least: 2, cost: 1 },
    make: mean,
  },
  {
    ...{ id: 'median', name: 'order statistic interval of the median', truth: 'median', groups: 1 },
    ...{ least: 1, cost: 4 },
    make: median,
  },
  {
    ...{ id: 'sd', name: 'χ² interval of the standard deviation', truth: 'sd', groups: 1, least: 2, cost: 1 },
    make: sd,
  },
  {
    ...{ id: 'share', name: 'Wilson interval of a proportion', truth: 'share', groups: 1, least: 1, cost: 1 },
    make: share(wilson),
  },
  {
    ...{ id: 'exact-share', name: 'exact interval of a proportion', truth: 'share', groups: 1, least: 1, cost: 1 },
    make: share(clopperPearson),
  },
  {
    ...{ id: 'difference-of-means', name: 'Welch interval of the difference of two means' },
    ...{ truth: 'difference-of-means', groups: 2, least: 2, cost: 40 },
    make: difference(welch),
  },
  {
    ...{ id: 'pooled-difference', name: 'pooled interval of the difference of two means' },
    ...{ truth: 'difference-of-means', groups: 2, least: 2, cost: 40 },
    make: difference(pooled),
  },
  {
    ...{
      id: 'ratio-of-sds',
      name: 'F interval of the ratio of two standard deviations',
      truth: 'ratio-of-sds',
      groups: 2,
    },
    ...{ least: 2, cost: 2 },
    make: ratioOfSds,
  },
  {
    ...{ id: 'difference-of-shares', name: 'Newcombe interval of the difference of two proportions' },
    ...{ truth: 'difference-of-shares', groups: 2, least: 1, cost: 2 },
    make: differenceOfShares,
  },
] as const satisfies readonly SimulatedInterval[];
export type IntervalId = (typeof SIMULATED_INTERVALS)[number]['id'];

/** The interval of an id; throws where there is none, which no request can ask. */
export function simulatedInterval(id: string): SimulatedInterval {
  const found = SIMULATED_INTERVALS.find((interval) => interval.id === id);
  if (!found) throw new RangeError(`There is no interval “${id}”.`);
  return found;
}
