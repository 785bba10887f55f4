/**
 * Which of several p-values stay below the level when it is shared among them: the least against level/m, the next against level/(m − 1), and so on
 * until one fails. Any false finding among true null hypotheses then comes at most as often as the level says, however they hang together. In the order given.
 * Source: Holm (1979), A simple sequentially rejective multiple test procedure, Scand. J. Statist. 6, 65–70.
 */
export function holm(ps: readonly number[], level: number): boolean[] {
  const order = [...ps.keys()].sort((i, j) => ps[i]! - ps[j]!);
  const passed = ps.map(() => false);
  for (const [k, i] of order.entries()) {
    if (!(ps[i]! < level / (ps.length - k))) break;
    passed[i] = true;
  }
  return passed;
}

/**
 * Holm's (1979) adjusted p-values: each the smallest level at which its hypothesis is rejected when the level is shared among all. In the given
 * order; the smallest times m, the next times m − 1, and so on, none below the one before and none above 1.
 */
export function holmAdjusted(ps: readonly number[]): number[] {
  const order = [...ps.keys()].sort((i, j) => ps[i]! - ps[j]!);
  const adjusted = ps.map(() => 1);
  let greatest = 0;
  for (const [k, i] of order.entries()) {
    greatest = Math.max(greatest, Math.min(1, (ps.length - k) * ps[i]!));
    adjusted[i] = greatest;
  }
  return adjusted;
}
