import { toCensored, type Censored, type CensoredReading } from './censored.js';
import {
  plainDecimals,
  plainValue,
  readCell,
  readNumber,
  type CellReading,
  type NumberFormat,
} from './number-format.js';
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
  /** Cells such as "<0.05": a limit the reading lies beyond; kept as written, not among the values. */
  beyondLimit: number;
  /** Those cells, for what can take them; absent where there are none. */
  censored?: Censored;
  /** The step of the instrument in the unit of the readings; null when it is not known. */
  resolution: number | null;
  /** True where the readings are counted out from frequencies: their order says nothing. */
  tallied?: boolean;
  /** Of a column of labels: its levels. The values are then places in this list, from 0, and no numbers to work with. */
  levels?: readonly string[];
  /** The same readings by the levels of a label column, or of several columns; absent for one column as a whole. */
  groups?: Groups;
}

/** A sample in parts, each a sample of its own under the name of its level or column. */
export interface Groups {
  /** The label column, or null where the parts are columns. */
  by: string | null;
  samples: Sample[];
  /** Readings that belong to no part, because their label is missing. */
  without: number;
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

/** What a cell is, as a byte. */
const State = { Missing: 0, Number: 1, Below: 2, Above: 3, Text: 4 } as const;

/** Every cell of a column read once: its state, its value and the decimals it is written with. */
export interface ReadCells {
  cells: readonly string[];
  format: NumberFormat;
  states: Uint8Array;
  values: Float64Array;
  decimals: Int16Array;
}

function stateOf(cell: CellReading): number {
  switch (cell.kind) {
    case 'missing':
      return State.Missing;
    case 'text':
      return State.Text;
    case 'number':
      return State.Number;
    case 'limit':
      return cell.side === 'below' ? State.Below : State.Above;
  }
}

/** Reads cell i into its places. A hot path: no object for a plain number. */
function readInto({ cells, format, states, values, decimals }: ReadCells, i: number): void {
  const plain = plainDecimals(cells[i]!, format);
  if (plain >= 0) {
    states[i] = State.Number;
    values[i] = plainValue();
    decimals[i] = plain;
    return;
  }
  const cell = readCell(cells[i]!, format);
  states[i] = stateOf(cell);
  const figure = cell.kind === 'missing' || cell.kind === 'text' ? { value: 0, decimals: 0 } : cell;
  values[i] = figure.value;
  decimals[i] = figure.decimals;
}

/** Reads the cells of a column. Of `before`, the same column as it was, what has not changed is taken over: after an edit one cell is read, not all. */
export function readCells(cells: readonly string[], format: NumberFormat, before?: ReadCells): ReadCells {
  const { length } = cells;
  const same = before && before.format.decimal === format.decimal && before.format.thousands === format.thousands;
  if (!same || before.cells.length !== length) {
    const read: ReadCells = {
      cells,
      format,
      states: new Uint8Array(length),
      values: new Float64Array(length),
      decimals: new Int16Array(length),
    };
    for (let i = 0; i < length; i++) readInto(read, i);
    return read;
  }
  const { states, values, decimals } = before;
  const read = { cells, format, states: states.slice(), values: values.slice(), decimals: decimals.slice() };
  for (let i = 0; i < length; i++) if (cells[i] !== before.cells[i]) readInto(read, i);
  return read;
}

/** The resolution that the digits of all written numbers show, set aside or not, so that it does not jump. */
function resolutionOf({ states, values, decimals }: ReadCells): number | null {
  // Moved together by a plain loop: a filter calls back for each of some hundred thousand cells.
  const [written, places] = [new Float64Array(values.length), new Int16Array(values.length)];
  let n = 0;
  for (let i = 0; i < values.length; i++) {
    if (states[i] === State.Missing || states[i] === State.Text) continue;
    written[n] = values[i]!;
    places[n++] = decimals[i]!;
  }
  return recogniseResolution(written.subarray(0, n), places.subarray(0, n));
}

/**
 * The readings of a column of text. `setAside` holds row numbers (from 1). A set-aside cell counts as set aside, whatever it
 * holds. With frequencies a value stands as often as its row says; a row whose frequency cannot be used is unreadable. `read` is what the cells were read
 * as, where that is known.
 */
export function toSample(
  column: ColumnOfText,
  cells: readonly string[],
  setAside: ReadonlySet<number>,
  frequencies: Frequencies | null = null,
  read: ReadCells = readCells(cells, column),
): Sample {
  const left = { missing: 0, setAside: 0, unreadable: 0 };
  const times = new Int32Array(cells.length);
  const censored: CensoredReading[] = [];
  let n = 0;
  for (let i = 0; i < cells.length; i++) {
    const state = read.states[i];
    const count = frequencies ? frequencyAt(frequencies, i) : 1;
    if (setAside.size > 0 && setAside.has(i + 1)) left.setAside++;
    else if (state === State.Missing) left.missing++;
    else if (state === State.Text || count === null || n + censored.length + count > MOST_COUNTED_OUT)
      left.unreadable++;
    else if (state === State.Number) n += times[i] = count;
    else {
      const one = { row: i + 1, limit: read.values[i]!, side: state === State.Below ? -1 : 1 } as const;
      for (let k = 0; k < count; k++) censored.push(one);
    }
  }
  const values = new Float64Array(n);
  const rows = new Int32Array(n);
  let at = 0;
  for (let i = 0; i < cells.length; i++) {
    for (let k = times[i]!; k > 0; k--) {
      values[at] = read.values[i]!;
      rows[at++] = i + 1;
    }
  }
  const { name, unit } = column;
  const resolution = column.resolution ?? resolutionOf(read);
  const beyondLimit = censored.length;
  const tallied = frequencies ? { tallied: true } : {};
  return { name, unit, values, rows, ...left, beyondLimit, ...toCensored(censored), resolution, ...tallied };
}

/** The readings of a column that was worked out: numbers by row, NaN where there is none. The resolution is what the caller knows of it. */
export function sampleOfNumbers(
  column: Pick<ColumnOfText, 'name' | 'unit' | 'resolution'>,
  numbers: Float64Array,
  setAside: ReadonlySet<number>,
): Sample {
  const counts = (i: number) => !Number.isNaN(numbers[i]!) && !setAside.has(i + 1);
  const rows = Int32Array.from(numbers.keys()).filter(counts);
  const aside = [...setAside].filter((row) => row <= numbers.length).length;
  return {
    name: column.name,
    unit: column.unit,
    values: Float64Array.from(rows, (i) => numbers[i]!),
    rows: rows.map((i) => i + 1),
    missing: numbers.length - rows.length - aside,
    setAside: aside,
    unreadable: 0,
    beyondLimit: 0,
    resolution: column.resolution,
  };
}

/** The sample as it would be with another value in one row; nothing else is touched. */
export function withReading(sample: Sample, row: number, value: number): Sample {
  const at = sample.rows.indexOf(row);
  const values = at < 0 ? sample.values : sample.values.with(at, value);
  if (!sample.groups) return { ...sample, values };
  const samples = sample.groups.samples.map((part) => withReading(part, row, value));
  return { ...sample, values, groups: { ...sample.groups, samples } };
}

/** What an analysis gets that works without a column. */
export const NO_READINGS: Sample = {
  name: '',
  unit: '',
  values: new Float64Array(0),
  rows: new Int32Array(0),
  missing: 0,
  setAside: 0,
  unreadable: 0,
  beyondLimit: 0,
  resolution: null,
};
