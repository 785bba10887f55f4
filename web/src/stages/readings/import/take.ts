import { NOTHING_SAID, type ChangeInput, type StudyColumn } from '@verdict/contract';
import {
  asTally,
  parseTable,
  rewritten,
  rowsBefore,
  type BlockLayout,
  type TableLayout,
  type NumberFormat,
  type ParsedColumn,
} from '@verdict/core/readings';
import type { Facts, Incoming } from '../../../files/incoming.js';
import { additionOf, runsOf, type Cursor } from '../table/table-model.js';

/** Text longer than this is read in a worker and streamed to the server instead of being sent as one change. */
export const LARGE_TEXT = 1_000_000;

export const isLarge = (incoming: Incoming) => incoming.kind === 'text' && incoming.text.length > LARGE_TEXT;

/** Text longer than this is read in a worker: the page stays alive meanwhile. */
const LONG_TEXT = 100_000;
export const isLong = (incoming: Incoming) => incoming.kind === 'text' && incoming.text.length > LONG_TEXT;

/** Where readings go: into columns of their own, below columns of the same names, or over the cells from the cursor on. */
export type Target = 'new columns' | 'below' | 'over';

/** The choices of the import panel. */
export interface Taking {
  target: Target;
  columns: (ParsedColumn & Facts)[];
  /** Numbers get the marks of the column they go into. */
  rewrite: boolean;
  /** Two columns are values with how often each occurred. */
  tally?: boolean;
  /** The places of the columns among all that came in. */
  positions?: readonly number[];
}

/** The changes that take a tally: both columns, the second as frequencies of the first, and the first as what is looked at. */
export function tallyOf(pair: readonly [ParsedColumn & Facts, ParsedColumn & Facts], note?: string): ChangeInput[] {
  const [column, frequencies] = [crypto.randomUUID(), crypto.randomUUID()];
  const columns = asTally(pair).map((one, i) => ({ ...NOTHING_SAID, ...one, id: i === 0 ? column : frequencies }));
  return [
    { kind: 'add-columns', columns, ...(note ? { note: note.slice(0, 200) } : {}) },
    { kind: 'change-column', column, frequencies },
    { kind: 'change-study', subject: column },
  ];
}

const sameName = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();

/** Which of the incoming columns go below which of the table, and which are new. */
export function matched(columns: readonly ParsedColumn[], standing: readonly StudyColumn[]) {
  const written = standing.filter(({ derivation }) => !derivation);
  const pairs = columns.flatMap((column) => {
    const into = written.find(({ name }) => sameName(name, column.name));
    return into ? [{ column, into }] : [];
  });
  return {
    pairs,
    added: columns.filter((column) => !pairs.some((pair) => pair.column === column)),
    left: written.filter((column) => !pairs.some(({ into }) => into === column)),
  };
}

/** Readings whose names are all in the table go below it; a block without names that is pasted into the table goes over its cells. */
export function likelyTarget(
  rows: string[][],
  layout: TableLayout,
  standing: readonly StudyColumn[],
  over: boolean,
): Target {
  if (standing.length === 0) return 'new columns';
  if (layout.names === 'none') return over ? 'over' : 'new columns';
  const { columns } = parseTable(rows.slice(0, 20), layout);
  return columns.length > 0 && matched(columns, standing).added.length === 0 ? 'below' : 'new columns';
}

const cellsFor = ({ cells, ...format }: ParsedColumn, into: NumberFormat, rewrite: boolean): string[] =>
  rewrite ? cells.map((text) => rewritten(text, format, into)) : cells;

export const sameFormat = (a: NumberFormat, b: NumberFormat) => a.decimal === b.decimal && a.thousands === b.thousands;

/** The changes that put readings below the columns of their names; what is new comes as columns that begin there. */
export function below(
  { columns, rewrite }: Taking,
  standing: readonly StudyColumn[],
  rowCount: number,
  source: string,
): ChangeInput[] {
  const { pairs, added } = matched(columns, standing);
  const runs = pairs.flatMap(({ column, into }) => {
    const texts = cellsFor(column, into, rewrite && into.kind !== 'label');
    return texts.length ? [{ column: into.id, row: rowCount + 1, texts }] : [];
  });
  const note = `imported below from ${source}`.slice(0, 200);
  const changes: ChangeInput[] = runs.length ? [{ kind: 'edit-cells', runs, note }] : [];
  if (added.length) {
    const empty = new Array<string>(rowCount).fill('');
    changes.push(
      additionOf(
        added.map((column) => ({ ...column, cells: [...empty, ...column.cells] })),
        note,
      ),
    );
  }
  return changes;
}

/** The change that writes readings over the cells from a place on. */
export function over(
  { columns, rewrite }: Taking,
  standing: readonly StudyColumn[],
  from: Cursor,
  rowAt: (shown: number) => number,
): ChangeInput {
  const texts = columns.map((column, j) => {
    const into = standing[from.column + j];
    return into ? cellsFor(column, into, rewrite && into.kind !== 'label') : [];
  });
  const rows = (columns[0]?.cells ?? []).map((_, i) => texts.map((cells) => cells[i] ?? ''));
  const room = standing.length - from.column;
  return {
    kind: 'edit-cells',
    runs: runsOf(
      rows.map((row) => row.slice(0, room)),
      standing,
      from,
      rowAt,
    ),
  };
}

/** The body of a streamed import: a head that says what the columns are, then the file as it is. */
export function importBody(
  incoming: Extract<Incoming, { kind: 'text' }>,
  layout: BlockLayout,
  columns: readonly ParsedColumn[],
  { revision, who, positions }: { revision: number; who: string; positions?: readonly number[] },
): { body: Blob; ids: string[]; token: string } {
  const token = crypto.randomUUID();
  const bare = columns.map(({ cells: _, ...column }) => ({
    ...NOTHING_SAID,
    ...column,
    id: crypto.randomUUID() as string,
  }));
  const head = {
    ...{ token, revision, who, columns: bare, note: `opened from ${incoming.source}`.slice(0, 200) },
    ...(positions ? { positions } : {}),
    ...{ separator: layout.separator, skip: rowsBefore(layout), encoding: incoming.encoding },
  };
  return { body: new Blob([JSON.stringify(head), '\n', incoming.file]), ids: bare.map(({ id }) => id), token };
}
