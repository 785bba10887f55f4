/** Claims: exact tests and tolerance factors beside what is promised, simulated counts beside a plain loop, every claim on a thousand readings from setting to picture. */
import { advance, ANALYSES, type ClaimResult, type ToleranceResult } from '@verdict/core/analyses';
import { toSample, type Sample } from '@verdict/core/readings';
import { exactCountsP } from '../core/src/claims/counts.js';
import { mannWhitneyExact } from '../core/src/claims/rank-sum.js';
import { signedRank } from '../core/src/claims/ranks.js';
import { tallyCountsAgainst } from '../core/src/claims/simulated-counts.js';
import { twoSidedFactor } from '../core/src/claims/tolerance.js';
import { fillNormals } from '../core/src/random/normal.js';
import { createStream, nextOpenUnit } from '../core/src/random/stream.js';
import { samplesBeside } from '../core/src/table/split.js';
import { foundPanels, lawPanels, tolerancePanels } from '../web/src/charts/pictures/claims.js';
import { median, report } from './report.js';

const FORMAT = { unit: 'mm', resolution: null, decimal: 'point', thousands: 'none' } as const;
function normals(n: number, seed: number): Float64Array {
  const values = new Float64Array(n);
  fillNormals(createStream(seed, 0), values);
  return values;
}
const sampleOf = (name: string, n: number, seed: number): Sample =>
  toSample(
    { ...FORMAT, name },
    Array.from(normals(n, seed), (z) => (8 + 0.3 * z).toFixed(3)),
    new Set(),
  );

function timed(run: () => unknown, rounds = 9): number {
  const times = Array.from({ length: rounds }, () => {
    const from = performance.now();
    run();
    return performance.now() - from;
  });
  return median(times.slice(2));
}

const [N, CELLS, REPLICATES] = [100, 4, 100_000];
const SHARES = [0.4, 0.3, 0.2, 0.1];

/** Counts dealt one by one to four cells, and their χ². */
function plainCounts(): number {
  const stream = createStream(1, 0);
  const counts = new Float64Array(CELLS);
  let far = 0;
  for (let r = 0; r < REPLICATES; r++) {
    counts.fill(0);
    for (let i = 0; i < N; i++) {
      const u = nextOpenUnit(stream);
      counts[u <= 0.4 ? 0 : u <= 0.7 ? 1 : u <= 0.9 ? 2 : 3]!++;
    }
    let chi = 0;
    for (let i = 0; i < CELLS; i++) chi += (counts[i]! - N * SHARES[i]!) ** 2 / (N * SHARES[i]!);
    if (chi >= 7.8) far++;
  }
  return far;
}

/** What every claim is asked with. */
const REQUESTS: Record<string, object> = {
  'mean-claim': { claimed: 8 },
  'spread-claim': { claimed: 0.3 },
  'median-claim': { claimed: 8 },
  'mean-and-sd-claim': { claimed: 8, claimedSd: 0.3 },
  'share-claim': { claimed: 0.02, lower: 7.4, upper: 8.6 },
  tolerance: { lower: 7, upper: 9 },
  'two-means': { noticeable: 0.1 },
  'two-medians': { noticeable: 0.1 },
  'two-spreads': { noticeable: 1.5 },
  'two-shares': { lower: 7.4, upper: 8.6 },
  'several-means': { noticeable: 0.1 },
  'several-medians': { method: 'chi-square' },
  'several-spreads': {},
};

function picture(id: string, sample: Sample): void {
  const grouped = /^two-|^several-/.test(id);
  const stage = advance(id, { column: 'a', ...(grouped ? { beside: ['b'] } : {}), ...REQUESTS[id] }, sample, []);
  // What is redrawn beside comes later.
  const found = stage.done ? stage.result : stage.partial;
  if (id === 'tolerance') tolerancePanels(found as ToleranceResult);
  else {
    lawPanels(found as ClaimResult);
    foundPanels(found as ClaimResult, 'a');
  }
}

export function benchClaims(): void {
  const x = normals(60, 2);
  report(
    'signed ranks of 60, exact ÷ 30 ms',
    timed(() => signedRank(x, 0.1)),
    30,
    1,
  );
  const [a, b] = [normals(100, 3), normals(100, 4)];
  report(
    'ranks of 100 and 100, exact ÷ 30 ms',
    timed(() => mannWhitneyExact(a, b)),
    30,
    1,
  );
  const coarse = (values: Float64Array) => values.map((z) => Math.round(8 * z));
  report(
    'the same with ties ÷ 30 ms',
    timed(() => mannWhitneyExact(coarse(a), coarse(b))),
    30,
    null,
  );
  const input = { n: N, shares: SHARES, observed: 7.8 };
  const own = () => {
    for (let k = 0; k < 100; k++) tallyCountsAgainst(input, createStream(1, k), REPLICATES / 100);
  };
  report(`χ² of ${CELLS} cells × ${REPLICATES} ÷ plain loop`, timed(own, 7), timed(plainCounts, 7), 1.3);
  report(
    'exact p over 988 260 tables ÷ 500 ms',
    timed(() => exactCountsP([70, 50, 40, 19], SHARES), 5),
    500,
    1,
  );
  let n = 30;
  report(
    'tolerance factor ÷ 5 ms',
    timed(() => twoSidedFactor(n++, 0.99, 0.95), 21),
    5,
    1,
  );

  const one = sampleOf('a', 1_000, 5);
  const two = samplesBeside([sampleOf('a', 500, 6), sampleOf('b', 500, 7)]);
  for (const { id } of ANALYSES.filter((analysis) => analysis.id in REQUESTS)) {
    const sample = /^two-|^several-/.test(id) ? two : one;
    report(
      `${id} of 1 000 readings to its picture ÷ 100 ms`,
      timed(() => picture(id, sample), 7),
      100,
      1,
    );
  }
}
