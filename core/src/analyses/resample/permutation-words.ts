import { formatStatistic } from '../../road/formatted.js';
import { equalsP, formatP, formatValue, groupThousands } from '../../numeric/format.js';
import { plural, sentenceCase } from '../../numeric/grammar.js';
import type { Note, Piece } from '../../road/analysis.js';
import { levelNote, levelWords } from '../../road/cautions.js';
import { simulatedNotes } from '../../road/simulated-notes.js';
import type { PermutationResult } from './permutation-result.js';
import type { PermutationRequest } from './permutation-settings.js';
import type { Source } from './resample-source.js';

/** The null hypothesis in words. */
export function nullWords({ statistic, claimed, figures }: PermutationRequest, { names, by, head }: Source): string {
  const [a, b] = names;
  if (statistic === 'mean' || statistic === 'median')
    return `the readings are symmetric about ${formatValue(claimed ?? 0)}${head.unit ? `\u00a0${head.unit}` : ''}`;
  if (statistic.endsWith('-of-differences')) return `the differences are symmetric about 0`;
  if (statistic === 'correlation' || statistic === 'slope') return `${a} and ${b} are independent`;
  if (figures) return 'both proportions are equal';
  if (by !== null) return `the distribution does not depend on ${by}`;
  return names.length > 2 ? 'the columns have the same distribution' : `${a} and ${b} have the same distribution`;
}

/** "109 of 10 000 permutations", "1 402 of all 12 870 permutations". */
function countedWords(result: PermutationResult): string {
  const { exact, drawn, alternative, below, above, atLeastAsFar } = result;
  const count = { less: below, greater: above, 'two-sided': atLeastAsFar }[alternative];
  if (exact) return `${groupThousands(count)} of all ${plural(exact.total, 'permutation')}`;
  return `${groupThousands(count)} of ${plural(drawn!.total, 'permutation')}`;
}

/** Where the tails begin: "61 at or below −0.084 mm, 48 at or above 0.084 mm". */
export function tailsWords(result: PermutationResult): string {
  const { exact, drawn, alternative, observed, centre, oneSided } = result;
  const counted = exact ?? drawn;
  if (!counted) return '';
  const told = (value: number) => formatStatistic(value, result);
  const upper = (count: number, from: number) => `${groupThousands(count)} at or above ${told(from)}`;
  const lower = (count: number, to: number) => `${groupThousands(count)} at or below ${told(to)}`;
  if (alternative === 'less') return lower(counted.below, observed);
  if (alternative === 'greater' || oneSided) return upper(counted.above, observed);
  const distance = Math.abs(observed - centre);
  return `${lower(counted.farBelow, centre - distance)}, ${upper(counted.farAbove, centre + distance)}`;
}

/** The answer, then the numbers. */
export function permutationFinding(result: PermutationResult): Piece[] {
  const { what, observed, pValue, alpha, pMethod, replicates, null: claim } = result;
  const lead = `${sentenceCase(what)}: `;
  const figure: Piece = { text: formatStatistic(observed, result), strong: true, code: 'figure' };
  if (pValue === null) {
    const so = replicates > 0 ? `; ${countedWords(result)} so far are at least as extreme` : '';
    return [{ text: lead }, figure, { text: `${so}.` }];
  }
  const numbers = `; ${countedWords(result)} are at least as extreme (${pMethod === 'exact' ? 'exact ' : ''}${equalsP(pValue, alpha)}${levelWords(alpha)}).`;
  const answer: Piece =
    pValue < alpha
      ? { text: 'Evidence', strong: true, code: 'evidence' }
      : { text: 'No evidence', strong: true, code: 'no-evidence' };
  return [answer, { text: ` against the hypothesis that ${claim}. ${lead}` }, figure, { text: numbers }];
}

/** How p was counted, and its values by other conventions. */
export function conventionWords(result: PermutationResult): string | null {
  const { p, pMethod, pSimulated, alpha, oneSided, alternative } = result;
  if (!p) return null;
  const told = (value: number) => formatP(value, alpha);
  const parts = [`${tailsWords(result)}, ties included`];
  if (pMethod === 'simulated')
    parts.push(
      'the observed arrangement counts as one permutation: p = (b + 1)/(B + 1)',
      pSimulated!.pInterval[0] < 0.0001
        ? `p is at most ${formatP(pSimulated!.pInterval[1])} with 95 % confidence`
        : `the 95 % confidence interval of p is ${formatP(pSimulated!.pInterval[0])} to ${formatP(pSimulated!.pInterval[1])}`,
    );
  if (!oneSided) {
    parts.push(`one-sided p: ${told(p.less)} (lower tail), ${told(p.greater)} (upper tail)`);
    if (alternative === 'two-sided' && told(p.doubled) !== told(p.twoSided))
      parts.push(`twice the smaller tail: ${told(p.doubled)}`);
  }
  return parts.map((part) => `${part[0]!.toUpperCase()}${part.slice(1)}.`).join(' ');
}

/** A word where the formula comes to another answer. */
function formulaNote({ formula, pValue, alpha }: PermutationResult): Note[] {
  if (!formula || pValue === null || formula.pValue < alpha === pValue < alpha) return [];
  const text = `The formula disagrees: ${formula.name} gives ${equalsP(formula.pValue, alpha)}. It assumes a distribution that these readings may not have; the permutation test does not.`;
  return [{ code: 'formula-disagrees', text }];
}

/** With few arrangements no p can be small. */
function smallestNote({
  arrangements,
  alpha,
  alternative,
  design,
  groups,
  oneSided,
  pValue,
}: PermutationResult): Note[] {
  if (arrangements === null) return [];
  const symmetric = alternative === 'two-sided' && !oneSided && (design !== 'labels' || groups[0]!.n === groups[1]?.n);
  // Where the distribution is symmetric two arrangements are as extreme as the most extreme one; of a skewed statistic, or a p found otherwise, nothing of the kind is known.
  const smallest = Math.min(1, (symmetric ? 2 : 1) / arrangements);
  if (smallest < alpha || (pValue !== null && pValue < smallest)) return [];
  const text = `No difference can be significant at level ${alpha}: with only ${plural(arrangements, 'permutation')}, p is at least ${formatP(smallest)}.`;
  return [{ code: 'few-arrangements', text }];
}

export function permutationNotes(result: PermutationResult, settings: PermutationRequest): Note[] {
  const { drawn, exact, alpha, groups, pSimulated, alternative, observed, centre } = result;
  const notes: Note[] = [...levelNote(alpha), ...smallestNote(result), ...formulaNote(result)];
  if (!exact) notes.push(...simulatedNotes(pSimulated, alpha));
  if (exact && drawn) {
    const many = groupThousands(exact.total);
    notes.push({
      code: 'counted-besides',
      text: `The picture shows ${plural(drawn.total, 'random permutation')}; p uses all ${many}.`,
      quiet: true,
    });
  }
  const single = groups.filter(({ n }) => n === 1);
  if (result.design === 'labels' && single.length > 0)
    notes.push({
      code: 'one-reading',
      text: `${single.map(({ name }) => name).join(' and ')} ${single.length === 1 ? 'has' : 'have'} a single reading, so the test only asks whether it is extreme among all readings.`,
    });
  if (
    alternative !== 'two-sided' &&
    !result.oneSided &&
    observed !== centre &&
    observed > centre !== (alternative === 'greater')
  )
    notes.push({
      code: 'other-way',
      text: `The difference is opposite to the alternative: the estimate lies ${observed > centre ? 'above' : 'below'}. Check the direction.`,
    });
  if (settings.statistic === 'difference-of-means' || settings.statistic === 'difference-of-medians')
    notes.push(...spreadsNote(result));
  return notes;
}

/** What a permutation of labels assumes. */
function spreadsNote({ groups }: PermutationResult): Note[] {
  const [a, b] = groups;
  const ratio = Math.max(a!.n, b!.n) / Math.min(a!.n, b!.n);
  if (ratio < 1.5) return [];
  return [
    {
      code: 'alike-but-for-place',
      text: `False alarms are possible if only the spreads differ, because the groups have different sizes (${a!.n} and ${b!.n}) and the test compares whole distributions.`,
      quiet: true,
    },
  ];
}
