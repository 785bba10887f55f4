import { z } from 'zod';
import { isRefusal, type Family } from '../../distributions/family.js';
import { fit } from '../../distributions/fit/fit.js';
import { distribution } from '../../distributions/registry.js';
import { fittedStatistics } from '../../goodness-of-fit/fitted/battery.js';
import { pOfTally } from '../../goodness-of-fit/simulated-p.js';
import { readingOfShare } from '../../probability-plot/fitted-band.js';
import type { Sample } from '../../readings/sample.js';
import { defineAnalysis, type Answers, type SentencePart } from '../../road/analysis.js';
import { unavailable, whyNot } from '../../road/cautions.js';
import { chunkCount, chunkSizeFor, type KernelOrder } from '../../road/kernels.js';
import { orderBook } from '../../road/order-book.js';
import { replicates as replicatesOf, seed as seedOf } from '../../road/setting.js';
import { affordableReplicates, alphaSetting, columnSetting } from '../../road/settings.js';
import type { ComparedFamily, CompareFamiliesResult } from './compare-families-result.js';
import { comparedFinding, comparedNotes } from './compare-families-words.js';
import { boundsOf } from '../../road/beyond-limits.js';
import { positionsAmong } from './positions-among.js';
import { CONTINUOUS, estimatedOf } from './family-settings.js';
import { fitCost } from './fit-cost.js';
import { fittedLaw } from './fitted-law.js';

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

/** Laws of test statistics: nobody measures what follows them. */
const OF_STATISTICS = new Set(['chi-square', 'f']);
const MOST_PLACES = 40;

/** At most forty places of a small plot, evenly over the ranks. */
function smallPlot(
  family: Family,
  { parameters }: Pick<ComparedFamily, 'parameters'>,
  sorted: Float64Array,
  positions: Float64Array,
): ComparedFamily['small'] {
  const law = distribution(family, parameters);
  const n = sorted.length;
  const [least, range] = [sorted[0]!, sorted[n - 1]! - sorted[0]!];
  const count = Math.min(n, MOST_PLACES);
  const ranks = Array.from({ length: count }, (_, k) => (count === 1 ? 0 : Math.round((k * (n - 1)) / (count - 1))));
  const share = (x: number) => Math.min(1.5, Math.max(-0.5, (x - least) / range));
  return {
    expected: ranks.map((i) => share(readingOfShare(law, positions[i]!))),
    observed: ranks.map((i) => share(sorted[i]!)),
  };
}

/** A family with its parameters, its likelihood and its A²; why it has none. */
function compared(
  family: Family,
  sorted: Float64Array,
  { resolution, censored: beyond }: Sample,
  positions: Float64Array,
): Omit<ComparedFamily, 'difference'> | string {
  if (OF_STATISTICS.has(family.family)) return 'It is the law of a test statistic, not of readings.';
  const censored = boundsOf(beyond);
  const law = fittedLaw(sorted, estimatedOf(family), censored);
  if (isRefusal(law)) return law.refused;
  // Coarse readings count as the intervals they were rounded from.
  const likely = fit(family, sorted, { method: 'maximum-likelihood', errors: false, resolution, censored });
  if (isRefusal(likely)) return likely.refused;
  const { logLikelihood, aicc } = likely;
  if (aicc === null) return `${likely.n} readings are too few to compare ${law.estimated.length} parameters.`;
  // A² asks for every reading.
  const [statistic] = censored ? [null] : fittedStatistics(sorted, distribution(family, law.parameters), 0);
  const { notes: _, ...told } = law;
  return {
    ...told,
    logLikelihood,
    aicc,
    statistic: statistic!,
    pSimulated: null,
    small: smallPlot(family, law, sorted, positions),
  };
}

/** All families by AICc, without their p, and those that are left out. */
function ranked(sample: Sample, alpha: number): CompareFamiliesResult | string {
  const { missing, setAside, unit, resolution } = sample;
  const sorted = Float64Array.from(sample.values).sort();
  const placed = positionsAmong(sample, sorted, 'midpoint');
  if (isRefusal(placed)) return placed.refused;
  const found: Omit<ComparedFamily, 'difference'>[] = [];
  const left: CompareFamiliesResult['left'] = [];
  for (const family of CONTINUOUS) {
    const one = compared(family, sorted, sample, placed.positions);
    if (typeof one === 'string') left.push({ family: family.family, reason: one });
    else found.push(one);
  }
  found.sort((a, b) => a.aicc - b.aicc);
  const best = found[0]?.aicc ?? 0;
  const families = found.map((one) => ({ ...one, difference: one.aicc - best }));
  const base = {
    available: true,
    n: placed.n,
    missing,
    setAside,
    unit,
    resolution,
    alpha,
    families,
    left,
  } as const;
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
