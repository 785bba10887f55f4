/** What the Shape stage works out, for a million readings: describe beside one typed sort of the same column, a histogram beside one pass over it. */
import { createStream, fillNormals } from '@verdict/core/random';
import { advance } from '@verdict/core/analyses';
import type { Sample } from '@verdict/core/readings';
import { histogram } from '../core/src/describe/histogram.js';
import { median, report } from './report.js';

const N = 1_000_000;

function sampleOf(values: Float64Array, resolution: number | null): Sample {
  const rows = Int32Array.from(values.keys(), (i) => i + 1);
  const none = { missing: 0, setAside: 0, unreadable: 0, beyondLimit: 0 };
  return { name: 'thickness', unit: 'mm', values, rows, resolution, ...none };
}

function timed(work: () => unknown, rounds = 7): number {
  work();
  const times: number[] = [];
  for (let i = 0; i < rounds; i++) {
    const started = performance.now();
    work();
    times.push(performance.now() - started);
  }
  return median(times);
}

/** One pass that counts readings in known bins, as plainly as it can be written. */
function plainCount(values: Float64Array, start: number, width: number, bins: number): Int32Array {
  const counts = new Int32Array(bins);
  for (let i = 0; i < values.length; i++) counts[Math.min(bins - 1, Math.floor((values[i]! - start) / width))]!++;
  return counts;
}

export function benchShape(): void {
  const values = new Float64Array(N);
  fillNormals(createStream(1, 0), values);
  for (let i = 0; i < N; i++) values[i] = 8 + 0.1 * values[i]!;
  const rounded = values.map((x) => Math.round(x * 1000) / 1000);
  for (const [what, column, resolution] of [
    ['full doubles', values, null],
    ['steps of 0.001', rounded, 0.001],
  ] as const) {
    const sample = sampleOf(column, resolution);
    const sort = timed(() => column.slice().sort());
    const described = timed(() => advance('describe', { column: 'thickness' }, sample, []));
    report(`describe of 1 000 000 readings, ${what} ÷ one typed sort`, described, sort, 2.5);
    const stage = advance('histogram', { column: 'thickness' }, sample, []) as unknown as {
      result: { edges: number[]; width: number };
    };
    const { edges, width } = stage.result;
    const pass = timed(() => plainCount(column, edges[0]!, width, edges.length - 1));
    const own = timed(() => histogram(column, resolution, { rule: 'power-of-two' }));
    report(`histogram of 1 000 000 readings, ${what} ÷ one counting pass`, own, pass, 3);
    const scott = timed(() => histogram(column, resolution, { rule: 'scott' }));
    report(`the same by the sd (Scott), ${what} ÷ one counting pass`, scott, pass, null);
    const whole = timed(() => advance('histogram', { column: 'thickness' }, sample, []));
    report(`the analysis histogram with its three other binnings, ${what} ÷ one counting pass`, whole, pass, null);
  }
}
