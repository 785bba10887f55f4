import { decisionWords, QUESTION_WORDS, type Study, type StudySummary } from '@verdict/contract';
import { ANALYSES } from '@verdict/core/analyses';
import { FAMILIES } from '@verdict/core/distributions';
import type { RouteLocationRaw } from 'vue-router';
import { METHODS } from '../help/made-methods.js';
import { TERMS } from '../help/terms.js';
import { STAGES } from '../stages/stages.js';
import { TOPICS } from './topics.js';

/** Somewhere to go: what it is called, what it is, and where. */
export interface Place {
  group:
    'Here' | 'Stages' | 'Topics' | 'Studies' | 'Columns' | 'Distributions' | 'Analyses and methods' | 'Terms' | 'Pages';
  title: string;
  /** Said beside it, and searched too. */
  about: string;
  to: RouteLocationRaw;
}

const PAGES: readonly Place[] = [
  { group: 'Pages', title: 'Studies', about: 'all studies', to: { name: 'studies' } },
  {
    group: 'Pages',
    title: 'Distributions',
    about: 'probabilities and quantiles of any distribution',
    to: '/distributions',
  },
  { group: 'Pages', title: 'Jobs', about: 'long calculations on the server', to: { name: 'jobs' } },
  {
    group: 'Pages',
    title: 'Methods and terms',
    about: 'help: terms, methods, formulas, sources',
    to: { name: 'help' },
  },
];

const FAMILY_PLACES: readonly Place[] = FAMILIES.map(({ family, title, about }) => ({
  ...{ group: 'Distributions', title, about },
  to: { path: '/distributions', query: { family } },
}));

const METHOD_PLACES: readonly Place[] = [
  ...ANALYSES.map(({ id, name, title }) => ({ title: name, about: title, hash: `#${id}` })),
  ...METHODS.chapters.flatMap(({ title: chapter, entries }) =>
    entries.map(({ id, title }) => ({ title, about: chapter, hash: `#${id}` })),
  ),
].map(({ hash, ...place }) => ({ group: 'Analyses and methods', ...place, to: { name: 'help', hash } }));

const WORD_PLACES: readonly Place[] = TERMS.map(({ term, meaning }) => ({
  ...{ group: 'Terms', title: term, about: meaning },
  to: { name: 'help', hash: `#term-${term.replace(/\W+/g, '-')}` },
}));

/** The stages of the open study, the questions that they answer, and its columns. */
function placesIn({ id, columns }: Study): Place[] {
  const params = { id };
  const stages = STAGES.flatMap(({ name, title, asks = [] }): Place[] => [
    { group: 'Stages', title, about: 'in this study', to: { name, params } },
    ...asks.map((ask): Place => ({
      ...{ group: 'Stages', title: ask.word, about: `${title}: ${ask.title}` },
      to: { name, params, query: ask.id === asks[0]!.id ? {} : { ask: ask.id } },
    })),
  ]);
  const own = columns.map((column): Place => ({
    ...{ group: 'Here', title: column.name, about: `a column of this study${column.unit ? `, ${column.unit}` : ''}` },
    to: { name: 'readings', params, query: { row: '1', column: column.id, at: column.id } },
  }));
  const sheet: Place = { group: 'Stages', title: 'Report', about: 'print, save', to: { name: 'sheet', params } };
  return [...own, ...stages, sheet];
}

const stateOf = ({ state, decision, family }: StudySummary) => (decision ? decisionWords(decision, family) : state);

function placesOf(study: StudySummary): Place[] {
  const { id, name, question, asks, subject, columns, tags } = study;
  const title = name || 'untitled study';
  const to = { name: 'readings', params: { id } };
  const about = [stateOf(study), question || (asks ? QUESTION_WORDS[asks] : ''), ...tags].filter(Boolean).join(' · ');
  return [
    { group: 'Studies', title, about, to },
    ...columns.map((column): Place => ({
      ...{ group: 'Columns', title: column, about: `in ${title}` },
      to: column === subject ? to : { ...to, query: { named: column } },
    })),
  ];
}

/** Topics by the words that people bring: in the open study where there is one, else the help. */
export const topicPlaces = (open: Study | null): Place[] =>
  TOPICS.flatMap(({ words, where, stage, query, analysis, path }) => {
    const here = open && stage ? { name: stage, params: { id: open.id }, query: { ...query } } : null;
    const to = here ?? path ?? { name: 'help', hash: `#${analysis}` };
    return words.map((title): Place => ({ group: 'Topics', title, about: where, to }));
  });

/** Everywhere that can be gone to from here. */
export const placesFrom = (studies: readonly StudySummary[], open: Study | null): Place[] => [
  ...(open ? placesIn(open) : []),
  ...topicPlaces(open),
  ...studies.filter(({ id }) => id !== open?.id).flatMap(placesOf),
  ...FAMILY_PLACES,
  ...METHOD_PLACES,
  ...WORD_PLACES,
  ...PAGES,
];
