/** The other questions of Fit: a line-up, what n could miss, many columns, each beside a plain loop that draws as many numbers and sorts them, or beside what is promised. */
import { inThisThread } from '@verdict/core/analyses';
import { toSample, type Sample } from '@verdict/core/readings';
import { drive } from '@verdict/core/road';
import { samplesBeside } from '@verdict/core/table';
import { report } from './report.js';

const FORMAT = { unit: '', resolution: null, decimal: 'point', thousands: 'none' } as const;
function sampleOf(name: string, n: number): Sample {
  const cells = Array.from({ length: n }, (_, i) => (8 + Math.sin((i + name.length) * 12.9898) * 0.3).toFixed(4));
  return toSample({ ...FORMAT, name }, cells, new Set());
}

/** What anyone would write: so many samples of n by Box and Muller, each sorted, its mean and sd taken, and a logarithm a reading. */
function plainLoop(n: number, samples: number): void {
  for (let r = 0; r < samples; r++) {
    const values = Array.from(
      { length: n },
      () => Math.sqrt(-2 * Math.log(1 - Math.random())) * Math.cos(2 * Math.PI * Math.random()),
    ).sort((a, b) => a - b);
    const mean = values.reduce((a, b) => a + b, 0) / n;
    const sd = Math.sqrt(values.reduce((a, x) => a + (x - mean) ** 2, 0) / (n - 1));
    let sum = 0;
    for (const x of values) sum += Math.log(1 / (1 + Math.exp((-1.702 * (x - mean)) / sd)));
    if (sum > 0) throw new Error('A logarithm of a share is below 0.');
  }
}

async function timed(run: () => unknown): Promise<number> {
  await run();
  const started = performance.now();
  await run();
  return performance.now() - started;
}
const analysis = (id: string, request: object, sample: Sample) => () =>
  drive(inThisThread, { id, request: { column: sample.name, ...request }, sample });

export async function benchFitQuestions(): Promise<void> {
  for (const [n, promised] of [
    [48, 200],
    [10_000, 1_500],
  ] as const) {
    const own = await timed(analysis('line-up', { seed: 7 }, sampleOf('x', n)));
    report(`line-up of 20, n = ${n} ÷ plain loop`, own, await timed(() => plainLoop(n, 20)), null);
    report(`line-up of 20, n = ${n}, one thread ÷ ${promised} ms`, own, promised, 1);
  }
  // The curve of one departure and the critical value: a fifth of the curves of all, and no other n.
  const all = await timed(analysis('power', { replicates: 1_000 }, sampleOf('x', 50)));
  report(
    'all five power curves, n = 50 × 1 000, with the n that is needed ÷ plain loop of as many samples',
    all,
    await timed(() => plainLoop(50, 45_000 + 7 * 7_000)),
    1,
  );
  report('the same, one thread ÷ 4 s (2 s with two workers)', all, 4_000, 1);
  const columns = samplesBeside(Array.from({ length: 200 }, (_, i) => sampleOf(`c${'x'.repeat(i % 40)}${i}`, 50)));
  const beside = columns.groups!.samples.slice(1).map(({ name }) => name);
  const screen = await timed(analysis('screen', { beside, replicates: 1_000 }, columns));
  report('200 columns × 50 with A² and 1 000 replicates, one thread ÷ 10 s (5 s with two workers)', screen, 10_000, 1);
}
