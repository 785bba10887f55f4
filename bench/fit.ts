/** Tests and plots of any family, each beside a plain loop that does the same work: draw, sort, fit by the family's equation, measure A². */
import { comparePlainGamma, comparePlainWeibull } from './plain-fits.js';
import { inThisThread } from '@verdict/core/analyses';
import { toSample } from '@verdict/core/readings';
import { drive } from '@verdict/core/road';
import { tallyFitted } from '../core/src/goodness-of-fit/fitted/battery.js';
import { createStream } from '../core/src/random/stream.js';
import { median, report } from './report.js';

const N = 50;
const REPLICATES = 1_000;
const ROUNDS = 15;

function timed(run: () => void): number {
  const times: number[] = [];
  run();
  for (let i = 0; i < ROUNDS; i++) {
    const started = performance.now();
    run();
    times.push(performance.now() - started);
  }
  return median(times);
}

function kernel(family: string, parameters: Record<string, number>): number {
  const fitting = { family, given: {}, estimateThreshold: false };
  const input = { n: N, fitting, parameters, cells: 0, step: null, observed: [1, null, null, null] };
  return timed(() => void tallyFitted(input, createStream(1, 0), REPLICATES));
}

export async function benchFit(): Promise<void> {
  report(
    'gamma fitted anew, n = 50 × 1 000 ÷ plain loop',
    kernel('gamma', { shape: 2, scale: 1 }),
    timed(() => comparePlainGamma(N, REPLICATES)),
    1.3,
  );
  report(
    'Weibull fitted anew, n = 50 × 1 000 ÷ plain loop',
    kernel('weibull', { shape: 2, scale: 1 }),
    timed(() => comparePlainWeibull(N, REPLICATES)),
    1.3,
  );
  const column = { name: 'x', unit: '', resolution: null, decimal: 'point', thousands: 'none' } as const;
  const cells = Array.from({ length: N }, (_, i) => (8 + Math.sin(i * 12.9898) * 0.3).toFixed(3));
  const sample = toSample(column, cells, new Set());
  const started = performance.now();
  await drive(inThisThread, { id: 'compare-families', request: { column: 'x' }, sample });
  report('families compared, n = 50 × 1 000 each, one thread ÷ 40 s', performance.now() - started, 40_000, 1);
}
