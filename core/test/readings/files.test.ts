import { parse as parseWithPeer } from 'csv-parse/sync';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  columnOfField,
  countLevels,
  createRowCutter,
  defused,
  descriptorOf,
  levelReader,
  likelySame,
  parseBlock,
  readDescriptor,
  readJsonTable,
  recogniseLayout,
  spread,
  splitRows,
  stack,
  toDelimited,
  withMerged,
  type Separator,
} from '../../src/readings/index.js';

/** Cells as analysts and instruments write them, and worse. */
const cell = fc.oneof(
  fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e6, max: 1e6 }).map((x) => x.toFixed(3).replace('.', ',')),
  fc.integer().map(String),
  fc.constantFrom(
    '',
    ' ',
    '12.30',
    '“n/a”',
    'ümlaut 二',
    'a,b',
    'c;d',
    'e\tf',
    'g"h',
    '"',
    '""',
    'line\nbreak',
    'line\r\nbreak',
    "o'clock",
    '\u00a07',
    '\ufeffx',
  ),
  fc.string({ maxLength: 8 }),
);
const table = fc
  .integer({ min: 1, max: 5 })
  .chain((width) => fc.array(fc.array(cell, { minLength: width, maxLength: width }), { minLength: 1, maxLength: 12 }));

describe('a table that goes out and comes in again', () => {
  it.each([
    ['comma', ','],
    ['semicolon', ';'],
    ['tab', '\t'],
  ] as const)('has the same text, cell for cell, through %s', (separator, mark) => {
    fc.assert(
      fc.property(table, (rows) => {
        // What could be taken for a formula is changed on purpose; a lone carriage return ends a line for every reader.
        fc.pre(rows.flat().every((text) => defused(text) === text && !/\0/.test(text)));
        expect(splitRows(toDelimited(rows, mark), separator)).toEqual(rows);
      }),
      { numRuns: 600 },
    );
  });

  it('comes in through recognition too: names, decimal commas and empty cells', () => {
    const rows = [
      ['thickness', 'note'],
      ['7,91', ''],
      ['', 'a;b'],
      ['8,05', 'x\ny'],
    ];
    const text = toDelimited(rows, ';');
    const block = parseBlock(text, recogniseLayout(text));
    expect(block.columns.map(({ name, cells }) => [name, ...cells])).toEqual([
      ['thickness', '7,91', '', '8,05'],
      ['note', '', 'a;b', 'x\ny'],
    ]);
  });

  it('cannot start a formula where it is opened, while numbers and dashes stay', () => {
    expect(['=1+1', '+cmd', '@x', '-x', '\t=2'].map(defused)).toEqual(["'=1+1", "'+cmd", "'@x", "'-x", "'\t=2"]);
    expect(['-1.5', '-1,5', '+2', '8.01', 'north', '-'].map(defused)).toEqual([
      '-1.5',
      '-1,5',
      '+2',
      '8.01',
      'north',
      '-',
    ]);
  });

  it.each(['', ' ', '\u00a0', '\t', '\n', '\r\n', '\0', '\u200b', '\u2060', '\ufeff', '\u3000 \u00ad'])(
    'nor by a full-width sign or behind %j',
    (before) => {
      for (const sign of '=+-@＝＋－＠−') expect(defused(`${before}${sign}cmd|x`)).toBe(`'${before}${sign}cmd|x`);
      expect(defused(`${before}north`)).toBe(`${before}north`);
    },
  );
});

const inPieces = (text: string, size: number, separator: Separator) => {
  const cutter = createRowCutter(separator);
  const rows: string[][] = [];
  for (let i = 0; i < text.length; i += size) rows.push(...cutter.push(text.slice(i, i + size)));
  return [...rows, ...cutter.end()];
};

describe('a text that arrives in pieces', () => {
  it.each([
    ['comma', ','],
    ['tab', '\t'],
    ['semicolon', ';'],
  ] as const)('is cut into the same rows as the whole, by %s', (separator, mark) => {
    fc.assert(
      fc.property(table, fc.integer({ min: 1, max: 40 }), (rows, size) => {
        const text = toDelimited(rows, mark);
        fc.pre(text.trim() !== '');
        expect(inPieces(text, size, separator)).toEqual(splitRows(text, separator));
      }),
      { numRuns: 500 },
    );
  });
  it.each(['none', 'blanks'] as const)('is cut into lines, by %s', (separator) => {
    const part = fc.constantFrom('a', '8.01', ' ', '\t', '\n', '\r\n', '"', '\n\n');
    fc.assert(
      fc.property(fc.array(part, { maxLength: 25 }), fc.integer({ min: 1, max: 9 }), (parts, size) => {
        const text = parts.join('').replace(/\s+$/, '');
        fc.pre(text !== '');
        expect(inPieces(text, size, separator)).toEqual(splitRows(text, separator));
      }),
    );
  });
  it('keeps quotes inside plain cells, doubled quotes, and breaks of either sort', () => {
    for (const text of [
      '5" pipe,a\n6" pipe,b\n',
      '"a ""b""",c\r\n"d\r\ne",f\r\n',
      'a,b\r1,2\r',
      '"x',
      'a,""\n""\n\n"",""\n\n',
    ]) {
      for (let size = 1; size < 12; size++)
        expect(inPieces(text, size, 'comma'), `${text} by ${size}`).toEqual(splitRows(text, 'comma'));
    }
  });
});

describe('a text with line breaks of any sort and mixture, and stray quotes', () => {
  const lines = fc.constantFrom('\n', '\r\n', '\r');
  // Whole cells, so that the text is one that every careful reader cuts the same way: quoted, plain, plain with quotes inside, quoted and then plain.
  const plain = fc.constantFrom('8.01', 'a', ' x ', '5" pipe', 'a""b', '12,5'.replace(',', '.'), 'ü二');
  const quoted = fc
    .array(fc.constantFrom('a', ',', '""', '\n', '\r\n', '\r', ' '), { maxLength: 5 })
    .map((parts) => `"${parts.join('')}"`);
  const stray = fc.constantFrom('"5" pipe', '"" x', '"a,b" c', '"a\r\nb"c');
  const row = fc.array(fc.oneof(plain, quoted, stray), { minLength: 2, maxLength: 4 }).map((cells) => cells.join(','));
  const text = fc
    .array(fc.tuple(row, lines), { minLength: 1, maxLength: 8 })
    .map((rows) => rows.map(([cells, line]) => cells + line).join(''));

  it('is cut as another library cuts it, whole and in pieces of any size', () => {
    const options = { record_delimiter: ['\r\n', '\n', '\r'], relax_quotes: true, relax_column_count: true };
    fc.assert(
      fc.property(text, fc.integer({ min: 1, max: 12 }), (whole, size) => {
        const rows = splitRows(whole, 'comma');
        expect(rows).toEqual(parseWithPeer(whole, options));
        expect(inPieces(whole, size, 'comma')).toEqual(rows);
      }),
      { numRuns: 2_000 },
    );
  });

  it('is cut into the same rows in pieces, whatever characters it is made of', () => {
    const any = fc.array(fc.constantFrom('a', '1', ',', ';', '\t', ' ', '"', '\n', '\r', '\r\n', '\ufeff'), {
      maxLength: 40,
    });
    const separators = fc.constantFrom<Separator>('comma', 'semicolon', 'tab', 'blanks', 'none');
    fc.assert(
      fc.property(any, fc.integer({ min: 1, max: 9 }), separators, (parts, size, separator) => {
        const whole = parts.join('');
        expect(inPieces(whole, size, separator)).toEqual(splitRows(whole, separator));
      }),
      { numRuns: 3_000 },
    );
  });

  it('keeps its columns: two of numbers, not one of decimal commas', () => {
    const mixed = 'a,b\r\n1,2\n3,4\n5,6\n';
    const { columns } = parseBlock(mixed, recogniseLayout(mixed));
    expect(columns.map(({ name, cells }) => [name, ...cells])).toEqual([
      ['a', '1', '3', '5'],
      ['b', '2', '4', '6'],
    ]);
  });
});

describe('JSON tables', () => {
  it('read lists of objects and objects of lists, with the digits as they were written', () => {
    expect(readJsonTable('[{"a": 12.30, "b": "n"}, {"b": null, "c": true, "a": -1e3}]')).toEqual({
      ok: true,
      rows: [
        ['a', 'b', 'c'],
        ['12.30', 'n', ''],
        ['-1e3', '', 'true'],
      ],
    });
    expect(readJsonTable('{"a": [1.0, 2.50], "b": ["x: 3.10"]}')).toEqual({
      ok: true,
      rows: [
        ['a', 'b'],
        ['1.0', 'x: 3.10'],
        ['2.50', ''],
      ],
    });
  });
  it.each([
    ['[1, 2]', 'Item 1 is not an object'],
    ['{"a": 1}', '“a” is not a list'],
    ['[{"a": {"b": 1}}]', '“a” of item 1 holds an object'],
    ['{"a": [[1]]}', 'Entry 1 of “a” holds a list'],
    ['[]', 'contains no rows'],
    ['"x"', 'must be a list'],
    ['{"a": [1,', 'This is not valid JSON'],
  ])('%s is refused with the place', (text, message) => {
    expect(readJsonTable(text)).toMatchObject({ ok: false, message: expect.stringContaining(message) });
  });
});

describe('a small file that would make a huge table', () => {
  it('is refused: a name of its own in every object, a long list beside many short ones', () => {
    const objects = JSON.stringify(Array.from({ length: 3_000 }, (_, i) => ({ [`n${i}`]: i })));
    expect(readJsonTable(objects)).toMatchObject({
      ok: false,
      message: expect.stringContaining('3000 columns of 3000 rows'),
    });
    const lists = {
      ...Object.fromEntries(Array.from({ length: 300 }, (_, i) => [`n${i}`, []])),
      long: new Array(9_000).fill(1),
    };
    expect(readJsonTable(JSON.stringify(lists))).toMatchObject({ ok: false });
  });

  it('is read where a row only ends in separators: they are no columns', () => {
    const text = `a${','.repeat(200_000)}\n${'1\n'.repeat(100_000)}`;
    const { columns, rows } = parseBlock(text, { ...recogniseLayout('a,b\n1,2'), separator: 'comma' });
    expect([columns.length, rows]).toEqual([1, 100_000]);
  });
});

describe('data packages', () => {
  const columns = [
    {
      name: 'thickness',
      unit: 'mm',
      kind: 'measure' as const,
      decimal: 'comma' as const,
      resolution: 0.01,
      lowerLimit: 7.5,
      target: 8,
      upperLimit: 8.5,
      about: null,
    },
    {
      name: 'kiln',
      unit: '',
      kind: 'label' as const,
      decimal: 'point' as const,
      resolution: null,
      lowerLimit: null,
      target: null,
      upperLimit: null,
      about: 'derived',
    },
  ];
  it('carry kinds, units, resolution, limits and target through the descriptor', () => {
    const read = readDescriptor(descriptorOf('Week 46', 'week 46.csv', columns));
    if (!('resources' in read)) throw new Error(read.message);
    expect(read.resources[0]).toMatchObject({ name: 'week-46', path: 'week 46.csv', dialect: { delimiter: ',' } });
    const [first, second] = read.resources[0]!.schema!.fields.map(columnOfField);
    expect(first).toEqual({
      unit: 'mm',
      kind: 'measure',
      decimal: 'comma',
      resolution: 0.01,
      lowerLimit: 7.5,
      target: 8,
      upperLimit: 8.5,
    });
    expect(second).toMatchObject({ kind: 'label', resolution: null });
  });
  it('of others bring their constraints as limits; what cannot be read is said', () => {
    expect(columnOfField({ name: 'x', type: 'number', constraints: { minimum: 1, maximum: 2 } })).toMatchObject({
      lowerLimit: 1,
      upperLimit: 2,
    });
    expect(readDescriptor('{')).toEqual({ message: 'datapackage.json is not valid JSON.' });
    expect(readDescriptor('{"resources": []}')).toMatchObject({ message: expect.stringContaining('resources') });
  });
});

describe('levels of a label', () => {
  const cells = ['kiln A', 'Kiln a ', 'kiln B', 'kiln A', '', 'kiln C'];
  it('are counted in order of first appearance, or as ordered, with merged spellings together', () => {
    const names = (levels: Parameters<typeof countLevels>[1]) =>
      countLevels(cells, levels).map(({ name, count }) => [name, count]);
    expect(names(null)).toEqual([
      ['kiln A', 2],
      ['Kiln a ', 1],
      ['kiln B', 1],
      ['kiln C', 1],
    ]);
    const merged = withMerged({ order: ['kiln C', 'Kiln a '], merged: [] }, ['kiln A', 'Kiln a '], 'kiln A');
    expect(names(merged)).toEqual([
      ['kiln C', 1],
      ['kiln A', 3],
      ['kiln B', 1],
    ]);
    expect(levelReader(merged)('Kiln a ')).toBe('kiln A');
    // Merged again into another, the first spelling follows.
    expect(levelReader(withMerged(merged, ['kiln A'], 'kiln B'))('Kiln a ')).toBe('kiln B');
  });
  it('that differ in blanks and case only are pointed out', () => {
    expect(likelySame(countLevels(cells, null))).toEqual([['kiln A', 'Kiln a ']]);
  });
});

describe('stacking and spreading', () => {
  it('stack one below the other with the set-aside readings, and spread back', () => {
    const stacked = stack([
      { name: 'north', cells: ['1', '', '3', '', ''], aside: new Map([[3, 'chipped']]) },
      { name: 'south', cells: ['4', '5'], aside: new Map() },
    ]);
    expect(stacked).toEqual({
      values: ['1', '', '3', '4', '5'],
      labels: ['north', 'north', 'north', 'south', 'south'],
      aside: [{ row: 3, reason: 'chipped' }],
    });
    const back = spread({ cells: stacked.values, aside: new Map([[3, 'chipped']]) }, stacked.labels, [
      'north',
      'south',
    ]);
    expect(back).toEqual([
      { name: 'north', cells: ['1', '', '3'], aside: [{ row: 3, reason: 'chipped' }] },
      { name: 'south', cells: ['4', '5'], aside: [] },
    ]);
  });
});
