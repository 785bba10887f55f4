import { centralMoments } from '../../numeric/sums.js';
import { z } from 'zod';
import { pOfTails } from '../../claims/alternative.js';
import { equivalenceP, meanByT, meanByZ, meanInterval, type TestOfMean } from '../../claims/means.js';
import { powerOfZ } from '../../claims/power-of-shifts.js';
import { designOfOne, powerOfT } from '../../claims/power-of-t.js';
import { normal } from '../../distributions/families/normal.js';
import { studentT } from '../../distributions/families/student-t.js';
import { formatPercentOf } from '../../numeric/format.js';
import { defineAnalysis, type SentencePart } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { choice, number } from '../../road/setting.js';
import { normalityLine } from './assumptions.js';
import { curveOf } from './claim-law.js';
import type { Assumption, ClaimResult, Closeness } from './claim-result.js';
import {
  ONE_SOURCE,
  claimBasis,
  claimSentence,
  claimed,
  margin,
  noticeable,
  ofInterval,
  oneSource as onlyOne,
  typedFigures,
} from './claim-settings.js';
import { claimResult, dotsOf, oneSource, type Source } from './claim-source.js';
import { freedomWords, formatClaim, formatQuantity, formatInterval, type Scale } from '../../road/formatted.js';
import { claimFinding } from './claim-words.js';
import { missedBy, oneFigureWords, signOf } from './one-column.js';

const method = choice(
  'method',
  'test of the mean',
  [
    { value: 't', text: 't test' },
    { value: 'z', text: 'z test with known standard deviation' },
  ],
  't',
);
const knownSd = number('knownSd', 'known standard deviation', { above: 0 }, 'enter a value');

const request = z
  .strictObject({
    ...claimBasis,
    figures: typedFigures.optional(),
    claimed: claimed.schema,
    method: method.schema,
    knownSd: knownSd.schema,
    margin: margin.schema,
  })
  .refine(onlyOne, ONE_SOURCE);
type Request = z.infer<typeof request>;

export const MEAN_CLAIM = claimSentence('The mean of ', claimed.field);
export const MEAN_METHOD: readonly SentencePart[] = [
  'Test: ',
  method.field,
  { text: ' ', showWhen: { field: 'method', is: 'z' } },
  { ...knownSd.field, showWhen: { field: 'method', is: 'z' } },
  ', confidence interval at ',
  ofInterval.field,
  '. Smallest difference of interest: ',
  noticeable.field,
  '. Equivalence margin ±: ',
  margin.field,
  '.',
];

/** The standard deviation is taken as estimated. */
function powerOf(n: number, sd: number, { alpha, alternative: of, noticeable: named, method: by }: Request) {
  const chanceAt = (at: number, d: number) =>
    by === 'z'
      ? powerOfZ(at, (signOf(of) * d) / sd, alpha, of)
      : powerOfT(designOfOne(at), (signOf(of) * d) / sd, alpha, of);
  return missedBy({ n, chanceAt, named, scale: sd, least: by === 'z' ? 1 : 2 });
}

function closenessOf(difference: number, estimate: number, test: TestOfMean, { margin: within, alpha }: Request) {
  if (within === undefined) return null;
  const pValue = equivalenceP(difference, test, within);
  const interval = meanInterval(estimate, test, 1 - 2 * Math.min(alpha, 0.4999), 'two-sided');
  return { margin: within, pValue, shown: pValue < alpha, interval } satisfies Closeness;
}

const lawOfMean = ({ df }: TestOfMean) =>
  df === null
    ? { name: 'standard normal distribution', law: normal.of({ mean: 0, sd: 1 }) }
    : { name: `t distribution with ${freedomWords(df)}`, law: studentT.of({ df, location: 0, scale: 1 }) };

function assumptionsOf({ values, name, resolution }: Source, { alpha, method: by }: Request): Assumption[] {
  const known: Assumption[] =
    by === 'z' ? [{ text: 'Known standard deviation: the z test relies on it.', holds: true, instead: '' }] : [];
  if (!values)
    return [...known, { text: 'Normality: cannot be checked from typed figures.', holds: true, instead: '' }];
  return [
    ...known,
    normalityLine([{ name, values, resolution }], {
      alpha,
      mean: true,
      instead: 'the signed rank test or the sign test of the median',
    }),
  ];
}

/** Does the mean differ from a claimed value. */
export const meanClaimAnalysis = defineAnalysis<Request, ClaimResult>({
  id: 'mean-claim',
  version: 2,
  name: 'Claim on a mean',
  title:
    'does the mean differ from a claimed value (t test; z test with a known standard deviation), with power and equivalence',
  needsReadings: false,
  request,
  method: [...MEAN_CLAIM, ' ', ...MEAN_METHOD],
  subject: ({ column }) => column ?? 'the typed readings',
  resolve: (settings) => settings,
  *run(settings, sample) {
    const byZ = settings.method === 'z';
    const found = oneSource(sample, settings, {
      least: byZ ? 1 : 2,
      purpose: byZ ? 'a z test' : 'a t test',
      spread: !byZ,
    });
    if ('available' in found) return found;
    const { source, head } = found;
    const { claimed: claim, alternative: of, confidence, knownSd: known } = settings;
    if (claim === undefined) return unavailable(sample, 'Enter the claimed mean.');
    if (byZ && known === undefined)
      return unavailable(sample, 'Enter the known standard deviation; the z test needs it.');
    const { n, mean } = source;
    const sd = byZ ? known! : source.sd!;
    // The claim is taken off before averaging: readings about 10⁹ then keep the digits of their differences.
    const off = source.values ? centralMoments(source.values.map((x) => x - claim)).mean : mean - claim;
    const test = byZ ? meanByZ({ n, mean: off }, 0, sd) : meanByT({ n, mean: off, sd }, 0);
    const scale: Scale = { ...head, as: 'reading', error: test.standardError };
    const interval = meanInterval(mean, test, confidence, of);
    const difference = off;
    const { name, law } = lawOfMean(test);
    const symbol = byZ ? 'z' : 't';
    return claimResult(head, settings, {
      ...oneFigureWords(`the mean of ${source.name}`, formatClaim(claim, scale), of),
      method: settings.method,
      ...{ claimed: claim, estimate: mean, difference, standardised: difference / sd },
      ...{ symbol, statistic: test.statistic, df: test.df, pValue: pOfTails(test.tails, of), pMethod: 'exact' },
      ...{ interval, intervalOf: 'the mean' },
      measured: `Mean ${formatQuantity(mean, scale)}, ${formatPercentOf(confidence)} confidence interval ${formatInterval(interval, scale)}`,
      ...powerOf(n, sd, settings),
      closeness: closenessOf(difference, mean, test, settings),
      assumptions: assumptionsOf(source, settings),
      law: curveOf(law, { name, axis: symbol, statistic: test.statistic, alternative: of, alpha: settings.alpha }),
      draws: { of: 'mean', n, known: byZ },
      groups: [
        {
          ...{ name: source.name, n, centre: mean, sd: source.sd },
          interval: meanInterval(mean, test, confidence, 'two-sided'),
          dots: source.values ? dotsOf(source.values) : [],
        },
      ],
    });
  },
  finding: claimFinding,
});
