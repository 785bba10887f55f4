import { censoredReadings, toCensored } from '../readings/censored.js';
import { countLevels, levelReader } from '../readings/levels.js';
import { PLAIN_FORMAT, readCell } from '../readings/number-format.js';
import type { Groups, Sample } from '../readings/sample.js';
import { cellsOf } from './derive.js';
import { readingsOfColumn } from './labels.js';
import { newMemo, remembered, type DeriveMemo } from './memo.js';
import type { Table, TableColumn } from './table.js';

/** What the rows of a level that hold no reading hold instead. */
function leftOut(table: Table, column: TableColumn, rows: readonly number[], memo: DeriveMemo) {
  const left = { missing: 0, setAside: 0, unreadable: 0 };
  const aside = table.setAside(column.id);
  const cells = cellsOf(table, column, memo);
  const format = column.derivation ? PLAIN_FORMAT : column;
  const kindOf = (cell: string) =>
    column.kind === 'label' ? (cell.trim() === '' ? 'missing' : 'text') : readCell(cell, format).kind;
  for (const row of rows) {
    const kind = kindOf(cells[row - 1] ?? '');
    if (aside.has(row)) left.setAside++;
    else if (kind === 'missing') left.missing++;
    else if (kind === 'text') left.unreadable++;
  }
  return left;
}

/** The readings of a column by the levels of a label column, in the analyst's order of levels, then in that of first appearance. */
export function splitSample(
  table: Table,
  column: TableColumn,
  label: TableColumn,
  memo: DeriveMemo = newMemo(),
): Sample {
  const whole = readingsOfColumn(table, column, memo);
  const labels = cellsOf(table, label, memo);
  const levelOf = levelReader(label.levels);
  const levels = countLevels(labels, label.levels).map(({ name }) => name);
  const place = new Map(levels.map((name, i) => [name, i]));
  // Each row's level once, not once a reading: a row can hold many readings where they are counted.
  const levelOfRow = Int32Array.from(
    { length: table.rowCount },
    (_, i) => place.get(levelOf(labels[i] ?? '') ?? '') ?? -1,
  );
  const members: number[][] = levels.map(() => []);
  const used = new Uint8Array(table.rowCount + 1);
  let without = 0;
  whole.rows.forEach((row, i) => {
    used[row] = 1;
    const level = levelOfRow[row - 1]!;
    if (level < 0) without++;
    else members[level]!.push(i);
  });
  const others: number[][] = levels.map(() => []);
  for (let row = 1; row <= table.rowCount; row++) {
    const level = levelOfRow[row - 1]!;
    if (!used[row] && level >= 0) others[level]!.push(row);
  }
  const beyond = censoredReadings(whole);
  const samples = levels.map((name, level) => {
    const censored = beyond.filter(({ row }) => levelOfRow[row - 1] === level);
    return {
      name,
      unit: whole.unit,
      resolution: whole.resolution,
      ...(whole.tallied ? { tallied: true } : {}),
      ...(whole.levels ? { levels: whole.levels } : {}),
      values: Float64Array.from(members[level]!, (i) => whole.values[i]!),
      rows: Int32Array.from(members[level]!, (i) => whole.rows[i]!),
      ...leftOut(table, column, others[level]!, memo),
      beyondLimit: censored.length,
      ...toCensored(censored),
    };
  });
  return { ...whole, groups: { by: label.name, samples, without } };
}

const sum = (samples: readonly Sample[], of: 'missing' | 'setAside' | 'unreadable' | 'beyondLimit') =>
  samples.reduce((total, sample) => total + sample[of], 0);

/** Several columns as the parts of one sample: for pictures side by side. The unit is that of all, or none where they differ. */
export function samplesBeside(samples: readonly Sample[]): Sample {
  const [first, ...others] = samples;
  const n = samples.reduce((total, { values }) => total + values.length, 0);
  const values = new Float64Array(n);
  const rows = new Int32Array(n);
  let at = 0;
  for (const sample of samples) {
    values.set(sample.values, at);
    rows.set(sample.rows, at);
    at += sample.values.length;
  }
  const same = <K extends 'unit' | 'resolution'>(key: K) => others.every((other) => other[key] === first![key]);
  const groups: Groups = { by: null, samples: [...samples], without: 0 };
  return {
    name: first!.name,
    unit: same('unit') ? first!.unit : '',
    values,
    rows,
    missing: sum(samples, 'missing'),
    setAside: sum(samples, 'setAside'),
    unreadable: sum(samples, 'unreadable'),
    beyondLimit: sum(samples, 'beyondLimit'),
    ...toCensored(samples.flatMap(censoredReadings)),
    resolution: same('resolution') ? first!.resolution : null,
    groups,
  };
}

/** The parts looked at lately: each holds its readings once more. */
const MOST_PARTS = 4;

function inParts({ parts }: DeriveMemo, called: string, inputs: readonly unknown[], work: () => Sample): Sample {
  const sample = remembered(parts, called, inputs, work);
  const [oldest] = parts.keys();
  if (parts.size > MOST_PARTS && oldest !== undefined) parts.delete(oldest);
  return sample;
}

/** A column's readings as a whole, or in parts: by the levels of a label column, or beside further columns. The same sample while nothing it rests on has changed. */
export function sampleInParts(
  table: Table,
  column: TableColumn,
  by: { split: TableColumn } | { beside: readonly TableColumn[] } | null,
  memo: DeriveMemo = newMemo(),
): Sample {
  if (by === null) return readingsOfColumn(table, column, memo);
  if ('split' in by) {
    const { id, name, levels } = by.split;
    const whole = readingsOfColumn(table, column, memo);
    const inputs = [whole, table.rowCount, cellsOf(table, by.split, memo), name, JSON.stringify(levels)];
    return inParts(memo, `${column.id} by ${id}`, inputs, () => splitSample(table, column, by.split, memo));
  }
  const all = [column, ...by.beside];
  const samples = all.map((one) => readingsOfColumn(table, one, memo));
  const called = all.map(({ id }) => id).join(' beside ');
  return inParts(memo, called, samples, () => samplesBeside(samples));
}
