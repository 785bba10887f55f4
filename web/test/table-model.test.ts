import { changeSchema, NOTHING_SAID, type ChangeInput, type Study } from '@verdict/contract';
import { parseBlock, recogniseLayout } from '@verdict/core/readings';
import { describe, expect, it } from 'vitest';
import { recomputedWords } from '../src/components/recomputed-words.js';
import {
  additionOf,
  emptyColumn,
  isIn,
  moved,
  rangeOf,
  runsOf,
  shownDerived,
  singleCell,
  underName,
} from '../src/stages/readings/table/table-model.js';
import { applyLocally, type Local } from '../src/stores/apply-locally.js';

describe('the cursor of the table', () => {
  const size = { rows: 48, columns: 3, page: 20, spare: 1 };
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
});

describe('ranges of cells', () => {
  it('reach between two corners, whichever came first', () => {
    const range = rangeOf({ row: 5, column: 2 }, { row: 3, column: 4 });
    expect(range).toEqual({ top: 3, bottom: 5, left: 2, right: 4 });
    expect([isIn(range, 4, 3), isIn(range, 6, 3), isIn(range, 4, 1)]).toEqual([true, false, false]);
  });

  it('become runs down each column, broken where a sorted table jumps', () => {
    const columns = [{ id: 'a' }, { id: 'b' }];
    const rows = [
      ['1', 'x'],
      ['2', 'y'],
      ['3', 'z'],
    ];
    const asStored = runsOf(rows, columns, { row: 2, column: 0 }, (shown) => shown);
    expect(asStored).toEqual([
      { column: 'a', row: 2, texts: ['1', '2', '3'] },
      { column: 'b', row: 2, texts: ['x', 'y', 'z'] },
    ]);
    const sorted = runsOf(rows, columns, { row: 1, column: 1 }, (shown) => [7, 8, 2][shown - 1]!);
    // What would lie beyond the last column goes nowhere.
    expect(sorted).toEqual([
      { column: 'b', row: 7, texts: ['1', '2'] },
      { column: 'b', row: 2, texts: ['3'] },
    ]);
  });
});

describe('worked-out cells', () => {
  const column = (derivation: object) =>
    ({ ...NOTHING_SAID, derivation, kind: 'measure', name: 'z', unit: '' }) as never;
  it('are shown rounded by what they are, and named by what they follow', () => {
    const score = column({ kind: 'standard-score', source: 'a', divisor: 'sample' });
    const none = new Float64Array();
    const shown = (of: never, text: string, resolution: number | null, source: number | null) =>
      shownDerived(of, text, none, resolution, source);
    expect(shown(score, '-0.990123456', null, 0.01)).toBe('−0.990');
    expect(shown(column({ kind: 'distance', source: 'a', absolute: true }), '0.123456', null, 0.01)).toBe('0.123');
    expect(shownDerived(column({ kind: 'rank', source: 'a' }), '2.5', Float64Array.of(2.5, 1), null, null)).toBe('2.5');
    expect(shown(column({ kind: 'share', source: 'a', trials: 3 }), '0.3333333', null, null)).toBe('0.3333');
    expect(shown(column({ kind: 'rounded', source: 'a', step: 0.5 }), '8.5', 0.5, null)).toBe('8.5');
    expect(shown(score, '', null, null)).toBe('');
    expect(underName(score, [{ id: 'a', name: 'thickness' }] as never, null)).toBe(
      'standard score of thickness, n − 1',
    );
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
    expect(recomputedWords(found, 2)).toBe('the same, bit for bit, at change 2');
    expect(recomputedWords(found, 3)).toBe(
      'It was the same, bit for bit, at change 2. Since then, a change has been made. Recompute to check.',
    );
    const differs = { ...found, same: false, differences: [{ path: 'n', kept: 48, now: 47 }] };
    expect(recomputedWords({ ...differs, sameData: false, nowRevision: 5 })).toContain(
      'It differs because the data changed (change 2 → 5). For example n was 48, is 47.',
    );
    expect(recomputedWords(differs)).toContain(
      'It differs although the data are unchanged (change 2): n was 48, is 47. The kept result',
    );
    expect(recomputedWords(differs, 9)).toContain('7 changes have been made');
    expect(recomputedWords(undefined)).toBe('');
  });

  it('says of a difference in the last digits that it is one', () => {
    const last = { path: 'mean', kept: 22.191999999999997, now: 22.192 };
    const differs = { ...found, same: false, differences: [last] };
    expect(recomputedWords(differs)).toContain('Only the last digits differ, in mean, on the same data');
    expect(recomputedWords({ ...differs, differences: [last, { path: 'n', kept: 48, now: 47 }] })).toContain(
      'n was 48, is 47 and 1 more',
    );
    expect(recomputedWords({ ...differs, sameData: false })).toContain('mean was 22.192, is 22.192');
  });
});

describe('a change on the page’s own copy', () => {
  const [a, b] = ['column-a', 'column-b'] as const;
  const base = { unit: '', kind: 'measure', decimal: 'point', thousands: 'none', ...NOTHING_SAID } as const;
  const local = (): Local => ({
    study: {
      ...{
        id: 's',
        name: '',
        question: '',
        state: 'open',
        alpha: 0.05,
        asks: null,
        tags: [],
        quantileType: 7,
        subject: a,
        revision: 1,
        rowCount: 2,
      },
      ...{
        columns: [
          { ...base, id: a, name: 'a' },
          { ...base, id: b, name: 'b' },
        ],
        setAside: [],
        leftIn: [],
      },
      ...{ verdicts: [], canUndo: null, canRedo: null, entries: 0, head: null, notVerified: null },
    } as Study,
    cells: { [a]: ['1', '2'], [b]: ['3', '4'] },
    removed: new Map(),
  });
  const after = (...changes: ChangeInput[]) => {
    const copy = local();
    for (const change of changes) applyLocally(copy, changeSchema.parse(change), 'me', '2026-11-23T12:00:00Z');
    return copy;
  };

  it('grows every column when one is written below the end, and leaves untouched columns the same object otherwise', () => {
    const grown = after({ kind: 'edit-cells', runs: [{ column: a, row: 4, texts: ['9'] }] });
    expect(grown.cells).toEqual({ [a]: ['1', '2', '', '9'], [b]: ['3', '4', '', ''] });
    expect(grown.study.rowCount).toBe(4);
    const copy = local();
    const untouched = copy.cells[b];
    applyLocally(copy, { kind: 'edit-cells', runs: [{ column: a, row: 1, texts: ['5'] }] }, 'me', '');
    expect(copy.cells[b]).toBe(untouched);
  });

  it('shortens again where the change says so', () => {
    expect(after({ kind: 'edit-cells', runs: [{ column: a, row: 2, texts: [''] }], rowCount: 1 }).cells).toEqual({
      [a]: ['1'],
      [b]: ['3'],
    });
  });

  it('sets aside with who and when, puts back, and passes the subject on when its column goes', () => {
    const aside = after({ kind: 'set-aside', readings: [{ column: a, row: 1, reason: 'r' }] }).study.setAside;
    expect(aside).toEqual([{ column: a, row: 1, reason: 'r', who: 'me', at: '2026-11-23T12:00:00Z' }]);
    const back = after(
      { kind: 'set-aside', readings: [{ column: a, row: 1, reason: 'r' }] },
      { kind: 'put-back', readings: [{ column: a, row: 1 }] },
    );
    expect(back.study.setAside).toEqual([]);
    expect(after({ kind: 'remove-columns', columns: [a] }).study).toMatchObject({
      subject: b,
      columns: [{ id: b }],
    });
    expect(
      after({ kind: 'remove-columns', columns: [a] }, { kind: 'return-columns', columns: [a] }).study.columns,
    ).toHaveLength(2);
  });

  it('leaves with a reason, looks again, and moves what is left in with its row', () => {
    const leave: ChangeInput = { kind: 'leave-in', readings: [{ column: a, row: 2, reason: 'no cause found' }] };
    const left = { column: a, row: 2, reason: 'no cause found', who: 'me', at: '2026-11-23T12:00:00Z' };
    expect(after(leave).study).toMatchObject({ leftIn: [left], setAside: [] });
    expect(after(leave, { kind: 'insert-rows', rows: [1] }).study.leftIn).toEqual([{ ...left, row: 3 }]);
    expect(after(leave, { kind: 'remove-rows', rows: [2] }).study.leftIn).toEqual([]);
    expect(after(leave, { kind: 'look-again', readings: [{ column: a, row: 2 }] }).study.leftIn).toEqual([]);
  });

  it('changes column and study', () => {
    const { study } = after(
      { kind: 'change-column', column: b, columnKind: 'count', unit: 'N' },
      { kind: 'change-study', alpha: 0.01, subject: b },
    );
    expect(study.columns[1]).toMatchObject({ kind: 'count', unit: 'N', name: 'b' });
    expect(study).toMatchObject({ alpha: 0.01, subject: b });
  });

  it('puts rows in and takes them out, with what is set aside', () => {
    const aside: ChangeInput = { kind: 'set-aside', readings: [{ column: a, row: 2, reason: 'r' }] };
    const put = after(aside, { kind: 'insert-rows', rows: [1, 3] });
    expect(put.cells).toEqual({ [a]: ['', '1', '', '2'], [b]: ['', '3', '', '4'] });
    expect(put.study.setAside[0]!.row).toBe(4);
    const out = after(aside, { kind: 'remove-rows', rows: [1] });
    expect(out.cells).toEqual({ [a]: ['2'], [b]: ['4'] });
    expect(out.study.setAside[0]!.row).toBe(1);
    expect(after(aside, { kind: 'remove-rows', rows: [2] }).study.setAside).toEqual([]);
  });

  it('orders columns, and freezes and thaws one that follows another', () => {
    expect(after({ kind: 'order-columns', columns: [b, a] }).study.columns.map(({ id }) => id)).toEqual([b, a]);
    const doubled = { kind: 'formula', expression: `[${a}] * 2` } as const;
    const column = { ...base, id: 'column-c', name: 'c', derivation: doubled, cells: [] };
    const frozen = after({ kind: 'add-columns', columns: [column] }, { kind: 'freeze-column', column: 'column-c' });
    expect(frozen.cells['column-c']).toEqual(['2', '4']);
    expect(frozen.study.columns[2]!.derivation).toBeNull();
  });
});
