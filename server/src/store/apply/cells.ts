import { reachOf } from '@verdict/contract';
import { replaceCells, type Run } from '../cells.js';
import { columnOf, LONGEST_TEXT, plural, setRowCount, type Applied, type Context, type Of } from './context.js';

/** What stood in a run before the change: rows that the table did not have held nothing, also where the change writes twice. */
const asBefore = (run: Run, rowCount: number): Run => ({
  ...run,
  texts: run.texts.map((text, i) => (run.row + i > rowCount ? '' : text)),
});

export async function editCells(context: Context, change: Of<'edit-cells'>): Promise<Applied> {
  const { q, study } = context;
  const rowCount = change.rowCount ?? Math.max(study.rowCount, reachOf(change));
  const last = Math.max(rowCount, study.rowCount);
  const before: Of<'edit-cells'>['runs'] = [];
  for (const run of change.runs) {
    // Beyond both ends of the table there is nothing to write: such texts are empty.
    const texts = run.texts.slice(0, Math.max(0, last - run.row + 1));
    if (texts.length > 0) before.push(asBefore(await replaceCells(q, { ...run, texts }), study.rowCount));
  }
  const grown = await setRowCount(context, rowCount);
  const [first] = change.runs;
  const count = change.runs.reduce((sum, { texts }) => sum + texts.length, 0);
  const name = first && columnOf(context, first.column).name;
  const text =
    first && count === 1
      ? `Row ${first.row} of ${name}: “${(before[0]?.texts[0] ?? '').slice(0, 60)}” became “${first.texts[0]!.slice(0, 60)}”`
      : `Edited ${plural(count, 'cell')}${first ? ` from row ${first.row} of ${name} on` : ''}`;
  return {
    // Undo runs backwards: a cell written twice gets its oldest text.
    inverse: { kind: 'edit-cells', runs: before.reverse(), ...grown },
    text: (change.note ? `${text}: ${change.note}` : text).slice(0, LONGEST_TEXT),
    place: first ? { column: first.column, row: first.row } : null,
  };
}
