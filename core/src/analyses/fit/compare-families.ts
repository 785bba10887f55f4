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
import type { CompareFamiliesResult } from './compare-families-result.js';
import { comparedFinding, comparedNotes } from './compare-families-words.js';
import { rankedFamilies } from './ranked-families.js';

const replicates = replicatesOf('replicates for each family');
const seed = seedOf('seed of the families');

const request = z.strictObject({
  column: columnSetting,
  alpha: alphaSetting,
  replicates: replicates.schema,
  seed: seed.schema,
});
type Request = z.infer<typeof request>;

const method: readonly SentencePart[] = [
  'Rank the families that ',
  { subject: true },
  ' may follow by AICc, each with p of A² from ',
  replicates.field,
  ' samples fitted anew, seed ',
  seed.field,
  '.',
];

/** All families by AICc, without their p, and those that are left out. */
function ranked(sample: Sample, alpha: number): CompareFamiliesResult | string {
  const found = rankedFamilies(sample);
  if (typeof found === 'string') return found;
  const { missing, setAside, unit, resolution } = sample;
  const { n, families, left } = found;
  const base = { available: true, n, missing, setAside, unit, resolution, alpha, families, left } as const;
  return { ...base, notes: comparedNotes(sample, base) };
}

/** One order a family, in their rank: each draws from the same streams, since each is judged by itself. */
function ordersFor({ families, n }: CompareFamiliesResult, settings: Request): KernelOrder[] {
  return families.flatMap(({ family, parameters, statistic }) => {
    if (statistic === null) return [];
    const fitting = estimatedOf({ family });
    const book = orderBook(settings.seed, chunkSizeFor(n * fitCost(fitting).times));
    const input = { n, fitting, parameters, cells: 0, step: null, observed: [statistic, null, null, null] };
    book.add({ kernel: 'fitted-tallies', input }, settings.replicates!);
    return book.orders;
  });
}

/** The p of those families whose samples are all drawn. */
function withP(result: CompareFamiliesResult, orders: readonly KernelOrder[], answers: Answers): CompareFamiliesResult {
  const families = result.families.map((one, i) => {
    const order = orders[i];
    if (!order) return one;
    const chunks = answers[i] ?? [];
    if (chunks.length < chunkCount(order)) return one;
    const far = chunks.reduce((sum, tallies) => sum + tallies[0]!, 0);
    return { ...one, pSimulated: pOfTally(far, order.replicates, order.seed) };
  });
  return { ...result, families };
}

/** Which families may the readings follow (STATISTICS section 5)? */
export const compareFamiliesAnalysis = defineAnalysis<Request, CompareFamiliesResult>({
  id: 'compare-families',
  version: 2,
  name: 'Families compared',
  title: 'which families may a column follow, ranked by AICc',
  request,
  method,
  resolve: (settings, sample) => ({
    ...settings,
    replicates: settings.replicates ?? affordableReplicates(sample.values.length, 1_000, 199),
  }),
  *run(asked, sample) {
    const reason = whyNot(sample, 4, 'a comparison of families');
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
