import { ANALYSES } from '@verdict/core/analyses';
import { describe, expect, it } from 'vitest';
import { methodsOf } from '../plugins/methods.js';
import { termSegments } from '../src/help/term-segments.js';
import { TERMS, termsIn } from '../src/help/terms.js';
import { foundPlaces, searched } from '../src/search/found-places.js';
import type { Place } from '../src/search/places.js';
import { TOPICS } from '../src/search/topics.js';
import { STAGES } from '../src/stages/stages.js';

describe('how Verdict works it out', () => {
  const { chapters, analyses } = methodsOf();
  const entries = chapters.flatMap((chapter) => chapter.entries);

  it('has an entry for every analysis, which says what it does and by which methods', () => {
    const made = new Map(analyses.map((entry) => [entry.id, entry]));
    for (const { id } of ANALYSES) {
      expect(made.get(id)?.text.length, id).toBeGreaterThan(0);
      expect(made.get(id)?.with.length, id).toBeGreaterThan(0);
    }
    const known = new Set(entries.map(({ id }) => id));
    for (const { with: methods } of analyses) expect(methods.filter((id) => !known.has(id))).toEqual([]);
  });

  it('says what stands beside the code, as it is read: no stars, no tags', () => {
    const texts = entries.flatMap(({ items }) => items.flatMap(({ text }) => text));
    expect(texts.length).toBeGreaterThan(300);
    expect(texts.filter((text) => /^\s*\*|^@|\*\/$/.test(text))).toEqual([]);
    const grubbs = entries.find(({ id }) => id === 'outliers/grubbs')!;
    expect(grubbs.items.find(({ name }) => name === 'grubbs')).toMatchObject({ parameters: '(sorted, side)' });
    expect(grubbs.items.flatMap(({ text }) => text).join(' ')).toContain('(1950)');
  });

  it('tells apart what a function returns and throws', () => {
    const texts = entries.flatMap(({ items }) => items.flatMap(({ text }) => text));
    expect(texts.some((text) => /^Returns \w/.test(text))).toBe(true);
  });
});

describe('the words of a page', () => {
  it('are found where they stand by themselves, in any of their forms', () => {
    const found = (text: string) => termsIn(text).map(({ term }) => term);
    expect(found('A² = 0.30, p = 0.59, level 0.05')).toEqual(['level', 'p-value', 'Anderson–Darling']);
    expect(found('the generalised ESD of up to 4')).toContain('ESD');
    expect(found('desde studio')).toEqual([]);
  });

  it('are explained once each, those of the trade mostly with their source', () => {
    expect(new Set(TERMS.map(({ term }) => term)).size).toBe(TERMS.length);
    for (const { term, meaning } of TERMS) expect(meaning, term).toMatch(/\.$/);
    expect(TERMS.filter(({ source }) => source).length).toBeGreaterThan(TERMS.length / 2);
  });
});

describe('terms in a text', () => {
  it('are cut out at their first place, the longer before the shorter, and nothing is lost', () => {
    const text = 'No evidence of skewness (skewness 0.1, p = 0.42). The confidence interval is wide; skewed or not.';
    const segments = termSegments(text);
    expect(segments.map((segment) => segment.text).join('')).toBe(text);
    expect(segments.flatMap(({ text: words, term }) => (term ? [words] : []))).toEqual([
      ...['skewness', 'p', 'confidence interval'],
    ]);
    expect(termSegments('')).toEqual([{ text: '' }]);
  });

  it('have the meaning of their place, or none', () => {
    const meant = (text: string) => termSegments(text).flatMap(({ term }) => (term ? [term.term] : []));
    expect(meant('a binomial distribution with 40 trials')).toEqual([]);
    expect(meant('95 % coverage interval −1.6 to 2.5 (2 000 trials)')).toEqual(['coverage interval']);
    expect(meant('a power transformation changes the shape very little')).toEqual(['Box–Cox']);
    expect(meant('Cauchy and Student t are plausible')).toEqual([]);
    expect(meant('χ²(47) = 5.85')).toEqual(['chi-square']);
  });
});

describe('topics', () => {
  const words = TOPICS.flatMap((topic) => topic.words);

  it('are more than 80 words, each once, and each leads to a page and an analysis that exist', () => {
    expect(words.length).toBeGreaterThan(80);
    expect(new Set(words.map((word) => word.toLowerCase())).size).toBe(words.length);
    const ids = ANALYSES.map(({ id }) => id);
    const stages = [...STAGES.map(({ name }) => name), 'sheet'];
    for (const { words: own, stage, query, analysis, path } of TOPICS) {
      if (analysis !== undefined) expect(ids, own[0]).toContain(analysis);
      if (stage !== undefined) expect(stages, own[0]).toContain(stage);
      const asks = STAGES.find(({ name }) => name === stage)?.asks ?? [];
      if (query?.ask) expect(asks.map(({ id }) => id)).toContain(query.ask);
      if (query?.claim) expect(ids).toContain(query.claim);
      if (query?.picture) expect(ids).toContain(query.picture);
      expect(analysis ?? path).toBeDefined();
    }
  });

  it('are found by their word, also with other hyphens', () => {
    const all = searched(words.map((title): Place => ({ group: 'Topics', title, about: '', to: '/' })));
    for (const word of words) expect(foundPlaces(all, word)[0]!.places[0]!.title).toBe(word);
    for (const [typed, title] of [
      ...[
        ['t-test', 't test'],
        ['q-q plot', 'Q–Q plot'],
        ['iqr', 'IQR'],
        ["student's t", 'Student’s t test'],
      ],
      ...[
        ['chi square test', 'chi-square test'],
        ['uncert', 'uncertainty'],
      ],
    ] as const)
      expect(foundPlaces(all, typed)[0]!.places[0]!.title).toBe(title);
  });
});

describe('a search everywhere', () => {
  const place = (group: Place['group'], title: string, about = ''): Place => ({ group, title, about, to: '/' });
  const all = searched([
    place('Studies', 'Glaze batches', 'open · Is the viscosity the same?'),
    place('Columns', 'viscosity', 'in Glaze batches'),
    place('Terms', 'kurtosis', 'tails'),
    ...Array.from({ length: 9 }, (_, i) => place('Studies', `Release ${i}`, 'viscosity')),
  ]);
  const found = (text: string) =>
    foundPlaces(all, text).map(({ group, places }) => [group, ...places.map(({ title }) => title)]);

  it('puts what is called so before what only speaks of it, and no group is longer than five', () => {
    const [first, second] = found('visc');
    expect(first).toEqual(['Columns', 'viscosity']);
    expect(second![0]).toBe('Studies');
    expect(second).toHaveLength(6);
  });

  it('wants every word, in any order, and nothing is found of nothing', () => {
    expect(found('batches glaze')).toEqual([
      ['Studies', 'Glaze batches'],
      ['Columns', 'viscosity'],
    ]);
    expect(found('glaze kurtosis')).toEqual([]);
    expect(found('  ')).toEqual([]);
  });
});
