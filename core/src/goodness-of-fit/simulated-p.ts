import { clopperPearson } from '../numeric/clopper-pearson.js';
import { greatestTie, leastTie } from '../numeric/ties.js';

export interface SimulatedP {
  pValue: number;
  /** The number of replicates at least as extreme as the readings; ties count. */
  atLeastAsExtreme: number;
  replicates: number;
  /** How many were asked for, where the simulation stopped early since nothing was left to decide. */
  most?: number;
  seed: number;
  /** 95 % Clopper–Pearson interval on the share of extreme replicates. */
  pInterval: [number, number];
}

/** p = (b + 1)/(B + 1) for a statistic whose large values are extreme (Davison & Hinkley 1997, section 4.2.1). */
export function simulatedP(observed: number, chunks: readonly Float64Array[], seed: number): SimulatedP {
  const limit = leastTie(observed);
  let b = 0;
  let replicates = 0;
  for (const chunk of chunks) {
    replicates += chunk.length;
    for (let i = 0; i < chunk.length; i++) if (chunk[i]! >= limit) b++;
  }
  return pOfTally(b, replicates, seed);
}

/** The same where the replicates at least as extreme are counted already. */
export function pOfTally(atLeastAsExtreme: number, replicates: number, seed: number): SimulatedP {
  return {
    pValue: (atLeastAsExtreme + 1) / (replicates + 1),
    atLeastAsExtreme,
    replicates,
    seed,
    pInterval: clopperPearson(atLeastAsExtreme, replicates),
  };
}

/** All replicates in rising order. */
function inOrder(chunks: readonly Float64Array[]): Float64Array {
  const all = new Float64Array(chunks.reduce((sum, chunk) => sum + chunk.length, 0));
  let at = 0;
  for (const chunk of chunks) {
    all.set(chunk, at);
    at += chunk.length;
  }
  return all.sort();
}

/**
 * The value that a statistic must exceed for its p, (b + 1)/(B + 1) with ties counted, to be below alpha; Infinity if there are too few replicates
 * for that.
 */
export function rejectionLimit(chunks: readonly Float64Array[], alpha: number): number {
  const all = inOrder(chunks);
  const most = Math.ceil(alpha * (all.length + 1)) - 2;
  return most < 0 ? Infinity : all[all.length - 1 - most]!;
}

/** The value that a share alpha of the replicates reaches or exceeds: the critical value at that level. */
export function simulatedCriticalValue(chunks: readonly Float64Array[], alpha: number): number {
  const all = inOrder(chunks);
  const index = Math.min(all.length - 1, Math.max(0, Math.ceil((1 - alpha) * (all.length + 1)) - 1));
  return all[index]!;
}

/** The proportion of replicates below a critical value: the probability that the test misses such a population at this sample size. */
export function shareBelow(chunks: readonly Float64Array[], critical: number): number {
  let below = 0;
  let total = 0;
  for (const chunk of chunks) {
    total += chunk.length;
    for (let i = 0; i < chunk.length; i++) if (chunk[i]! < critical) below++;
  }
  return below / total;
}

/** The share of replicates at the greatest statistic of all: no p-value can be below it. */
export function shareAtGreatest(chunks: readonly Float64Array[]): number {
  let greatest = -Infinity;
  let ties = 0;
  let total = 0;
  for (const chunk of chunks) {
    total += chunk.length;
    for (let i = 0; i < chunk.length; i++) {
      const x = chunk[i]!;
      if (x > greatestTie(greatest, Math.abs(x))) [greatest, ties] = [x, 1];
      else if (x >= leastTie(greatest, Math.abs(x))) ties++;
    }
  }
  return ties / total;
}
