import { describe, expect, it } from 'vitest';
import { advance } from '../../src/analyses/registry.js';
import { describeParagraph } from '../../src/analyses/shape/describe-words.js';
import type { DescribeResult } from '../../src/analyses/shape/describe-result.js';
import type { DotsResult } from '../../src/analyses/shape/dots.js';
import type { HistogramResult } from '../../src/analyses/shape/histogram.js';
import type { StemAndLeafResult } from '../../src/analyses/shape/stem-and-leaf.js';
import { BIN_RULES, binsOf } from '../../src/describe/histogram.js';
import { roundTo } from '../../src/numeric/round-to.js';
import { derivedKind } from '../../src/table/derived-step.js';
import {
  derive,
  readFormula,
  sampleOfColumn,
  type Derivation,
  type Table,
  type TableColumn,
} from '../../src/table/index.js';

const BASE = {
  unit: '',
  decimal: 'point',
  thousands: 'none',
  resolution: null,
  levels: null,
  frequencies: null,
} as const;
const column = (id: string, derivation: Derivation | null = null): TableColumn => ({
  ...BASE,
  ...{ id, name: id.slice(0, 1), kind: 'measure', derivation },
});
const CELLS: Record<string, string[]> = {
  // Steps of 0.1, of 0.05, and whole numbers.
  'a-000000': ['0.1', '0.2', '0.4', '0.7', '1.3', '2.9'],
  'b-000000': ['0.25', '0.5', '0.45', '0.15', '1.85', '2.05'],
  'k-000000': ['3', '4', '4', '6', '3', '5'],
};
function tableWith(derivation: Derivation): { table: Table; made: TableColumn } {
  const made = column('x-000000', derivation);
  const columns = [...Object.keys(CELLS).map((id) => column(id)), made];
  const rowCount = derivation.kind === 'made-up' ? derivation.count : 6;
  return { table: { rowCount, columns, cells: CELLS, setAside: () => new Set() }, made };
}
function sampleOf(derivation: Derivation) {
  const { table, made } = tableWith(derivation);
  return sampleOfColumn(table, made);
}
function formula(typed: string): Derivation {
  const read = readFormula(
    typed,
    Object.keys(CELLS).map((id) => column(id)),
  );
  if (!read.ok) throw new Error(read.message);
  return { kind: 'formula', expression: read.stored };
}
const BINOMIAL: Derivation = {
  ...{ kind: 'made-up', family: 'binomial', parameters: { trials: 50, probability: 0.45 } },
  ...{ count: 100, step: null, seed: 7 },
};
function done<Result>(id: string, request: object = {}): Result {
  const sample = sampleOf(BINOMIAL);
  const stage = advance(id, { column: 'x', ...request }, sample, []);
  if (!stage.done) throw new Error('It should come at once.');
  return stage.result as Result;
}

describe('columns that follow others', () => {
  it.each([
    ['a + b', 0.05],
    ['a - k', 0.1],
    ['a + 0.25', 0.01],
    ['k - 1', 1],
    ['k * k', 1],
    ['a * 10', 1],
    ['a * b', 0.005],
    ['-abs(a)', 0.1],
    ['round(b, 0.5)', 0.5],
    ['round(sqrt(k))', 1],
    ['floor(a)', 1],
    ['max(a, k)', 0.1],
    ['if(k > 3, a, b)', 0.05],
    ['k > 3', 1],
    ['row', 1],
    ['sqrt(a)', null],
    ['a / 3', null],
    ['mean(a) + a', null],
  ])('%s keeps to steps of %s', (typed, step) => {
    expect(sampleOf(formula(typed)).resolution).toBe(step);
  });

  it('carry no dust where they keep to steps: 0.1 + 0.2 is 0.3', () => {
    const sum = formula('a + a + a');
    expect(derive(tableWith(sum).table, tableWith(sum).made).cells).toEqual(['0.3', '0.6', '1.2', '2.1', '3.9', '8.7']);
  });

  it('take their step from what they are: ranks, roundings, counts; scores have none', () => {
    expect(sampleOf({ kind: 'rank', source: 'k-000000' }).resolution).toBe(0.5);
    expect(sampleOf({ kind: 'rank', source: 'a-000000' }).resolution).toBe(1);
    expect(sampleOf({ kind: 'rounded', source: 'a-000000', step: 0.5 }).resolution).toBe(0.5);
    expect(sampleOf(BINOMIAL).resolution).toBe(1);
    expect(sampleOf({ kind: 'standard-score', source: 'a-000000', divisor: 'sample' }).resolution).toBeNull();
    const made = (family: string, parameters: Record<string, number>) =>
      ({ ...BINOMIAL, family, parameters, step: null }) as Derivation;
    expect(sampleOf(made('normal', { mean: 8, sd: 0.1 })).resolution).toBeNull();
    expect(sampleOf({ ...made('normal', { mean: 8, sd: 0.1 }), step: 0.01 } as Derivation).resolution).toBe(0.01);
    expect(derivedKind(BINOMIAL, ['3', '0'], '')).toBe('count');
    expect(derivedKind(made('normal', { mean: 8, sd: 1 }), ['3.1'], '')).toBe('measure');
  });

  it('have scores whose mean is 0, not rounding errors', () => {
    const scores = sampleOf({ kind: 'standard-score', source: 'a-000000', divisor: 'sample' });
    const stage = advance('describe', { column: 'x' }, scores, []);
    expect((stage as { result: DescribeResult }).result.mean).toBe(0);
  });
});

describe('rounding to a step', () => {
  it('is to the nearest, halves away from 0, with the digits of the step', () => {
    expect(roundTo(1234567890123456, 1)).toBe(1234567890123456);
    expect(roundTo(2.4999999995, 1)).toBe(2);
    expect(roundTo(2.5, 1)).toBe(3);
    expect(roundTo(-2.5, 1)).toBe(-3);
    expect(roundTo(8.125, 0.05)).toBe(8.15);
    expect(roundTo(0.7, 0.1)).toBe(0.7);
    expect(roundTo(1e22, 1)).toBe(1e22);
    for (let k = -500; k <= 500; k++) expect(roundTo(Number(`${k}e-2`), 0.01)).toBe(k === 0 ? 0 : Number(`${k}e-2`));
  });
});

describe('a made-up column of whole numbers', () => {
  it('is drawn one value a bin, on half-step edges, at its few values', () => {
    const { edges, width, others, notes } = done<HistogramResult>('histogram');
    expect(width).toBe(1);
    edges.forEach((edge) => expect(Math.abs(edge % 1)).toBe(0.5));
    expect(notes).toEqual([]);
    for (const other of others) expect((other.edges[1]! - other.edges[0]!) % 1).toBe(0);
  });

  it('is cut in whole steps by every rule, however many values; other widths are pointed out', () => {
    const values = Float64Array.from({ length: 200 }, (_, i) => (i * i) % 97);
    for (const rule of BIN_RULES.filter((one) => one !== 'width')) {
      for (const roundUp of [false, true]) {
        const { edges, width, notes } = binsOf(values, 1, { rule, count: 7, roundUp });
        expect(width % 1, `${rule} ${roundUp}`).toBe(0);
        expect(Math.abs(edges[0]! % 1), `${rule} ${roundUp}`).toBe(0.5);
        expect(notes).toEqual([]);
      }
    }
    expect(binsOf(values, 1, { rule: 'width', width: 2.43 }).notes.map(({ code }) => code)).toEqual(['uneven-bins']);
    // A width of one's own that is not given yet is a default too.
    const unsaid = binsOf(values, 1, { rule: 'width' });
    expect(unsaid.notes.map(({ code }) => code)).toEqual(['no-width']);
    expect(Number.isInteger(unsaid.width)).toBe(true);
    // Only the bins that are drawn are spoken of.
    expect(binsOf(values, 1, { rule: 'width', width: 0.0001 }).notes.map(({ code }) => code)).toEqual(['widened']);
  });

  it('is shown in stacks on its numbers, and on 5 to 20 lines of stems', () => {
    for (const at of done<DotsResult>('dots').parts[0]!.at) expect(Number.isInteger(at)).toBe(true);
    const { leafUnit, lines } = done<StemAndLeafResult>('stem-and-leaf').parts[0]!;
    expect(leafUnit).toBe(1);
    expect(lines.length).toBeGreaterThanOrEqual(5);
    expect(lines.length).toBeLessThanOrEqual(20);
  });

  it('has no gap between neighbouring numbers, and figures without a tail of zeros', () => {
    const result = done<DescribeResult>('describe');
    expect(result.claims.found).not.toContain('gap');
    expect(describeParagraph(result, 0.05)).not.toMatch(/\d\d\.\d{2}/);
  });
});
