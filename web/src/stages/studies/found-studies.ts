import { decisionWords, QUESTION_WORDS, type StudySummary } from '@verdict/contract';

export const SORTS = ['changed', 'name', 'state', 'readings'] as const;
export type SortBy = (typeof SORTS)[number];

/** How the list is narrowed and sorted: it stands in the address. */
export interface Wanted {
  text: string;
  tag: string | null;
  by: SortBy;
  /** The other way round. */
  turned: boolean;
}

const stateWords = ({ state, decision, family }: StudySummary) =>
  decision ? `${state}: ${decisionWords(decision, family)}` : state;

/** All that a study is found by, in small letters. */
function haystackOf(study: StudySummary): string {
  const { name, question, asks, columns, tags, changedBy } = study;
  const words = [
    name,
    question,
    asks ? QUESTION_WORDS[asks] : '',
    stateWords(study),
    ...columns,
    ...tags,
    changedBy ?? '',
  ];
  return words.join('\n').toLowerCase();
}

/** Made once for a list: what is typed is looked for in all of them at every letter. */
export const haystacksOf = (studies: readonly StudySummary[]): ReadonlyMap<string, string> =>
  new Map(studies.map((study) => [study.id, haystackOf(study)]));

const inOrder = new Intl.Collator('en', { numeric: true });
/** The first order of each column: latest change, first name, decided, largest. */
const COMPARED: Record<SortBy, (a: StudySummary, b: StudySummary) => number> = {
  changed: (a, b) => (a.changedAt < b.changedAt ? 1 : a.changedAt > b.changedAt ? -1 : 0),
  name: (a, b) => inOrder.compare(a.name, b.name),
  state: (a, b) => inOrder.compare(stateWords(a), stateWords(b)),
  readings: (a, b) => (b.n ?? -1) - (a.n ?? -1),
};

/** The studies in which every word that was typed is found, sorted as wanted; equals stay in the order of the list. `haystacks` is asked for once words are typed. */
export function foundStudies(
  studies: readonly StudySummary[],
  haystacks: () => ReadonlyMap<string, string>,
  { text, tag, by, turned }: Wanted,
): StudySummary[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const tagged = tag === null ? [...studies] : studies.filter(({ tags }) => tags.includes(tag));
  const found = words.length
    ? tagged.filter(({ id }) => words.every((word) => haystacks().get(id)?.includes(word)))
    : tagged;
  const compared = COMPARED[by];
  return found.sort(turned ? (a, b) => compared(b, a) : compared);
}

/** Every tag that some study has, the most used first. */
export function tagsOf(studies: readonly StudySummary[]): { tag: string; count: number }[] {
  const counts = new Map<string, number>();
  for (const { tags } of studies) for (const tag of tags) counts.set(tag, (counts.get(tag) ?? 0) + 1);
  return [...counts]
    .map(([tag, count]) => ({ tag, count }))
    .sort((a, b) => b.count - a.count || inOrder.compare(a.tag, b.tag));
}
