import { log, exp } from '../numeric/elementary.js';
import { clopperPearson } from '../numeric/clopper-pearson.js';
import { normalQuantile } from '../numeric/standard-normal.js';

/** Power: the proportion of simulated samples from another distribution that the test rejects, with its 95 % Clopper–Pearson interval. */
export interface Noticed {
  noticed: number;
  replicates: number;
  interval: [number, number];
}

/** The proportion of statistics at or beyond a critical value. */
export function noticedShare(chunks: readonly Float64Array[], critical: number): Noticed {
  let beyond = 0;
  let replicates = 0;
  for (const chunk of chunks) {
    replicates += chunk.length;
    for (let i = 0; i < chunk.length; i++) if (chunk[i]! >= critical) beyond++;
  }
  return { noticed: beyond / replicates, replicates, interval: clopperPearson(beyond, replicates) };
}

/** A share as a score; those of none and of all are told apart by half a sample. */
const scoreOf = ({ noticed, replicates }: Noticed) => {
  const least = 0.5 / replicates;
  return normalQuantile(Math.min(1 - least, Math.max(least, noticed)));
};

/**
 * The n at which power reaches `wanted`, interpolated between the n that were simulated: linear in log n and the normal score of power, which is
 * nearly true for most tests. Null if the greatest n does not reach it; the least n if that one already does.
 */
export function sizeNeeded(tried: readonly (Noticed & { n: number })[], wanted: number): number | null {
  const reached = tried.findIndex(({ noticed }) => noticed >= wanted);
  if (reached < 0) return null;
  const [before, after] = [tried[reached - 1], tried[reached]!];
  if (!before) return after.n;
  const [low, high, at] = [scoreOf(before), scoreOf(after), normalQuantile(wanted)];
  const share = high > low ? (at - low) / (high - low) : 1;
  return exp(log(before.n) + share * (log(after.n) - log(before.n)));
}
