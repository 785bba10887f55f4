import type { CountTallies } from '../goodness-of-fit/counts/tally.js';
import type { FamilyCriteria } from '../distributions/fit/criteria.js';
import type { FittedTallies } from '../goodness-of-fit/fitted/battery.js';
import type { FittedStatistics } from '../goodness-of-fit/fitted/statistics.js';
import type { NormalityReplicates, NormalityTallies } from '../goodness-of-fit/normality/simulation.js';
import type { RoundedReplicates } from '../goodness-of-fit/normality/rounded-anderson-darling.js';
import type { LookSamples } from '../probability-plot/shapes.js';
import type { FittedShares } from '../probability-plot/fitted-band.js';
import type { ClaimDraws } from '../claims/draws.js';
import type { CountsReplicates, RankReplicates, TableReplicates } from '../claims/simulated-counts.js';
import type { WelchReplicates } from '../claims/several-means.js';
import type { OutlierReplicates } from '../outliers/replicates.js';
import type { RuleTrials } from '../outliers/rule-trials.js';
import type { TransformedTallies } from '../goodness-of-fit/transformed.js';
import type { TwoSampleTallies } from '../goodness-of-fit/two-samples.js';
import type { BootstrapDraws } from '../resampling/bootstrap.js';
import type { CountedOut, Shuffled } from '../resampling/permutation.js';
import type { LineUpDraws } from '../probability-plot/line-up.js';
import type { BandReplicates } from '../probability-plot/whole-plot-band.js';
import type { Propagation } from '../simulation/propagation.js';
import type { Rejections } from '../simulation/rejections.js';
import type { SimulatedSamples } from '../simulation/samples.js';
import { createStream } from '../random/stream.js';

/** The repeated work that analyses order, each with the input it takes. */
export interface KernelInputs {
  'normality-replicates': NormalityReplicates;
  'normality-tallies': NormalityTallies;
  'rounded-anderson-darling-replicates': RoundedReplicates;
  'ordered-scores': BandReplicates;
  'ordered-shares': FittedShares;
  'plot-looks': LookSamples;
  'fitted-tallies': FittedTallies;
  'fitted-statistics': FittedStatistics;
  'line-up-decoys': LineUpDraws;
  'count-tallies': CountTallies;
  'two-sample-tallies': TwoSampleTallies;
  'family-criteria': FamilyCriteria;
  'transformed-tallies': TransformedTallies;
  'outlier-replicates': OutlierReplicates;
  'rule-trials': RuleTrials;
  'cochran-replicates': { sizes: readonly number[] };
  'claim-draws': ClaimDraws;
  'counts-tallies': CountsReplicates;
  'table-tallies': TableReplicates;
  'rank-tallies': RankReplicates;
  'welch-tallies': WelchReplicates;
  'bootstrap-replicates': BootstrapDraws;
  'permutation-replicates': Shuffled;
  'arrangement-statistics': CountedOut;
  'simulated-samples': SimulatedSamples;
  'rejection-tallies': Rejections;
  'propagated-trials': Propagation;
}

type Kernel<K extends keyof KernelInputs> = (
  input: KernelInputs[K],
  state: Int32Array,
  replicates: number,
) => Float64Array;

/** Each is fetched when the first of its orders arrives, so that a worker of the page holds only the statistics that its stage uses. */
const KERNELS: { [K in keyof KernelInputs]: () => Promise<Kernel<K>> } = {
  'normality-replicates': async () => (await import('../goodness-of-fit/normality/simulation.js')).simulateNormality,
  'normality-tallies': async () => (await import('../goodness-of-fit/normality/simulation.js')).tallyNormality,
  'rounded-anderson-darling-replicates': async () =>
    (await import('../goodness-of-fit/normality/rounded-anderson-darling.js')).simulateRoundedAndersonDarling,
  'ordered-scores': async () => (await import('../probability-plot/whole-plot-band.js')).simulateOrderedScores,
  'ordered-shares': async () => (await import('../probability-plot/fitted-band.js')).simulateOrderedShares,
  'plot-looks': async () => (await import('../probability-plot/shapes.js')).simulateLooks,
  'fitted-tallies': async () => (await import('../goodness-of-fit/fitted/battery.js')).tallyFitted,
  'fitted-statistics': async () => (await import('../goodness-of-fit/fitted/statistics.js')).simulateFittedStatistics,
  'line-up-decoys': async () => (await import('../probability-plot/line-up.js')).drawLineUp,
  'count-tallies': async () => (await import('../goodness-of-fit/counts/tally.js')).tallyCounts,
  'two-sample-tallies': async () => (await import('../goodness-of-fit/two-samples.js')).tallyTwoSamples,
  'family-criteria': async () => (await import('../distributions/fit/criteria.js')).familyCriteria,
  'transformed-tallies': async () => (await import('../goodness-of-fit/transformed.js')).tallyTransformed,
  'outlier-replicates': async () => (await import('../outliers/replicates.js')).simulateOutliers,
  'rule-trials': async () => (await import('../outliers/rule-trials.js')).tallyRules,
  'cochran-replicates': async () => (await import('../outliers/consistency.js')).simulateCochran,
  'claim-draws': async () => (await import('../claims/draws.js')).drawClaims,
  'counts-tallies': async () => (await import('../claims/simulated-counts.js')).tallyCountsAgainst,
  'table-tallies': async () => (await import('../claims/simulated-counts.js')).tallyTables,
  'rank-tallies': async () => (await import('../claims/simulated-counts.js')).tallyRanks,
  'welch-tallies': async () => (await import('../claims/several-means.js')).tallyWelch,
  'bootstrap-replicates': async () => (await import('../resampling/bootstrap.js')).bootstrapReplicates,
  'permutation-replicates': async () => (await import('../resampling/permutation.js')).permutationReplicates,
  'arrangement-statistics': async () => (await import('../resampling/permutation.js')).arrangementStatistics,
  'simulated-samples': async () => (await import('../simulation/samples.js')).simulatedSamples,
  'rejection-tallies': async () => (await import('../simulation/rejections.js')).tallyRejections,
  'propagated-trials': async () => (await import('../simulation/propagation.js')).propagatedTrials,
};

/** So many replicates of a kernel, cut into chunks of fixed size: chunk k always draws from stream firstStream + k of the seed. */
export type KernelOrder = {
  [K in keyof KernelInputs]: {
    kernel: K;
    input: KernelInputs[K];
    seed: number;
    firstStream: number;
    replicates: number;
    chunkSize: number;
  };
}[keyof KernelInputs];

/** Readings drawn in a chunk: 10 to 20 ms of work, so that a stop is felt at once. Part of what makes the bits: do not change. */
const DRAWS_IN_A_CHUNK = 100_000;

export function chunkSizeFor(n: number): number {
  return Math.max(1, Math.floor(DRAWS_IN_A_CHUNK / n));
}

/** Of redrawing and shuffling, which cost less a reading; not too many, so that a picture can grow. Part of what makes the bits, too. */
const RESAMPLED_IN_A_CHUNK = 2_000_000;
const MOST_RESAMPLES_IN_A_CHUNK = 5_000;

/** How many replicates of n readings stand in a chunk of a bootstrap or a permutation. */
export const resampledChunkSize = (n: number): number =>
  Math.max(1, Math.min(MOST_RESAMPLES_IN_A_CHUNK, Math.floor(RESAMPLED_IN_A_CHUNK / n)));

export function chunkCount(order: KernelOrder): number {
  return Math.ceil(order.replicates / order.chunkSize);
}

/** How many replicates chunk k holds: the last one may hold fewer. */
export const chunkReplicates = ({ chunkSize, replicates }: KernelOrder, k: number): number =>
  Math.min(chunkSize, replicates - k * chunkSize);

/** The numbers of chunk k of an order; independent of every other chunk. */
export async function performChunk(order: KernelOrder, k: number): Promise<Float64Array> {
  const replicates = chunkReplicates(order, k);
  const kernel = (await KERNELS[order.kernel]()) as Kernel<typeof order.kernel>;
  return kernel(order.input as never, createStream(order.seed, order.firstStream + k), replicates);
}
