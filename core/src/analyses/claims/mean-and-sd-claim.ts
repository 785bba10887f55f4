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
import { freedomWords, formatClaim, formatDistance, formatQuantity, type Scale } from '../../road/formatted.js';
import { claimFinding, SHARED, statisticWords } from './claim-words.js';

const claimedSd = number('claimedSd', 'claimed standard deviation', { above: 0 }, 'enter a value');
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
  'The certificate for ',
  { subject: true },
  ' states mean ',
  claimed.field,
  ' and standard deviation ',
  claimedSd.field,
  '; alternative: at least one of the two differs.',
];
export const MEAN_AND_SD_METHOD: readonly SentencePart[] = [
  't and χ² tests, adjusted for two tests, confidence intervals at ',
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
    `${formatFigure(statistic, 'statistic')}, ${p === null ? 'p < 0.0001' : equalsP(p)}`;
  return [
    {
      ...{
        key: 'a2',
        name: 'A², claimed normal',
        as: 'statistic',
        value: told(square, andersonDarlingKnown(square, n)),
      },
      meaning:
        'Distance of the readings from the normal distribution with the claimed mean and standard deviation, with most weight on the tails.',
      formula: 'Anderson and Darling (1954); p by Marsaglia and Marsaglia (2004)',
    },
    {
      ...{
        key: 'd',
        name: 'D, claimed normal',
        as: 'statistic',
        value: told(distance, kolmogorovSmirnovKnown(distance, n)),
      },
      meaning: 'The largest distance between the empirical distribution of the readings and that normal distribution.',
      formula: 'Kolmogorov (1933); p by Marsaglia, Tsang and Wang (2003)',
    },
  ];
}

/** "Mean 7.96 mm (0.04 mm below the claim; t(49) = 0.31, p = 0.76)": how far off, by its own test. */
function meanWords(mean: number, claimed: number, t: string, p: number, scale: Scale): string {
  const off = mean - claimed;
  const where = off === 0 ? 'as claimed' : `${formatDistance(off, scale)} ${off > 0 ? 'above' : 'below'} the claim`;
  return `Mean ${formatQuantity(mean, scale)} (${where}; ${t}, ${equalsP(p)})`;
}

/** "standard deviation 0.14 mm (1.39 times the claim; χ²(49) = 95.1, p = 0.0002)". */
const spreadWords = (sd: number, claimed: number, square: string, p: number, scale: Scale) =>
  `standard deviation ${formatQuantity(sd, scale, 'spread')} (${formatFigure(sd / claimed, 'statistic')} times the claim; ${square}, ${equalsP(p)})`;

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
      meaning: 'The probability of a mean at least as far from the claimed one, if the claim is true.',
      formula: 't = (mean − claimed)/(s/√n); compare with half the significance level',
    },
    {
      key: 'p-sd',
      name: 'p of the SD',
      value: pSd,
      as: 'p',
      meaning: 'The same for the standard deviation.',
      formula: 'χ² = (n − 1)s²/σ₀²; compare with half the significance level',
    },
    {
      key: 'sd',
      name: 'SD',
      value: sd,
      as: 'spread',
      meaning: 'The standard deviation of the readings, divisor n − 1.',
      formula: '√(Σ(x − mean)²/(n − 1))',
    },
    {
      key: 'sd-interval',
      name: 'interval of the SD',
      value: sdInterval(n, sd, confidence),
      as: 'spread',
      meaning: 'The range that contains the true standard deviation, at this confidence level.',
      formula: 's·√((n − 1)/χ²)',
    },
    ...claimedNormal(source, m!, s!),
  ];
}

/** Do mean and standard deviation agree with a certificate. */
export const meanAndSdClaimAnalysis = defineAnalysis<Request, ClaimResult>({
  id: 'mean-and-sd-claim',
  version: 2,
  name: 'Claim on mean and standard deviation',
  title: 'do mean and standard deviation agree with a certificate (t and χ²; A² and D against that normal)',
  needsReadings: false,
  request,
  method: [...MEAN_AND_SD_CLAIM, ' ', ...MEAN_AND_SD_METHOD],
  subject: ({ column }) => column ?? 'the typed readings',
  resolve: (settings) => settings,
  *run(settings, sample) {
    const found = oneSource(sample, settings, {
      least: 2,
      purpose: 'a test of mean and standard deviation',
      spread: true,
    });
    if ('available' in found) return found;
    const { source, head } = found;
    const { claimed: m, claimedSd: s, confidence, alpha } = settings;
    if (m === undefined || s === undefined)
      return unavailable(sample, 'Enter the claimed mean and the claimed standard deviation.');
    const { n, mean, values, name, resolution } = source;
    const sd = source.sd!;
    const scale: Scale = { ...head, as: 'reading', error: sd / Math.sqrt(n) };
    const ofMean = meanByT({ n, mean, sd }, m);
    const ofSd = spreadByChiSquare(n, sd, s);
    const [pMean, pSd] = [pOfTails(ofMean.tails, 'two-sided'), pOfTails(ofSd.tails, 'two-sided')];
    const interval = meanInterval(mean, ofMean, confidence, 'two-sided');
    const t = statisticWords({ symbol: 't', statistic: ofMean.statistic, df: n - 1 });
    const square = statisticWords({ symbol: 'χ²', statistic: ofSd.statistic, df: n - 1 });
    const law = studentT.of({ df: n - 1, location: 0, scale: 1 });
    const claim = `the mean of ${name} is ${formatClaim(m, scale)} and its standard deviation ${formatClaim(s, scale)}`;
    return claimResult(
      head,
      { alpha, confidence, alternative: 'two-sided' },
      {
        null: claim,
        sought: `the mean or the standard deviation of ${name} differs from the certificate`,
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
        measured: `${meanWords(mean, m, t, pMean, scale)}; ${spreadWords(sd, s, square, pSd, scale)}`,
        assumptions: values
          ? [
              normalityLine([{ name, values, resolution }], {
                alpha,
                mean: false,
                instead:
                  'the signed rank test of the median; the χ² test of the standard deviation relies on normality',
              }),
            ]
          : [],
        law: curveOf(law, {
          ...{ name: `t distribution of the mean, ${freedomWords(n - 1)}`, axis: 't' },
          ...{ statistic: ofMean.statistic, alternative: 'two-sided', alpha: alpha / 2 },
        }),
        groups: [{ name, n, centre: mean, sd, interval, dots: values ? dotsOf(values) : [] }],
        extras: extrasOf(source, settings, [pMean, pSd]),
      },
    );
  },
  finding: claimFinding,
});
