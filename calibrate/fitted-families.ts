import { distribution, familyByName } from '../core/src/distributions/registry.js';
import { isRefusal } from '../core/src/distributions/family.js';
import { refitter } from '../core/src/distributions/fit/refit.js';
import { FITTED_TESTS, fittedStatistics, tallyFitted } from '../core/src/goodness-of-fit/fitted/battery.js';
import { simulateOrderedShares } from '../core/src/probability-plot/fitted-band.js';
import { bandRanks, calibrateBand } from '../core/src/probability-plot/whole-plot-band.js';
import { createStream } from '../core/src/random/stream.js';
import { report } from './report.ts';

const LEVEL = 0.05;
const SAMPLES = 500;
const REPLICATES = 399;
const FAMILIES = [
  ['normal', { mean: 0, sd: 1 }],
  ['gamma', { shape: 2, scale: 1 }],
  ['weibull', { shape: 1.5, scale: 3 }],
  ['exponential', { scale: 1 }],
  ['logistic', { location: 0, scale: 1 }],
] as const;

/** How often A², W² and D reject samples of their own family, its parameters estimated, and how often the whole-plot band holds all of a sample. */
export function calibrateFitted(): boolean {
  let holds = true;
  for (const [name, parameters] of FAMILIES) {
    for (const n of [10, 50]) holds = tests(name, parameters, n) && band(name, parameters, n) && holds;
  }
  return holds;
}

function tests(name: string, parameters: Record<string, number>, n: number): boolean {
  const family = familyByName(name);
  const fitting = { family: name, given: {}, estimateThreshold: false };
  const refit = refitter(fitting);
  const stream = createStream(31, n);
  const values = new Float64Array(n);
  const rejected = new Array<number>(3).fill(0);
  for (let k = 0; k < SAMPLES; k++) {
    distribution(family, parameters).sample(stream, values);
    values.sort();
    const own = refit(values);
    if (isRefusal(own)) throw new Error(own.refused);
    const observed = fittedStatistics(values, family.of(own), 0);
    const order = { n, fitting, parameters: own, cells: 0, step: null, observed };
    const tallies = tallyFitted(order, createStream(k, 1), REPLICATES);
    rejected.forEach((_, t) => {
      if ((tallies[t]! + 1) / (REPLICATES + 1) <= LEVEL) rejected[t] = rejected[t]! + 1;
    });
  }
  return rejected
    .map((times, t) => report(`rejected by ${FITTED_TESTS[t]}, ${name}, n = ${n}`, times, SAMPLES, LEVEL, true))
    .every(Boolean);
}

function band(family: string, parameters: Record<string, number>, n: number): boolean {
  const ranks = bandRanks(n);
  const fitting = { family, given: {}, estimateThreshold: false };
  const made = (seed: number, replicates: number) =>
    simulateOrderedShares({ n, ranks, fitting, parameters, step: null }, createStream(seed, 0), replicates);
  const { lower, upper } = calibrateBand([made(1, 10_000)], ranks, 0.95);
  const fresh = made(2, 2_000);
  let left = 0;
  for (let r = 0; r < 2_000; r++) {
    const row = fresh.subarray(r * ranks.length, (r + 1) * ranks.length);
    if (row.some((u, j) => u < lower[j]! || u > upper[j]!)) left++;
  }
  return report(`left the whole-plot band, ${family}, n = ${n}`, left, 2_000, LEVEL, true);
}
