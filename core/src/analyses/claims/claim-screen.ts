import { z } from 'zod';
import { pOfTails } from '../../claims/alternative.js';
import { countsAgainst, exactCountsP, tablesOf } from '../../claims/counts.js';
import { meanByT } from '../../claims/means.js';
import { spreadByChiSquare } from '../../claims/spreads.js';
import { holmAdjusted } from '../../numeric/holm.js';
import { centralMoments } from '../../numeric/sums.js';
import type { Sample } from '../../readings/sample.js';
import { defineAnalysis, type SentencePart } from '../../road/analysis.js';
import { whyCensored } from '../../road/beyond-limits.js';
import { unavailable, whyEmpty, whyNotEven } from '../../road/cautions.js';
import { NOT_BOTH, notBoth, severalOf, severalSettings, severalWords } from '../../road/several.js';
import { alphaSetting } from '../../road/settings.js';
import {
  claimScreenFinding,
  claimScreenNotes,
  type ClaimScreenResult,
  type ScreenedClaim,
} from './claim-screen-words.js';
import { whyNoSpread } from './claim-source.js';

const MEAN = 'A claimed mean must be a number.';
const SD = 'A claimed standard deviation must be a number above 0.';
/** What is claimed of a column: on its card. */
const claim = z.strictObject({
  mean: z.number(MEAN).min(-1e150, MEAN).max(1e150, MEAN).optional(),
  sd: z.number(SD).positive(SD).max(1e150, SD).optional(),
});

const request = z
  .strictObject({
    ...severalSettings,
    /** By column; of groups that of the column which is split. */
    claims: z.record(z.string(), claim).default({}),
    alpha: alphaSetting,
  })
  .refine(notBoth, NOT_BOTH);
type Request = z.infer<typeof request>;

const method: readonly SentencePart[] = [
  'Test each of ',
  { subject: true },
  ' against its own claim: numbers against the mean and the standard deviation on their card (t and χ²), labels against equal frequencies. The p-values are adjusted for all tests (Holm).',
];

const bare = (part: Sample): ScreenedClaim => ({
  ...{ name: part.name, n: part.values.length, unit: part.unit, resolution: part.resolution },
  ...{ labels: part.levels !== undefined, claimedMean: null, claimedSd: null, mean: null, sd: null },
  ...{ places: null, statistic: null, pValue: null, pHolm: null, reason: null },
});

/** So many tables are counted out for a row. */
const FEW_TABLES = 20_000;

/** Labels against being spread evenly. */
function labelsHeld(part: Sample): ScreenedClaim {
  const own = bare(part);
  const { levels, values } = part;
  if (values.length === 0) return { ...own, reason: whyEmpty(part) };
  if (levels!.length < 2) return { ...own, reason: 'It has only one label.' };
  if (levels!.length > Math.min(200, values.length / 2))
    return { ...own, reason: 'Nearly every row has its own label, so there is nothing to count.' };
  const counts = new Array<number>(levels!.length).fill(0);
  for (const place of values) counts[place]!++;
  const shares = counts.map(() => 1 / counts.length);
  const { statistic, pAsymptotic } = countsAgainst(counts, shares);
  const few = tablesOf(values.length, counts.length) <= FEW_TABLES;
  return { ...own, places: counts.length, statistic, pValue: few ? exactCountsP(counts, shares) : pAsymptotic };
}

/** Numbers against the mean and the sd that are claimed; of both the smaller p, doubled. */
function numbersHeld(part: Sample, { mean: m, sd: s }: z.infer<typeof claim>): ScreenedClaim {
  const own = { ...bare(part), claimedMean: m ?? null, claimedSd: s ?? null };
  if (m === undefined && s === undefined)
    return { ...own, reason: 'Its card states no claim. Enter a mean, a target or a standard deviation in Readings.' };
  const what = 'a claim';
  const reason = whyNotEven(part, 2, what) ?? whyCensored(part, what) ?? whyNoSpread(part, what, true);
  if (reason) return { ...own, reason };
  const { n, mean, s2 } = centralMoments(part.values);
  const sd = Math.sqrt(s2 / (n - 1));
  const ofMean = m === undefined ? null : meanByT({ n, mean, sd }, m);
  const ofSd = s === undefined ? null : spreadByChiSquare(n, sd, s);
  const ps = [ofMean, ofSd].flatMap((test) => (test ? [pOfTails(test.tails, 'two-sided')] : []));
  const pValue = Math.min(1, ps.length * Math.min(...ps));
  return { ...own, mean, sd, statistic: (ofMean ?? ofSd)!.statistic, pValue };
}

function held(part: Sample, { claims, split, column }: Request): ScreenedClaim {
  return part.levels ? labelsHeld(part) : numbersHeld(part, claims[split === undefined ? part.name : column] ?? {});
}

/** The p of every row with the level shared among them. */
function withShared(parts: readonly ScreenedClaim[]): ScreenedClaim[] {
  const judged = parts.filter(({ pValue }) => pValue !== null);
  const shared = holmAdjusted(judged.map(({ pValue }) => pValue!));
  return parts.map((part) => ({ ...part, pHolm: part.pValue === null ? null : shared[judged.indexOf(part)]! }));
}

/** Many columns or groups at once, each against its own claim. */
export const claimScreenAnalysis = defineAnalysis<Request, ClaimScreenResult>({
  id: 'claim-screen',
  version: 1,
  name: 'Claims on many columns',
  title: 'which of many columns or groups differ from their claims (Holm-adjusted)',
  takesLabels: true,
  request,
  method,
  resolve: (settings) => settings,
  subject: severalWords,
  *run(settings, sample) {
    const { parts, cut } = severalOf(sample);
    if (parts.length === 0) return unavailable(sample, whyEmpty(sample));
    const { missing, setAside, values } = sample;
    const result: ClaimScreenResult = {
      ...{ available: true, n: values.length, missing, setAside, alpha: settings.alpha, by: sample.groups?.by ?? null },
      parts: withShared(parts.map((part) => held(part, settings))),
      notes: [],
    };
    return { ...result, notes: [...cut, ...claimScreenNotes(result)] };
  },
  finding: claimScreenFinding,
});
