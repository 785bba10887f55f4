import { z } from 'zod';
import { pOfTails } from '../../claims/alternative.js';
import { meanByT, meanInterval } from '../../claims/means.js';
import { spreadByChiSquare } from '../../claims/spreads.js';
import { sdInterval } from '../../describe/intervals.js';
import { studentT } from '../../distributions/families/student-t.js';
import { andersonDarlingKnown, kolmogorovSmirnovKnown } from '../../goodness-of-fit/fitted/known-parameters.js';
import { kolmogorovSmirnov } from '../../goodness-of-fit/distances.js';
import { andersonDarling } from '../../goodness-of-fit/normality/anderson-darling.js';
import { equalsP, formatFigure } from '../../numeric/format.js';
import { normalCumulative } from '../../numeric/standard-normal.js';
import { defineAnalysis, type SentencePart } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { number } from '../../road/setting.js';
import { normalityLine } from './assumptions.js';
import { curveOf } from './claim-law.js';
import type { ClaimExtra, ClaimResult } from './claim-result.js';
import { claimBasis, claimed, ofInterval, ONE_SOURCE, oneSource as onlyOne, typedFigures } from './claim-settings.js';
import { claimResult, dotsOf, oneSource, type Source } from './claim-source.js';
import { freedomWords, toldClaim, toldDistance, toldFigure, type Scale } from '../../road/told.js';
import { claimFinding, SHARED, statisticWords } from './claim-words.js';

const claimedSd = number('claimedSd', 'claimed sd', { above: 0 }, 'not said yet');
const request = z
  .strictObject({
    column: claimBasis.column,
    confidence: claimBasis.confidence,
    alpha: claimBasis.alpha,
    figures: typedFigures.optional(),
    claimed: claimed.schema,
    claimedSd: claimedSd.schema,
  })
  .refine(onlyOne, ONE_SOURCE);
type Request = z.infer<typeof request>;

export const MEAN_AND_SD_CLAIM: readonly SentencePart[] = [
  'The certificate of ',
  { subject: true },
  ' says mean ',
  claimed.field,
  ' and sd ',
  claimedSd.field,
  '; evidence is sought that one of the two is otherwise.',
];
export const MEAN_AND_SD_METHOD: readonly SentencePart[] = [
  'By t and χ², the level shared between them, with intervals at ',
  ofInterval.field,
  '.',
];

/** A² and D against the normal that is wholly claimed; a p beyond the published law is left out. */
function claimedNormal({ values }: Source, mean: number, sd: number): ClaimExtra[] {
  if (!values) return [];
  const sorted = values.slice().sort();
  const n = sorted.length;
  const square = andersonDarling(sorted, mean, sd);
  const distance = kolmogorovSmirnov(sorted.map((x) => normalCumulative((x - mean) / sd)));
  const told = (statistic: number, p: number | null) =>
    `${formatFigure(statistic, 'statistic')}, ${p === null ? 'p below 0.0001' : equalsP(p)}`;
  return [
    {
      ...{ key: 'a2', name: 'A², all of it', as: 'statistic', value: told(square, andersonDarlingKnown(square, n)) },
      meaning: 'Do the readings follow the normal with just this mean and sd: the tails counting most.',
      formula: 'Anderson and Darling (1954); p by Marsaglia and Marsaglia (2004)',
    },
    {
      ...{
        key: 'd',
        name: 'D, all of it',
        as: 'statistic',
        value: told(distance, kolmogorovSmirnovKnown(distance, n)),
      },
      meaning: 'The greatest distance of the steps of the readings from that normal.',
      formula: 'Kolmogorov (1933); p by Marsaglia, Tsang and Wang (2003)',
    },
  ];
}

/** "the mean lies 0.04 mm below; the spread is 1.39 times the claimed". */
function sideBySide(mean: number, sd: number, { claimed: m, claimedSd: s }: Request, scale: Scale): string {
  const off = mean - m!;
  const where =
    off === 0
      ? 'is just as claimed'
      : `is ${toldFigure(mean, scale)}, ${toldDistance(off, scale)} ${off > 0 ? 'higher' : 'lower'}`;
  return `the mean ${where}; the sd is ${toldFigure(sd, scale, 'spread')}, ${formatFigure(sd / s!, 'statistic')} times the claimed`;
}

/** "mean: t(49) = 0.31, p = 0.76; sd: χ²(49) = 95.1, p = 0.0002": each test with its own p. */
const twoTests = (t: number, square: number, df: number, pMean: number, pSd: number) =>
  `mean: ${statisticWords({ symbol: 't', statistic: t, df })}, ${equalsP(pMean)}; sd: ${statisticWords({ symbol: 'χ²', statistic: square, df })}, ${equalsP(pSd)}`;

/** Each of the two by itself, and all of the distribution. */
function extrasOf(
  source: Source,
  { claimed: m, claimedSd: s, confidence }: Request,
  [pMean, pSd]: readonly [number, number],
): ClaimExtra[] {
  const { n, sd: found } = source;
  const sd = found!;
  return [
    {
      key: 'p-mean',
      name: 'p of the mean',
      value: pMean,
      as: 'p',
      meaning: 'How likely a mean as far off would be if the claimed one were true.',
      formula: 't = (mean − claimed)/(s/√n); to be read against half the level',
    },
    {
      key: 'p-sd',
      name: 'p of the sd',
      value: pSd,
      as: 'p',
      meaning: 'The same of the sd.',
      formula: 'χ² = (n − 1)s²/σ₀²; to be read against half the level',
    },
    {
      key: 'sd',
      name: 'sd',
      value: sd,
      as: 'spread',
      meaning: 'The spread of the readings, divisor n − 1.',
      formula: '√(Σ(x − mean)²/(n − 1))',
    },
    {
      key: 'sd-interval',
      name: 'interval of the sd',
      value: sdInterval(n, sd, confidence),
      as: 'spread',
      meaning: 'Where the true sd lies, with this confidence.',
      formula: 's·√((n − 1)/χ²)',
    },
    ...claimedNormal(source, m!, s!),
  ];
}

/** Are mean and sd what a certificate says. */
export const meanAndSdClaimAnalysis = defineAnalysis<Request, ClaimResult>({
  id: 'mean-and-sd-claim',
  version: 2,
  name: 'Claim on mean and sd',
  title: 'are mean and sd what a certificate says, side by side, and A², D against that normal',
  needsReadings: false,
  request,
  method: [...MEAN_AND_SD_CLAIM, ' ', ...MEAN_AND_SD_METHOD],
  subject: ({ column }) => column ?? 'the typed readings',
  resolve: (settings) => settings,
  *run(settings, sample) {
    const found = oneSource(sample, settings, { least: 2, purpose: 'a test of mean and sd', spread: true });
    if ('available' in found) return found;
    const { source, head } = found;
    const { claimed: m, claimedSd: s, confidence, alpha } = settings;
    if (m === undefined || s === undefined) return unavailable(sample, 'Say which mean and which sd are claimed.');
    const { n, mean, values, name, resolution } = source;
    const sd = source.sd!;
    const scale: Scale = { ...head, as: 'reading', error: sd / Math.sqrt(n) };
    const ofMean = meanByT({ n, mean, sd }, m);
    const ofSd = spreadByChiSquare(n, sd, s);
    const [pMean, pSd] = [pOfTails(ofMean.tails, 'two-sided'), pOfTails(ofSd.tails, 'two-sided')];
    const interval = meanInterval(mean, ofMean, confidence, 'two-sided');
    const law = studentT.of({ df: n - 1, location: 0, scale: 1 });
    const claim = `${name} has mean ${toldClaim(m, scale)} and sd ${toldClaim(s, scale)}`;
    return claimResult(
      head,
      { alpha, confidence, alternative: 'two-sided' },
      {
        null: claim,
        sought: `mean or sd of ${name} differ from ${toldClaim(m, scale)} and ${toldClaim(s, scale)}`,
        ...{
          method: SHARED,
          claimed: m,
          estimate: mean,
          difference: mean - m,
          standardised: (mean - m) / sd,
        },
        ...{ symbol: 't', statistic: ofMean.statistic, df: n - 1, pMethod: 'exact' },
        pValue: Math.min(1, 2 * Math.min(pMean, pSd)),
        ...{ interval, intervalOf: 'the mean' },
        measured: `${sideBySide(mean, sd, settings, scale)}; ${twoTests(ofMean.statistic, ofSd.statistic, n - 1, pMean, pSd)}`,
        assumptions: values
          ? [
              normalityLine([{ name, values, resolution }], {
                alpha,
                mean: false,
                instead: 'signed ranks for the median; χ² of the sd leans on normality',
              }),
            ]
          : [],
        law: curveOf(law, {
          ...{ name: `t of the mean on ${freedomWords(n - 1)}`, axis: 't' },
          ...{ statistic: ofMean.statistic, alternative: 'two-sided', alpha: alpha / 2 },
        }),
        groups: [{ name, n, centre: mean, sd, interval, dots: values ? dotsOf(values) : [] }],
        extras: extrasOf(source, settings, [pMean, pSd]),
      },
    );
  },
  finding: claimFinding,
});
