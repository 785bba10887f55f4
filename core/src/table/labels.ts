import { countLevels, levelReader } from '../readings/levels.js';
import { PLAIN_FORMAT, readNumber, type NumberFormat } from '../readings/number-format.js';
import { MOST_COUNTED_OUT, type Sample } from '../readings/sample.js';
import { cellsOf, sampleOfColumn } from './derive.js';
import { remembered, type DeriveMemo } from './memo.js';
import type { Table, TableColumn } from './table.js';

/** How often the label of a row stands: once, or as a count column says; null where that is no whole number from 0 on. */
function timesReader(table: Table, column: TableColumn, memo: DeriveMemo): (i: number) => number | null {
  const counts = table.columns.find(({ id }) => id === column.frequencies);
  if (!counts) return () => 1;
  const cells = cellsOf(table, counts, memo);
  const format: NumberFormat = counts.derivation ? PLAIN_FORMAT : counts;
  return (i) => {
    const value = readNumber(cells[i] ?? '', format);
    return value !== null && Number.isInteger(value) && value >= 0 && value <= MOST_COUNTED_OUT ? value : null;
  };
}

function readLabels(table: Table, column: TableColumn, cells: readonly string[], memo: DeriveMemo): Sample {
  const { name, unit, frequencies } = column;
  const levels = countLevels(cells, column.levels).map((level) => level.name);
  const place = new Map(levels.map((level, i) => [level, i]));
  const levelOf = levelReader(column.levels);
  const aside = table.setAside(column.id);
  const timesOf = timesReader(table, column, memo);
  const left = { missing: 0, setAside: 0, unreadable: 0 };
  const values: number[] = [];
  const rows: number[] = [];
  for (let i = 0; i < table.rowCount; i++) {
    const level = levelOf(cells[i] ?? '');
    const times = timesOf(i);
    if (aside.has(i + 1)) left.setAside++;
    else if (level === null) left.missing++;
    else if (times === null || values.length + times > MOST_COUNTED_OUT) left.unreadable++;
    else
      for (let k = 0; k < times; k++) {
        values.push(place.get(level)!);
        rows.push(i + 1);
      }
  }
  return {
    ...{ name, unit, levels, ...left, beyondLimit: 0, resolution: null },
    values: Float64Array.from(values),
    rows: Int32Array.from(rows),
    ...(frequencies === null ? {} : { tallied: true }),
  };
}

/** The cells of a label column as places in the list of its levels, in the analyst's order; with frequencies as often as each row says. */
function labelsOfColumn(table: Table, column: TableColumn, memo: DeriveMemo): Sample {
  const cells = cellsOf(table, column, memo);
  const counts = table.columns.find(({ id }) => id === column.frequencies);
  const facts = JSON.stringify([column.name, column.unit, column.levels, column.frequencies, table.rowCount]);
  const aside = [...table.setAside(column.id)].join(',');
  const inputs = [facts, aside, cells, counts && cellsOf(table, counts, memo)];
  return remembered(memo.samples, `labels of ${column.id}`, inputs, () => readLabels(table, column, cells, memo));
}

/** What a column holds, as an analysis takes it: numbers, or the levels of its labels. */
export const readingsOfColumn = (table: Table, column: TableColumn, memo: DeriveMemo): Sample =>
  column.kind === 'label' ? labelsOfColumn(table, column, memo) : sampleOfColumn(table, column, memo);
