import { powerBySimulation, signedRankModel } from '../../claims/simulated-power.js';
import { z } from 'zod';
import { bothSidesFor, pOfTails, type Alternative, type Interval, type Tails } from '../../claims/alternative.js';
import type { ClaimDraws } from '../../claims/draws.js';
import { powerOfSignedRanks, powerOfSigns } from '../../claims/power-of-shifts.js';
import {
  ranksOfDistances,
  MOST_SIGNED_RANKS,
  signedRank,
  signedRankByNormal,
  signedRankShares,
  signTest,
  walshCentre,
} from '../../claims/ranks.js';
import { medianRanks } from '../../describe/intervals.js';
import { medianOfSorted } from '../../describe/quantiles.js';
import { binomial } from '../../distributions/families/binomial.js';
import { normal } from '../../distributions/families/normal.js';
import { SKEWNESS_LEAST_N, skewnessTest } from '../../goodness-of-fit/normality/skewness.js';
import { centralMoments } from '../../numeric/sums.js';
import { equalsP, formatPercentOf, groupThousands } from '../../numeric/format.js';
import { plural } from '../../numeric/grammar.js';
import { defineAnalysis, type Note, type SentencePart } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { choice } from '../../road/setting.js';
import { columnsOf, curveOf } from './claim-law.js';
import type { Assumption, ClaimResult, LawPicture } from './claim-result.js';
import { claimBasis, claimSentence, claimed, noticeable, ofInterval } from './claim-settings.js';
import { claimResult, dotsOf, oneSource, type Source } from './claim-source.js';
import { formatClaim, formatQuantity, formatInterval, type Scale } from '../../road/formatted.js';
import { claimFinding } from './claim-words.js';
import { missedBy, oneFigureWords, signOf } from './one-column.js';

const method = choice(
  'method',
  'test of the median',
  [
    { value: 'sign', text: 'sign test' },
    { value: 'signed-rank', text: 'signed rank test' },
  ],
  'signed-rank',
);
const request = z.strictObject({ ...claimBasis, claimed: claimed.schema, method: method.schema });
type Request = z.infer<typeof request>;

export const MEDIAN_CLAIM = claimSentence('The median of ', claimed.field);
export const MEDIAN_METHOD: readonly SentencePart[] = [
  'Test: ',
  method.field,
  ', confidence interval at ',
  ofInterval.field,
  '. Smallest difference of interest: ',
  noticeable.field,
  '.',
];

interface Tested {
  statistic: number;
  /** Readings that count: those equal to the claim do not. */
  n: number;
  tails: Tails;
  exact: boolean;
  centre: number;
  interval: Interval;
  law: LawPicture | null;
}

type Shown = Pick<LawPicture, 'name' | 'axis' | 'statistic'> & { alternative: Alternative; alpha: number };

/** The sign test, with the interval between two readings. */
function bySigns(values: Float64Array, claim: number, { alternative: of, confidence, alpha }: Request): Tested {
  const { above, below, tails } = signTest(values, claim);
  const sorted = values.slice().sort();
  const { rank } = medianRanks(values.length, Math.max(0, bothSidesFor(confidence, of)));
  const n = above + below;
  const shown: Shown = {
    name: `binomial distribution with ${n} trials and probability ½`,
    axis: 'readings above the claimed median',
    statistic: above,
    alternative: of,
    alpha,
  };
  const far = Math.abs(above - n / 2);
  const counted = (k: number) =>
    of === 'less' ? k <= above : of === 'greater' ? k >= above : Math.abs(k - n / 2) >= far;
  return {
    ...{ statistic: above, n, tails, exact: true, centre: medianOfSorted(sorted) },
    interval: {
      lower: of === 'less' ? null : sorted[rank - 1]!,
      upper: of === 'greater' ? null : sorted[sorted.length - rank]!,
    },
    law:
      n === 0
        ? null
        : columnsOf(binomial.of({ trials: n, probability: 0.5 }), {
            ...shown,
            p: pOfTails(tails, of),
            ends: [0, n],
            counted,
            critical: [],
          }),
  };
}

/** The exact distribution where readings are few, the normal approximation beyond. */
function byRanks(values: Float64Array, claim: number, { alternative: of, confidence, alpha }: Request): Tested {
  const exact = values.length <= MOST_SIGNED_RANKS;
  const { statistic, n, tails } = exact ? signedRank(values, claim) : signedRankByNormal(values, claim);
  const { centre, interval } = walshCentre(values, confidence, of);
  const shown = { axis: 'sum of the ranks above the claimed median', statistic, alternative: of, alpha };
  const law = n === 0 ? null : lawOfRanks(n, shown, pOfTails(tails, of));
  return { statistic, n, tails, exact, centre, interval, law };
}

const SMALL = 15;

function lawOfRanks(n: number, shown: Omit<Shown, 'name'>, p: number): LawPicture {
  const mean = (n * (n + 1)) / 4;
  const near = normal.of({ mean, sd: Math.sqrt((n * (n + 1) * (2 * n + 1)) / 24) });
  if (n > SMALL)
    return {
      ...curveOf(near, { ...shown, name: `signed rank sums of ${groupThousands(n)} readings (normal approximation)` }),
      p,
    };
  const shares = signedRankShares(n);
  const { statistic, alternative: of } = shown;
  const far = Math.abs(statistic - mean);
  const counted = (k: number) =>
    of === 'less' ? k <= statistic : of === 'greater' ? k >= statistic : Math.abs(k - mean) >= far;
  const law = { ...near, density: (k: number) => shares[k] ?? 0 };
  return columnsOf(law, {
    ...shown,
    p,
    name: `signed rank sums of ${n} readings`,
    ends: [0, 2 * mean],
    counted,
    critical: [],
  });
}

/** Up to so many readings the power of signed ranks is simulated; beyond, that of t with 3/π as many readings is within 0.03 of it. */
const MOST_SIMULATED = 60;

function powerOf({ n, sd }: Source, { alpha, alternative: of, noticeable: named, method: by }: Request) {
  if (sd === null || sd === 0) return {};
  const simulated = powerBySimulation(signedRankModel(alpha, of), alpha);
  const chanceAt = (at: number, d: number) => {
    const off = (signOf(of) * d) / sd;
    if (by === 'sign') return powerOfSigns(at, off, alpha, of);
    return at <= MOST_SIMULATED ? simulated(at, off) : powerOfSignedRanks(at, off, alpha, of);
  };
  const ranks = by !== 'sign';
  return missedBy({
    ...{ n, chanceAt, named, scale: sd, followed: ranks ? 0 : 100 },
    ...{ simulated: ranks && n <= MOST_SIMULATED, approximate: ranks && n > MOST_SIMULATED },
  });
}

/** Signed ranks assume symmetry, and little else. */
function assumptionsOf({ values }: Source, { alpha, method: by }: Request): Assumption[] {
  if (by === 'sign')
    return [{ text: 'The sign test makes no assumption about the distribution.', holds: true, instead: '' }];
  if (values!.length < SKEWNESS_LEAST_N)
    return [{ text: 'Symmetry: too few readings to test.', holds: true, instead: '' }];
  const { n, s2, s3 } = centralMoments(values!);
  const found = s2 > 0 ? skewnessTest(s3 / n / (s2 / n) ** 1.5, n) : null;
  if (!found)
    return [{ text: 'Symmetry: cannot be tested, because all readings are equal.', holds: true, instead: '' }];
  const { pValue } = found;
  const holds = pValue >= alpha;
  const text = `Symmetry: ${holds ? 'no evidence against it' : 'not supported'} (skewness, ${equalsP(pValue, alpha)}).`;
  return [{ text, holds, instead: holds ? '' : 'the sign test' }];
}

/** Of more readings their ranks are too long a list to hand on. */
const MOST_DRAWN = 2_000;

function drawsOf(values: Float64Array, claim: number, { n }: Tested, by: Request['method']): ClaimDraws | null {
  if (n === 0 || n > MOST_DRAWN) return null;
  return by === 'sign'
    ? { of: 'count', n, share: 0.5 }
    : { of: 'signs', ranks: Array.from(ranksOfDistances(values, claim)) };
}

/** Does the median differ from a claimed value. */
export const medianClaimAnalysis = defineAnalysis<Request, ClaimResult>({
  id: 'median-claim',
  version: 2,
  name: 'Claim on a median',
  title: 'does the median differ from a claimed value (sign test; signed rank test)',
  needsReadings: false,
  request,
  method: [...MEDIAN_CLAIM, ' ', ...MEDIAN_METHOD],
  resolve: (settings) => settings,
  *run(settings, sample) {
    const found = oneSource(sample, settings, { least: 1, purpose: 'a test of the median' });
    if ('available' in found) return found;
    const { source, head } = found;
    const { claimed: claim, alternative: of, confidence, method: by } = settings;
    if (claim === undefined) return unavailable(sample, 'Enter the claimed median.');
    const values = source.values!;
    const tested = by === 'sign' ? bySigns(values, claim, settings) : byRanks(values, claim, settings);
    const { centre, interval, statistic, n, tails, exact, law } = tested;
    const scale: Scale = { ...head, as: 'reading' };
    const left = source.n - n;
    const more: Note[] =
      left === 0
        ? []
        : [
            {
              code: 'equal-to-claim',
              text: `${groupThousands(left)} of the ${plural(source.n, 'reading')} ${left === 1 ? 'equals' : 'equal'} the claimed median. The test leaves ${left === 1 ? 'it' : 'them'} out.`,
            },
          ];
    const difference = centre - claim;
    return claimResult(
      head,
      settings,
      {
        ...oneFigureWords(`the median of ${source.name}`, formatClaim(claim, scale), of),
        ...{ method: by, claimed: claim, estimate: centre, difference },
        standardised: source.sd ? difference / source.sd : null,
        ...{ symbol: by === 'sign' ? 'above' : 'W', statistic, pValue: pOfTails(tails, of) },
        pMethod: exact ? 'exact' : 'asymptotic',
        ...{ interval, intervalOf: by === 'sign' ? 'the median' : 'the median (Hodges–Lehmann)' },
        measured: `Median ${formatQuantity(centre, scale)}${by === 'sign' ? '' : ' (Hodges–Lehmann)'}, ${formatPercentOf(confidence)} confidence interval ${formatInterval(interval, scale)}`,
        ...powerOf(source, settings),
        assumptions: assumptionsOf(source, settings),
        law,
        draws: drawsOf(values, claim, tested, by),
        groups: [{ name: source.name, n: source.n, centre, sd: source.sd, interval, dots: dotsOf(values) }],
      },
      more,
    );
  },
  finding: claimFinding,
});
