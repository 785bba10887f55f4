import { readCell, type NumberFormat } from './number-format.js';
import { recogniseResolution } from './resolution.js';

/** What an analysis gets of a column: the readings that count, where each stands, and how many do not count. */
export interface Sample {
  name: string;
  unit: string;
  /** The readings in row order, without missing, set-aside and unreadable cells. */
  values: Float64Array;
  /** The row of each reading, counted from 1. */
  rows: Int32Array;
  missing: number;
  setAside: number;
  /** Cells that are written but are no numbers; kept as written, left out here. */
  unreadable: number;
  /** The step of the instrument in the unit of the readings; null when it is not known. */
  resolution: number | null;
}

export interface ColumnOfText extends NumberFormat {
  name: string;
  unit: string;
  /** Given by the analyst; null means: read it from the digits. */
  resolution: number | null;
}

/**
 * The readings of a column of text. `setAside` holds row numbers (from 1). A set-aside cell counts as set aside, whatever it
 * holds; the resolution is read from the digits of all numbers, set aside or not, so that it does not jump.
 */
export function toSample(column: ColumnOfText, cells: readonly string[], setAside: ReadonlySet<number>): Sample {
  const values: number[] = [];
  const rows: number[] = [];
  const written: number[] = [];
  const decimals: number[] = [];
  let missing = 0;
  let aside = 0;
  let unreadable = 0;
  for (let i = 0; i < cells.length; i++) {
    const cell = readCell(cells[i]!, column);
    if (cell.kind === 'number') {
      written.push(cell.value);
      decimals.push(cell.decimals);
    }
    if (setAside.has(i + 1)) aside++;
    else if (cell.kind === 'missing') missing++;
    else if (cell.kind === 'text') unreadable++;
    else {
      values.push(cell.value);
      rows.push(i + 1);
    }
  }
  return {
    name: column.name,
    unit: column.unit,
    values: Float64Array.from(values),
    rows: Int32Array.from(rows),
    missing,
    setAside: aside,
    unreadable,
    resolution: column.resolution ?? recogniseResolution(written, decimals),
  };
}
