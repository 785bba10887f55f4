import { inThisThread } from '../core/src/analyses/registry.js';
import { fillNormals } from '../core/src/random/normal.js';
import { createStream } from '../core/src/random/stream.js';
import type { Sample } from '../core/src/readings/sample.js';
import { drive } from '../core/src/road/runner.js';
import { sampleOf } from '../core/test/samples.js';
import { median } from './report.js';

const ROUNDS = 3;

function readings(n: number): Sample {
  const values = new Float64Array(n);
  fillNormals(createStream(7, n), values);
  for (let i = 0; i < n; i++) values[i] = 10 + values[i]!;
  const whole = { ...sampleOf(values), name: 'x' };
  const half = n >> 1;
  const part = (name: string, from: number, to: number) => ({
    ...{ ...whole, name, values: whole.values.slice(from, to), rows: whole.rows.slice(from, to) },
  });
  return { ...whole, groups: { by: 'kiln', samples: [part('north', 0, half), part('south', half, n)], without: 0 } };
}

const ALONE: Record<string, object> = {
  describe: {},
  shares: {},
  histogram: {},
  normality: {},
  'probability-plot': {},
  'goodness-of-fit': {},
  'compare-families': {},
  power: {},
  outliers: {},
  'outlier-rules': {},
  'mean-claim': { claimed: 10, noticeable: 0.2 },
  'spread-claim': { claimed: 1 },
  'median-claim': { claimed: 10, noticeable: 0.2 },
  'mean-and-sd-claim': { claimed: 10, claimedSd: 1 },
  tolerance: {},
  bootstrap: { statistic: 'mean' },
};
const SPLIT: Record<string, object> = {
  'two-means': { noticeable: 0.2 },
  'two-medians': { noticeable: 0.2 },
  'two-spreads': {},
  'several-means': {},
  'several-medians': {},
  'several-spreads': {},
  'outlying-groups': {},
  permutation: { statistic: 'difference-of-means' },
};

/** A plain loop as a measure of the machine: 10 000 means of so many numbers. */
function plainLoop(values: Float64Array): number {
  let sum = 0;
  for (let r = 0; r < 10_000; r++) for (let i = 0; i < values.length; i++) sum += values[i]! * r;
  return sum;
}

/** Every analysis of a column at n = 30 and 1 000, with its usual settings, beside a plain loop over as many readings in the same run. */
export async function benchAnalyses(): Promise<void> {
  for (const n of [30, 1_000]) {
    const grouped = readings(n);
    const { groups: _, ...alone } = grouped;
    const plain = median(
      Array.from({ length: ROUNDS }, () => {
        const since = performance.now();
        plainLoop(grouped.values);
        return performance.now() - since;
      }),
    );
    console.log(`n = ${n}: 10 000 plain sums take ${plain.toFixed(2)} ms`);
    for (const [list, sample, more] of [
      [ALONE, alone, {}],
      [SPLIT, grouped, { split: 'kiln' }],
    ] as const)
      for (const [id, settings] of Object.entries(list)) {
        const request = { column: 'x', ...more, ...settings };
        const times: number[] = [];
        for (let round = 0; round < ROUNDS; round++) {
          const since = performance.now();
          await drive(inThisThread, { id, request, sample: sample as Sample });
          times.push(performance.now() - since);
        }
        console.log(
          `${id}, n = ${n}: ${median(times).toFixed(0)} ms = ${(median(times) / plain).toFixed(1)} plain loops`,
        );
      }
  }
}
