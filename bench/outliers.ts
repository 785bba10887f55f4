/** Outliers: the simulations beside plain loops over the same draws, the comparison of rules and a long column beside what is promised. */
import { advance, inThisThread, studyTest, type OutliersResult } from '@verdict/core/analyses';
import { toSample, type Sample } from '@verdict/core/readings';
import { drive } from '@verdict/core/road';
import { esdCritical } from '../core/src/outliers/generalized-esd.js';
import { simulateOutliers, type OutlierReplicates } from '../core/src/outliers/replicates.js';
import { fillNormals } from '../core/src/random/normal.js';
import { createStream } from '../core/src/random/stream.js';
import { stripPanels } from '../web/src/charts/pictures/outliers.js';
import { median, report } from './report.js';

const [N, REPLICATES, MOST] = [50, 20_000, 5];
const CHUNK = 2_000;
const FORMAT = { unit: 'mm', resolution: null, decimal: 'point', thousands: 'none' } as const;
function sampleOf(n: number): Sample {
  const values = new Float64Array(n);
  fillNormals(createStream(5, 0), values);
  return toSample(
    { ...FORMAT, name: 'x' },
    Array.from(values, (z) => (8 + 0.3 * z).toFixed(4)),
    new Set(),
  );
}

/** G of so many samples: draw, mean, sd, the farthest. */
function plainGrubbs(out: Float64Array): void {
  const values = new Float64Array(N);
  const stream = createStream(1, 0);
  for (let r = 0; r < out.length; r++) {
    fillNormals(stream, values);
    let sum = 0;
    for (let i = 0; i < N; i++) sum += values[i]!;
    const mean = sum / N;
    let squares = 0;
    let far = 0;
    for (let i = 0; i < N; i++) {
      const d = Math.abs(values[i]! - mean);
      squares += d * d;
      if (d > far) far = d;
    }
    out[r] = far / Math.sqrt(squares / (N - 1));
  }
}

/** The steps of the ESD of so many samples: draw, and at every step mean, sd and the farthest of those that are left. */
function plainEsd(out: Float64Array): void {
  const values = new Float64Array(N);
  const stream = createStream(1, 0);
  const limits = Array.from({ length: MOST }, (_, i) => esdCritical(N, i + 1, 0.05, 'either'));
  for (let r = 0; r < out.length; r++) {
    fillNormals(stream, values);
    let best = 0;
    for (let step = 0, n = N; step < MOST; step++, n--) {
      let sum = 0;
      for (let i = 0; i < n; i++) sum += values[i]!;
      const mean = sum / n;
      let squares = 0;
      let at = 0;
      for (let i = 0; i < n; i++) {
        const d = values[i]! - mean;
        squares += d * d;
        if (Math.abs(d) > Math.abs(values[at]! - mean)) at = i;
      }
      const ratio = Math.abs(values[at]! - mean) / Math.sqrt(squares / (n - 1)) / limits[step]!;
      if (ratio > best) best = ratio;
      values[at] = values[n - 1]!;
    }
    out[r] = best;
  }
}

function own(which: OutlierReplicates['which']): void {
  const input = {
    n: N,
    which,
    side: 'either',
    most: MOST,
    alpha: 0.05,
    quartiles: 7,
    extremes: 0,
    law: null,
    rounding: null,
  } as const;
  for (let k = 0; k < REPLICATES / CHUNK; k++) simulateOutliers(input, createStream(1, k), CHUNK);
}

/** The two in turns, so that a slow second hits both. */
function inTurns(one: () => void, other: () => void): [number, number] {
  const times: [number[], number[]] = [[], []];
  const timed = (run: () => void) => {
    const started = performance.now();
    run();
    return performance.now() - started;
  };
  for (let round = 0; round < 11; round++) {
    times[0].push(timed(one));
    times[1].push(timed(other));
  }
  return [median(times[0].slice(2)), median(times[1].slice(2))];
}

export async function benchOutliers(): Promise<void> {
  const out = new Float64Array(REPLICATES);
  const what = `n = ${N} × ${REPLICATES}`;
  report(
    `simulated Grubbs, ${what} ÷ plain loop`,
    ...inTurns(
      () => own(['grubbs']),
      () => plainGrubbs(out),
    ),
    1.15,
  );
  report(
    `simulated ESD of up to ${MOST}, ${what} ÷ plain loop`,
    ...inTurns(
      () => own(['generalized-esd']),
      () => plainEsd(out),
    ),
    1.5,
  );

  const rules = () =>
    drive(inThisThread, { id: 'outlier-rules', request: { column: 'x', replicates: 2_000 }, sample: sampleOf(N) });
  await rules();
  const started = performance.now();
  await rules();
  report(`which rule, n = ${N}, 2 000 samples of each sort, one thread ÷ 3 s`, performance.now() - started, 3_000, 1);

  const long = sampleOf(100_000);
  const shown = () => {
    const stage = advance('outliers', { column: 'x' }, long, []);
    if (stage.done) throw new Error('There is nothing to simulate.');
    const result = stage.partial as OutliersResult;
    if (studyTest(result).rows === null) throw new Error('The list is not known.');
    return stripPanels(result, 'x');
  };
  const times = Array.from({ length: 5 }, () => {
    const from = performance.now();
    shown();
    return performance.now() - from;
  });
  report('100 000 readings: list and picture ÷ 400 ms', median(times), 400, 1);
}
