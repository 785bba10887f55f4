import { fisherP, shareP } from '../../claims/shares.js';
import type { Counted, SimulatedTest, TestOf, TestSetting } from './simulated-test.js';

/** How many readings are counted. */
export function countIn(values: Float64Array, { lower, upper, of }: Counted): number {
  const [low, high] = [lower ?? -Infinity, upper ?? Infinity];
  let within = 0;
  for (let i = 0; i < values.length; i++) if (values[i]! >= low && values[i]! <= high) within++;
  return of === 'within' ? within : values.length - within;
}

/** Counts are few: p of each is worked out once. */
function remembered(of: (key: number) => number): (key: number) => number {
  const known = new Map<number, number>();
  return (key) => {
    let found = known.get(key);
    if (found === undefined) known.set(key, (found = of(key)));
    return found;
  };
}

function share({ sizes: [n], alternative, claim }: TestSetting): TestOf {
  const p = remembered((count) => shareP(count, n!, claim.share, alternative));
  return ([values], into) => {
    const count = countIn(values!, claim.counted!);
    into[0] = p(count);
    into[1] = count;
  };
}

function fisher({ sizes, alternative, claim }: TestSetting): TestOf {
  const [m, n] = [sizes[0]!, sizes[1]!];
  const p = remembered((key) => {
    const [a, b] = [Math.floor(key / (n + 1)), key % (n + 1)];
    return fisherP(
      [
        [a, m - a],
        [b, n - b],
      ],
      alternative,
    );
  });
  return ([first, second], into) => {
    const [a, b] = [countIn(first!, claim.counted!), countIn(second!, claim.counted!)];
    into[0] = p(a * (n + 1) + b);
    into[1] = a / m - b / n;
  };
}

export const SHARES: readonly SimulatedTest[] = [
  {
    ...{
      id: 'share',
      short: 'binomial',
      name: 'exact binomial test of a proportion',
      symbol: 'count',
      about: 'share',
      groups: 1,
    },
    ...{ least: 1, sided: true, cost: 2 },
    make: share,
  },
  {
    ...{
      id: 'fisher',
      short: 'Fisher',
      name: 'Fisher’s exact test of two proportions',
      symbol: 'difference',
      about: 'two',
      groups: 2,
    },
    ...{ least: 1, sided: true, cost: 3 },
    make: fisher,
  },
];
