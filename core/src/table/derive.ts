import { describe } from '../describe/describe.js';
import { distribution, familyByName } from '../distributions/registry.js';
import { settled } from '../numeric/settled.js';
import { compensatedSum } from '../numeric/sums.js';
import { createStream } from '../random/stream.js';
import { levelReader } from '../readings/levels.js';
import { readCells, sampleOfNumbers, toSample, type Sample } from '../readings/sample.js';
import type { Table, TableColumn } from './table.js';
import { sourcesOf, type Derivation } from './derivation.js';
import { derivedStep, stepByDerivation } from './derived-step.js';
import { evaluate, FormulaError, type Operand } from './evaluate.js';
import { readFormula } from './formula.js';
import { newMemo, remembered, type Derived, type DeriveMemo } from './memo.js';
import { reachOf } from './reach.js';
import { rounderOf, roundTo } from '../numeric/round-to.js';
import { normalScores, ranks } from '../transform/ranks.js';
import { transformed } from '../transform/transformation.js';

const columnOf = (table: Table, id: string): TableColumn | undefined => table.columns.find((c) => c.id === id);
const NO_CELLS: readonly string[] = [];

/** The cells of a column: as written, or as text of what was worked out. */
export function cellsOf(table: Table, column: TableColumn, memo: DeriveMemo = newMemo()): readonly string[] {
  return column.derivation ? derive(table, column, memo).cells : (table.cells[column.id] ?? NO_CELLS);
}

/** What is said of a column and changes its readings, or how another column reads it; not its limits, target and claims. */
const factsOf = ({ name, unit, kind, decimal, thousands, resolution, levels, frequencies, derivation }: TableColumn) =>
  JSON.stringify([name, unit, kind, decimal, thousands, resolution, levels, frequencies, derivation]);

/** What tells whether a column has to be read again: its facts, its set-aside rows, its cells, its frequencies. */
function inputsOfColumn(table: Table, column: TableColumn, memo: DeriveMemo): unknown[] {
  const times = column.frequencies === null ? undefined : columnOf(table, column.frequencies);
  const cells = column.derivation ? derive(table, column, memo) : cellsOf(table, column, memo);
  const aside = [...table.setAside(column.id)].join(',');
  return [factsOf(column), aside, cells, times && cellsOf(table, times, memo), reachOf(table, column)];
}

/** The readings of a column, written or derived, with its frequencies: what every analysis starts from. */
export function sampleOfColumn(table: Table, column: TableColumn, memo: DeriveMemo = newMemo()): Sample {
  return remembered(memo.samples, column.id, inputsOfColumn(table, column, memo), () => {
    const { derivation } = column;
    const aside = table.setAside(column.id);
    const times = column.frequencies === null ? undefined : columnOf(table, column.frequencies);
    const reach = reachOf(table, column);
    if (derivation && !times) {
      const values = derive(table, column, memo).values.subarray(0, reach);
      return sampleOfNumbers({ ...column, resolution: resolutionOfDerived(table, column, memo) }, values, aside);
    }
    const counted = times && { cells: cellsOf(table, times, memo), format: formatOf(times) };
    const all = cellsOf(table, column, memo);
    const cells = reach < all.length ? all.slice(0, reach) : all;
    const read = readCells(cells, formatOf(column), memo.read.get(column.id));
    memo.read.set(column.id, read);
    return toSample({ ...column, ...formatOf(column) }, cells, aside, counted ?? null, read);
  });
}

/** The resolution of each column of numbers. */
function stepsOfColumns(table: Table, memo: DeriveMemo): (id: string) => number | null {
  return (id) => {
    const source = columnOf(table, id);
    return source && source.kind !== 'label' ? sampleOfColumn(table, source, memo).resolution : null;
  };
}

/** The resolution of a derived column: as the analyst gave it, else the step that it keeps to. */
function resolutionOfDerived(table: Table, column: TableColumn, memo: DeriveMemo): number | null {
  if (column.resolution !== null) return column.resolution;
  const { values, fault } = derive(table, column, memo);
  return fault === null ? derivedStep(column.derivation!, values, table.columns, stepsOfColumns(table, memo)) : null;
}

/** A value of a column that keeps to a step, without the dust of the operations: 0.1 + 0.2 is 0.3. */
function onStep(x: number, step: number): number {
  const whole = roundTo(x, step);
  return Math.abs(whole - x) < 1e-6 * step ? whole : x;
}

const PLAIN = { decimal: 'point', thousands: 'none' } as const;
/** Worked-out cells are plain numbers, however the sources are written. */
const formatOf = (column: TableColumn) => (column.derivation ? PLAIN : column);

/** A column's numbers by row: NaN where a cell is missing, no number, beyond a limit, or set aside. */
function numbersByRow(table: Table, column: TableColumn, memo: DeriveMemo): Float64Array {
  const result = new Float64Array(table.rowCount).fill(NaN);
  // Each row once, whatever its frequency.
  const { values, rows } = sampleOfColumn(
    table,
    { ...column, frequencies: null },
    column.frequencies === null ? memo : newMemo(),
  );
  for (let k = 0; k < rows.length; k++) result[rows[k]! - 1] = values[k]!;
  return result;
}

/** Distances from a mean, less what rounding has left of their own mean, so that they add up to 0; those that are zero up to rounding are 0. */
function about(values: Float64Array, mean: number): Float64Array {
  const distances = values.map((x) => settled(x - mean, Math.max(Math.abs(x), Math.abs(mean))));
  const present = distances.filter((d) => !Number.isNaN(d));
  const left = compensatedSum(present) / present.length;
  // More than rounding: readings that count several times.
  return Math.abs(left) > 4 * Number.EPSILON * Math.abs(mean)
    ? distances
    : distances.map((d) => (d === 0 ? 0 : d - left));
}

/** Numbers or words by row, before they are turned into cells. */
function workOut(table: Table, derivation: Derivation, memo: DeriveMemo): Operand {
  const column = (id: string): TableColumn => {
    const found = columnOf(table, id);
    if (!found) throw new FormulaError('A column it depends on was removed.');
    return found;
  };
  const numbers = (id: string) => numbersByRow(table, column(id), memo);
  const figures = (id: string) => {
    const { values, resolution, name } = sampleOfColumn(table, column(id), memo);
    if (values.length === 0) throw new FormulaError(`${name} has no readings.`);
    return describe(values, resolution);
  };
  switch (derivation.kind) {
    case 'formula': {
      const read = readFormula(derivation.expression, table.columns);
      if (!read.ok) throw new FormulaError(read.message);
      const operand = (k: number) => {
        const used = column(read.uses[k]!);
        if (used.kind !== 'label') return numbersByRow(table, used, memo);
        const levelOf = levelReader(used.levels);
        return cellsOf(table, used, memo).map((text) => levelOf(text) ?? '');
      };
      const found = evaluate(read.node, { rowCount: table.rowCount, column: operand });
      const step = stepByDerivation(derivation, table.columns, stepsOfColumns(table, memo));
      return step !== null && found instanceof Float64Array ? found.map((x) => onStep(x, step)) : found;
    }
    case 'standard-score': {
      const { mean, variance, n } = figures(derivation.source);
      if (!variance) throw new FormulaError('Standard scores need readings that vary.');
      const sd = Math.sqrt(derivation.divisor === 'sample' ? variance : (variance * (n - 1)) / n);
      return about(numbers(derivation.source), mean).map((x) => x / sd);
    }
    case 'given-score':
      return numbers(derivation.source).map((x) => (x - derivation.mean) / derivation.sd);
    case 'distance': {
      const { mean } = figures(derivation.source);
      const distances = about(numbers(derivation.source), mean);
      return derivation.absolute ? distances.map(Math.abs) : distances;
    }
    case 'rank':
      return ranks(numbers(derivation.source));
    case 'transformed': {
      const { by, lambda } = derivation;
      const readings = numbers(derivation.source);
      return by === 'normal-scores' ? normalScores(readings) : readings.map((x) => transformed(by, lambda ?? 0, x));
    }
    case 'share': {
      const { trials } = derivation;
      const of = typeof trials === 'string' ? numbers(trials) : null;
      // More successes than trials is no share: infinite here, so that the row is listed as failed.
      return numbers(derivation.source).map((count, i) => {
        const total = of ? of[i]! : Number(trials);
        return count < 0 || count > total ? Infinity : count / total;
      });
    }
    case 'rounded':
      return numbers(derivation.source).map(rounding(derivation.step));
    case 'made-up':
      return madeUp(derivation, table.rowCount);
  }
}

/** Rounds what is a number. */
function rounding(step: number): (x: number) => number {
  const round = rounderOf(step);
  return (x) => (Number.isNaN(x) ? NaN : round(x));
}

function madeUp(derivation: Extract<Derivation, { kind: 'made-up' }>, rowCount: number): Float64Array {
  const { family, parameters, count, step, seed } = derivation;
  const drawn = new Float64Array(count);
  distribution(familyByName(family), parameters).sample(createStream(seed, 0), drawn);
  const result = new Float64Array(Math.max(rowCount, count)).fill(NaN);
  const round = step === null ? (x: number) => x : rounderOf(step);
  for (let i = 0; i < count; i++) result[i] = round(drawn[i]!);
  return result;
}

/** True where every column the derivation looks at has something in this row: then the row should have a value. */
function complete(table: Table, derivation: Derivation, memo: DeriveMemo): (i: number) => boolean {
  if (derivation.kind === 'made-up') return (i) => i < derivation.count;
  const sources = sourcesOf(derivation).flatMap((id) => columnOf(table, id) ?? []);
  const numeric = sources.filter(({ kind }) => kind !== 'label').map((column) => numbersByRow(table, column, memo));
  const words = sources.filter(({ kind }) => kind === 'label').map((column) => cellsOf(table, column, memo));
  return (i) => numeric.every((x) => !Number.isNaN(x[i]!)) && words.every((w) => (w[i] ?? '').trim() !== '');
}

function finished(table: Table, derivation: Derivation, operand: Operand, memo: DeriveMemo): Derived {
  const rows = table.rowCount;
  if (typeof operand === 'string' || Array.isArray(operand)) {
    const cells = Array.from({ length: rows }, (_, i) => (typeof operand === 'string' ? operand : (operand[i] ?? '')));
    return { values: new Float64Array(rows).fill(NaN), cells, failed: [], fault: null };
  }
  const numbers = operand as Float64Array | number;
  const values = new Float64Array(rows);
  const cells = new Array<string>(rows);
  const failed: number[] = [];
  let whole: ((i: number) => boolean) | null = null;
  for (let i = 0; i < rows; i++) {
    const value = typeof numbers === 'number' ? numbers : numbers[i]!;
    const finite = Number.isFinite(value);
    values[i] = finite ? value : NaN;
    // 0 and −0 are one number.
    cells[i] = finite ? String(value === 0 ? 0 : value) : '';
    if (!finite && (whole ??= complete(table, derivation, memo))(i)) failed.push(i + 1);
  }
  return { values, cells, failed, fault: null };
}

/**
 * The decimals that worked-out values are shown with, the same for the whole column: five significant figures for the greatest of them, but
 * no more than any value needs.
 */
export function decimalsToShow(values: Float64Array): number {
  let greatest = 0;
  for (const value of values) if (Math.abs(value) > greatest) greatest = Math.abs(value);
  // Figures before the decimal mark, or zeros behind it, by the power of ten of the greatest value.
  const power = greatest > 0 ? Number(greatest.toExponential().split('e')[1]) : 0;
  const most = Math.max(0, Math.min(4 - power, 10));
  let needed = 0;
  for (let i = 0; i < values.length && needed < most; i++) {
    if (Number.isNaN(values[i]!)) continue;
    // Without the dust of the last bits: 0.012 × 100 needs one decimal.
    const text = String(Number(values[i]!.toPrecision(12)));
    if (text.includes('e-')) needed = most;
    else if (text.includes('.')) needed = Math.max(needed, text.length - text.indexOf('.') - 1);
  }
  return Math.min(needed, most);
}

/** Everything a derivation looks at, to tell whether it has to be worked out again. */
function inputsOf(table: Table, column: TableColumn, memo: DeriveMemo): unknown[] {
  const derivation = column.derivation!;
  const sources = sourcesOf(derivation).flatMap((id) => {
    const source = columnOf(table, id);
    return source ? inputsOfColumn(table, source, memo) : [null];
  });
  return [JSON.stringify(derivation), table.rowCount, ...sources];
}

const nowhere = (rows: number, fault: string): Derived => ({
  values: new Float64Array(rows).fill(NaN),
  cells: new Array<string>(rows).fill(''),
  failed: [],
  fault,
});

/**
 * Works out a derived column. Set-aside, missing and unreadable source readings give an empty cell. A derivation that cannot be worked
 * out as a whole gives empty cells and the reason. Columns that follow each other in a circle are not worked out.
 */
export function derive(table: Table, column: TableColumn, memo: DeriveMemo = newMemo()): Derived {
  const { id, derivation } = column;
  if (circleThrough(table.columns, id)) return nowhere(table.rowCount, 'The columns depend on each other in a circle.');
  return remembered(memo.derived, id, inputsOf(table, column, memo), () => {
    try {
      return finished(table, derivation!, workOut(table, derivation!, memo), memo);
    } catch (error) {
      if (!(error instanceof FormulaError)) throw error;
      return nowhere(table.rowCount, error.message);
    }
  });
}

/** True where following the sources of a column leads back to it. */
export function circleThrough(columns: readonly { id: string; derivation: Derivation | null }[], id: string): boolean {
  const seen = new Set<string>();
  const next = (of: string) => {
    const derivation = columns.find((column) => column.id === of)?.derivation;
    return derivation ? sourcesOf(derivation) : [];
  };
  const waiting = next(id);
  while (waiting.length > 0) {
    const at = waiting.pop()!;
    if (at === id) return true;
    if (seen.has(at)) continue;
    seen.add(at);
    waiting.push(...next(at));
  }
  return false;
}
