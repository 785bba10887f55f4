import { countsModel, powerBySimulation } from '../../claims/simulated-power.js';
import { formatExpected } from '../../road/formatted.js';
import { countsAgainst, exactCountsP, MOST_TABLES, tablesOf, type CountsTest } from '../../claims/counts.js';
import { pOfTally } from '../../goodness-of-fit/simulated-p.js';
import { formatPercentOf, groupThousands } from '../../numeric/format.js';
import { plural } from '../../numeric/grammar.js';
import { NO_READINGS } from '../../readings/sample.js';
import { defineAnalysis } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { chunkSizeFor } from '../../road/kernels.js';
import { orderBook } from '../../road/order-book.js';
import type { ClaimResult } from './claim-result.js';
import { claimResult, headOf, typedHead, type Head } from './claim-source.js';
import { claimFinding } from './claim-words.js';
import { placedCounts, type PlacedCounts } from './counts-source.js';
import { COUNTS_CLAIM, COUNTS_METHOD, countsRequest, type CountsRequest } from './counts-settings.js';
import { chosenP, enoughExpected, expectedLine, lawOfChiSquare, pExtras } from './counts-tested.js';
import { missedBy } from './one-column.js';
import type { SimulatedP } from '../../goodness-of-fit/simulated-p.js';

const USUAL_REPLICATES = 10_000;

/** "Largest difference: chipped, 24 observed and 16 expected (100 counts in 4 categories)". */
function farthestWords({ labels }: PlacedCounts, { cells }: CountsTest): string {
  const far = cells.reduce((best, cell, i) => (cell.contribution > cells[best]!.contribution ? i : best), 0);
  const { observed, expected } = cells[far]!;
  const total = cells.reduce((sum, cell) => sum + cell.observed, 0);
  return `Largest difference: ${labels[far]}, ${groupThousands(observed)} observed and ${formatExpected(expected)} expected (${plural(total, 'count')} in ${cells.length} categories)`;
}

const nullWords = (name: string, { labels, shares }: PlacedCounts, { spread }: CountsRequest) => {
  const claimed = labels.map((label, i) => `${label} ${formatPercentOf(shares[i]!)}`).join(', ');
  return {
    null:
      spread === 'evenly'
        ? `the ${labels.length} categories of ${name} are equally frequent`
        : `the proportions of ${name} are as claimed (${claimed})`,
    sought:
      spread === 'evenly'
        ? `the ${labels.length} categories of ${name} differ in frequency`
        : `the proportions of ${name} differ from those claimed`,
  };
};

function worked(
  placed: PlacedCounts,
  test: CountsTest,
  settings: CountsRequest,
  name: string,
  head: Head,
  exact: number | null,
) {
  const { labels, counts, shares } = placed;
  const { alpha, noticeable, method } = settings;
  const n = counts.reduce((a, b) => a + b, 0);
  const missed = missedBy({
    ...{ n, named: noticeable, scale: 1 / 2, most: 1 - Math.max(...shares), least: 1, per: 'counts' },
    ...{ of: 'a difference in one proportion of', simulated: true },
    chanceAt: powerBySimulation(countsModel(shares), alpha),
  });
  return (simulated: SimulatedP | null): ClaimResult => {
    const given = { asymptotic: test.pAsymptotic, exact, simulated, enough: enoughExpected(test) };
    return claimResult(
      head,
      { alpha, confidence: 1 - alpha, alternative: 'two-sided' },
      {
        ...nullWords(name, placed, settings),
        ...{ method, as: 'share', symbol: 'χ²', statistic: test.statistic, df: test.df, n },
        ...chosenP(method, given),
        measured: farthestWords(placed, test),
        ...missed,
        assumptions: [expectedLine(test)],
        law: lawOfChiSquare(test.statistic, test.df, alpha),
        draws: { of: 'counts', n, shares: shares.filter((share) => share > 0) },
        cells: test.cells.map((cell, i) => ({ label: labels[i]!, ...cell })),
        extras: pExtras(test.pAsymptotic, exact, simulated, alpha),
      },
    );
  };
}

/** An observed count in a category with a claimed proportion of 0: the claim is refuted in any case. */
function impossible(placed: PlacedCounts, settings: CountsRequest, name: string, head: Head): ClaimResult | null {
  const { labels, counts, shares } = placed;
  const at = shares.findIndex((share, i) => share === 0 && counts[i]! > 0);
  if (at < 0) return null;
  const n = counts.reduce((a, b) => a + b, 0);
  const cells = labels.map((label, i) => ({
    ...{ label, observed: counts[i]!, expected: n * shares[i]!, difference: counts[i]! - n * shares[i]! },
    ...{ contribution: 0, standardised: 0 },
  }));
  return claimResult(
    head,
    { alpha: settings.alpha, confidence: 1 - settings.alpha, alternative: 'two-sided' },
    {
      ...nullWords(name, placed, settings),
      ...{ method: settings.method, as: 'share', n, pValue: 0, pMethod: 'exact', cells },
      measured: `${labels[at]}: ${groupThousands(counts[at]!)} observed; the claim allows none`,
    },
  );
}

/** Do counts over categories follow the claimed proportions. */
export const countsClaimAnalysis = defineAnalysis<CountsRequest, ClaimResult>({
  id: 'counts-claim',
  version: 2,
  name: 'Claim on counts',
  title: 'are categories equally frequent, or as claimed (χ²: asymptotic, exact or simulated)',
  needsReadings: false,
  takesLabels: true,
  request: countsRequest,
  method: [...COUNTS_CLAIM, ' ', ...COUNTS_METHOD],
  subject: ({ column, split, shares, spread }) => {
    const name = column === undefined ? 'the typed categories' : split === undefined ? column : `${column} by ${split}`;
    const claims = Object.entries(shares ?? {}).map(([label, share]) => `${label} ${formatPercentOf(share)}`);
    return spread === 'given' && claims.length > 0 ? `${name} (claimed: ${claims.join(', ')})` : name;
  },
  resolve: (settings) => ({ ...settings, replicates: settings.replicates ?? USUAL_REPLICATES }),
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    const placed = placedCounts(sample, settings);
    if (typeof placed === 'string') return unavailable(settings.counts ? NO_READINGS : sample, placed);
    const n = placed.counts.reduce((a, b) => a + b, 0);
    const head = settings.counts ? typedHead(n) : headOf(sample);
    const name = settings.column === undefined ? 'the typed counts' : sample.name;
    const refuted = impossible(placed, settings, name, head);
    if (refuted) return refuted;
    const test = countsAgainst(placed.counts, placed.shares);
    const open = placed.shares
      .map((share, i) => ({ share, count: placed.counts[i]! }))
      .filter(({ share }) => share > 0);
    if (open.length < 2)
      return unavailable(sample, 'All claimed proportions but one are 0, so there is nothing to test.');
    const [counts, shares] = [open.map(({ count }) => count), open.map(({ share }) => share)];
    const few = tablesOf(n, open.length) <= MOST_TABLES;
    if (settings.method === 'exact' && !few)
      return unavailable(sample, 'The exact test would need more than 1 000 000 tables. Choose simulation.');
    const exact =
      few && settings.method !== 'chi-square' && settings.method !== 'simulated' ? exactCountsP(counts, shares) : null;
    const result = worked(placed, test, settings, name, head, exact);
    const simulates = settings.method === 'simulated' || (settings.method === 'suited' && exact === null);
    if (!simulates) return result(null);
    const book = orderBook(settings.seed, chunkSizeFor(Math.min(n, 40 * shares.length)));
    book.add({ kernel: 'counts-tallies', input: { n, shares, observed: test.statistic } }, settings.replicates!);
    const [chunks] = yield { partial: result(null), orders: book.orders };
    const far = chunks!.reduce((sum, chunk) => sum + chunk[0]!, 0);
    return result(pOfTally(far, settings.replicates!, settings.seed));
  },
  finding: claimFinding,
});
