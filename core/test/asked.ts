import type { Sample } from '../src/readings/sample.js';
import { samplesBeside } from '../src/table/split.js';
import { column } from './reference.js';
import { sampleOf } from './samples.js';

/** Forty readings that look normal. */
export const sample = { ...sampleOf(column('normal-40')), resolution: 0.001 };

const beside = samplesBeside([sample, { ...sample, name: 'width' }]);
/** As many labels as readings. */
const labels: Sample = {
  ...sample,
  resolution: null,
  levels: ['chip', 'crack', 'stain'],
  values: sample.values.map((_, i) => (i * i) % 3),
};
const table = samplesBeside([labels, { ...labels, name: 'late', values: labels.values.map((x) => (2 * x) % 3) }]);

/** Two samples need two; of many families a dozen readings will do; labels are counted. */
const samplesOf: Record<string, Sample> = {
  'two-means': beside,
  'two-spreads': beside,
  'two-medians': beside,
  'two-shares': beside,
  'several-means': beside,
  'several-medians': beside,
  'several-spreads': beside,
  'counts-claim': labels,
  'table-claim': { ...table, levels: labels.levels! },
  permutation: beside,
  replicate: beside,
  'two-samples': samplesBeside([sample, { ...sample, name: 'width' }]),
  'outlying-groups': samplesBeside([sample, { ...sample, name: 'width' }]),
  'compare-families': { ...sampleOf(column('normal-40').subarray(0, 12)), resolution: 0.001 },
};

/** Simulations that only have to be the same. */
const few = { replicates: 199 };
/** A distribution has to be asked something, and of all families a few samples will do; the others have their defaults. */
const SETTINGS: Readonly<Record<string, object>> = {
  distribution: { above: 1 },
  'compare-families': few,
  power: few,
  normality: { replicates: 3_000 },
  'probability-plot': { replicates: 999 },
  screen: few,
  transform: few,
  'count-fit': few,
  'two-samples': { ...few, split: 'kiln' },
  'outlying-groups': { ...few, split: 'kiln' },
  'outlier-rules': few,
  'outlier-screen': few,
  outliers: few,
  'mean-claim': { claimed: 100 },
  'claim-draws': { model: { of: 'mean', n: 12, known: false }, beyond: { atMost: -2, atLeast: 2 } },
  'spread-claim': { claimed: 2 },
  'median-claim': { claimed: 100 },
  'mean-and-sd-claim': { claimed: 100, claimedSd: 2 },
  'share-claim': { claimed: 0.1, upper: 104 },
  'two-shares': { upper: 104, split: 'kiln' },
  'two-means': { split: 'kiln' },
  'two-spreads': { split: 'kiln' },
  'two-medians': { split: 'kiln' },
  'counts-claim': { ...few, method: 'simulated' },
  'table-claim': { ...few, split: 'shift', method: 'simulated' },
  'several-medians': { ...few, method: 'simulated' },
  bootstrap: { replicates: 20_000 },
  permutation: { replicates: 20_000, statistic: 'difference-of-means', split: 'kiln' },
  'bootstrap-plans': few,
  simulate: { test: 'lilliefors', replicates: 3_000 },
  'simulated-sample': { number: 7_001, test: 't' },
  'power-curves': { tests: ['t', 'signed-rank', 'dixon'], values: [5, 12], replicates: 3_000 },
  plan: { test: 'signed-rank', shiftInSd: 0.8, replicates: 500 },
  propagate: { inputs: { x: { column: 'thickness' }, y: { family: 'gamma' } }, formula: 'x / y', trials: 25_000 },
  replicate: { by: 'shuffling', number: 7_001, statistic: 'difference-of-means', split: 'kiln' },
};

/** A request for each analysis, with readings that suit it. */
export const jobOf = (id: string) => ({
  id,
  request: { column: 'thickness', ...SETTINGS[id] },
  sample: samplesOf[id] ?? sample,
});
