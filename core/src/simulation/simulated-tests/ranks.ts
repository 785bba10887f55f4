import { pOfTails, type Tails } from '../../claims/alternative.js';
import { MOST_PAIRS, mannWhitneyByNormal, mannWhitneyExact, sharesWithoutTies } from '../../claims/rank-sum.js';
import { MOST_SIGNED_RANKS, signedRank, signedRankByNormal, signedRankShares, signTest } from '../../claims/ranks.js';
import type { SimulatedTest, TestOf, TestSetting } from './simulated-test.js';

/** The tails of a statistic 0, 1, 2 … by the share of each. */
function tailsOfShares(shares: Float64Array): (statistic: number) => Tails {
  const [lower, upper] = [shares.slice(), shares.slice()];
  for (let i = 1; i < shares.length; i++) lower[i]! += lower[i - 1]!;
  for (let i = shares.length - 2; i >= 0; i--) upper[i]! += upper[i + 1]!;
  return (statistic) => ({ lower: lower[statistic]!, upper: upper[statistic]! });
}

/** The sign test: of so many above out of so many that are not equal the p is worked out once. */
function sign({ sizes: [n], alternative, claim }: TestSetting): TestOf {
  const known = new Map<number, number>();
  return ([values], into) => {
    let [above, below] = [0, 0];
    for (let i = 0; i < n!; i++) {
      if (values![i]! > claim.median) above++;
      else if (values![i]! < claim.median) below++;
    }
    const key = above * (n! + 1) + below;
    let p = known.get(key);
    if (p === undefined) {
      p = pOfTails(signTest(values!, claim.median).tails, alternative);
      known.set(key, p);
    }
    into[0] = p;
    into[1] = above;
  };
}

/** The places of the least, the next … of `keys`, into `order`: by insertion for few, else by the engine. */
function orderOf(keys: Float64Array, order: Int32Array): void {
  const n = keys.length;
  for (let i = 0; i < n; i++) order[i] = i;
  if (n > 40) {
    order.sort((a, b) => keys[a]! - keys[b]!);
    return;
  }
  for (let i = 1; i < n; i++) {
    const at = order[i]!;
    const key = keys[at]!;
    let k = i - 1;
    while (k >= 0 && keys[order[k]!]! > key) {
      order[k + 1] = order[k]!;
      k--;
    }
    order[k + 1] = at;
  }
}

/** Nearer to each other than this by their size, distances may be ties that rounding has parted: those samples go the slow way, which knows. */
const NEAR = 1e-9;

/** The signed rank test, by the law without ties where no two distances are near each other. */
function signedRanks({ sizes: [n], alternative, claim }: TestSetting): TestOf {
  const exact = n! <= MOST_SIGNED_RANKS;
  const tailsOf = exact ? tailsOfShares(signedRankShares(n!)) : null;
  const [distances, order] = [new Float64Array(n!), new Int32Array(n!)];
  const { median } = claim;
  return ([values], into) => {
    let size = Math.abs(median);
    for (let i = 0; i < n!; i++) {
      const x = values![i]!;
      distances[i] = Math.abs(x - median);
      if (Math.abs(x) > size) size = Math.abs(x);
    }
    orderOf(distances, order);
    const near = NEAR * size;
    let tied = distances[order[0]!]! <= near;
    let sum = 0;
    for (let i = 0; i < n!; i++) {
      const at = order[i]!;
      if (i > 0 && distances[at]! - distances[order[i - 1]!]! <= near) tied = true;
      if (values![at]! > median) sum += i + 1;
    }
    if (tailsOf && !tied) {
      into[0] = pOfTails(tailsOf(sum), alternative);
      into[1] = sum;
      return;
    }
    const found = (exact ? signedRank : signedRankByNormal)(values!, median);
    into[0] = found.n === 0 ? NaN : pOfTails(found.tails, alternative);
    into[1] = found.statistic;
  };
}

/** With ties every sample has a law of its own: up to so many pairs it is counted out, beyond a normal does. */
const MOST_TIED_PAIRS = 400;

function mannWhitney({ sizes, alternative }: TestSetting): TestOf {
  const [m, n] = [sizes[0]!, sizes[1]!];
  const tailsOf = m * n <= MOST_PAIRS ? tailsOfShares(sharesWithoutTies(m, n)) : null;
  const tiedWay = m * n <= MOST_TIED_PAIRS ? mannWhitneyExact : mannWhitneyByNormal;
  const [all, order] = [new Float64Array(m + n), new Int32Array(m + n)];
  return ([a, b], into) => {
    all.set(a!);
    all.set(b!, m);
    orderOf(all, order);
    let [tied, sum] = [false, 0];
    for (let i = 0; i < order.length; i++) {
      const at = order[i]!;
      if (i > 0 && all[at] === all[order[i - 1]!]) tied = true;
      if (at < m) sum += i + 1;
    }
    if (all[order[0]!] === all[order[m + n - 1]!]) return void into.fill(NaN, 0, 2);
    if (tailsOf && !tied) {
      const u = sum - (m * (m + 1)) / 2;
      into[0] = pOfTails(tailsOf(u), alternative);
      into[1] = u;
      return;
    }
    const found = tiedWay(a!, b!);
    into[0] = pOfTails(found.tails, alternative);
    into[1] = found.statistic;
  };
}

export const RANKS: readonly SimulatedTest[] = [
  {
    ...{
      id: 'signed-rank',
      short: 'signed rank',
      name: 'signed rank test of the median',
      symbol: 'W',
      about: 'median',
      groups: 1,
    },
    ...{ least: 1, sided: true, cost: 15 },
    make: signedRanks,
  },
  {
    ...{ id: 'sign', short: 'sign', name: 'sign test of the median', symbol: 'above', about: 'median', groups: 1 },
    ...{ least: 1, sided: true, cost: 2 },
    make: sign,
  },
  {
    ...{ id: 'mann-whitney', short: 'Mann–Whitney', name: 'Mann–Whitney test', symbol: 'U', about: 'two', groups: 2 },
    ...{ least: 1, sided: true, cost: 20 },
    make: mannWhitney,
  },
];
