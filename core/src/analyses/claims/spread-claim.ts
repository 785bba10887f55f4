import { z } from 'zod';
import { openEnd, bothSidesFor, pOfTails } from '../../claims/alternative.js';
import { powerOfSpread } from '../../claims/power-of-spreads.js';
import { spreadByChiSquare } from '../../claims/spreads.js';
import { sdInterval } from '../../describe/intervals.js';
import { statisticsOf } from '../../resampling/distribution.js';
import { intervalsOf } from '../../resampling/intervals.js';
import { acceleration } from '../../resampling/jackknife.js';
import { tieOf, type Statistic } from '../../resampling/statistic.js';
import { chiSquare } from '../../distributions/families/chi-square.js';
import { formatFigure, formatPercentOf } from '../../numeric/format.js';
import { defineAnalysis, type SentencePart } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { resampledChunkSize } from '../../road/kernels.js';
import { orderBook } from '../../road/order-book.js';
import { number, replicates, seed } from '../../road/setting.js';
import { affordableReplicates } from '../../road/settings.js';
import { normalityLine } from './assumptions.js';
import { curveOf } from './claim-law.js';
import type { ClaimExtra, ClaimResult } from './claim-result.js';
import {
  ONE_SOURCE,
  claimBasis,
  claimSentence,
  noticeable,
  ofInterval,
  oneSource as onlyOne,
  typedFigures,
} from './claim-settings.js';
import { claimResult, oneSource } from './claim-source.js';
import { freedomWords, formatClaim, formatQuantity, formatInterval, type Scale } from '../../road/formatted.js';
import { claimFinding } from './claim-words.js';
import { missedBy, oneFigureWords } from './one-column.js';

const claimed = number('claimed', 'claimed standard deviation', { from: 0 }, 'enter a value');
const count = replicates('bootstrap replicates');
const ofDraws = seed('seed of the bootstrap');

const request = z
  .strictObject({
    ...{ ...claimBasis, figures: typedFigures.optional(), claimed: claimed.schema },
    ...{ replicates: count.schema, seed: ofDraws.schema },
  })
  .refine(onlyOne, ONE_SOURCE);
type Request = z.infer<typeof request>;

/** Typed figures cannot be resampled. */
const OF_READINGS = { field: 'figures', is: 'undefined' };

export const SPREAD_CLAIM = claimSentence('The standard deviation of ', claimed.field);
export const SPREAD_METHOD: readonly SentencePart[] = [
  'χ² test, confidence interval at ',
  ofInterval.field,
  '. Smallest difference of interest: ',
  noticeable.field,
  '.',
  { text: ' For comparison, a bootstrap interval from ', showWhen: OF_READINGS },
  { ...count.field, showWhen: OF_READINGS },
  { text: ' replicates, seed ', showWhen: OF_READINGS },
  { ...ofDraws.field, showWhen: OF_READINGS },
  { text: '.', showWhen: OF_READINGS },
];

/** "1.39 times the claimed value". */
const timesWords = (ratio: number) => `${formatFigure(ratio, 'statistic')} times the claimed value`;

function powerOf(n: number, claim: number, { alpha, alternative: of, noticeable: named }: Request) {
  const chanceAt = (at: number, d: number) =>
    powerOfSpread(at, of === 'less' ? Math.max(1e-9, 1 - d / claim) : 1 + d / claim, alpha, of);
  return missedBy({
    ...{
      n,
      chanceAt,
      named,
      scale: claim,
      of: of === 'less' ? 'a standard deviation lower by' : 'a standard deviation higher by',
    },
    ...(of === 'less' ? { most: claim } : {}),
  });
}

const SD: Statistic = { of: 'one', figure: { name: 'sd' } };
/** As many replicates as an end of the interval needs, and more. */
const USUAL = 2_000;

/** The bootstrap interval of the standard deviation, which assumes no distribution; empty where there is none. */
function redrawn(values: Float64Array, sd: number, chunks: readonly Float64Array[], confidence: number): ClaimExtra[] {
  const statistics = statisticsOf({ chunks, stride: 1 });
  const made = { observed: sd, statistics, confidence, tie: tieOf(SD, sd, [values]) };
  const { bca } = intervalsOf({
    ...{ ...made, studentised: null, standardError: null },
    acceleration: acceleration(SD, [values]),
  });
  if (!bca) return [];
  return [
    {
      ...{ key: 'redrawn', name: 'bootstrap interval', value: [bca.lower, bca.upper], as: 'spread' },
      meaning:
        'BCa bootstrap interval of the standard deviation. It assumes no distribution; the χ² interval assumes a normal one. See Resample.',
      formula: 'quantiles at Φ(z₀ + (z₀ ± z)/(1 − a(z₀ ± z)))',
    },
  ];
}

const ratioExtra = (value: number): ClaimExtra => ({
  ...{ key: 'ratio', name: 'ratio to the claim', value, as: 'ratio' },
  meaning: 'The standard deviation of the readings divided by the claimed one.',
  formula: 's/σ₀',
});

/** Does the standard deviation differ from a claimed value. */
export const spreadClaimAnalysis = defineAnalysis<Request, ClaimResult>({
  id: 'spread-claim',
  version: 2,
  name: 'Claim on a standard deviation',
  title: 'does the standard deviation differ from a claimed value (χ²; bootstrap interval for comparison)',
  needsReadings: false,
  request,
  method: [...SPREAD_CLAIM, ' ', ...SPREAD_METHOD],
  subject: ({ column }) => column ?? 'the typed readings',
  resolve: (settings, sample) => ({
    ...settings,
    ...(settings.figures
      ? {}
      : { replicates: settings.replicates ?? affordableReplicates(sample.values.length, USUAL, 1_000) }),
  }),
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    const found = oneSource(sample, settings, { least: 2, purpose: 'a test of the standard deviation', spread: true });
    if ('available' in found) return found;
    const { source, head } = found;
    const { claimed: claim, alternative: of, confidence, alpha } = settings;
    if (claim === undefined) return unavailable(sample, 'Enter the claimed standard deviation.');
    if (claim === 0)
      return unavailable(sample, 'A claimed standard deviation of 0 needs no test: two different readings refute it.');
    const { n } = source;
    const sd = source.sd!;
    const { statistic, df, tails } = spreadByChiSquare(n, sd, claim);
    const scale: Scale = { ...head, as: 'reading' };
    const interval = openEnd(sdInterval(n, sd, bothSidesFor(confidence, of)), of);
    const law = chiSquare.of({ df });
    const { values, name, resolution } = source;
    const result = claimResult(head, settings, {
      ...oneFigureWords(`the standard deviation of ${name}`, formatClaim(claim, scale), of),
      ...{ method: 'chi-square', claimed: claim, estimate: sd, difference: sd - claim },
      ...{ symbol: 'χ²', statistic, df, pValue: pOfTails(tails, of), pMethod: 'exact' },
      ...{ interval, intervalOf: 'the standard deviation' },
      measured: `Standard deviation ${formatQuantity(sd, scale, 'spread')}, ${timesWords(sd / claim)}; ${formatPercentOf(confidence)} confidence interval ${formatInterval(interval, scale, 'spread')}`,
      ...powerOf(n, claim, settings),
      assumptions: [
        values
          ? normalityLine([{ name, values, resolution }], {
              ...{
                alpha,
                mean: false,
                instead: 'the bootstrap interval in Resample; the χ² test relies strongly on normality',
              },
            })
          : {
              text: 'Normality: cannot be checked from typed figures, and the χ² test relies on it.',
              holds: true,
              instead: '',
            },
      ],
      law: curveOf(law, {
        ...{ name: `χ² distribution with ${freedomWords(df)}`, axis: 'χ²' },
        ...{ statistic, alternative: of, alpha },
      }),
      draws: { of: 'spread', n },
      groups: [
        { name, n, centre: sd, sd: null, interval: openEnd(sdInterval(n, sd, confidence), 'two-sided'), dots: [] },
      ],
      extras: [ratioExtra(sd / claim)],
    });
    if (!values || settings.replicates === undefined) return result;
    const sorted = values.slice().sort();
    const book = orderBook(settings.seed, resampledChunkSize(n));
    const input = { statistic: SD, groups: [sorted], times: 1, smooth: 0, studentised: false };
    book.add({ kernel: 'bootstrap-replicates', input }, settings.replicates);
    const [chunks] = yield { partial: result, orders: book.orders };
    return { ...result, extras: [...redrawn(sorted, sd, chunks!, confidence), ...result.extras] };
  },
  finding: claimFinding,
});
