import { NOTHING_SAID, STUDY_FILE_LIMIT, type StudyColumn } from '@verdict/contract';
import { defused, parseTable, readJsonTable, recogniseRows, splitRows } from '@verdict/core/readings';
import fc from 'fast-check';
import { strToU8, unzipSync, zipSync } from 'fflate';
import office from 'exceljs';
import { describe, expect, it } from 'vitest';
import { exportColumns, exported, type Export } from '../src/files/export-table.js';
import type { Incoming } from '../src/files/incoming.js';
import { openFile } from '../src/files/open-file.js';
import { cutRange, fullRange, shownDate, shownNumber } from '../src/files/shown-values.js';
import { below, importBody, likelyTarget, matched, over } from '../src/stages/readings/import/take.js';

const column = (id: string, more: Partial<StudyColumn> = {}): StudyColumn => ({
  ...{ id, name: id, unit: '', kind: 'measure', decimal: 'point', thousands: 'none' },
  ...NOTHING_SAID,
  ...more,
});
const fileOf = (content: string | Uint8Array, name = 'a.csv') => new File([content as BlobPart], name);
const rowsIn = async (content: BlobPart, name: string) => {
  const opened = await openFile(fileOf(content as string | Uint8Array, name));
  if (!('incoming' in opened)) throw new Error(JSON.stringify(opened));
  const { incoming } = opened;
  if (incoming.kind === 'sheets') return incoming.sheets[0]!.rows;
  return incoming.kind === 'rows' ? incoming.rows : splitRows(incoming.text, name.endsWith('tsv') ? 'tab' : 'comma');
};

/** Columns a and b with a reading set aside, and a label whose cells try to be formulas. */
const sheet = (withAside = true): Export => {
  const cells: Record<string, string[]> = {
    a: ['12.30', '', '-1.5', '8.05'],
    b: ['7,91', 'n/a', '<0,05', '8,05'],
    c: ['=1+1', 'x,"y"', 'two\nlines', '-'],
  };
  return {
    columns: [
      column('a', { unit: 'mm', lowerLimit: 7.5 }),
      column('b', { decimal: 'comma' }),
      column('c', { kind: 'label' }),
    ],
    texts: (id) => cells[id]!,
    rows: [1, 2, 3, 4],
    aside: new Map([['a/4', 'chipped, "edge"']]),
    withAside,
  };
};

describe('a copy of the readings', () => {
  it('names the set-aside readings in a column of their own, or leaves their cells empty', () => {
    const withThem = exportColumns(sheet());
    expect(withThem.map(({ name }) => name)).toEqual(['a (mm)', 'b', 'c', 'set aside']);
    expect(withThem[3]!.cells).toEqual(['', '', '', 'a: chipped, "edge"']);
    const without = exportColumns(sheet(false));
    expect(without.map(({ name }) => name)).toEqual(['a (mm)', 'b', 'c']);
    expect(without[0]!.cells).toEqual(['12.30', '', '-1.5', '']);
  });

  it.each(['csv', 'tsv'] as const)('as %s comes back cell for cell, with formulas defused', async (format) => {
    const rows = await rowsIn(await exported(format, 'week 46', sheet()), `x.${format}`);
    expect(rows[0]).toEqual(['a (mm)', 'b', 'c', 'set aside']);
    expect(rows.slice(1).map((row) => row.slice(0, 3))).toEqual([
      ['12.30', '7,91', "'=1+1"],
      ['', 'n/a', 'x,"y"'],
      ['-1.5', '<0,05', 'two\nlines'],
      ['8.05', '8,05', '-'],
    ]);
  });

  it('as JSON keeps the digits of numbers', async () => {
    const text = (await exported('json', 'week 46', sheet())) as string;
    expect(text).toContain('"a (mm)": 12.30, "b": "7,91"');
    const table = readJsonTable(text);
    expect(table.ok && table.rows[1]).toEqual(['12.30', '7,91', "'=1+1", '']);
  });

  it('as a spreadsheet comes back with the decimals it was written with', async () => {
    const rows = await rowsIn(await exported('xlsx', 'week 46: thickness', sheet()), 'x.xlsx');
    // Numbers are numbers there, whatever mark they were written with.
    expect(rows[1]).toEqual(['12.30', '7.91', "'=1+1"]);
    expect(rows[3]!.slice(0, 3)).toEqual(['-1.5', '<0,05', 'two\nlines']);
  });

  it('as a data package carries kinds, units and limits, and opens again with them', async () => {
    const zip = (await exported('package', 'week 46', sheet())) as Uint8Array<ArrayBuffer>;
    expect(Object.keys(unzipSync(zip))).toEqual(['datapackage.json', 'readings.csv']);
    const opened = await openFile(fileOf(zip, 'x.zip'));
    const { incoming } = opened as { incoming: Extract<Incoming, { kind: 'rows' }> };
    expect(incoming.rows[0]).toEqual(['a', 'b', 'c', 'set aside']);
    expect(incoming.facts.a).toMatchObject({ unit: 'mm', kind: 'measure', lowerLimit: 7.5 });
    expect(incoming.facts.c).toMatchObject({ kind: 'label' });
  });

  it('in every text format gives back random tables', async () => {
    const cell = fc.oneof(
      fc.constantFrom('', '12.30', '-7', 'a,b', '"', 'x\ty', 'line\nbreak', '二', "it's"),
      fc.string({ maxLength: 6 }),
    );
    const table = fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 10 });
    await fc.assert(
      fc.asyncProperty(table, async (rows) => {
        fc.pre(rows.flat().every((text) => defused(text) === text && !/[\0\ufffd\ud800-\udfff]/.test(text)));
        const wanted: Export = {
          columns: [column('a', { kind: 'label' }), column('b', { kind: 'label' })],
          texts: (id) => rows.map((row) => row[id === 'a' ? 0 : 1]),
          rows: rows.map((_, i) => i + 1),
          aside: new Map(),
          withAside: true,
        };
        for (const format of ['csv', 'tsv'] as const) {
          expect((await rowsIn(await exported(format, 't', wanted), `x.${format}`)).slice(1)).toEqual(rows);
        }
        const json = readJsonTable((await exported('json', 't', wanted)) as string);
        expect(json.ok && json.rows.slice(1)).toEqual(rows);
      }),
      { numRuns: 150 },
    );
  });
});

describe('a file that is opened', () => {
  it('is read as UTF-8, UTF-16 or the Western code page', async () => {
    expect(await openFile(fileOf(Uint8Array.of(0xff, 0xfe, 0x35, 0, 0xb5, 0)))).toMatchObject({
      incoming: { text: '5µ' },
    });
    expect(await openFile(fileOf(Uint8Array.of(0x35, 0xc2, 0xb5)))).toMatchObject({
      incoming: { text: '5µ', encoding: 'utf-8' },
    });
    expect(await openFile(fileOf(Uint8Array.of(0x35, 0xb5)))).toMatchObject({
      incoming: { text: '5µ', encoding: 'windows-1252' },
    });
  });

  it.each([
    ['a picture', Uint8Array.of(0x89, 0x50, 0, 0, 1), 'not a text file'],
    ['an old spreadsheet', Uint8Array.of(0xd0, 0xcf, 0x11, 0xe0, 1), 'older .xls format'],
    ['a damaged archive', Uint8Array.of(0x50, 0x4b, 3, 4, 9, 9), 'damaged'],
    ['another archive', zipSync({ 'x.txt': strToU8('x') }), 'neither a spreadsheet nor a data package'],
    ['broken JSON', '[{"a": 1', 'not valid JSON'],
    ['a lone descriptor', '{"resources": [{"path": "x.csv"}]}', 'only the description of a data package'],
  ])('%s is refused with the reason', async (_, content, message) => {
    const name = typeof content === 'string' ? 'a.json' : 'a.csv';
    expect(await openFile(fileOf(content, name))).toMatchObject({ refusal: expect.stringContaining(message) });
  });

  it('that begins with a bracket and is no JSON is delimited text', async () => {
    expect(await openFile(fileOf('[mm],N\n1,2'))).toMatchObject({ incoming: { kind: 'text' } });
  });

  it('over its limit is not touched at all', async () => {
    const large = { name: 'b.csv', size: 200 * 1024 * 1024, arrayBuffer: () => Promise.reject(new Error('touched')) };
    const begins = (text: string) => ({ ...large, slice: () => new Blob([text]) });
    expect(await openFile(begins('a,b') as unknown as File)).toEqual({
      refusal: 'b.csv has 200 MB; files may have at most 60 MB. Nothing was read.',
    });
    // A study file goes to the server as it is: here only its beginning is looked at.
    const study = begins('{ "format": "verdict study",') as unknown as File;
    expect(await openFile(study)).toEqual({ study });
    expect(await openFile({ ...study, size: STUDY_FILE_LIMIT + 1 })).toMatchObject({
      refusal: expect.stringContaining('1024 MB'),
    });
  });

  it('a spreadsheet comes as it is shown: results of formulas, dates, zeros at the end, a chosen range', async () => {
    const workbook = new office.Workbook();
    const first = workbook.addWorksheet('summary');
    first.getCell('A1').value = 'nothing here';
    const second = workbook.addWorksheet('readings');
    second.getCell('B2').value = 'force (N)';
    second.getCell('C2').value = 'day';
    second.getCell('B3').value = 1210.5;
    second.getCell('B3').numFmt = '#,##0.00';
    second.getCell('B4').value = { formula: 'B3*2', result: 2421 };
    second.getCell('C3').value = new Date(Date.UTC(2026, 10, 23));
    second.getCell('C3').numFmt = 'dd.mm.yyyy';
    second.getCell('C4').value = { richText: [{ text: 'north' }, { text: ' kiln' }] };
    const opened = await openFile(fileOf(new Uint8Array(await workbook.xlsx.writeBuffer()), 'x.xlsx'));
    const { sheets } = (opened as { incoming: Extract<Incoming, { kind: 'sheets' }> }).incoming;
    expect(sheets.map(({ name }) => name)).toEqual(['summary', 'readings']);
    expect(fullRange(sheets[1]!.rows)).toBe('B2:C4');
    expect(cutRange(sheets[1]!.rows, 'b2:c4')).toEqual([
      ['force (N)', 'day'],
      ['1210.50', '2026-11-23'],
      ['2421', 'north kiln'],
    ]);
    expect(cutRange(sheets[1]!.rows, 'C4:B2')).toBeNull();
    expect(cutRange(sheets[1]!.rows, 'all')).toBeNull();
  });

  it('numbers never lose figures to their format, and percent stays a share', () => {
    expect(shownNumber(12.3, '0.00')).toBe('12.30');
    expect(shownNumber(12.3456, '0.00')).toBe('12.3456');
    expect(shownNumber(0.1 + 0.2, 'General')).toBe('0.3');
    expect(shownNumber(0.25, '0%')).toBe('0.25');
    expect(shownNumber(5, '0 "pieces"')).toBe('5');
    expect(shownDate(new Date(Date.UTC(2026, 0, 2, 14, 5)), 'dd/mm/yyyy hh:mm')).toBe('2026-01-02 14:05');
  });
});

describe('readings that go into a table that stands', () => {
  const standing = [column('force', { name: 'Force' }), column('kiln', { kind: 'label' }), column('free')];
  const parse = (text: string) => {
    const rows = splitRows(text, 'semicolon');
    const layout = recogniseRows(rows);
    return { rows, layout, columns: parseTable(rows, layout).columns };
  };
  const { rows, layout, columns } = parse('force;kiln;extra\n1.210,5;north;7\n1.198,2;south;8');

  it('go below the columns of their names, with the marks of these, and new ones begin there', () => {
    const { pairs, added, left } = matched(columns, standing);
    expect([pairs.map(({ into }) => into.id), added.map(({ name }) => name), left.map(({ id }) => id)]).toEqual([
      ['force', 'kiln'],
      ['extra'],
      ['free'],
    ]);
    const changes = below({ target: 'below', columns, rewrite: true }, standing, 2, 'next.csv');
    expect(changes[0]).toMatchObject({
      kind: 'edit-cells',
      note: 'imported below from next.csv',
      runs: [
        { column: 'force', row: 3, texts: ['1210.5', '1198.2'] },
        { column: 'kiln', row: 3, texts: ['north', 'south'] },
      ],
    });
    expect(changes[1]).toMatchObject({ kind: 'add-columns', columns: [{ name: 'extra', cells: ['', '', '7', '8'] }] });
    const asWritten = below({ target: 'below', columns, rewrite: false }, standing, 2, 'next.csv');
    expect(asWritten[0]).toMatchObject({ runs: [{ texts: ['1.210,5', '1.198,2'] }, {}] });
  });

  it('go over the cells from the cursor on', () => {
    const block = parse('1;x\n2;y').columns;
    const change = over(
      { target: 'over', columns: block, rewrite: false },
      standing,
      { row: 4, column: 0 },
      (shown) => shown,
    );
    expect(change).toMatchObject({
      runs: [
        { column: 'force', row: 4, texts: ['1', '2'] },
        { column: 'kiln', row: 4, texts: ['x', 'y'] },
      ],
    });
  });

  it('are put where they most likely belong', () => {
    expect(likelyTarget(rows, layout, standing, false)).toBe('new columns');
    const known = parse('kiln;force\nnorth;1,5\nsouth;2,5');
    expect(likelyTarget(known.rows, known.layout, standing, true)).toBe('below');
    const bare = parse('1;2\n3;4');
    expect([true, false].map((cursor) => likelyTarget(bare.rows, bare.layout, standing, cursor))).toEqual([
      'over',
      'new columns',
    ]);
    expect(likelyTarget(known.rows, known.layout, [], true)).toBe('new columns');
  });

  it('stream to the server as a head and the file as it is', async () => {
    const file = new Blob(['force;kiln\n1,5;north']);
    const incoming = { kind: 'text', source: 'big.csv', text: '', file, encoding: 'utf-8' } as const;
    const { body, ids } = importBody(incoming, { ...layout, separator: 'semicolon' }, columns, {
      revision: 3,
      who: 'bench 1',
    });
    const [head, ...rest] = (await body.text()).split('\n');
    expect(JSON.parse(head!)).toMatchObject({
      revision: 3,
      who: 'bench 1',
      separator: 'semicolon',
      skip: 1,
      note: 'opened from big.csv',
    });
    expect(JSON.parse(head!).columns.map(({ id }: { id: string }) => id)).toEqual(ids);
    expect(rest.join('\n')).toBe('force;kiln\n1,5;north');
    const some = importBody(incoming, { ...layout, separator: 'semicolon' }, columns.slice(1), {
      revision: 3,
      who: 'bench 1',
      positions: [1],
    });
    expect(JSON.parse((await some.body.text()).split('\n')[0]!)).toMatchObject({ positions: [1] });
  });
});
