import { fitCost } from '../../distributions/fit/fit-cost.js';
import { estimatedOf } from '../../distributions/fit/refit.js';
import { z } from 'zod';
import { pOfTally } from '../../goodness-of-fit/simulated-p.js';
import type { Sample } from '../../readings/sample.js';
import { defineAnalysis, type Answers, type SentencePart } from '../../road/analysis.js';
import { unavailable, whyNot } from '../../road/cautions.js';
import { chunkCount, chunkSizeFor, type KernelOrder } from '../../road/kernels.js';
import { orderBook } from '../../road/order-book.js';
import { replicates as replicatesOf, seed as seedOf } from '../../road/setting.js';
import { affordableReplicates, alphaSetting, columnSetting } from '../../road/settings.js';
import {
  isRejected,
  rejectionLevel,
  type CompareFamiliesResult,
  type FittedFamily,
} from './compare-families-result.js';
import { comparedFinding, comparedNotes } from './compare-families-words.js';
import { rankedFamilies } from './ranked-families.js';

const replicates = replicatesOf('replicates per distribution');
const seed = seedOf('seed of the comparison');

const request = z.strictObject({
  column: columnSetting,
  alpha: alphaSetting,
  replicates: replicates.schema,
  seed: seed.schema,
});
type Request = z.infer<typeof request>;

const method: readonly SentencePart[] = [
  'Rank the distributions for ',
  { subject: true },
  ' by AICc, each with p of A² from ',
  replicates.field,
  ' simulated samples, seed ',
  seed.field,
  '.',
];

/** All families by AICc, without their p, and those that are left out. */
function ranked(sample: Sample, alpha: number): CompareFamiliesResult | string {
  const found = rankedFamilies(sample);
  if (typeof found === 'string') return found;
  const { missing, setAside, unit, resolution } = sample;
  const { n, families, apart, left } = found;
  const base = { available: true, n, missing, setAside, unit, resolution, alpha, families, apart, left } as const;
  return { ...base, notes: comparedNotes(sample, base) };
}

/** One order a family, in their rank: each draws from the same streams, since each is judged by itself. */
function ordersFor({ families, apart, n }: CompareFamiliesResult, settings: Request): KernelOrder[] {
  return [...families, ...apart].flatMap(({ family, parameters, statistic }) => {
    if (statistic === null) return [];
    const fitting = estimatedOf({ family });
    const book = orderBook(settings.seed, chunkSizeFor(n * fitCost(fitting).times));
    const input = { n, fitting, parameters, cells: 0, step: null, observed: [statistic, null, null, null] };
    book.add({ kernel: 'fitted-tallies', input }, settings.replicates!);
    return book.orders;
  });
}

/** The p of those families whose samples are all drawn; one that A² rejects is not plausible. */
function withP(result: CompareFamiliesResult, orders: readonly KernelOrder[], answers: Answers): CompareFamiliesResult {
  const simulated = <F extends FittedFamily>(one: F, i: number): F => {
    const order = orders[i];
    const chunks = answers[i] ?? [];
    if (!order || chunks.length < chunkCount(order)) return one;
    const far = chunks.reduce((sum, tallies) => sum + tallies[0]!, 0);
    return { ...one, pSimulated: pOfTally(far, order.replicates, order.seed) };
  };
  const families = result.families.map(simulated).map((one) => ({
    ...one,
    plausible: one.plausible && !isRejected(one, rejectionLevel(result.alpha)),
  }));
  const apart = result.apart.map((one, i) => simulated(one, result.families.length + i));
  return { ...result, families, apart };
}

/** Which families may the readings follow (STATISTICS section 5)? */
export const compareFamiliesAnalysis = defineAnalysis<Request, CompareFamiliesResult>({
  id: 'compare-families',
  version: 3,
  name: 'Comparison of distributions',
  title: 'which distributions are plausible for a column, ranked by AICc',
  request,
  method,
  resolve: (settings, sample) => ({
    ...settings,
    replicates: settings.replicates ?? affordableReplicates(sample.values.length, 1_000, 199),
  }),
  *run(asked, sample) {
    const reason = whyNot(sample, 4, 'a comparison of distributions');
    if (reason) return unavailable(sample, reason);
    const settings = this.resolve(asked, sample);
    const result = ranked(sample, settings.alpha);
    if (typeof result === 'string') return unavailable(sample, result);
    const orders = ordersFor(result, settings);
    const answers = yield { partial: result, orders };
    return withP(result, orders, answers);
  },
  glimpse: (settings, partial, soFar) => withP(partial, ordersFor(partial, settings), soFar),
  finding: comparedFinding,
});
