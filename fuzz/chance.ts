import { createStream, nextOpenUnit } from '@verdict/core/random';

/** Choices drawn from a seed: the same seed asks the same questions. */
export interface Chance {
  /** A whole number from 0 to n − 1. */
  upTo(n: number): number;
  of<T>(list: readonly T[]): T;
  /** True in this share of the cases. */
  holds(share: number): boolean;
  id(): string;
}

export function createChance(seed: number): Chance {
  const stream = createStream(seed, 0);
  const upTo = (n: number) => Math.floor(nextOpenUnit(stream) * n);
  return {
    upTo,
    of: (list) => list[upTo(list.length)]!,
    holds: (share) => nextOpenUnit(stream) < share,
    id: () => Array.from({ length: 4 }, () => (0x1000 + upTo(0xefff)).toString(16)).join('-'),
  };
}
