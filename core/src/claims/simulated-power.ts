import { rejectionLimit } from '../goodness-of-fit/simulated-p.js';
import { fillNormals } from '../random/normal.js';
import { createStream, type StreamState } from '../random/stream.js';
import { tailOf, type Alternative } from './alternative.js';
import { dealerOf } from './simulated-counts.js';
import { signedRankShares } from './ranks.js';
import { sharesWithoutTies } from './rank-sum.js';
import { pOfMean, welch } from './means.js';
import { brownForsythe } from './spreads.js';
import { figuresDrawer, severalMeansDrawer } from './several-means.js';
import { greatestTie } from '../numeric/ties.js';

/** Samples for the critical value, and for each power: a standard error of at most 0.011. */
const NULLS = 10_000;
const TRIALS = 2_000;
/** Part of what makes the bits: the same draws for every n and difference, so that a power rises with the difference. */
export const SEED = 20_261_201;

/** A test of samples of a size, by simulation. */
export interface PowerModel {
  /** Makes what draws a sample in which the difference is d and gives its statistic: large values speak against the claim. */
  drawer(n: number): (d: number, state: StreamState) => number;
  /** The statistic from which on the test rejects; where it is not known exactly it is simulated with d = 0. */
  limit?(n: number): number | null;
}

/** The critical value from samples in which there is nothing to find; ties with it do not reject. */
function simulatedLimit(draw: (d: number, state: StreamState) => number, alpha: number): number {
  const state = createStream(SEED, 0);
  return greatestTie(rejectionLimit([Float64Array.from({ length: NULLS }, () => draw(0, state))], alpha));
}

/** The probability that a test rejects where the difference is d, by n and d; the work of a pair is done once. */
export function powerBySimulation(model: PowerModel, alpha: number): (n: number, d: number) => number {
  const limits = new Map<number, number>();
  const known = new Map<string, number>();
  const limitOf = (n: number): number => {
    const found = limits.get(n) ?? model.limit?.(n) ?? simulatedLimit(model.drawer(n), alpha);
    limits.set(n, found);
    return found;
  };
  return (n, d) => {
    const key = `${n} ${d}`;
    const before = known.get(key);
    if (before !== undefined) return before;
    const limit = limitOf(n);
    // A drawer may hold numbers that it has drawn ahead: each power has its own.
    const draw = model.drawer(n);
    const state = createStream(SEED, 1);
    let rejected = 0;
    if (limit < Infinity) for (let r = 0; r < TRIALS; r++) if (draw(d, state) > limit) rejected++;
    const power = rejected / TRIALS;
    known.set(key, power);
    return power;
  };
}

/** The sizes of groups whose total is n, in the same proportions, at least `least` each. */
export const sizesOf = (sizes: readonly number[], n: number, least: number): number[] => {
  const total = sizes.reduce((a, b) => a + b, 0);
  return sizes.map((size) => Math.max(least, Math.round((size * n) / total)));
};

/** Where the means of groups stand when the two smallest groups differ by d, the others midway. */
function centresOf(sizes: readonly number[]): number[] {
  const order = sizes.map((_, i) => i).sort((i, j) => sizes[i]! - sizes[j]! || i - j);
  return sizes.map((_, i) => (i === order[0] ? -0.5 : i === order[1] ? 0.5 : 0));
}

/** Several means, each group with its own spread (Krishnamoorthy, Lu & Mathew 2007): means and variances are drawn, not readings. */
export const severalMeansModel = (sizes: readonly number[], sds: readonly number[]): PowerModel => ({
  drawer(n) {
    const own = sizesOf(sizes, n, 2);
    const draw = severalMeansDrawer(own, sds, centresOf(own));
    return (d, state) => draw(state, d);
  },
});

/** Welch's t of two means with spreads of their own; its p is compared with the level, since the degrees of freedom differ between samples. */
export const twoMeansModel = (
  sizes: readonly [number, number],
  sds: readonly [number, number],
  alpha: number,
  alternative: Alternative,
): PowerModel => ({
  limit: () => -alpha,
  drawer(n) {
    const own = sizesOf(sizes, n, 2);
    const draw = figuresDrawer(own, sds, [1, 0]);
    return (d, state) => {
      const figures = draw(state, d);
      return -pOfMean(welch(figures[0]!, figures[1]!), alternative);
    };
  },
});

/** Kruskal–Wallis over normal groups that differ in their centre; d in sds. */
export const severalMediansModel = (sizes: readonly number[]): PowerModel => ({
  drawer(n) {
    const own = sizesOf(sizes, n, 1);
    const total = own.reduce((a, b) => a + b, 0);
    const centres = centresOf(own);
    const values = new Float64Array(total);
    const sorted = new Float64Array(total);
    let from = 0;
    const groups = own.map((size) => values.subarray(from, (from += size)));
    return (d, state) => {
      fillNormals(state, values);
      groups.forEach((group, i) => {
        const by = centres[i]! * d;
        if (by !== 0) for (let j = 0; j < group.length; j++) group[j]! += by;
        group.sort();
      });
      sorted.set(values);
      sorted.sort();
      let statistic = 0;
      for (const group of groups) {
        let [sum, at] = [0, 0];
        for (let j = 0; j < group.length; j++) {
          while (sorted[at]! < group[j]!) at++;
          sum += at + 1;
        }
        statistic += (sum * sum) / group.length;
      }
      return statistic;
    };
  },
});

/** Brown–Forsythe for two normal groups, the sd of the first being 1 + d times the other. */
export const twoSpreadsModel = (sizes: readonly [number, number], alternative: Alternative): PowerModel => ({
  drawer(n) {
    const [a, b] = sizesOf(sizes, n, 2).map((size) => new Float64Array(size)) as [Float64Array, Float64Array];
    const distance = (values: Float64Array) => {
      const middle = values.slice().sort();
      const median = (middle[(middle.length - 1) >> 1]! + middle[middle.length >> 1]!) / 2;
      return values.reduce((sum, x) => sum + Math.abs(x - median), 0) / values.length;
    };
    return (d, state) => {
      fillNormals(state, a);
      fillNormals(state, b);
      const ratio = alternative === 'less' ? 1 / (1 + d) : 1 + d;
      for (let i = 0; i < a.length; i++) a[i]! *= ratio;
      const { statistic } = brownForsythe([a, b]);
      if (alternative === 'two-sided') return statistic;
      // One-sided: the root with the sign of the difference.
      const above = distance(a) > distance(b);
      return Math.sqrt(statistic) * (above === (alternative === 'greater') ? 1 : -1);
    };
  },
});

/** The last of sums 0 … N whose upper tail, doubled where both count, is not below alpha; a sum above it rejects. */
function lastQuiet(shares: Float64Array, alpha: number, alternative: Alternative): number {
  const tail = tailOf(1 - alpha, alternative);
  let above = 0;
  for (let s = shares.length - 1; s >= 0; s--) {
    above += shares[s]!;
    if (!(above < tail)) return s;
  }
  return 0;
}

/** The greater of both sides, or that on the side that is asked about. */
const onSide = (sum: number, most: number, alternative: Alternative) =>
  alternative === 'greater' ? sum : alternative === 'less' ? most - sum : Math.max(sum, most - sum);

/** The signed rank test of normals whose centre is d sds off, against its exact null distribution. */
export const signedRankModel = (alpha: number, alternative: Alternative): PowerModel => ({
  limit: (n) => lastQuiet(signedRankShares(n), alpha, alternative),
  drawer(n) {
    const values = new Float64Array(n);
    const [above, below] = [new Float64Array(n), new Float64Array(n)];
    const most = (n * (n + 1)) / 2;
    return (d, state) => {
      fillNormals(state, values);
      let [up, down] = [0, 0];
      for (let i = 0; i < n; i++) {
        const x = values[i]! + d;
        if (x > 0) above[up++] = x;
        else below[down++] = -x;
      }
      const [high, low] = [above.subarray(0, up).sort(), below.subarray(0, down).sort()];
      // The rank of a distance above the centre: those before it on its own side, and on the other.
      let [sum, before] = [0, 0];
      for (let i = 0; i < up; i++) {
        while (before < down && low[before]! < high[i]!) before++;
        sum += i + 1 + before;
      }
      return onSide(sum, most, alternative);
    };
  },
});

/** The Mann–Whitney test of normals that are d sds apart, against its exact null distribution. */
export const rankSumModel = (
  share: number,
  alpha: number,
  alternative: Alternative,
): PowerModel & { sizes: (n: number) => [number, number] } => {
  const sizes = (n: number): [number, number] => {
    const first = Math.min(n - 1, Math.max(1, Math.round(n * share)));
    return [first, n - first];
  };
  return {
    sizes,
    limit: (n) => lastQuiet(sharesWithoutTies(...sizes(n)), alpha, alternative),
    drawer(n) {
      const [m, k] = sizes(n);
      const [a, b] = [new Float64Array(m), new Float64Array(k)];
      return (d, state) => {
        fillNormals(state, a);
        fillNormals(state, b);
        for (let i = 0; i < m; i++) a[i]! += d;
        a.sort();
        b.sort();
        let [sum, below] = [0, 0];
        for (let i = 0; i < m; i++) {
          while (below < k && b[below]! < a[i]!) below++;
          sum += below;
        }
        return onSide(sum, m * k, alternative);
      };
    },
  };
};

/** χ² of n counts where the proportion nearest one half is off by d, the others making it up in proportion. */
export const countsModel = (shares: readonly number[]): PowerModel => ({
  drawer(n) {
    const spread = shares.map((share) => share * (1 - share));
    const at = spread.indexOf(Math.max(...spread));
    const counts = new Float64Array(shares.length);
    const dealers = new Map<number, ReturnType<typeof dealerOf>>();
    const dealerFor = (d: number) => {
      const found = dealers.get(d);
      if (found) return found;
      const own = Math.min(1, shares[at]! + d);
      const rest = (1 - own) / (1 - shares[at]!);
      const made = dealerOf({ n, shares: shares.map((share, i) => (i === at ? own : share * rest)) });
      dealers.set(d, made);
      return made;
    };
    return (d, state) => {
      dealerFor(d)(state, counts);
      let chi = -n;
      for (let i = 0; i < counts.length; i++) if (shares[i]! > 0) chi += (counts[i]! * counts[i]!) / (n * shares[i]!);
      return chi;
    };
  },
});
