import { readCell, readNumber, type NumberFormat } from './number-format.js';
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
  /** Cells such as "<0.05": a limit the reading lies beyond; kept as written, left out here. */
  beyondLimit: number;
  /** The step of the instrument in the unit of the readings; null when it is not known. */
  resolution: number | null;
}

export interface ColumnOfText extends NumberFormat {
  name: string;
  unit: string;
  /** Given by the analyst; null means: read it from the digits. */
  resolution: number | null;
}

/** A count column that says how often each value occurred. */
export interface Frequencies {
  cells: readonly string[];
  format: NumberFormat;
}

/** More readings than this are not counted out from frequencies: the row that would is unreadable. */
export const MOST_COUNTED_OUT = 2_000_000;

/** How often a row's value occurred; null where the frequency is missing or no whole number from 0 on. */
function frequencyAt({ cells, format }: Frequencies, i: number): number | null {
  const value = readNumber(cells[i] ?? '', format);
  return value !== null && Number.isInteger(value) && value >= 0 && value <= MOST_COUNTED_OUT ? value : null;
}

/**
 * The readings of a column of text. `setAside` holds row numbers (from 1). A set-aside cell counts as set aside, whatever it
 * holds; the resolution is read from the digits of all numbers, set aside or not, so that it does not jump. With frequencies a
 * value stands as often as its row says; a row whose frequency cannot be used is unreadable.
 * @param digits false for worked-out values, whose digits say nothing about an instrument
 */
export function toSample(
  column: ColumnOfText,
  cells: readonly string[],
  setAside: ReadonlySet<number>,
  frequencies: Frequencies | null = null,
  digits = true,
): Sample {
  const values: number[] = [];
  const rows: number[] = [];
  const written: number[] = [];
  const decimals: number[] = [];
  const left = { missing: 0, setAside: 0, unreadable: 0, beyondLimit: 0 };
  for (let i = 0; i < cells.length; i++) {
    const cell = readCell(cells[i]!, column);
    if (cell.kind === 'number' || cell.kind === 'limit') {
      written.push(cell.value);
      decimals.push(cell.decimals);
    }
    const times = frequencies ? frequencyAt(frequencies, i) : 1;
    if (setAside.has(i + 1)) left.setAside++;
    else if (cell.kind === 'missing') left.missing++;
    else if (cell.kind === 'limit') left.beyondLimit++;
    else if (cell.kind === 'text' || times === null || values.length + times > MOST_COUNTED_OUT) left.unreadable++;
    else {
      for (let k = 0; k < times; k++) {
        values.push(cell.value);
        rows.push(i + 1);
      }
    }
  }
  return {
    name: column.name,
    unit: column.unit,
    values: Float64Array.from(values),
    rows: Int32Array.from(rows),
    ...left,
    resolution: column.resolution ?? (digits ? recogniseResolution(written, decimals) : null),
  };
}
