/** The nine tests of normality, W of many readings beside a plain loop that does the same, and other times that were promised for Fit. */
import { inThisThread, plotPicture, type ProbabilityPlotResult } from '@verdict/core/analyses';
import { toSample, type Sample } from '@verdict/core/readings';
import { drive } from '@verdict/core/road';
import { tallyFitted } from '../core/src/goodness-of-fit/fitted/battery.js';
import { shapiroWilk, shapiroWilkWeights } from '../core/src/goodness-of-fit/normality/shapiro-wilk.js';
import { createStream } from '../core/src/random/stream.js';
import { plainShapiroWilk } from './plain-shapiro-wilk.js';
import { median, report } from './report.js';

const column = { name: 'x', unit: '', resolution: null, decimal: 'point', thousands: 'none' } as const;
const readings = (n: number, decimals = 3): Sample =>
  toSample(
    column,
    Array.from({ length: n }, (_, i) => (8 + Math.sin(i * 12.9898) * 0.3).toFixed(decimals)),
    new Set(),
  );

async function timed(id: string, request: object, sample: Sample): Promise<number> {
  const started = performance.now();
  await drive(inThisThread, { id, request: { column: 'x', ...request }, sample });
  return performance.now() - started;
}

function best(run: () => void, rounds = 25): number {
  const times: number[] = [];
  for (let i = 0; i < rounds; i++) {
    const started = performance.now();
    run();
    times.push(performance.now() - started);
  }
  return median(times);
}

export async function benchNormality(): Promise<void> {
  // Two workers have half of what one thread needs.
  report(
    'nine tests, n = 50, 10 000 samples, one thread ÷ 6 s',
    await timed('normality', { replicates: 10_000 }, readings(50)),
    6_000,
    1,
  );
  report(
    'nine tests, n = 1 000, 10 000 samples, one thread ÷ 60 s',
    await timed('normality', { replicates: 10_000 }, readings(1_000)),
    60_000,
    1,
  );

  const scores = Float64Array.from({ length: 5_000 }, (_, i) => Math.sin(i * 12.9898)).sort();
  report(
    'W of 5 000 readings ÷ plain loop',
    best(() => void shapiroWilk(scores, shapiroWilkWeights(5_000))),
    best(() => void plainShapiroWilk(scores)),
    2,
  );

  const threshold = { family: 'weibull', given: {}, estimateThreshold: true };
  const input = { n: 50, fitting: threshold, parameters: { shape: 2, scale: 1, threshold: 1 }, cells: 0, step: null };
  const refitted = () => void tallyFitted({ ...input, observed: [1, null, null, null] }, createStream(1, 0), 100);
  report('Weibull with threshold fitted anew, n = 50, a sample ÷ 5 ms', best(refitted, 5) / 100, 5, 1);

  const many = readings(100_000, 6);
  const plot = (await drive(inThisThread, {
    id: 'probability-plot',
    request: { column: 'x', band: 'none' },
    sample: many,
  })) as ProbabilityPlotResult;
  report(
    '100 000 readings, plot and picture ÷ 300 ms',
    (await timed('probability-plot', { band: 'none' }, many)) + best(() => void plotPicture(plot), 5),
    300,
    1,
  );
}
