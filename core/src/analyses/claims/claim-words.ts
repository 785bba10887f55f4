import { USUAL_CHANCE } from '../../claims/noticing.js';
import { equalsP, formatFigure, formatP, formatPercentOf, groupThousands } from '../../numeric/format.js';
import type { Note, Piece } from '../../road/analysis.js';
import { confidenceNote, levelNote } from '../../road/cautions.js';
import { simulatedNotes } from '../../road/simulated-notes.js';
import type { ClaimResult } from './claim-result.js';
import { toldDistance, toldNamed } from '../../road/told.js';

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

const testWords = (result: ClaimResult) => {
  const { pValue, alpha } = result;
  // Each of the two tests has its statistic beside its own p.
  if (result.method === SHARED && pValue !== null)
    return `Joint ${equalsP(pValue, alpha)} (Bonferroni bound: twice the smaller of the two), level ${alpha}`;
  const statistic = statisticWords(result);
  const p = pValue === null ? 'its p is being simulated' : `${equalsP(pValue, alpha)}, level ${alpha}`;
  return `${statistic}${statistic ? ', ' : ''}${p}`;
};

function closenessWords(result: ClaimResult): Piece[] {
  const { closeness } = result;
  if (!closeness) return [];
  const within = `within ${toldNamed(closeness.margin, result)} of what is claimed (${equalsP(closeness.pValue, result.alpha)})`;
  return closeness.shown
    ? [
        { text: ' It is ' },
        { text: 'shown to be close enough', strong: true, code: 'evidence' },
        { text: `: ${within}.` },
      ]
    : [{ text: ` That it lies ${within} is not shown either.` }];
}

/** What was found: shown, or not shown; never that the claim is true. */
export function claimFinding(result: ClaimResult): Piece[] {
  const { pValue, alpha, sought, measured } = result;
  const tail = `: ${measured}. ${testWords(result)}.`;
  if (pValue === null) return [{ text: `Is it so that ${sought}${tail}` }];
  const lead: Piece[] =
    pValue < alpha
      ? [{ text: 'It is ' }, { text: `shown that ${sought}`, strong: true, code: 'evidence' }]
      : [{ text: 'It is ' }, { text: 'not shown', strong: true, code: 'no-evidence' }, { text: ` that ${sought}` }];
  // Where a difference is shown, that it is not close enough goes without saying.
  const closeness = pValue < alpha && !result.closeness?.shown ? [] : closenessWords(result);
  return [...lead, { text: tail }, ...closeness];
}

const timesIn100 = (chance: number) => {
  const times = Math.round(100 * chance);
  if (times >= 100) return 'practically always';
  if (times <= 0) return 'practically never';
  return times === 1 ? 'once in 100' : `${times} times in 100`;
};

/** What this many readings could have missed; null where it is not worked out. */
export function missedWords(result: ClaimResult): string | null {
  const { power, smallestNoticeable, n } = result;
  if (!power) return null;
  const about = power.approximate ? 'about ' : '';
  const scale = { ...result, as: power.as ?? result.as };
  const here = power.with ?? `With n = ${groupThousands(n)}`;
  const least =
    smallestNoticeable === null
      ? 'no difference at all is noticed 8 times in 10'
      : `the smallest noticed 8 times in 10 is ${about}${toldDistance(smallestNoticeable, scale)}`;
  if (power.noticeable === null || power.chance === null) return `${here} ${least}.`;
  const named = `${power.of} ${toldNamed(power.noticeable, scale)}`;
  const asks =
    power.needed !== null
      ? `; 8 times in 10 it takes ${about}${groupThousands(power.needed)} ${power.per}${power.suffices ? ` (${groupThousands(power.suffices)} suffice, from ${groupThousands(power.needed)} on always)` : ''}`
      : power.chance < USUAL_CHANCE
        ? '; more than a million would be needed to notice it 8 times in 10'
        : '';
  return `${here} ${named} is noticed ${about}${timesIn100(power.chance)}${asks}. As it is, ${least}.`;
}

/** The claim and what is sought, read back. */
export const readBack = ({ null: claim, sought }: ClaimResult): string =>
  `Claimed: ${claim}. Evidence is sought that ${sought}.`;

/** How unlikely what was found would be if the claim were true; null where p is put together from several. */
export function pWords({ pValue, alternative, alpha, law, method }: ClaimResult): string | null {
  if (pValue === null || !law || method === SHARED) return null;
  const twoEnds = alternative === 'two-sided' && (law.discrete || law.tails.length === 2);
  const far =
    alternative !== 'two-sided'
      ? 'at least as far in this direction'
      : `at least as far from the claim${twoEnds ? ', in either direction' : ''}`;
  const p = formatP(pValue, alpha);
  return `If the claim were true, samples of this size would lie ${far} with a chance ${p.startsWith('<') ? 'below 0.0001' : `of ${p}`}.`;
}

/** A confidence that does not belong to the level: interval and p can then say different things. */
function apartNote({ confidence, alpha, interval }: ClaimResult): Note[] {
  if (!interval || Math.abs(1 - confidence - alpha) < 1e-9) return [];
  const text = `An interval at ${formatPercentOf(confidence)} goes with a level of ${Number((1 - confidence).toPrecision(6))}, not ${alpha}: the two may not say the same.`;
  return [{ code: 'interval-and-level', text }];
}

function otherWayNote({ alternative, difference, pValue, sought, as, ...scale }: ClaimResult): Note[] {
  if (alternative === 'two-sided' || difference === null || difference === 0 || pValue === null) return [];
  if (difference > 0 === (alternative === 'greater')) return [];
  const text = `The sample points the other way: evidence is sought that ${sought}, and it lies ${toldDistance(difference, { ...scale, as })} on the other side. Was the direction meant so?`;
  return [{ code: 'other-way', text }];
}

/** A claim with as many figures as only the readings themselves can have given. */
function ownReadingsNote({ typed, claimed, estimate, resolution, as }: ClaimResult): Note[] {
  if (typed || claimed === null || estimate === null || as !== 'reading' || resolution === null) return [];
  const decimals = /\.(\d+)/.exec(String(claimed))?.[1]!.length ?? 0;
  const written = /\.(\d+)/.exec(String(resolution))?.[1]!.length ?? 0;
  const same = Number(estimate.toFixed(Math.min(15, decimals))) === claimed;
  // At the decimals of the readings a true claim may well be met.
  if (!same || decimals <= written) return [];
  const text = `What is claimed is what these readings themselves give: then nothing can speak against it. A claim stands before the readings do.`;
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
  const text = `The interval of ${intervalOf} ${outside ? 'leaves out' : 'holds'} what is claimed, and the test ${outside ? 'does not reject' : 'rejects'} it: they go by different methods, and this is at the edge. The finding is that of the test.`;
  return [{ code: 'interval-and-test', text }];
}

/** What a careful colleague would add to any claim. */
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
