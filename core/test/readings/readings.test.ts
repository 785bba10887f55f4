import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { freeName, parseBlock, splitUnit, type ParsedColumn } from '../../src/readings/block.js';
import { fingerprintOf } from '../../src/readings/fingerprint.js';
import { recogniseKind } from '../../src/readings/kind.js';
import { recogniseLayout } from '../../src/readings/layout.js';
import { countLevels, withMerged, withParted } from '../../src/readings/levels.js';
import {
  isMissingOrNumber,
  PLAIN_FORMAT,
  readCell,
  readNumber,
  recogniseNumberFormat,
  rewritten,
} from '../../src/readings/number-format.js';
import { recogniseResolution } from '../../src/readings/resolution.js';
import { readCells, toSample } from '../../src/readings/sample.js';
import { asTally, looksLikeTally } from '../../src/readings/tally.js';
import { columns } from '../reference.js';

const read = (text: string, taken: string[] = []) => parseBlock(text, recogniseLayout(text), taken);
const comma = { decimal: 'comma', thousands: 'none' } as const;

describe('reading a cell', () => {
  it('takes plain numbers, signs and exponents as written', () => {
    expect(readCell(' 12.30 ', PLAIN_FORMAT)).toEqual({ kind: 'number', value: 12.3, decimals: 2 });
    expect(readNumber('\u22121.5', PLAIN_FORMAT)).toBe(-1.5);
    expect(readNumber('+.5', PLAIN_FORMAT)).toBe(0.5);
    expect(readCell('1.25e-3', PLAIN_FORMAT)).toEqual({ kind: 'number', value: 0.00125, decimals: 5 });
    expect(readCell('  ', PLAIN_FORMAT)).toEqual({ kind: 'missing' });
  });

  it('takes decimal commas and thousands marks only where the column has them', () => {
    expect(readNumber('7,91', comma)).toBe(7.91);
    expect(readNumber('1.234.567,8', { decimal: 'comma', thousands: 'point' })).toBe(1234567.8);
    expect(readNumber('1 234.5', { decimal: 'point', thousands: 'blank' })).toBe(1234.5);
    expect(readNumber('1,234', PLAIN_FORMAT)).toBeNull();
    expect(readNumber('12,34', { decimal: 'point', thousands: 'comma' })).toBeNull();
  });

  it.each([
    ['1e400', 'too large (above 1.8e308)'],
    ['NaN', 'not a finite number'],
    ['inf', 'not a finite number'],
    ['1,2,3', 'separators in unexpected positions'],
    ['8,01', 'a decimal comma, but the column has a decimal point'],
    ['8.0l', 'perhaps a letter instead of a digit'],
    ['north', 'not a number'],
    ['9'.repeat(70), 'too long for a number'],
    ['<script>alert(1)</script>', 'not a number'],
  ])('refuses %s: %s', (text, reason) => {
    const cell = readCell(text, PLAIN_FORMAT);
    expect(cell.kind).toBe('text');
    expect((cell as { reason: string }).reason).toContain(reason);
  });

  it('reads back every number in every format', () => {
    const formats = fc.constantFrom(
      { format: PLAIN_FORMAT, mark: '.', group: '' },
      { format: comma, mark: ',', group: '' },
      { format: { decimal: 'point', thousands: 'comma' } as const, mark: '.', group: ',' },
      { format: { decimal: 'comma', thousands: 'blank' } as const, mark: ',', group: ' ' },
    );
    fc.assert(
      fc.property(
        fc.integer({ min: -1e9, max: 1e9 }),
        fc.integer({ min: 0, max: 4 }),
        formats,
        (k, d, { format, mark, group }) => {
          const value = k / 10 ** d;
          const [whole, fraction] = value.toFixed(d).split('.');
          const text = whole!.replace(/\B(?=(\d{3})+$)/g, group) + (fraction ? mark + fraction : '');
          expect(readNumber(text, format)! - value).toBe(0);
        },
      ),
    );
  });
});

describe('recognising how numbers are written', () => {
  it.each([
    [['7.91', '8.08'], 'point', 'none'],
    [['7,91', '8,08'], 'comma', 'none'],
    [['7,912', '8,013'], 'comma', 'none'],
    [['1,234', '950', '12,500'], 'point', 'comma'],
    [['1,234,567', '2,345,678'], 'point', 'comma'],
    [['1.234,50', '2.345,00'], 'comma', 'point'],
    [['1 234,5', '2 345,0'], 'comma', 'blank'],
    [["1'234.5"], 'point', 'apostrophe'],
    [['north', 'south'], 'point', 'none'],
    [['<0,05', '<1,2', '0,3'], 'comma', 'none'],
  ])('%s: decimal %s, thousands %s', (cells, decimal, thousands) => {
    expect(recogniseNumberFormat(cells)).toEqual({ decimal, thousands });
  });
});

describe('recognising the layout of a block', () => {
  it.each([
    ['tabs with names', 'thickness (mm)\tkiln\n7.91\tnorth\n8.08\tsouth', 'tab', 'row 1', 'none'],
    ['tabs without names', '7.91\tnorth\n8.08\tsouth', 'tab', 'none', 'none'],
    ['a unit row', 'thickness,force\nmm,N\n7.91,1210\n8.08,1198', 'comma', 'row 1', 'row 2'],
    ['semicolons and decimal commas', 'a;b\n7,91;1,0\n8,08;1,5', 'semicolon', 'row 1', 'none'],
    ['blanks', '7.91  12\n8.08  13\n7.97  11', 'blanks', 'none', 'none'],
    ['one column', 'thickness\n7.91\n8.08', 'none', 'row 1', 'none'],
    ['one column of decimal commas', 'thickness\n7,91\n8,08', 'none', 'row 1', 'none'],
    ['two columns of whole numbers', 'force,count\n1210,1\n1198,2', 'comma', 'row 1', 'none'],
    ['a unit behind a comma', 'thickness, mm\n7,91\n8,08', 'none', 'row 1', 'none'],
    ['one column of words', 'kiln\nnorth\nsouth\nnorth', 'none', 'row 1', 'none'],
    ['a single number', '8.01', 'none', 'none', 'none'],
    ['decimal commas with a limit', 'trace\n0,12\n<0,05\n0,31', 'none', 'row 1', 'none'],
    ['decimal commas with a missing one', 'trace\n0,12\nn/a\n0,31', 'none', 'row 1', 'none'],
    ['a limit first, under a name', 'trace\n<0.05\n0.31\n0.44', 'none', 'row 1', 'none'],
    ['a missing one first, under a name', 'trace\nn/a\n0.31\n0.44', 'none', 'row 1', 'none'],
    ['a limit first', '<0.05\n0.31\n0.44', 'none', 'none', 'none'],
    ['a missing one first', 'n/a\n0.31\n0.44', 'none', 'none', 'none'],
    ['a limit first, beside a label', '<0.05\tgrey\n0.31\tgrey\n0.4\trose', 'tab', 'none', 'none'],
    ['sieve sizes as names', '<5\t5-10\t>10\n3\t4\t5\n4\t5\t6', 'tab', 'row 1', 'none'],
    ['a unit row with a dash for no unit', 'a\tb\nmm\t-\n3\t4\n5\t6', 'tab', 'row 1', 'row 2'],
  ])('%s', (_, text, separator, names, units) => {
    expect(recogniseLayout(text)).toMatchObject({ separator, names, units });
  });

  it('takes a dash in the row of units for no unit', () => {
    expect(read('a\tb (N)\tc\nmm\t-\t-\n3\t4\t5\n5\t6\t7').columns.map(({ unit }) => unit)).toEqual(['mm', 'N', '']);
  });

  it('does not mind a byte order mark, CRLF or a trailing line break', () => {
    const block = read('\ufeffthickness\tkiln\r\n7.91\tnorth\r\n8.08\tsouth\r\n');
    expect(block.columns.map((c) => [c.name, c.cells])).toEqual([
      ['thickness', ['7.91', '8.08']],
      ['kiln', ['north', 'south']],
    ]);
  });
});

describe('parsing a block', () => {
  it('takes names, units and kinds, and keeps every cell as written', () => {
    const block = read(
      'thickness (mm)\tkiln\tpinholes\n12.30\tnorth\t2\n 12.35\tsouth\t0\n12.40\tnorth\t1\n12.45\tnorth\t0\n',
    );
    expect(block.columns.map(({ name, unit, kind }) => [name, unit, kind])).toEqual([
      ['thickness', 'mm', 'measure'],
      ['kiln', '', 'label'],
      ['pinholes', '', 'count'],
    ]);
    expect(block.columns[0]!.cells).toEqual(['12.30', ' 12.35', '12.40', '12.45']);
    expect(block.problems).toEqual([]);
  });

  it('lists cells that are not numbers by row and column', () => {
    const block = read('thickness\tforce\n7.91\t1210\n8,0l\t1198\n8.05\tinf');
    expect(block.problems.map(({ row, column, code }) => [row, column, code])).toEqual([
      [2, 'thickness', 'not-a-number'],
      [3, 'force', 'not-a-number'],
    ]);
    expect(block.problems[0]!.text).toBe('Row 2 of thickness holds “8,0l”: perhaps a letter instead of a digit.');
  });

  it('fills ragged rows and lists them', () => {
    const block = read('a,b\n1,2\n3\n4,5,6\n7,8');
    expect(block.columns).toHaveLength(3);
    expect(block.columns[1]!.cells).toEqual(['2', '', '5', '8']);
    expect(block.problems.filter((p) => p.code === 'ragged').map((p) => p.row)).toEqual([2, 3]);
  });

  it('gives the second of two equal names a number, and says so', () => {
    const block = read('a,A,b\n1,2,3\n4,5,6', ['b']);
    expect(block.columns.map((c) => c.name)).toEqual(['a', 'A (2)', 'b (2)']);
    expect(block.problems.map((p) => p.code)).toEqual(['same-name', 'same-name']);
    expect(freeName('x', ['x', 'x (2)'])).toBe('x (3)');
  });

  it.each([
    ['', 'The text is empty or has only column names.'],
    [' \n \r\n', 'The text is empty or has only column names.'],
    [`thickness\n7.91\n${'8'.repeat(1_048_576)}`, 'Row 3, column 1 has a cell of 1048576 characters'],
    [Array.from({ length: 5_001 }, () => '1').join('\t') + '\n', 'has 5001 columns'],
  ])('refuses as a whole what it cannot keep (%#)', (text, reason) => {
    expect(read(text).refusal).toContain(reason);
  });

  it('keeps markup in names and cells as plain text', () => {
    const block = read('<b>x</b>\tkiln\n<img src=x onerror=alert(1)>\tn\n8.01\ts\n8.02\tn');
    expect(block.columns[0]!.name).toBe('<b>x</b>');
    expect(block.columns[0]!.cells[0]).toBe('<img src=x onerror=alert(1)>');
  });

  it('splits units in brackets or after a comma from names', () => {
    expect(splitUnit('thickness (mm)')).toEqual({ name: 'thickness', unit: 'mm' });
    expect(splitUnit('absorption [%]')).toEqual({ name: 'absorption', unit: '%' });
    expect(splitUnit('force, N')).toEqual({ name: 'force', unit: 'N' });
    expect(splitUnit('kiln')).toEqual({ name: 'kiln', unit: '' });
  });

  it('never throws and never hangs on any text', () => {
    const marks = fc.constantFrom(
      '\t',
      ',',
      ';',
      ' ',
      '\n',
      '\r\n',
      '"',
      '7.91',
      '8,02',
      '1e400',
      '-',
      '\ufeff',
      'mm',
      "'",
      '.',
    );
    let slowest = 0;
    fc.assert(
      fc.property(fc.array(fc.oneof(marks, fc.string({ maxLength: 6 })), { maxLength: 60 }), (parts) => {
        const started = performance.now();
        const block = read(parts.join(''));
        for (const column of block.columns) expect(column.cells).toHaveLength(block.rows);
        slowest = Math.max(slowest, performance.now() - started);
      }),
      { numRuns: 2500 },
    );
    expect(slowest).toBeLessThan(1000);
  });

  it('never throws and never hangs on a good file that was damaged', () => {
    const good = [
      'tile,thickness (mm),kiln\n1,7.91,north\n2,8.08,south\n3,8.05,north\n',
      'Kraft (N);Notiz\r\n1.210,5;"a;b"\r\n1.198,2;"x\r\ny"\r\n<0,05;n/a\r\n',
      'a\tb\n12.30\t\n12.35\t-\n',
      "1'210.5 3\n1'198.2 4\n",
    ];
    const wound = fc.record({
      at: fc.nat(80),
      length: fc.nat(6),
      put: fc.oneof(
        fc.constantFrom(
          '"',
          ',',
          ';',
          '\t',
          '\n',
          '\r',
          '\0',
          '\u202f',
          '8'.repeat(400),
          '"'.repeat(9),
          '-'.repeat(60),
        ),
        fc.string({ maxLength: 4 }),
      ),
    });
    let slowest = 0;
    fc.assert(
      fc.property(fc.constantFrom(...good), fc.array(wound, { minLength: 1, maxLength: 8 }), (text, wounds) => {
        const damaged = wounds.reduce((t, { at, length, put }) => t.slice(0, at) + put + t.slice(at + length), text);
        const started = performance.now();
        const block = read(damaged);
        // Whatever it is: every row is whole, every problem has its place, or the text is refused in words.
        if (block.refusal === null) for (const column of block.columns) expect(column.cells).toHaveLength(block.rows);
        for (const { row } of block.problems) expect(row === null || (row >= 1 && row <= block.rows)).toBe(true);
        slowest = Math.max(slowest, performance.now() - started);
      }),
      { numRuns: 2500 },
    );
    expect(slowest).toBeLessThan(1000);
  });

  it('reads 100 000 readings', () => {
    const text = Array.from({ length: 100_000 }, (_, i) => (7.5 + (i % 100) / 100).toFixed(2)).join('\n');
    expect(read(text)).toMatchObject({ rows: 100_000, problems: [] });
  });
});

describe('kinds and resolution', () => {
  it('distinguishes measurements, labels and counts', () => {
    expect(recogniseKind(['7.91', '8.08', 'x'], PLAIN_FORMAT, '')).toBe('measure');
    expect(recogniseKind(['north', 'south', '3'], PLAIN_FORMAT, '')).toBe('label');
    expect(recogniseKind(['0', '2', '1', '0', '3'], PLAIN_FORMAT, '')).toBe('count');
    expect(recogniseKind(['0', '2', '1', '0', '3'], PLAIN_FORMAT, 'mm')).toBe('measure');
    expect(recogniseKind(['1', '2', '3', '4', '5'], PLAIN_FORMAT, '')).toBe('label');
    expect(recogniseKind(['12', '15', '13', '19', '11'], PLAIN_FORMAT, '')).toBe('measure');
    expect(
      recogniseKind(
        Array.from({ length: 48 }, (_, i) => String(1100 + 7 * i)),
        PLAIN_FORMAT,
        '',
      ),
    ).toBe('measure');
  });

  it('reads no reading, and a reading censored, as what they are', () => {
    for (const text of ['', ' ', 'n/a', 'NA', '-', '–', ' - '])
      expect(readCell(text, PLAIN_FORMAT).kind, text).toBe('missing');
    expect(readCell('<0.05', PLAIN_FORMAT)).toEqual({ kind: 'limit', side: 'below', value: 0.05, decimals: 2 });
    expect(readCell('≥ 100', PLAIN_FORMAT)).toMatchObject({ kind: 'limit', side: 'above', value: 100 });
    expect(readCell('<0,05', { decimal: 'comma', thousands: 'none' })).toMatchObject({ kind: 'limit', value: 0.05 });
    for (const text of ['Na', '<', '<x', '< <5', '--']) expect(readCell(text, PLAIN_FORMAT).kind, text).toBe('text');
  });

  it('reads plain figures to the very double that the engine reads', () => {
    const figures = fc.tuple(
      fc.constantFrom('', '-', '+'),
      fc.nat({ max: 999_999_999 }),
      fc.integer({ min: 0, max: 99_999 }),
      fc.nat(5),
    );
    fc.assert(
      fc.property(figures, ([sign, whole, part, places]) => {
        const fraction = places === 0 ? '' : `.${String(part).padStart(5, '0').slice(0, places)}`;
        const text = `${sign}${whole}${fraction}`;
        expect(readCell(text, PLAIN_FORMAT)).toEqual({ kind: 'number', value: Number(text) || 0, decimals: places });
      }),
      { numRuns: 2000 },
    );
    for (const text of ['.5', '5.', '-0', '123456789012345', '1234567890123456', '0.1234567890123', '1e3'])
      expect(readCell(text, PLAIN_FORMAT), text).toMatchObject({ kind: 'number', value: Number(text) || 0 });
    for (const text of ['.', '-', '+', '-.', '1.2.3', '1,5'])
      expect(readCell(text, PLAIN_FORMAT).kind, text).not.toBe('number');
  });

  it('classifies missing cells and numbers as reading them does', () => {
    const piece = fc.constantFrom('1', '23', '.', ',', '-', '+', 'e', 'x', ' ', '<', 'n/a', '\u2212', '9'.repeat(70));
    for (const format of [PLAIN_FORMAT, { decimal: 'comma', thousands: 'point' } as const]) {
      fc.assert(
        fc.property(fc.array(piece, { maxLength: 5 }), (pieces) => {
          const text = pieces.join('');
          expect(isMissingOrNumber(text, format)).toBe(['missing', 'number'].includes(readCell(text, format).kind));
        }),
        { numRuns: 1500 },
      );
    }
  });

  it('rewrites the marks of a number digit for digit', () => {
    const comma = { decimal: 'comma', thousands: 'point' } as const;
    expect(['1.234,50', '<0,05', 'n/a', 'x,y'].map((text) => rewritten(text, comma, PLAIN_FORMAT))).toEqual([
      '1234.50',
      '<0.05',
      'n/a',
      'x,y',
    ]);
    expect(rewritten('12.30', PLAIN_FORMAT, { decimal: 'comma', thousands: 'none' })).toBe('12,30');
  });

  it('reads the resolution of the instrument from the written digits', () => {
    expect(recogniseResolution([12.3, 12.35], [2, 2])).toBe(0.01);
    const halves = [23, 23.5, 24, 24.5, 25, 23.5, 26];
    expect(
      recogniseResolution(
        halves,
        halves.map(() => 1),
      ),
    ).toBe(0.5);
    expect(recogniseResolution([1200, 1210, 1190], [0, 0, 0])).toBe(1);
    expect(recogniseResolution([], [])).toBeNull();
  });

  it.each(Object.keys(columns))('finds the known resolution of %s', (name) => {
    const { values, resolution } = columns[name]!;
    const digits = Math.max(...values.map((x) => (String(x).split('.')[1] ?? '').length));
    expect(
      recogniseResolution(
        values,
        values.map(() => digits),
      ),
    ).toBe(resolution);
  });

  it('counts missing, set-aside and unreadable cells apart and keeps the rows of the others', () => {
    const column = { name: 'thickness', unit: 'mm', resolution: null, ...PLAIN_FORMAT };
    const sample = toSample(column, ['7.91', '', '8,0l', '9.87', '8.05'], new Set([4]));
    expect([...sample.values]).toEqual([7.91, 8.05]);
    expect([...sample.rows]).toEqual([1, 5]);
    expect(sample).toMatchObject({ missing: 1, setAside: 1, unreadable: 1, resolution: 0.01 });
  });

  it('reads after an edit only what has changed, and then says the same as reading all again', () => {
    const cell = fc.constantFrom('8.1', '8,1', '<0.05', '', '-', 'n/a', '1e300', '\u22123.25', '8.100');
    fc.assert(
      fc.property(
        fc.array(cell, { minLength: 1, maxLength: 30 }),
        fc.array(fc.tuple(fc.nat(29), cell), { maxLength: 4 }),
        fc.constantFrom<'point' | 'comma'>('point', 'comma'),
        (cells, edits, decimal) => {
          const format = { decimal, thousands: 'none' } as const;
          const after = [...cells];
          for (const [i, text] of edits) if (i < after.length) after[i] = text;
          const before = readCells(cells, { decimal: 'point', thousands: 'none' });
          const told = { ...before, values: before.values.slice() };
          expect(readCells(after, format, before)).toEqual(readCells(after, format));
          // What was read before is left alone: another window of time may still show it.
          expect(before).toEqual(told);
          expect(readCells([...after, '9'], format, before)).toEqual(readCells([...after, '9'], format));
        },
      ),
    );
  });

  it('fingerprints values as SHA-256 of their doubles', () => {
    // Eight zero bytes: a published SHA-256 value.
    expect(fingerprintOf({ values: Float64Array.of(0) })).toBe(
      'af5570f5a1810b7af78caf4bc70a660f0df51e42baf91d4de5b2328de0e83dfc',
    );
    expect(fingerprintOf({ values: Float64Array.of(1, 2) })).not.toBe(fingerprintOf({ values: Float64Array.of(2, 1) }));
  });
});

describe('a tally', () => {
  const columnsOf = (text: string) => parseBlock(text, recogniseLayout(text)).columns;

  it('is two columns: values in equal steps, and how often each occurred', () => {
    expect(looksLikeTally(columnsOf('pinholes\ttiles\n0\t3\n1\t7\n2\t5\n3\t0'))).toBe(true);
    expect(looksLikeTally(columnsOf('0,5;3\n1,5;7\n2,5;5'))).toBe(true);
    // Readings by row: not rising, uneven steps, no counts, ones only, a gap, three columns.
    for (const text of [
      '3\t1\n1\t7\n2\t5',
      '0\t3\n1\t7\n5\t5',
      '0\t3.5\n1\t7\n2\t5',
      '0\t1\n1\t1\n2\t1',
      '0\t3\n1\t\n2\t5',
      '0\t3\t1\n1\t7\t1\n2\t5\t1',
    ]) {
      expect(looksLikeTally(columnsOf(text)), text).toBe(false);
    }
  });

  it('makes counts of whole values and a measure of others', () => {
    const pair = columnsOf('pinholes\ttiles\n0\t3\n1\t7\n2\t5') as [ParsedColumn, ParsedColumn];
    expect(asTally(pair).map(({ kind }) => kind)).toEqual(['count', 'count']);
    const halves = columnsOf('x\ttiles\n0.5\t3\n1.5\t7\n2.5\t5') as [ParsedColumn, ParsedColumn];
    expect(asTally(halves)[0].kind).toBe('measure');
  });
});

describe('names and levels', () => {
  it('a shortened heading is reported, with the part that is kept', () => {
    const text = `${'x'.repeat(200)}\ty\n1\t2\n3\t4`;
    const { columns, problems } = parseBlock(text, recogniseLayout(text));
    expect(columns[0]!.name).toHaveLength(80);
    expect(problems.map(({ code }) => code)).toEqual(['name-cut']);
    expect(problems[0]!.text).toContain(
      'The heading has 200 characters; a column name may have at most 80. The column is named',
    );
  });

  it('one spelling can be parted from a level that several were merged into', () => {
    const merged = withMerged(null, ['kiln A', 'Kiln a ', 'KILN A'], 'kiln A');
    const parted = withParted(merged, 'KILN A');
    const cells = ['kiln A', 'Kiln a ', 'KILN A', 'kiln A'];
    expect(countLevels(cells, merged).map(({ name, count }) => [name, count])).toEqual([['kiln A', 4]]);
    expect(countLevels(cells, parted).map(({ name, count }) => [name, count])).toEqual([
      ['kiln A', 3],
      ['KILN A', 1],
    ]);
  });
});
