import { USUAL_CHANCE } from '../../claims/noticing.js';
import { equalsP, formatFigure, formatP, formatPercentOf, groupThousands } from '../../numeric/format.js';
import { article, sentenceCase } from '../../numeric/grammar.js';
import type { Note, Piece } from '../../road/analysis.js';
import { confidenceNote, levelNote, levelWords } from '../../road/cautions.js';
import { simulatedNotes } from '../../road/simulated-notes.js';
import type { ClaimResult } from './claim-result.js';
import { formatDetectable, formatDistance, formatNamed } from '../../road/formatted.js';

/** The statistic with its degrees of freedom: "t(47) = 2.10". */
export function statisticWords({ symbol, statistic, df }: Pick<ClaimResult, 'symbol' | 'statistic' | 'df'>): string {
  if (statistic === null) return '';
  const round = (value: number) => (Number.isInteger(value) ? groupThousands(value) : String(Number(value.toFixed(1))));
  const freedom = df === null ? '' : `(${(typeof df === 'number' ? [df] : df).map(round).join(', ')})`;
  const value = Number.isInteger(statistic) ? groupThousands(statistic) : formatFigure(statistic, 'statistic');
  return `${symbol}${freedom} = ${value}`;
}

/** Two tests that share the level. */
export const SHARED = 't-and-chi-square';

/** "t(47) = 1.03, p = 0.31", with the significance level where it is not the usual one. */
const testWords = (result: ClaimResult) => {
  const { pValue, alpha } = result;
  const level = levelWords(alpha);
  // Each of the two tests has its statistic beside its own p.
  if (result.method === SHARED && pValue !== null) return `Joint ${equalsP(pValue, alpha)} (Bonferroni)${level}`;
  const statistic = statisticWords(result);
  const p = pValue === null ? 'p is being simulated' : equalsP(pValue, alpha);
  return `${statistic}${statistic ? ', ' : ''}${p}${level}`;
};

function closenessWords(result: ClaimResult): Piece[] {
  const { closeness } = result;
  if (!closeness) return [];
  const within = `within ±${formatNamed(closeness.margin, result)}`;
  const p = equalsP(closeness.pValue, result.alpha);
  return closeness.shown
    ? [
        { text: ' ' },
        { text: 'Equivalent', strong: true, code: 'evidence' },
        { text: ` ${within} (two one-sided tests, ${p}).` },
      ]
    : [{ text: ` Equivalence ${within} is not shown (${p}).` }];
}

/** The answer, then the numbers: evidence, or no evidence; never that the claim is true. */
export function claimFinding(result: ClaimResult): Piece[] {
  const { pValue, alpha, sought, measured } = result;
  const numbers = ` ${measured}${result.method === SHARED ? '.' : ';'} ${testWords(result)}.`;
  if (pValue === null) return [{ text: `Testing whether ${sought}.${numbers}` }];
  const lead: Piece[] =
    pValue < alpha
      ? [{ text: sentenceCase(sought), strong: true, code: 'evidence' }, { text: '.' }]
      : [{ text: 'No evidence', strong: true, code: 'no-evidence' }, { text: ` that ${sought}.` }];
  // Where a difference is shown, that there is no equivalence goes without saying.
  const closeness = pValue < alpha && !result.closeness?.shown ? [] : closenessWords(result);
  return [...lead, { text: numbers }, ...closeness];
}

const powerWords = (chance: number) =>
  chance > 0.995
    ? 'more than 99 % power'
    : chance < 0.005
      ? 'less than 1 % power'
      : `${Math.round(100 * chance)} % power`;

/** What this number of readings can detect; null if it is not calculated. */
export function missedWords(result: ClaimResult): string | null {
  const { power, smallestNoticeable, n } = result;
  if (!power) return null;
  const about = power.approximate ? 'about ' : '';
  const scale = { ...result, as: power.as ?? result.as };
  const size = power.as === 'ratio' ? 'ratio' : result.as === 'ratio' ? 'Cramér’s V' : 'difference';
  const here = power.with ?? `With n = ${groupThousands(n)}`;
  const least =
    smallestNoticeable === null
      ? `no ${size} is detected with 80 % power`
      : `the smallest ${size} detected with 80 % power is ${about}${formatDetectable(smallestNoticeable, scale)}`;
  if (power.noticeable === null || power.chance === null) return `${here}, ${least}.`;
  const named = `${power.of} ${formatNamed(power.noticeable, scale)}`;
  const needs =
    power.needed !== null
      ? ` For 80 % power, ${about}${groupThousands(power.needed)} ${power.per} are needed${power.suffices ? ` (${groupThousands(power.suffices)} are enough, but only from ${groupThousands(power.needed)} on is every larger number enough too)` : ''}.`
      : power.chance < USUAL_CHANCE
        ? ' For 80 % power, more than 1 000 000 are needed.'
        : '';
  return `${here}, ${named} is detected with ${about}${powerWords(power.chance)}.${needs} ${sentenceCase(least)}.`;
}

/** The claim and the alternative, read back. */
export const readBack = ({ null: claim, sought }: ClaimResult): string => `Claim: ${claim}. Alternative: ${sought}.`;

/** What p means here; null where p is put together from several. */
export function pWords({ pValue, alternative, alpha, law, method }: ClaimResult): string | null {
  if (pValue === null || !law || method === SHARED) return null;
  const twoEnds = alternative === 'two-sided' && (law.discrete || law.tails.length === 2);
  const far = alternative !== 'two-sided' ? ' in this direction' : twoEnds ? ' in either direction' : '';
  const p = formatP(pValue, alpha);
  return `If the claim is true, the probability of a sample at least as far from it${far} is ${p.startsWith('<') ? 'below 0.0001' : p}.`;
}

/** A confidence that does not belong to the level: interval and p can then say different things. */
function apartNote({ confidence, alpha, interval }: ClaimResult): Note[] {
  if (!interval || Math.abs(1 - confidence - alpha) < 1e-9) return [];
  const text = `Interval and test may disagree: ${article(`${formatPercentOf(confidence)} interval`)} goes with a significance level of ${Number((1 - confidence).toPrecision(6))}, not ${alpha}.`;
  return [{ code: 'interval-and-level', text }];
}

function otherWayNote({ alternative, difference, pValue, as, ...scale }: ClaimResult): Note[] {
  if (alternative === 'two-sided' || difference === null || difference === 0 || pValue === null) return [];
  if (difference > 0 === (alternative === 'greater')) return [];
  const text = `The difference is opposite to the alternative: the alternative is “${alternative}”, but the estimate is ${formatDistance(difference, { ...scale, as })} ${difference > 0 ? 'above' : 'below'} the claim. Check the direction.`;
  return [{ code: 'other-way', text }];
}

/** A claim with so many figures that it can only have been computed from these readings. */
function ownReadingsNote({ typed, claimed, estimate, resolution, as }: ClaimResult): Note[] {
  if (typed || claimed === null || estimate === null || as !== 'reading' || resolution === null) return [];
  const decimals = /\.(\d+)/.exec(String(claimed))?.[1]!.length ?? 0;
  const written = /\.(\d+)/.exec(String(resolution))?.[1]!.length ?? 0;
  const same = Number(estimate.toFixed(Math.min(15, decimals))) === claimed;
  // At the decimals of the readings a true claim may well be met.
  if (!same || decimals <= written) return [];
  const text =
    'The test may be meaningless: the claimed value equals the estimate from these readings. A claim must be set independently of the readings.';
  return [{ code: 'claim-from-readings', text }];
}

/** A p below is not at the edge. */
const SURE = 0.01;

/** Interval and test by methods of their own may disagree at the edge. */
function edgeNote({ interval, intervalOf, claimed, pValue, alpha, confidence, symbol, method }: ClaimResult): Note[] {
  if (!interval || claimed === null || pValue === null || Math.abs(1 - confidence - alpha) > 1e-9) return [];
  const { lower, upper } = interval;
  const outside = (lower !== null && claimed < lower) || (upper !== null && claimed > upper);
  // Methods that differ at the edge do not differ by so much.
  if (outside === pValue < alpha || symbol === 'F' || method === SHARED || pValue < SURE) return [];
  const text = `Interval and test disagree: the interval of ${intervalOf} ${outside ? 'excludes' : 'contains'} the claimed value, and the test ${outside ? 'does not reject' : 'rejects'} it. They use different methods and the result is borderline; the finding follows the test.`;
  return [{ code: 'interval-and-test', text }];
}

/** Cautions that any claim may need. */
export function claimNotes(result: ClaimResult): Note[] {
  return [
    ...ownReadingsNote(result),
    ...otherWayNote(result),
    ...levelNote(result.alpha),
    ...(result.interval ? confidenceNote(result.confidence) : []),
    ...apartNote(result),
    ...edgeNote(result),
    ...simulatedNotes(result.pSimulated, result.alpha),
  ];
}
