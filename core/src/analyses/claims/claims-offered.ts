import type { ColumnKind } from '../../readings/kind.js';

/** What a claim can be about. */
export interface ClaimOffer {
  id: string;
  /** After "It is claimed about": "the mean". */
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

const numbers: Why = ({ kind, name }) => (kind === 'label' ? `${name} holds labels: they are counted` : null);
const counts: Why = ({ kind, name }) =>
  kind === 'count' || kind === null ? null : `${name} holds no counts: a rate is of counts`;
const readings: Why = ({ kind }) => (kind === null ? 'needs the readings themselves' : null);
const two: Why = ({ groups }) => (groups >= 2 ? null : 'needs two groups: split by a label, or put a column beside');
const places: Why = ({ kind, name, split }) =>
  kind === 'label' || kind === null || (kind === 'count' && split)
    ? null
    : kind === 'count'
      ? `needs places: split ${name} by a label`
      : `${name} holds measures: labels and counts are spread over places`;
const labelled: Why = ({ kind, name, split }) =>
  kind === null
    ? null
    : kind !== 'label'
      ? `${name} holds numbers: both columns of a table hold labels`
      : split
        ? null
        : `needs groups: split ${name} by another label`;
const all =
  (...whys: readonly Why[]): Why =>
  (looked) =>
    whys.reduce<string | null>((found, why) => found ?? why(looked), null);
const twoOrTyped: Why = (looked) => (looked.kind === null ? null : two(looked));

const CLAIMS: readonly { id: string; word: string; group: ClaimOffer['group']; why: Why }[] = [
  { id: 'mean-claim', word: 'the mean', group: 'one column', why: numbers },
  { id: 'spread-claim', word: 'the spread', group: 'one column', why: numbers },
  { id: 'mean-and-sd-claim', word: 'mean and sd, as a certificate says', group: 'one column', why: numbers },
  { id: 'median-claim', word: 'the median', group: 'one column', why: all(readings, numbers) },
  { id: 'share-claim', word: 'the share', group: 'one column', why: () => null },
  { id: 'rate-claim', word: 'the rate', group: 'one column', why: counts },
  { id: 'tolerance', word: 'where nearly all of it lies', group: 'one column', why: numbers },
  { id: 'two-means', word: 'two means', group: 'two groups', why: all(numbers, twoOrTyped) },
  { id: 'two-medians', word: 'two medians', group: 'two groups', why: all(readings, numbers, two) },
  { id: 'two-spreads', word: 'two spreads', group: 'two groups', why: all(numbers, twoOrTyped) },
  { id: 'two-shares', word: 'two shares', group: 'two groups', why: twoOrTyped },
  { id: 'several-means', word: 'several means', group: 'several groups', why: all(readings, numbers, two) },
  { id: 'several-medians', word: 'several medians', group: 'several groups', why: all(readings, numbers, two) },
  { id: 'several-spreads', word: 'several spreads', group: 'several groups', why: all(readings, numbers, two) },
  { id: 'counts-claim', word: 'how counts are spread', group: 'labels and counts', why: places },
  { id: 'table-claim', word: 'how labels are spread in groups', group: 'labels and counts', why: labelled },
];

/** Every claim there is, with why those that do not suit do not. */
export const claimOffers = (looked: Looked): ClaimOffer[] =>
  CLAIMS.map(({ why, ...claim }) => ({ ...claim, whyNot: why(looked) }));

/** The claim that is most likely meant. */
export function usualClaim({ kind, groups, split }: Looked): string {
  if (kind === 'label') return split ? 'table-claim' : 'counts-claim';
  if (groups > 2) return 'several-means';
  if (groups === 2) return 'two-means';
  return kind === 'count' ? 'rate-claim' : 'mean-claim';
}
