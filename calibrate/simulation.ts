import { analysisById, inThisThread } from '../core/src/analyses/registry.js';
import type { CurvesResult } from '../core/src/analyses/simulate/curves-result.js';
import type { PlanResult } from '../core/src/analyses/simulate/plan-result.js';
import type { PropagateResult } from '../core/src/analyses/simulate/propagate-result.js';
import type { SimulateResult } from '../core/src/analyses/simulate/simulate-result.js';
import { NO_READINGS } from '../core/src/readings/sample.js';
import type { Piece } from '../core/src/road/analysis.js';
import { drive } from '../core/src/road/runner.js';
import { report } from './report.ts';

interface Said<R> {
  result: R;
  words: string;
}
async function said<R>(id: string, request: object): Promise<Said<R>> {
  const result = await drive(inThisThread, { id, request, sample: NO_READINGS });
  const finding = analysisById(id).finding as (of: unknown) => Piece[];
  return {
    result: result as R,
    words: finding(result)
      .map(({ text }) => text)
      .join(''),
  };
}

/** How many of so many simulations, each with a seed of its own, something is said of. */
async function counted<R>(id: string, request: object, runs: number, of: (one: Said<R>) => boolean): Promise<number> {
  let count = 0;
  for (let seed = 0; seed < runs; seed++) if (of(await said<R>(id, { ...request, seed }))) count++;
  return count;
}

/** That a t test of normals, which is exact, does not keep its level. */
export const deniedLevels = (runs: number): Promise<number> =>
  counted<SimulateResult>('simulate', { test: 't', n: 5 }, runs, ({ words }) =>
    /does not keep its level|on the careful side/.test(words),
  );

/** That the χ² interval of an sd of normals, which is exact, covers more or fewer than it says. */
export const deniedCoverage = (runs: number): Promise<number> =>
  counted<SimulateResult>('simulate', { interval: 'sd', n: 6 }, runs, ({ words }) =>
    /does not keep what it says|wider than they need be/.test(words),
  );

/** That one of three tests of two groups errs more often than its level at one of five sizes. */
export const deniedCurves = (runs: number): Promise<number> =>
  counted<CurvesResult>(
    'power-curves',
    { tests: ['welch', 'pooled-t', 'paired-t'], values: [8, 12, 20, 30, 50], replicates: 500 },
    runs,
    ({ words }) => words.includes('more often than'),
  );

/** That the n of a plan by simulation lies within what it leaves open: 34 are needed by formula, and so fine a step changes nothing. */
export const plansThatHold = (runs: number): Promise<number> =>
  counted<PlanResult>(
    'plan',
    { test: 't', shiftInSd: 0.5, step: 1e-7, replicates: 2_000 },
    runs,
    ({ result: { atLeast, atMost } }) => (atLeast ?? 0) <= 34 && (atMost ?? Infinity) >= 34,
  );

/** That a sum of normals does not agree with its first order, which is exact, or that its sd is off by more than it is told to. */
export const deniedSums = (runs: number): Promise<number> =>
  counted<PropagateResult>(
    'propagate',
    {
      inputs: { a: { family: 'normal' }, b: { family: 'normal', parameters: [1, 2] } },
      formula: 'a + b',
    },
    runs,
    ({ result: { firstOrder, sd, tolerance } }) =>
      firstOrder!.agrees === false || Math.abs(sd! - Math.sqrt(5)) > tolerance!,
  );

/** Words about simulated shares, which are no surer than their samples are many: each is wrong at most as often as its doubt. */
export async function calibrateSimulation(): Promise<boolean> {
  const held = [
    report('an exact t test is said not to keep its level', await deniedLevels(1_000), 1_000, 0.05, false),
    report('an exact interval is said not to keep what it says', await deniedCoverage(1_000), 1_000, 0.05, false),
    report('one of fifteen points is said to be above the level', await deniedCurves(300), 300, 0.05, false),
    report('a plan leaves out the n that is needed', 200 - (await plansThatHold(200)), 200, 0.05, false),
    report('a sum of normals is said not to agree, or its sd told wrong', await deniedSums(200), 200, 0.05, false),
  ];
  return held.every(Boolean);
}
