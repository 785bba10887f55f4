import type { Change, Study } from '@verdict/contract';
import { parseBlock, recogniseLayout } from '@verdict/core';
import { describe, expect, it } from 'vitest';
import { defused, toDelimited } from '../src/components/export-table.js';
import { recomputedWords } from '../src/components/recomputed-words.js';
import { readTextFile } from '../src/stages/readings/open-file.js';
import { additionOf, emptyColumn, moved, singleCell } from '../src/stages/readings/table-model.js';
import { applyLocally, type Local } from '../src/stores/apply-locally.js';

describe('the cursor of the table', () => {
  const size = { rows: 48, columns: 3, page: 20 };
  it.each([
    ['ArrowDown', { row: 5, column: 1 }, { row: 6, column: 1 }],
    ['Enter', { row: 48, column: 1 }, { row: 49, column: 1 }],
    ['ArrowDown', { row: 49, column: 1 }, { row: 49, column: 1 }],
    ['ArrowUp', { row: 1, column: 1 }, { row: 1, column: 1 }],
    ['PageDown', { row: 40, column: 0 }, { row: 49, column: 0 }],
    ['Tab', { row: 2, column: 2 }, { row: 2, column: 2 }],
    ['Home', { row: 2, column: 2 }, { row: 2, column: 0 }],
    ['x', { row: 2, column: 2 }, { row: 2, column: 2 }],
  ])('%s moves from %o to %o', (key, from, to) => {
    expect(moved(from, key, size)).toEqual(to);
  });
});

describe('what comes in', () => {
  it('belongs into a cell when it has no break but a trailing one', () => {
    expect(singleCell('8.01\r\n')).toBe('8.01');
    expect(singleCell('8.01\n8.02')).toBeNull();
    expect(singleCell('8.01\t8.02')).toBeNull();
  });

  it('becomes one change, cells as written, with an id for each column', () => {
    const text = 'a\tb\n12.30\tn\n12.35\ts';
    const change = additionOf(parseBlock(text, recogniseLayout(text)).columns);
    expect(change).toMatchObject({
      kind: 'add-columns',
      columns: [{ cells: ['12.30', '12.35'], resolution: null }, { name: 'b' }],
    });
    expect(emptyColumn(['readings'])).toMatchObject({ columns: [{ name: 'readings (2)', cells: [''] }] });
  });

  it('from a file is read as UTF-8 or the Western code page, and refused over the limit or when it is no text', async () => {
    const file = (bytes: number[]) => new File([new Uint8Array(bytes)], 'a.csv');
    expect(await readTextFile(file([0x35, 0xc2, 0xb5]), 100)).toEqual({ text: '5µ' });
    expect(await readTextFile(file([0x35, 0xb5]), 100)).toEqual({ text: '5µ' });
    expect(await readTextFile(file([0x35, 0]), 100)).toMatchObject({
      refusal: expect.stringContaining('not a text file'),
    });
    const large = { name: 'b.csv', size: 200 * 1024 * 1024, arrayBuffer: () => Promise.reject(new Error('touched')) };
    expect(await readTextFile(large as unknown as File, 20 * 1024 * 1024)).toMatchObject({
      refusal: 'b.csv has 200 MB; a file may have at most 20 MB. Nothing was read.',
    });
  });
});

describe('what goes out', () => {
  it('cannot be taken for a formula, while numbers stay numbers', () => {
    expect(['=1+1', '+cmd', '@x', '-x', '\t=2'].map(defused)).toEqual(["'=1+1", "'+cmd", "'@x", "'-x", "'\t=2"]);
    expect(['-1.5', '+2', '8.01', 'north'].map(defused)).toEqual(['-1.5', '+2', '8.01', 'north']);
  });

  it('is quoted where a cell holds the separator, a quote or a line break', () => {
    expect(toDelimited([['a,b', 'c"d', 'e\nf', '1']], ',')).toBe('"a,b","c""d","e\nf",1\r\n');
    expect(toDelimited([['a,b', '1']], '\t')).toBe('a,b\t1\r\n');
  });
});

describe('recomputing in words', () => {
  const found = {
    same: true,
    sameData: true,
    keptRevision: 2,
    nowRevision: 2,
    fingerprint: '',
    differences: [],
    milliseconds: 5,
  };
  it('says the same, what differs, and why', () => {
    expect(recomputedWords(found)).toBe('the same, bit for bit');
    const differs = { ...found, same: false, differences: [{ path: 'n', kept: 48, now: 47 }] };
    expect(recomputedWords({ ...differs, sameData: false, nowRevision: 5 })).toContain(
      'the data have changed since: change 2 → 5. For example n was 48, is 47',
    );
    expect(recomputedWords(differs)).toContain('although the data are the same');
    expect(recomputedWords(undefined)).toBe('');
  });
});

describe('a change on the page’s own copy', () => {
  const base = {
    unit: '',
    kind: 'measure',
    decimal: 'point',
    thousands: 'none',
    resolution: null,
    lowerLimit: null,
    upperLimit: null,
  } as const;
  const local = (): Local => ({
    study: {
      ...{ id: 's', name: '', question: '', state: 'open', alpha: 0.05, subject: 'a', revision: 1, rowCount: 2 },
      ...{
        columns: [
          { ...base, id: 'a', name: 'a' },
          { ...base, id: 'b', name: 'b' },
        ],
        setAside: [],
      },
      ...{ verdicts: [], canUndo: null, canRedo: null },
    } as Study,
    cells: { a: ['1', '2'], b: ['3', '4'] },
    removed: new Map(),
  });
  const after = (...changes: Change[]) => {
    const copy = local();
    for (const change of changes) applyLocally(copy, change, 'me', '2026-11-23T12:00:00Z');
    return copy;
  };

  it('grows every column when one is written below the end, and leaves untouched columns the same object otherwise', () => {
    const grown = after({ kind: 'edit-cells', cells: [{ column: 'a', row: 4, text: '9' }] });
    expect(grown.cells).toEqual({ a: ['1', '2', '', '9'], b: ['3', '4', '', ''] });
    expect(grown.study.rowCount).toBe(4);
    const copy = local();
    const untouched = copy.cells.b;
    applyLocally(copy, { kind: 'edit-cells', cells: [{ column: 'a', row: 1, text: '5' }] }, 'me', '');
    expect(copy.cells.b).toBe(untouched);
  });

  it('shortens again where the change says so', () => {
    expect(after({ kind: 'edit-cells', cells: [{ column: 'a', row: 2, text: '' }], rowCount: 1 }).cells).toEqual({
      a: ['1'],
      b: ['3'],
    });
  });

  it('sets aside with who and when, puts back, and passes the subject on when its column goes', () => {
    const aside = after({ kind: 'set-aside', readings: [{ column: 'a', row: 1, reason: 'r' }] }).study.setAside;
    expect(aside).toEqual([{ column: 'a', row: 1, reason: 'r', who: 'me', at: '2026-11-23T12:00:00Z' }]);
    const back = after(
      { kind: 'set-aside', readings: [{ column: 'a', row: 1, reason: 'r' }] },
      { kind: 'put-back', readings: [{ column: 'a', row: 1 }] },
    );
    expect(back.study.setAside).toEqual([]);
    expect(after({ kind: 'remove-columns', columns: ['a'] }).study).toMatchObject({
      subject: 'b',
      columns: [{ id: 'b' }],
    });
    expect(
      after({ kind: 'remove-columns', columns: ['a'] }, { kind: 'return-columns', columns: ['a'] }).study.columns,
    ).toHaveLength(2);
  });

  it('changes column and study', () => {
    const { study } = after(
      { kind: 'change-column', column: 'b', columnKind: 'count', unit: 'N' },
      { kind: 'change-study', alpha: 0.01, subject: 'b' },
    );
    expect(study.columns[1]).toMatchObject({ kind: 'count', unit: 'N', name: 'b' });
    expect(study).toMatchObject({ alpha: 0.01, subject: 'b' });
  });
});
