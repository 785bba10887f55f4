import { toldStatistic } from '../../road/told.js';
import { equalsP, formatP, formatValue, groupThousands } from '../../numeric/format.js';
import type { Note, Piece } from '../../road/analysis.js';
import { levelNote } from '../../road/cautions.js';
import { simulatedNotes } from '../../road/simulated-notes.js';
import type { PermutationResult } from './permutation-result.js';
import type { PermutationRequest } from './permutation-settings.js';
import type { Source } from './resample-source.js';

/** What would be so if chance alone were at work. */
export function nullWords({ statistic, claimed, figures }: PermutationRequest, { names, by, head }: Source): string {
  const [a, b] = names;
  if (statistic === 'mean' || statistic === 'median')
    return `the readings lie alike on either side of ${formatValue(claimed ?? 0)}${head.unit ? `\u00a0${head.unit}` : ''}`;
  if (statistic.endsWith('-of-differences')) return `the differences lie alike on either side of 0`;
  if (statistic === 'correlation' || statistic === 'slope') return `${a} and ${b} have nothing to do with each other`;
  if (figures) return 'both counts are of one share';
  if (by !== null) return `${by} makes no difference`;
  return names.length > 2 ? 'the columns are alike' : `${a} and ${b} are alike`;
}

const SHUFFLES = { labels: 'ways to deal the readings', signs: 'ways to give the signs', pairs: 'ways to pair them' };

/** "109 of 10 000 shuffles", "1 402 of all 12 870 ways to deal the readings". */
function countedWords(result: PermutationResult): string {
  const { exact, drawn, design, alternative, below, above, atLeastAsFar } = result;
  const count = { less: below, greater: above, 'two-sided': atLeastAsFar }[alternative];
  if (exact) return `${groupThousands(count)} of all ${groupThousands(exact.total)} ${SHUFFLES[design]}`;
  return `${groupThousands(count)} of ${groupThousands(drawn!.total)} ${drawn!.total === 1 ? 'shuffle' : 'shuffles'}`;
}

/** Where the tails begin: "61 at or below −0.084 mm, 48 at or above 0.084 mm". */
export function tailsWords(result: PermutationResult): string {
  const { exact, drawn, alternative, observed, centre, oneSided } = result;
  const counted = exact ?? drawn;
  if (!counted) return '';
  const told = (value: number) => toldStatistic(value, result);
  const upper = (count: number, from: number) => `${groupThousands(count)} at or above ${told(from)}`;
  const lower = (count: number, to: number) => `${groupThousands(count)} at or below ${told(to)}`;
  if (alternative === 'less') return lower(counted.below, observed);
  if (alternative === 'greater' || oneSided) return upper(counted.above, observed);
  const distance = Math.abs(observed - centre);
  return `${lower(counted.farBelow, centre - distance)}, ${upper(counted.farAbove, centre + distance)}`;
}

/** Could chance alone do it. */
export function permutationFinding(result: PermutationResult): Piece[] {
  const { what, observed, pValue, alpha, pMethod, replicates, null: claim } = result;
  const lead = `${what[0]!.toUpperCase()}${what.slice(1)} is `;
  const figure: Piece = { text: toldStatistic(observed, result), strong: true, code: 'figure' };
  if (pValue === null) {
    const so = replicates > 0 ? `; ${countedWords(result)} so far are at least as extreme` : '';
    return [{ text: lead }, figure, { text: `${so}.` }];
  }
  const counted = `; ${countedWords(result)} are at least as extreme: `;
  const p = `${equalsP(pValue, alpha)}${pMethod === 'exact' ? ', exactly' : ''}, level ${alpha}. `;
  const verdict: Piece[] =
    pValue < alpha
      ? [
          { text: 'Chance alone hardly does that', strong: true, code: 'evidence' },
          { text: `: there is evidence against the claim that ${claim}.` },
        ]
      : [
          { text: 'Chance alone could do that', strong: true, code: 'no-evidence' },
          { text: `: no evidence against the claim that ${claim}.` },
        ];
  return [{ text: lead }, figure, { text: counted + p }, ...verdict];
}

/** By which convention p was counted, and what it is otherwise. */
export function conventionWords(result: PermutationResult): string | null {
  const { p, pMethod, pSimulated, alpha, oneSided, alternative } = result;
  if (!p) return null;
  const told = (value: number) => formatP(value, alpha);
  const parts = [`${tailsWords(result)}, those that tie counted in`];
  if (pMethod === 'simulated')
    parts.push(
      'the readings as they are count as one shuffle, p = (b + 1)/(B + 1)',
      pSimulated!.pInterval[0] < 0.0001
        ? `with 95 % confidence p is at most ${formatP(pSimulated!.pInterval[1])}`
        : `with 95 % confidence p lies between ${formatP(pSimulated!.pInterval[0])} and ${formatP(pSimulated!.pInterval[1])}`,
    );
  if (!oneSided) {
    parts.push(`one-sided p ${told(p.less)} for as low, ${told(p.greater)} for as high`);
    if (alternative === 'two-sided' && told(p.doubled) !== told(p.twoSided))
      parts.push(`twice the smaller tail would be ${told(p.doubled)}`);
  }
  return parts.map((part) => `${part[0]!.toUpperCase()}${part.slice(1)}.`).join(' ');
}

/** A word where the formula comes to another answer. */
function formulaNote({ formula, pValue, alpha }: PermutationResult): Note[] {
  if (!formula || pValue === null || formula.pValue < alpha === pValue < alpha) return [];
  const text = `By formula (${formula.name}) ${equalsP(formula.pValue, alpha)}, on the other side of the level: it rests on a law that these readings may not have, the shuffles only on chance having dealt them.`;
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
  const text = `There are only ${groupThousands(arrangements)} arrangements: p cannot be below ${formatP(smallest)}, so no difference can be significant at level ${alpha}.`;
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
      text: `The picture shows the ${groupThousands(drawn.total)} shuffles drawn; p goes by all ${many} arrangements.`,
      quiet: true,
    });
  }
  const single = groups.filter(({ n }) => n === 1);
  if (result.design === 'labels' && single.length > 0)
    notes.push({
      code: 'one-reading',
      text: `${single.map(({ name }) => name).join(' and ')} ${single.length === 1 ? 'has' : 'have'} a single reading: the test asks no more than how far out it lies among all.`,
    });
  if (
    alternative !== 'two-sided' &&
    !result.oneSided &&
    observed !== centre &&
    observed > centre !== (alternative === 'greater')
  )
    notes.push({
      code: 'other-way',
      text: `The sample points the other way: it lies ${observed > centre ? 'above' : 'below'}. Was the direction meant so?`,
    });
  if (settings.statistic === 'difference-of-means' || settings.statistic === 'difference-of-medians')
    notes.push(...spreadsNote(result, settings));
  return notes;
}

/** What the shuffling of labels takes for granted. */
function spreadsNote({ groups }: PermutationResult, { split }: PermutationRequest): Note[] {
  const [a, b] = groups;
  const ratio = Math.max(a!.n, b!.n) / Math.min(a!.n, b!.n);
  if (ratio < 1.5) return [];
  return [
    {
      code: 'alike-but-for-place',
      text: `The groups are of different size (${a!.n} and ${b!.n}): shuffling asks whether ${split ?? 'they'} ${split ? 'makes' : 'make'} no difference at all, in spread neither. Where only the spreads differ it may cry wolf.`,
      quiet: true,
    },
  ];
}
