import { z } from 'zod';
import { doubledRanks, kruskalWallis } from '../../claims/ranks.js';
import { powerOfSeveralMedians } from '../../claims/several-means.js';
import { powerBySimulation, severalMediansModel } from '../../claims/simulated-power.js';
import { rankSumsOf } from '../../claims/simulated-counts.js';
import { medianOfSorted } from '../../describe/quantiles.js';
import { chiSquare } from '../../distributions/families/chi-square.js';
import { pOfTally, type SimulatedP } from '../../goodness-of-fit/simulated-p.js';
import { centralMoments } from '../../numeric/sums.js';
import type { Sample } from '../../readings/sample.js';
import { defineAnalysis, type SentencePart } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { subjectWords } from '../../road/groups.js';
import { chunkSizeFor } from '../../road/kernels.js';
import { orderBook } from '../../road/order-book.js';
import { choice } from '../../road/setting.js';
import { spreadsLine } from './assumptions.js';
import type { ClaimResult } from './claim-result.js';
import { noticeable } from './claim-settings.js';
import { claimResult, dotsOf, type Head } from './claim-source.js';
import { formatQuantity, type Scale } from '../../road/formatted.js';
import { claimFinding } from './claim-words.js';
import { byParts, replicates, seed } from './counts-settings.js';
import { lawOfChiSquare, pExtras } from './counts-tested.js';
import { missedBy } from './one-column.js';
import { rankable } from './rankable.js';
import { endsWords, severalBasis, severalGroups, severalWords } from './several-settings.js';

const method = choice(
  'method',
  'method for p',
  [
    { value: 'suited', text: 'the method that suits the number of readings' },
    { value: 'chi-square', text: 'the χ² distribution' },
    { value: 'simulated', text: 'random permutations of the ranks' },
  ],
  'suited',
);
const { confidence: _, ...basis } = severalBasis;
const request = z.strictObject({ ...basis, method: method.schema, replicates: replicates.schema, seed: seed.schema });
type Request = z.infer<typeof request>;

export const SEVERAL_MEDIANS_CLAIM: readonly SentencePart[] = [
  'The medians of ',
  { subject: true },
  ' are claimed to be equal; alternative: at least one differs.',
];
export const SEVERAL_MEDIANS_METHOD: readonly SentencePart[] = [
  'Kruskal–Wallis test, p from ',
  ...byParts(method.field),
  '. Smallest difference of interest between two medians: ',
  noticeable.field,
  '.',
];

/** So few readings that the curve of χ² is not to be trusted. */
const FEW = 60;
const MOST_DEALT = 100_000;
/** Up to so many readings the power is that of the very test, simulated; beyond, the noncentral χ² is within 0.03 of it. */
const MOST_SIMULATED = 120;

function missedOf(values: readonly Float64Array[], { alpha, noticeable: named }: Request) {
  const sizes = values.map(({ length }) => length);
  const n = sizes.reduce((a, b) => a + b, 0);
  const squares = values.reduce((sum, group) => sum + centralMoments(group).s2, 0);
  const within = Math.sqrt(squares / Math.max(1, n - values.length));
  if (!(within > 0)) return {};
  const simulated = powerBySimulation(severalMediansModel(sizes), alpha);
  const chanceAt = (at: number, d: number) =>
    at <= MOST_SIMULATED
      ? simulated(at, d / within)
      : powerOfSeveralMedians(
          sizes.map((size) => (size * at) / n),
          d / within,
          alpha,
        );
  return missedBy({
    ...{ n, named, chanceAt, scale: within, least: values.length + 1, per: 'readings in total' },
    ...{ of: 'a difference between two medians of', simulated: n <= MOST_SIMULATED, approximate: n > MOST_SIMULATED },
  });
}

function worked(
  sample: Sample,
  groups: readonly Sample[],
  values: readonly Float64Array[],
  settings: Request,
  head: Head,
) {
  const { alpha, method: by } = settings;
  const n = values.reduce((sum, { length }) => sum + length, 0);
  const df = groups.length - 1;
  const statistic = kruskalWallis(values);
  const asymptotic = chiSquare.of({ df }).survival(statistic);
  const scale: Scale = { ...head, as: 'reading' };
  const shown = groups.map(({ name }, i) => ({
    ...{ name, n: values[i]!.length, centre: medianOfSorted(values[i]!.slice().sort()), sd: null, interval: null },
    dots: dotsOf(groups[i]!.censored ? groups[i]!.values : values[i]!),
  }));
  const simulates = by === 'simulated' || (by === 'suited' && n <= FEW);
  const missed = missedOf(values, settings);
  const result = (simulated: SimulatedP | null): ClaimResult =>
    claimResult(
      { ...head, n },
      { alpha, confidence: 1 - alpha, alternative: 'two-sided' },
      {
        ...severalWords('the median', sample, groups),
        ...{ method: by, symbol: 'H', statistic, df, pSimulated: simulated, pAsymptotic: asymptotic },
        ...(simulates
          ? { pValue: simulated?.pValue ?? null, pMethod: 'simulated' }
          : { pValue: asymptotic, pMethod: 'asymptotic' }),
        measured: endsWords(shown, (value) => formatQuantity(value, scale)),
        ...missed,
        assumptions: spreadsLine(
          values,
          alpha,
          'reading the result as “no group tends to be larger”, not as a statement on medians',
        ),
        law: { ...lawOfChiSquare(statistic, df, alpha), axis: 'H' },
        groups: shown,
        extras: pExtras(asymptotic, null, simulated, alpha),
      },
    );
  return { result, simulates };
}

/** Do the medians of several groups differ. */
export const severalMediansAnalysis = defineAnalysis<Request, ClaimResult>({
  id: 'several-medians',
  version: 2,
  name: 'Several medians',
  title: 'do the medians of several groups differ (Kruskal–Wallis; p asymptotic or by permutation)',
  request,
  method: [...SEVERAL_MEDIANS_CLAIM, ' ', ...SEVERAL_MEDIANS_METHOD],
  subject: subjectWords,
  resolve: (settings) => ({ ...settings, replicates: settings.replicates ?? 10_000 }),
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    const found = severalGroups(sample, { least: 1, purpose: 'a test of several medians', censored: true });
    if ('available' in found) return found;
    const { groups, head } = found;
    const values = rankable(groups);
    if (typeof values === 'string') return unavailable(sample, values);
    const all = values.flatMap((group) => Array.from(group));
    if (all.every((x) => x === all[0]))
      return unavailable(sample, 'All readings are equal; a rank test needs readings that differ.');
    if (settings.method === 'simulated' && all.length > MOST_DEALT)
      return unavailable(
        sample,
        'There are too many readings to simulate. Choose the χ² distribution; it is accurate here.',
      );
    const { result, simulates } = worked(sample, groups, values, settings, head);
    if (!simulates) return result(null);
    const ranks = Array.from(doubledRanks(all));
    const sizes = values.map(({ length }) => length);
    const book = orderBook(settings.seed, chunkSizeFor(all.length));
    book.add(
      { kernel: 'rank-tallies', input: { ranks, sizes, observed: rankSumsOf(ranks, sizes) } },
      settings.replicates!,
    );
    const [chunks] = yield { partial: result(null), orders: book.orders };
    return result(
      pOfTally(
        chunks!.reduce((sum, chunk) => sum + chunk[0]!, 0),
        settings.replicates!,
        settings.seed,
      ),
    );
  },
  finding: claimFinding,
});
