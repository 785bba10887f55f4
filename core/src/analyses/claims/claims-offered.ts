import type { ColumnKind } from '../../readings/kind.js';

/** What a claim can be about. */
export interface ClaimOffer {
  id: string;
  /** What it is about: "mean". */
  word: string;
  group: 'one column' | 'two groups' | 'several groups' | 'labels and counts';
  /** Why it does not suit what is looked at; null where it does. */
  whyNot: string | null;
}

/** What is looked at. */
export interface Looked {
  /** Null where figures are typed. */
  kind: ColumnKind | null;
  name: string;
  /** How many groups it is split into, or columns stand side by side; 1 for one column as a whole. */
  groups: number;
  /** True where the groups are those of a label column. */
  split: boolean;
}

type Why = (looked: Looked) => string | null;

const numbers: Why = ({ kind, name }) => (kind === 'label' ? `${name} holds labels, not numbers` : null);
const counts: Why = ({ kind, name }) => (kind === 'count' || kind === null ? null : `needs counts; ${name} holds none`);
const readings: Why = ({ kind }) => (kind === null ? 'needs readings, not typed figures' : null);
const two: Why = ({ groups }) =>
  groups >= 2 ? null : 'needs two groups: split by a label column, or add a second column';
const places: Why = ({ kind, name, split }) =>
  kind === 'label' || kind === null || (kind === 'count' && split)
    ? null
    : kind === 'count'
      ? `needs categories: split ${name} by a label column`
      : `needs labels or counts; ${name} holds measurements`;
const labelled: Why = ({ kind, name, split }) =>
  kind === null
    ? null
    : kind !== 'label'
      ? `needs labels in both columns; ${name} holds numbers`
      : split
        ? null
        : `needs groups: split ${name} by another label column`;
const all =
  (...whys: readonly Why[]): Why =>
  (looked) =>
    whys.reduce<string | null>((found, why) => found ?? why(looked), null);
const twoOrTyped: Why = (looked) => (looked.kind === null ? null : two(looked));

const CLAIMS: readonly { id: string; word: string; group: ClaimOffer['group']; why: Why }[] = [
  { id: 'mean-claim', word: 'mean', group: 'one column', why: numbers },
  { id: 'spread-claim', word: 'standard deviation', group: 'one column', why: numbers },
  { id: 'mean-and-sd-claim', word: 'mean and standard deviation (certificate)', group: 'one column', why: numbers },
  { id: 'median-claim', word: 'median', group: 'one column', why: all(readings, numbers) },
  { id: 'share-claim', word: 'proportion', group: 'one column', why: () => null },
  { id: 'rate-claim', word: 'rate of events', group: 'one column', why: counts },
  { id: 'tolerance', word: 'tolerance interval', group: 'one column', why: numbers },
  { id: 'two-means', word: 'two means', group: 'two groups', why: all(numbers, twoOrTyped) },
  { id: 'two-medians', word: 'two medians', group: 'two groups', why: all(readings, numbers, two) },
  { id: 'two-spreads', word: 'two standard deviations', group: 'two groups', why: all(numbers, twoOrTyped) },
  { id: 'two-shares', word: 'two proportions', group: 'two groups', why: twoOrTyped },
  { id: 'several-means', word: 'several means', group: 'several groups', why: all(readings, numbers, two) },
  { id: 'several-medians', word: 'several medians', group: 'several groups', why: all(readings, numbers, two) },
  {
    id: 'several-spreads',
    word: 'several standard deviations',
    group: 'several groups',
    why: all(readings, numbers, two),
  },
  { id: 'counts-claim', word: 'counts in categories', group: 'labels and counts', why: places },
  { id: 'table-claim', word: 'two-way table (independence)', group: 'labels and counts', why: labelled },
];

/** All claims, each with the reason why it does not suit the selection, if there is one. */
export const claimOffers = (looked: Looked): ClaimOffer[] =>
  CLAIMS.map(({ why, ...claim }) => ({ ...claim, whyNot: why(looked) }));

/** The claim that is most likely meant. */
export function usualClaim({ kind, groups, split }: Looked): string {
  if (kind === 'label') return split ? 'table-claim' : 'counts-claim';
  if (groups > 2) return 'several-means';
  if (groups === 2) return 'two-means';
  return kind === 'count' ? 'rate-claim' : 'mean-claim';
}
