import { countFitAnalysis } from '../core/src/analyses/fit/count-fit.js';
import { lineUpAnalysis } from '../core/src/analyses/fit/line-up.js';
import type { CountFitResult } from '../core/src/analyses/fit/count-fit-result.js';
import { pooled, tallyTwoSamples, twoSampleStatistics } from '../core/src/goodness-of-fit/two-samples.js';
import { poisson } from '../core/src/distributions/families/poisson.js';
import { placeOfSubject } from '../core/src/probability-plot/line-up.js';
import { fillNormals } from '../core/src/random/normal.js';
import { createStream } from '../core/src/random/stream.js';
import { NO_READINGS } from '../core/src/readings/sample.js';
import { chunkCount, performChunk, type KernelOrder } from '../core/src/road/kernels.js';
import { report } from './report.ts';

const LEVEL = 0.05;
const SAMPLES = 2_000;
const REPLICATES = 199;

/** How often the tests of counts reject Poisson counts, and those of two samples two samples of one distribution; whether every place of a line-up is alike. */
export async function calibrateCountsAndSamples(): Promise<boolean> {
  let holds = true;
  for (const mean of [0.5, 2, 20]) for (const n of [20, 50]) holds = (await counts(mean, n)) && holds;
  for (const n of [8, 30]) holds = twoSamples(n) && holds;
  return places() && holds;
}

/** The fit of counts with its samples drawn in this thread. */
async function fitted(values: Float64Array, seed: number): Promise<CountFitResult | null> {
  const sample = { ...NO_READINGS, name: 'x', values, rows: Int32Array.from(values, (_, i) => i + 1) };
  const run = countFitAnalysis.run(
    countFitAnalysis.request.parse({ column: 'x', replicates: REPLICATES, seed }),
    sample,
  );
  const step = run.next([]);
  if (step.done) return null;
  const chunksOf = (order: KernelOrder) =>
    Promise.all(Array.from({ length: chunkCount(order) }, (_, k) => performChunk(order, k)));
  return run.next(await Promise.all(step.value.orders.map(chunksOf))).value as CountFitResult;
}

async function counts(mean: number, n: number): Promise<boolean> {
  const values = new Float64Array(n);
  const law = poisson.of({ mean });
  const stream = createStream(Math.round(mean * 10), n);
  const rejected = { chi: 0, dispersion: 0, chiFormula: 0, dispersionFormula: 0 };
  const [tested, byFormula] = [
    { chi: 0, dispersion: 0 },
    { chi: 0, dispersion: 0 },
  ];
  for (let k = 0; k < SAMPLES; k++) {
    law.sample(stream, values);
    const found = await fitted(values, k);
    if (!found) continue;
    const { chiSquare, dispersion } = found;
    if (chiSquare) {
      tested.chi++;
      if (chiSquare.pSimulated!.pValue <= LEVEL) rejected.chi++;
      if (chiSquare.pAsymptotic !== null) byFormula.chi++;
      if (chiSquare.pAsymptotic !== null && chiSquare.pAsymptotic <= LEVEL) rejected.chiFormula++;
    }
    tested.dispersion++;
    if (dispersion!.pSimulated!.pValue <= LEVEL) rejected.dispersion++;
    if (dispersion!.pAsymptotic !== null) byFormula.dispersion++;
    if (dispersion!.pAsymptotic !== null && dispersion!.pAsymptotic <= LEVEL) rejected.dispersionFormula++;
  }
  const what = `Poisson mean ${mean}, n = ${n}`;
  // Few values make a statistic of few values: its p then stays above the level more often than not.
  const lines = [
    report(`rejected by χ², ${what}`, rejected.chi, tested.chi || 1, LEVEL, mean >= 2),
    report(`rejected by dispersion, ${what}`, rejected.dispersion, tested.dispersion, LEVEL, mean >= 2),
  ];
  if (byFormula.dispersion === SAMPLES)
    lines.push(report(`rejected by dispersion, formula, ${what}`, rejected.dispersionFormula, SAMPLES, LEVEL, true));
  // With the mean found from all counts χ² lies between two curves (Chernoff & Lehmann 1954): it is reported, and no promise is made.
  if (byFormula.chi > SAMPLES / 2) {
    const share = rejected.chiFormula / byFormula.chi;
    console.log(`rejected by χ², formula, ${what}: ${share.toFixed(4)} (no promise)`);
  }
  return lines.every(Boolean);
}

function twoSamples(n: number): boolean {
  const rejected = [0, 0];
  for (let k = 0; k < SAMPLES; k++) {
    const [a, b] = [new Float64Array(n), new Float64Array(n)];
    const stream = createStream(k, n);
    fillNormals(stream, a);
    fillNormals(stream, b);
    const { ties, first, n: sizes } = pooled(a.sort(), b.sort());
    const observed = { andersonDarling: 0, kolmogorovSmirnov: 0 };
    twoSampleStatistics(ties, first, sizes, observed);
    const tallies = tallyTwoSamples({ ties: Array.from(ties), n: sizes, observed }, createStream(k, 1), REPLICATES);
    tallies.forEach((far, t) => {
      if ((far + 1) / (REPLICATES + 1) <= LEVEL) rejected[t] = rejected[t]! + 1;
    });
  }
  const a2 = report(`two samples told apart by A², n = ${n}`, rejected[0]!, SAMPLES, LEVEL, true);
  return report(`two samples told apart by D, n = ${n}`, rejected[1]!, SAMPLES, LEVEL, false) && a2;
}

function places(): boolean {
  let found = 0;
  for (let seed = 0; seed < 20_000; seed++) if (placeOfSubject(seed) === 6) found++;
  return report(`${lineUpAnalysis.name}: the readings at place 7`, found, 20_000, LEVEL, true);
}
