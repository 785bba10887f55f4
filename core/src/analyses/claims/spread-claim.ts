import { z } from 'zod';
import { openEnd, bothSidesFor, pOfTails } from '../../claims/alternative.js';
import { powerOfSpread } from '../../claims/power-of-spreads.js';
import { spreadByChiSquare } from '../../claims/spreads.js';
import { sdInterval } from '../../describe/intervals.js';
import { chiSquare } from '../../distributions/families/chi-square.js';
import { formatFigure, formatPercentOf } from '../../numeric/format.js';
import { defineAnalysis, type SentencePart } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { number } from '../../road/setting.js';
import { normalityLine } from './assumptions.js';
import { curveOf } from './claim-law.js';
import type { ClaimResult } from './claim-result.js';
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

const request = z
  .strictObject({ ...claimBasis, figures: typedFigures.optional(), claimed: claimed.schema })
  .refine(onlyOne, ONE_SOURCE);
type Request = z.infer<typeof request>;

export const SPREAD_CLAIM = claimSentence('The sd of ', claimed.field);
export const SPREAD_METHOD: readonly SentencePart[] = [
  'By χ², with an interval at ',
  ofInterval.field,
  '. A difference of the sd that matters: ',
  noticeable.field,
  '.',
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

/** Is the sd what is claimed. */
export const spreadClaimAnalysis = defineAnalysis<Request, ClaimResult>({
  id: 'spread-claim',
  version: 1,
  name: 'Claim on a spread',
  title: 'is the sd what is claimed (χ²)',
  needsReadings: false,
  request,
  method: [...SPREAD_CLAIM, ' ', ...SPREAD_METHOD],
  subject: ({ column }) => column ?? 'the typed readings',
  resolve: (settings) => settings,
  *run(settings, sample) {
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
    return claimResult(head, settings, {
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
  },
  finding: claimFinding,
});
