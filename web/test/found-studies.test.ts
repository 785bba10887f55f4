import type { StudySummary } from '@verdict/contract';
import { describe, expect, it } from 'vitest';
import { foundStudies, haystacksOf, tagsOf, type Wanted } from '../src/stages/studies/found-studies.js';

const study = (id: string, more: Partial<StudySummary>): StudySummary => ({
  ...{ id, name: id, question: '', state: 'open', decision: null, family: null, asks: null, tags: [], columns: [] },
  ...{ subject: null, n: null, counting: false, bins: null, fault: null, rowCount: 0, revision: 1, changedBy: null },
  ...{ changedAt: '2026-11-20T10:00:00Z', deletedAt: null, openedAt: null, example: false, ...more },
});
const STUDIES = [
  study('Tile 10', { columns: ['thickness', 'kiln'], n: 48, changedAt: '2026-11-22T10:00:00Z', tags: ['tiles'] }),
  study('Tile 9', { state: 'ruled', decision: 'treat-as-family', family: 'Weibull', tags: ['tiles', 'week 46'] }),
  study('glaze', { question: 'Is the viscosity the same?', asks: 'outlier', n: 5_000, changedBy: 'Bench 2' }),
];
const found = (more: Partial<Wanted>) =>
  foundStudies(STUDIES, () => haystacksOf(STUDIES), { text: '', tag: null, by: 'changed', turned: false, ...more }).map(
    ({ id }) => id,
  );

describe('studies are found', () => {
  it.each([
    ['thick', ['Tile 10'], 'by a column'],
    ['VISCOSITY same', ['glaze'], 'by words of the question, in any order and case'],
    ['outlier', ['glaze'], 'by what they ask'],
    ['weibull', ['Tile 9'], 'by the decision'],
    ['bench', ['glaze'], 'by who changed them'],
    ['week 46', ['Tile 9'], 'by a tag'],
    ['tile nothing', [], 'only where every word is found'],
  ])('“%s”: %j, %s', (text, ids) => expect(found({ text })).toEqual(ids));

  it('narrowed to a tag, and sorted either way', () => {
    expect(found({ tag: 'tiles' })).toEqual(['Tile 10', 'Tile 9']);
    expect(found({ by: 'name' })).toEqual(['glaze', 'Tile 9', 'Tile 10']);
    expect(found({ by: 'name', turned: true })).toEqual(['Tile 10', 'Tile 9', 'glaze']);
    expect(found({ by: 'readings' })).toEqual(['glaze', 'Tile 10', 'Tile 9']);
    expect(found({})[0]).toBe('Tile 10');
  });

  it('with their tags, the most used first', () => {
    expect(tagsOf(STUDIES)).toEqual([
      { tag: 'tiles', count: 2 },
      { tag: 'week 46', count: 1 },
    ]);
  });
});
