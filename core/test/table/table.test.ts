import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { roundTo } from '../../src/format.js';
import {
  arrangedRows,
  cellsOf,
  circleThrough,
  decimalsToShow,
  derivationSchema,
  derive,
  followersObjection,
  followsSentence,
  frozenCells,
  newMemo,
  readFormula,
  boundsWith,
  renamedWith,
  sampleInParts,
  sampleOfColumn,
  shownFormula,
  type Derivation,
  type Table,
  type TableColumn,
} from '../../src/table/index.js';
import { power } from '../../src/table/functions.js';

const base = {
  unit: '',
  decimal: 'point',
  thousands: 'none',
  resolution: null,
  levels: null,
  frequencies: null,
} as const;
const written = (id: string, kind: TableColumn['kind'] = 'measure', more: Partial<TableColumn> = {}): TableColumn => ({
  ...base,
  ...{ id, name: id.replace(/-.*/, '').replaceAll('_', ' '), kind, derivation: null },
  ...more,
});
const derived = (derivation: Derivation): TableColumn => ({ ...written('derived-0'), derivation });

function tableOf(columns: TableColumn[], cells: Record<string, string[]>, aside: Record<string, number[]> = {}): Table {
  const rowCount = Math.max(0, ...Object.values(cells).map(({ length }) => length));
  return { rowCount, columns, cells, setAside: (id) => new Set(aside[id] ?? []) };
}
const THICKNESS = ['7.91', '8.08', 'x', '', '7.97', '9.87'];
const thickness = tableOf(
  [written('thickness-1'), written('kiln-0001', 'label')],
  { 'thickness-1': THICKNESS, 'kiln-0001': ['north', 'south', 'south', 'north', ' north', ''] },
  { 'thickness-1': [6] },
);
const numbersOf = (table: Table, derivation: Derivation) => [...derive(table, derived(derivation)).values];

/** A formula over columns a, b and “water absorption”, for one row. */
function formula(typed: string, row: Partial<Record<'a' | 'b' | 'w' | 'kiln', string>> = {}) {
  const columns = [
    written('a-000000'),
    written('b-000000'),
    written('water_absorption-1'),
    written('kiln-000', 'label'),
  ];
  const read = readFormula(typed, columns);
  if (!read.ok) return read;
  const cells = {
    'a-000000': [row.a ?? '2'],
    'b-000000': [row.b ?? '3'],
    'water_absorption-1': [row.w ?? '0.5'],
    'kiln-000': [row.kiln ?? 'north'],
  };
  const table = tableOf(columns, cells);
  const result = derive(table, derived({ kind: 'formula', expression: read.stored }));
  return result.fault ?? result.cells[0];
}

describe('formulas', () => {
  it.each([
    ['a + b * 2', '8'],
    ['(a + b) * 2', '10'],
    ['-a^2', '-4'],
    ['a^-1', '0.5'],
    ['2^0.5', String(Math.SQRT2)],
    ['[water absorption] / a', '0.25'],
    ['A + B', '5'],
    ['7 mod 3', '1'],
    ['-1 mod 3', '2'],
    ['a < b', '1'],
    ['a == 2 and not (b > 5)', '1'],
    ['1 < a < b', '1'],
    ['1 < b < a', '0'],
    ['if(a > 1, b, 0)', '3'],
    ['a > 5 ? 1 : -1', '-1'],
    ['if(a > 1, "thick", "thin")', 'thick'],
    ['kiln == "north"', '1'],
    ['kiln != "north"', '0'],
    ['log10(1000) + log2(8) + ln(1)', '6'],
    ['exp(0) + sqrt(16) + abs(-a)', '7'],
    ['round(8.125, 0.05)', '8.15'],
    ['round(-2.5)', '-3'],
    ['min(b, a, 9) + max(1, a)', '4'],
    ['row', '1'],
    ['mean(a) - a', '0'],
    ['floor(2.7) + ceil(2.2)', '5'],
    ['pi > 3.14159 and e < 2.7183', '1'],
  ])('%s gives %s', (typed, expected) => {
    expect(formula(typed)).toBe(expected);
  });

  it.each([
    ['a + thicknes', 4, 'There is no column “thicknes”.'],
    ['a + wat', 4, 'Was [water absorption] meant?'],
    ['a + (b', 6, 'Parenthesis ) expected'],
    ['[water absorption] * (a', 23, 'Parenthesis ) expected'],
    ['[water absorption] +* a', 20, 'Value expected'],
    ['a + [water', 4, 'is not closed'],
    ['log(a)', 0, 'ln or log10'],
    ['2 * frobnicate(a)', 4, 'There is no function “frobnicate”'],
    ['a = 2', 2, 'To compare, write =='],
    ['a; b', 1, 'a single expression'],
    ['1 + round(a, 1, 2)', 4, 'round is written round(x, step)'],
    ["a'", 1, 'is not allowed in a formula'],
    ['', 0, 'empty'],
  ])('%s is refused at character %i: %s', (typed, at, message) => {
    expect(formula(typed)).toMatchObject({ ok: false, at, message: expect.stringContaining(message) });
  });

  it.each([
    ['kiln * 2', 'Compare a label with == or != and a word in quotes: kiln == "north".'],
    ['-kiln', 'a label can only be compared'],
    ['kiln < "north"', 'Compare a label with == or != and a word in quotes: kiln == "north".'],
    ['if(a > 1, b, "thin")', 'Both results of if() must be numbers, or both must be words.'],
  ])('%s says what labels can do', (typed, message) => {
    expect(formula(typed)).toContain(message);
  });

  it('have no way to anything but numbers: no property, assignment, list or unknown name gets through', () => {
    for (const typed of [
      'a.constructor',
      'constructor',
      'toString()',
      '[1,2]',
      'a[1]',
      '{x: 1}',
      'f(x) = x',
      '__proto__',
      'import("x")',
    ]) {
      expect(formula(typed), typed).toMatchObject({ ok: false });
    }
  });

  it('never throw, whatever is typed', () => {
    const part = fc.constantFrom(
      'a',
      'b',
      '[water absorption]',
      '+',
      '-',
      '*',
      '/',
      '^',
      '(',
      ')',
      ',',
      '"x"',
      '2',
      '.',
      '<',
      '==',
      'if',
      'min',
      ' ',
      '?',
      ':',
      '[',
      '"',
      'mod',
      "'",
    );
    fc.assert(
      fc.property(fc.array(part, { maxLength: 14 }), (parts) => {
        const result = formula(parts.join(''));
        expect(typeof result === 'string' || (typeof result === 'object' && result.at >= 0)).toBe(true);
      }),
      { numRuns: 1500 },
    );
  });

  it('follow their columns through a change of name', () => {
    const columns = [{ id: 'id-00001', name: 'breaking force' }];
    const read = readFormula('[Breaking Force] / 2', columns);
    expect(read).toMatchObject({ ok: true, stored: '[id-00001] / 2', uses: ['id-00001'] });
    expect(shownFormula('[id-00001] / 2', [{ id: 'id-00001', name: 'force' }])).toBe('force / 2');
    expect(shownFormula('[id-00001] / 2', [{ id: 'id-00001', name: 'peak force' }])).toBe('[peak force] / 2');
  });

  it('leave a row empty where a column is, and list a row without a finite value', () => {
    const table = tableOf([written('a-000000')], { 'a-000000': ['1', '0', '', 'n/a'] });
    const result = derive(table, derived({ kind: 'formula', expression: '1 / [a-000000]' }));
    expect(result.cells).toEqual(['1', '', '', '']);
    expect(result.failed).toEqual([2]);
  });

  it('raise to powers within 1e-13 of the engine’s own', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1e-3, max: 1e3, noNaN: true }),
        fc.double({ min: -40, max: 40, noNaN: true }),
        (x, y) => {
          const expected = x ** y;
          expect(Math.abs(power(x, y) - expected)).toBeLessThanOrEqual(1e-13 * expected);
        },
      ),
    );
    expect([power(0, -1), power(-8, 1 / 3), power(-2, 99)]).toEqual(
      [Infinity, NaN, -(2 ** 99)].map((v, i) => (i === 2 ? expect.closeTo(v, -18) : v)),
    );
  });
});

describe('derived columns', () => {
  it('score with either divisor, without the readings that do not count', () => {
    const [a, b, c] = [7.91, 8.08, 7.97];
    const mean = (a + b + c) / 3;
    const squares = (a - mean) ** 2 + (b - mean) ** 2 + (c - mean) ** 2;
    const sample = numbersOf(thickness, { kind: 'standard-score', source: 'thickness-1', divisor: 'sample' });
    expect(sample[0]).toBeCloseTo((a - mean) / Math.sqrt(squares / 2), 12);
    expect(sample.slice(2, 4)).toEqual([NaN, NaN]);
    expect(sample[5]).toBeNaN();
    const population = numbersOf(thickness, { kind: 'standard-score', source: 'thickness-1', divisor: 'population' });
    expect(population[1]).toBeCloseTo((b - mean) / Math.sqrt(squares / 3), 12);
    expect(numbersOf(thickness, { kind: 'given-score', source: 'thickness-1', mean: 8, sd: 0.1 })[1]).toBeCloseTo(
      0.8,
      12,
    );
  });

  it('are standard: mean 0 and sd 1, whatever the readings', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -1000, max: 1000 }), { minLength: 3, maxLength: 30 }), (values) => {
        fc.pre(new Set(values).size > 1);
        const table = tableOf([written('a-000000')], { 'a-000000': values.map(String) });
        const column = derived({ kind: 'standard-score', source: 'a-000000', divisor: 'sample' });
        const z = [...sampleOfColumn(table, column).values];
        const mean = z.reduce((sum, x) => sum + x, 0) / z.length;
        expect(mean).toBeCloseTo(0, 9);
        expect(z.reduce((sum, x) => sum + x * x, 0) / (z.length - 1)).toBeCloseTo(1, 9);
      }),
    );
  });

  it('give distance, rank with shared ranks, share and rounding', () => {
    const table = tableOf([written('a-000000'), written('n-000000', 'count')], {
      'a-000000': ['2', '5', '2', '7'],
      'n-000000': ['4', '5', '1', '0'],
    });
    expect(numbersOf(table, { kind: 'distance', source: 'a-000000', absolute: false })).toEqual([-2, 1, -2, 3]);
    expect(numbersOf(table, { kind: 'distance', source: 'a-000000', absolute: true })).toEqual([2, 1, 2, 3]);
    expect(numbersOf(table, { kind: 'rank', source: 'a-000000' })).toEqual([1.5, 3, 1.5, 4]);
    const share = derive(table, derived({ kind: 'share', source: 'a-000000', trials: 'n-000000' }));
    expect([...share.values]).toEqual([0.5, 1, NaN, NaN]);
    expect(share.failed).toEqual([3, 4]);
    expect(numbersOf(table, { kind: 'share', source: 'a-000000', trials: 10 })).toEqual([0.2, 0.5, 0.2, 0.7]);
    expect(numbersOf(table, { kind: 'rounded', source: 'a-000000', step: 5 })).toEqual([0, 5, 0, 5]);
  });

  it('are shown with one number of decimals: five figures for the greatest, no more than are needed', () => {
    const decimals = (...values: number[]) => decimalsToShow(Float64Array.from(values));
    expect(decimals(2.8, 1.2, 0.4, NaN)).toBe(1);
    expect(decimals(0.012 * 100, 0.028 * 100)).toBe(1);
    expect(decimals(1 / 3, 250.123456)).toBe(2);
    expect(decimals(0.00123456, 0.001)).toBe(7);
    expect(decimals(12, 700)).toBe(0);
    expect(decimals(1e-9)).toBe(10);
    expect(decimals()).toBe(0);
  });

  it('say why they have no values: no spread, no readings, a removed source', () => {
    const equal = tableOf([written('a-000000')], { 'a-000000': ['2', '2'] });
    const fault = (table: Table, derivation: Derivation) => derive(table, derived(derivation)).fault;
    expect(fault(equal, { kind: 'standard-score', source: 'a-000000', divisor: 'sample' })).toContain(
      'Standard scores need readings that vary.',
    );
    expect(
      fault(tableOf([written('a-000000')], { 'a-000000': [''] }), {
        kind: 'distance',
        source: 'a-000000',
        absolute: true,
      }),
    ).toContain('no readings');
    expect(fault(equal, { kind: 'rank', source: 'gone-0000' })).toContain('removed');
  });

  it('follow a chain of columns, and a circle is named instead of followed', () => {
    const first = { ...written('first-000'), derivation: { kind: 'formula', expression: '[a-000000] * 2' } as const };
    const second = { ...written('second-00'), derivation: { kind: 'formula', expression: '[first-000] + 1' } as const };
    const table = tableOf([written('a-000000'), first, second], { 'a-000000': ['1', '2'] });
    expect(cellsOf(table, second)).toEqual(['3', '5']);
    const circle = { ...first, derivation: { kind: 'formula', expression: '[second-00]' } as const };
    expect(circleThrough([circle, second], 'first-000')).toBe(true);
    expect(derive({ ...table, columns: [circle, second] }, circle).fault).toContain('circle');
    expect(circleThrough(table.columns, 'second-00')).toBe(false);
  });

  it('are computed again only if their inputs have changed', () => {
    const memo = newMemo();
    const column = derived({ kind: 'rank', source: 'thickness-1' });
    const once = derive(thickness, column, memo);
    expect(derive({ ...thickness, cells: { ...thickness.cells, 'kiln-0001': [] } }, column, memo)).toBe(once);
    const edited = { ...thickness, cells: { ...thickness.cells, 'thickness-1': ['1', ...THICKNESS.slice(1)] } };
    expect(derive(edited, column, memo)).not.toBe(once);
    expect(derive({ ...thickness, setAside: () => new Set<number>() }, column, memo)).not.toBe(once);
  });

  it('samples, whole or in parts, are the same while only limits, target or claims of the column change', () => {
    const memo = newMemo();
    const [column, kiln] = thickness.columns as [TableColumn, TableColumn];
    const other = written('other-0001');
    const table = { ...thickness, columns: [column, kiln, other] };
    const by = [null, { split: kiln }, { beside: [other] }];
    const samples = (of: TableColumn, from = table) => by.map((parts) => sampleInParts(from, of, parts, memo));
    const once = samples(column);
    samples(column).forEach((sample, i) => expect(sample).toBe(once[i]));
    const limited = { ...column, lowerLimit: 7, claimedMean: 8 } as TableColumn;
    samples(limited, { ...table, columns: [limited, kiln, other] }).forEach((sample, i) =>
      expect(sample).toBe(once[i]),
    );
    samples({ ...column, unit: 'cm' }).forEach((sample, i) => expect(sample).not.toBe(once[i]));
    const merged = { ...kiln, levels: { order: [], merged: [{ from: 'south', into: 'north' }] } };
    const fewer = sampleInParts(table, column, { split: merged }, memo).groups!.samples.length;
    expect(fewer).toBe(once[1]!.groups!.samples.length - 1);
  });

  it('made up from a seed are the same every time, and another seed gives others', () => {
    const made = (seed: number, more: object = {}) =>
      derivationSchema.parse({
        kind: 'made-up',
        family: 'normal',
        parameters: { mean: 8, sd: 0.1 },
        count: 500,
        step: 0.01,
        seed,
        ...more,
      });
    const empty = tableOf([], {});
    const table = { ...empty, rowCount: 500 };
    const values = numbersOf(table, made(7));
    expect(numbersOf(table, made(7))).toEqual(values);
    expect(numbersOf(table, made(8))).not.toEqual(values);
    expect(values.every((x) => x === roundTo(x, 0.01) && String(x).length <= 4)).toBe(true);
    const mean = values.reduce((sum, x) => sum + x, 0) / 500;
    expect(Math.abs(mean - 8)).toBeLessThan((4 * 0.1) / Math.sqrt(500));
    const uniform = numbersOf(table, made(7, { family: 'uniform', parameters: { lower: 2, upper: 5 }, step: null }));
    expect(Math.min(...uniform)).toBeGreaterThan(2);
    expect(Math.max(...uniform)).toBeLessThan(5);
    expect(Math.abs(uniform.reduce((sum, x) => sum + x, 0) / 500 - 3.5)).toBeLessThan((4 * 3) / Math.sqrt(12 * 500));
  });

  it.each([
    [
      { kind: 'made-up', family: 'normal', parameters: { mean: 8, sd: 0 }, count: 5, step: null, seed: 1 },
      'The standard deviation is a number above 0, not 0.',
    ],
    [
      { kind: 'made-up', family: 'uniform', parameters: { lower: 5, upper: 2 }, count: 5, step: null, seed: 1 },
      'The upper limit must be above the lower limit, 5.',
    ],
    [{ kind: 'rounded', source: 'a-000000', step: 0 }, 'above 0'],
    [{ kind: 'given-score', source: 'a-000000', mean: 1, sd: -1 }, 'above 0'],
  ])('%o is refused', (derivation, message) => {
    expect(derivationSchema.safeParse(derivation).error?.issues[0]!.message).toContain(message);
  });
});

describe('values with frequencies', () => {
  const column = written('pinholes-1', 'measure', { frequencies: 'tiles-000' });
  const table = tableOf([column, written('tiles-000', 'count')], {
    'pinholes-1': ['0', '1', '2', '3', '4'],
    'tiles-000': ['3', '2', '0', 'x', '1.5'],
  });
  it('repeat each value by its frequency; an invalid frequency makes the row unreadable', () => {
    const sample = sampleOfColumn(table, column);
    expect([...sample.values]).toEqual([0, 0, 0, 1, 1]);
    expect([...sample.rows]).toEqual([1, 1, 1, 2, 2]);
    expect(sample.unreadable).toBe(2);
  });
});

describe('ways of looking at the table', () => {
  const table = tableOf(
    [written('a-000000'), written('kiln-0001', 'label')],
    { 'a-000000': ['3', '', '<0.5', '10', '3'], 'kiln-0001': ['b2', 'b10', 'b2', '', 'b10'] },
    { 'a-000000': [4] },
  );
  const rows = (sort: [string, boolean][], only: Parameters<typeof arrangedRows>[1]['only'] = []) => [
    ...(arrangedRows(table, { sort: sort.map(([column, falling]) => ({ column, falling })), only }) ?? []),
  ];

  it('sort numbers by size, then limits, with missing cells always last, and equal rows as stored', () => {
    expect(rows([['a-000000', false]])).toEqual([1, 5, 4, 3, 2]);
    expect(rows([['a-000000', true]])).toEqual([3, 4, 1, 5, 2]);
    expect(
      rows([
        ['kiln-0001', false],
        ['a-000000', true],
      ]),
    ).toEqual([3, 1, 5, 2, 4]);
    expect(arrangedRows(table, { sort: [], only: [] })).toBeNull();
  });

  it('sort levels in the analyst’s order', () => {
    const columns = [table.columns[0]!, { ...table.columns[1]!, levels: { order: ['b10', 'b2'], merged: [] } }];
    const found = arrangedRows({ ...table, columns }, { sort: [{ column: 'kiln-0001', falling: false }], only: [] });
    expect([...found!]).toEqual([2, 5, 1, 3, 4]);
  });

  it('keep rows by level, range with its ends, and set-aside state', () => {
    expect(rows([], [{ kind: 'levels', column: 'kiln-0001', levels: ['b2'] }])).toEqual([1, 3]);
    expect(rows([], [{ kind: 'range', column: 'a-000000', from: 3, to: 10 }])).toEqual([1, 4, 5]);
    expect(rows([], [{ kind: 'range', column: 'a-000000', from: null, to: 3 }])).toEqual([1, 5]);
    expect(rows([], [{ kind: 'set-aside', show: 'only' }])).toEqual([4]);
    expect(rows([], [{ kind: 'set-aside', show: 'without' }])).toEqual([1, 2, 3, 5]);
  });
});

describe('how far a column reaches', () => {
  const madeUp = (count: number): TableColumn => ({
    ...written('made_up-0'),
    derivation: { kind: 'made-up', family: 'normal', parameters: { mean: 8, sd: 1 }, count, step: 0.5, seed: 1 },
  });
  const mass = written('mass-000');
  const plain = (cells: string[], rows: number, others: TableColumn[]): Table => ({
    ...tableOf([mass, ...others], { 'mass-000': [...cells, ...Array.from({ length: rows - cells.length }, () => '')] }),
    rowCount: rows,
  });

  it('rows that only a made-up column fills are no missing readings of another', () => {
    const table = plain(['5.0', '', '5.5'], 10, [madeUp(10)]);
    expect(sampleOfColumn(table, mass)).toMatchObject({ missing: 1 });
    expect(sampleOfColumn(table, table.columns[1]!)).toMatchObject({ missing: 0 });
    const twice: TableColumn = {
      ...written('twice-00'),
      derivation: { kind: 'formula', expression: '[mass-000] * 2' },
    };
    const both = { ...table, columns: [...table.columns, twice] };
    expect(sampleOfColumn(both, twice)).toMatchObject({ missing: 1 });
    expect([...sampleOfColumn(both, twice).values]).toEqual([10, 11]);
  });

  it('a made-up column misses nothing after its last value; what follows from it reaches as far as the table', () => {
    const table = plain(['5.0', '5.5', '6.0', '6.5'], 4, [madeUp(2)]);
    expect(sampleOfColumn(table, table.columns[1]!)).toMatchObject({ missing: 0 });
    const rounded: TableColumn = {
      ...written('rounded-0'),
      derivation: { kind: 'rounded', source: 'made_up-0', step: 1 },
    };
    const both = { ...plain(['5.0'], 6, [madeUp(6)]), columns: [mass, madeUp(6), rounded] };
    expect(sampleOfColumn(both, rounded).values).toHaveLength(6);
  });

  it('without any made-up column every empty cell is missing, the last ones too', () => {
    const table = plain(['5.0', ''], 4, [written('other-00')]);
    expect(sampleOfColumn(table, mass)).toMatchObject({ missing: 3 });
  });

  it('follows a made-up column that is given other values, or taken out', () => {
    const memo = newMemo();
    expect(sampleOfColumn(plain(['5.0'], 9, [madeUp(9)]), mass, memo).missing).toBe(0);
    expect(sampleOfColumn(plain(['5.0'], 9, []), mass, memo).missing).toBe(8);
  });
});

describe('a column that follows, where it ends', () => {
  const source = written('source-0', 'measure', { name: 'mass', resolution: null });
  const named = (id: string, name: string, derivation: Derivation): TableColumn => ({
    ...written(id),
    name,
    derivation,
  });
  const frozen = (derivation: Derivation, cells: string[]) => {
    const column = { ...derived(derivation), resolution: null };
    const table = tableOf([source, column], { 'source-0': cells });
    return { texts: frozenCells(table, column), values: derive(table, column).values };
  };

  it('keeps the digits of its step when it is frozen, and every value bit for bit', () => {
    const { texts } = frozen({ kind: 'formula', expression: '[source-0] * 2' }, ['15.0', '15.5', '', '16.25']);
    expect(texts).toEqual(['30.00', '31.00', '', '32.50']);
    expect(frozen({ kind: 'rounded', source: 'source-0', step: 0.5 }, ['29.9', '30.2']).texts).toEqual([
      '30.0',
      '30.0',
    ]);
    const scores = frozen({ kind: 'standard-score', source: 'source-0', divisor: 'sample' }, ['1', '2', '4']);
    expect(scores.texts.map(Number)).toEqual([...scores.values]);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -9_999, max: 9_999 }), { minLength: 2, maxLength: 9 }), (steps) => {
        const cells = steps.map((step) => (step / 100).toFixed(2));
        const { texts: written_, values } = frozen({ kind: 'formula', expression: '[source-0] / 4 + 1' }, cells);
        expect(written_.map(Number)).toEqual([...values].map((x) => x + 0));
      }),
    );
  });

  it('says what it follows, and that freezing lets it be written into', () => {
    const column = named('score-00', 'score', { kind: 'rank', source: 'source-0' });
    expect(followsSentence({ ...column, derivation: column.derivation! }, [source, column])).toBe(
      'score is calculated from mass. Freeze it to edit it.',
    );
  });

  it('holds its source: all that follow are named with what to do', () => {
    const columns = [
      source,
      named('rank-000', 'rank', { kind: 'rank', source: 'source-0' }),
      named('twice-00', 'twice', { kind: 'formula', expression: '[source-0] * 2' }),
      { ...written('tally-00'), name: 'tally', frequencies: 'source-0' },
    ];
    expect(followersObjection(columns, ['source-0'])).toBe(
      'rank depends on mass, twice depends on mass, tally depends on mass. Freeze or remove rank, twice first. Let each row of tally be one reading first.',
    );
    expect(
      followersObjection(
        columns,
        columns.map(({ id }) => id),
      ),
    ).toBeNull();
    const many = Array.from({ length: 20 }, (_, i) =>
      named(`rank-${i}-0`, `r${i}`, { kind: 'rank', source: 'source-0' }),
    );
    expect(followersObjection([source, ...many], ['source-0'])).toContain('and 12 more');
  });

  it('is renamed with its source where it bears its usual name, and so are those after it', () => {
    const columns = [
      source,
      named('score-00', 'score of mass', { kind: 'standard-score', source: 'source-0', divisor: 'sample' }),
      named('rank-000', 'rank of score of mass', { kind: 'rank', source: 'score-00' }),
      named('mine-000', 'my own', { kind: 'rank', source: 'source-0' }),
    ];
    expect(renamedWith(columns, 'source-0', 'weight')).toEqual([
      { column: 'score-00', name: 'score of weight' },
      { column: 'rank-000', name: 'rank of score of weight' },
    ]);
    // A name that is taken meanwhile gets a number.
    const taken = [...columns, { ...written('other-00'), name: 'score of weight' }];
    expect(renamedWith(taken, 'source-0', 'weight')[0]).toEqual({ column: 'score-00', name: 'score of weight (2)' });
  });

  it('take limits and target from the column they transform, unless they have others of their own', () => {
    const limits = { lowerLimit: 2, target: null, upperLimit: 8 };
    const bounded = (id: string, derivation: Derivation | null, of: object) => ({
      ...{ ...written(id), derivation, lowerLimit: null, target: null, upperLimit: null },
      ...of,
    });
    const log = { kind: 'transformed', source: 'source-0', by: 'logarithm', lambda: null } as const;
    const turned = { kind: 'transformed', source: 'source-0', by: 'reciprocal', lambda: null } as const;
    const columns = [
      bounded('source-0', null, limits),
      bounded('logs-000', log, { lowerLimit: Math.log(2), upperLimit: Math.log(8) }),
      bounded('turned-0', turned, { lowerLimit: 0.125, upperLimit: 0.5 }),
      bounded(
        'square-0',
        { ...log, source: 'turned-0', by: 'square-root' },
        { lowerLimit: Math.sqrt(0.125), upperLimit: Math.sqrt(0.5) },
      ),
      bounded('own-0000', log, { lowerLimit: 1, upperLimit: 3 }),
    ];
    expect(boundsWith(columns, 'source-0', { lowerLimit: 0, target: 4, upperLimit: 16 })).toEqual([
      { column: 'logs-000', lowerLimit: null, target: Math.log(4), upperLimit: Math.log(16) },
      { column: 'turned-0', lowerLimit: 0.0625, target: 0.25, upperLimit: null },
      { column: 'square-0', lowerLimit: 0.25, target: 0.5, upperLimit: null },
    ]);
    expect(boundsWith(columns, 'source-0', limits)).toEqual([]);
  });
});
