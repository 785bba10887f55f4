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
import { freedomWords, toldClaim, toldFigure, toldInterval, type Scale } from '../../road/told.js';
import { claimFinding } from './claim-words.js';
import { missedBy, oneFigureWords } from './one-column.js';

const claimed = number('claimed', 'claimed sd', { from: 0 }, 'not said yet');
const count = replicates('redrawn samples for the interval beside');
const ofDraws = seed('seed of the redrawn samples');

const request = z
  .strictObject({
    ...{ ...claimBasis, figures: typedFigures.optional(), claimed: claimed.schema },
    ...{ replicates: count.schema, seed: ofDraws.schema },
  })
  .refine(onlyOne, ONE_SOURCE);
type Request = z.infer<typeof request>;

/** Typed figures cannot be redrawn. */
const OF_READINGS = { field: 'figures', is: 'undefined' };

export const SPREAD_CLAIM = claimSentence('The sd of ', claimed.field);
export const SPREAD_METHOD: readonly SentencePart[] = [
  'By χ², with an interval at ',
  ofInterval.field,
  '. A difference of the sd that matters: ',
  noticeable.field,
  '.',
  { text: ' Beside it an interval from ', showWhen: OF_READINGS },
  { ...count.field, showWhen: OF_READINGS },
  { text: ' redrawn samples, seed ', showWhen: OF_READINGS },
  { ...ofDraws.field, showWhen: OF_READINGS },
  { text: '.', showWhen: OF_READINGS },
];

/** "1.39 times the claim". */
const timesWords = (ratio: number) => `${formatFigure(ratio, 'statistic')} times what is claimed`;

function powerOf(n: number, claim: number, { alpha, alternative: of, noticeable: named }: Request) {
  const chanceAt = (at: number, d: number) =>
    powerOfSpread(at, of === 'less' ? Math.max(1e-9, 1 - d / claim) : 1 + d / claim, alpha, of);
  return missedBy({
    ...{ n, chanceAt, named, scale: claim, of: of === 'less' ? 'an sd less by' : 'an sd greater by' },
    ...(of === 'less' ? { most: claim } : {}),
  });
}

const SD: Statistic = { of: 'one', figure: { name: 'sd' } };
/** As many replicates as an end of the interval needs, and more. */
const USUAL = 2_000;

/** The sd by redrawing the readings, which leans on no law; null where it cannot be had. */
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
      ...{ key: 'redrawn', name: 'interval by redrawing', value: [bca.lower, bca.upper], as: 'spread' },
      meaning: 'BCa interval of the sd from redrawn readings: it leans on no law, as that by χ² does. See Resample.',
      formula: 'quantiles at Φ(z₀ + (z₀ ± z)/(1 − a(z₀ ± z)))',
    },
  ];
}

/** Is the sd what is claimed. */
export const spreadClaimAnalysis = defineAnalysis<Request, ClaimResult>({
  id: 'spread-claim',
  version: 2,
  name: 'Claim on a spread',
  title: 'is the sd what is claimed (χ²; an interval by redrawing beside)',
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
    const found = oneSource(sample, settings, { least: 2, purpose: 'a test of the sd', spread: true });
    if ('available' in found) return found;
    const { source, head } = found;
    const { claimed: claim, alternative: of, confidence, alpha } = settings;
    if (claim === undefined) return unavailable(sample, 'Say which sd is claimed.');
    if (claim === 0) return unavailable(sample, 'A claimed sd of 0 needs no test: two different readings refute it.');
    const { n } = source;
    const sd = source.sd!;
    const { statistic, df, tails } = spreadByChiSquare(n, sd, claim);
    const scale: Scale = { ...head, as: 'reading' };
    const interval = openEnd(sdInterval(n, sd, bothSidesFor(confidence, of)), of);
    const law = chiSquare.of({ df });
    const { values, name, resolution } = source;
    const result = claimResult(head, settings, {
      ...oneFigureWords(`the sd of ${name}`, toldClaim(claim, scale), of),
      ...{ method: 'chi-square', claimed: claim, estimate: sd, difference: sd - claim },
      ...{ symbol: 'χ²', statistic, df, pValue: pOfTails(tails, of), pMethod: 'exact' },
      ...{ interval, intervalOf: 'the sd' },
      measured: `it is ${toldFigure(sd, scale, 'spread')}, ${timesWords(sd / claim)}; ${formatPercentOf(confidence)} interval ${toldInterval(interval, scale, 'spread')}`,
      ...powerOf(n, claim, settings),
      assumptions: [
        values
          ? normalityLine([{ name, values, resolution }], {
              ...{ alpha, mean: false, instead: 'an interval of the sd by resampling: χ² leans on normality heavily' },
            })
          : { text: 'Normality: not to be told from typed figures, and χ² leans on it.', holds: true, instead: '' },
      ],
      law: curveOf(law, {
        ...{ name: `χ² on ${freedomWords(df)}`, axis: 'χ²' },
        ...{ statistic, alternative: of, alpha },
      }),
      draws: { of: 'spread', n },
      groups: [
        { name, n, centre: sd, sd: null, interval: openEnd(sdInterval(n, sd, confidence), 'two-sided'), dots: [] },
      ],
      extras: [
        {
          ...{ key: 'ratio', name: 'times the claim', value: sd / claim, as: 'ratio' as const },
          ...{ meaning: 'The sd of the readings over the claimed one.', formula: 's/σ₀' },
        },
      ],
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
