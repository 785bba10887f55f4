import { tallyCounts, type CountTallies } from '../goodness-of-fit/counts/tally.js';
import { familyCriteria, type FamilyCriteria } from '../distributions/fit/criteria.js';
import { tallyFitted, type FittedTallies } from '../goodness-of-fit/fitted/battery.js';
import { simulateFittedStatistics, type FittedStatistics } from '../goodness-of-fit/fitted/statistics.js';
import {
  simulateNormality,
  tallyNormality,
  type NormalityReplicates,
  type NormalityTallies,
} from '../goodness-of-fit/normality/simulation.js';
import {
  simulateRoundedAndersonDarling,
  type RoundedReplicates,
} from '../goodness-of-fit/normality/rounded-anderson-darling.js';
import { simulateLooks, type LookSamples } from '../probability-plot/shapes.js';
import { simulateOrderedShares, type FittedShares } from '../probability-plot/fitted-band.js';
import { drawClaims, type ClaimDraws } from '../claims/draws.js';
import {
  tallyCountsAgainst,
  tallyRanks,
  tallyTables,
  type CountsReplicates,
  type RankReplicates,
  type TableReplicates,
} from '../claims/simulated-counts.js';
import { tallyWelch, type WelchReplicates } from '../claims/several-means.js';
import { simulateCochran } from '../outliers/consistency.js';
import { simulateOutliers, type OutlierReplicates } from '../outliers/replicates.js';
import { tallyRules, type RuleTrials } from '../outliers/rule-trials.js';
import { tallyTransformed, type TransformedTallies } from '../goodness-of-fit/transformed.js';
import { tallyTwoSamples, type TwoSampleTallies } from '../goodness-of-fit/two-samples.js';
import { bootstrapReplicates, type BootstrapDraws } from '../resampling/bootstrap.js';
import {
  arrangementStatistics,
  permutationReplicates,
  type CountedOut,
  type Shuffled,
} from '../resampling/permutation.js';
import { drawLineUp, type LineUpDraws } from '../probability-plot/line-up.js';
import { simulateOrderedScores, type BandReplicates } from '../probability-plot/whole-plot-band.js';
import { propagatedTrials, type Propagation } from '../simulation/propagation.js';
import { tallyRejections, type Rejections } from '../simulation/rejections.js';
import { simulatedSamples, type SimulatedSamples } from '../simulation/samples.js';
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

const KERNELS: { [K in keyof KernelInputs]: Kernel<K> } = {
  'normality-replicates': simulateNormality,
  'normality-tallies': tallyNormality,
  'rounded-anderson-darling-replicates': simulateRoundedAndersonDarling,
  'ordered-scores': simulateOrderedScores,
  'ordered-shares': simulateOrderedShares,
  'plot-looks': simulateLooks,
  'fitted-tallies': tallyFitted,
  'fitted-statistics': simulateFittedStatistics,
  'line-up-decoys': drawLineUp,
  'count-tallies': tallyCounts,
  'two-sample-tallies': tallyTwoSamples,
  'family-criteria': familyCriteria,
  'transformed-tallies': tallyTransformed,
  'outlier-replicates': simulateOutliers,
  'rule-trials': tallyRules,
  'cochran-replicates': simulateCochran,
  'claim-draws': drawClaims,
  'counts-tallies': tallyCountsAgainst,
  'table-tallies': tallyTables,
  'rank-tallies': tallyRanks,
  'welch-tallies': tallyWelch,
  'bootstrap-replicates': bootstrapReplicates,
  'permutation-replicates': permutationReplicates,
  'arrangement-statistics': arrangementStatistics,
  'simulated-samples': simulatedSamples,
  'rejection-tallies': tallyRejections,
  'propagated-trials': propagatedTrials,
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
export function performChunk(order: KernelOrder, k: number): Float64Array {
  const replicates = chunkReplicates(order, k);
  const kernel = KERNELS[order.kernel] as Kernel<typeof order.kernel>;
  return kernel(order.input as never, createStream(order.seed, order.firstStream + k), replicates);
}
