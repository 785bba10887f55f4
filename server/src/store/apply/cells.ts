import { reachOf } from '@verdict/contract';
import { replaceCells } from '../cells.js';
import { StoreError } from '../errors.js';
import { columnOf, LONGEST_TEXT, plural, setRowCount, type Applied, type Context, type Of } from './context.js';

/** Refuses to write into a column that follows others. */
function refuseDerived(context: Context, id: string): void {
  const { derivation, name } = columnOf(context, id);
  if (!derivation) return;
  const text = `${name} follows other columns and cannot be written into. Freeze it to plain values first.`;
  throw new StoreError('invalid', text, { field: 'column' });
}

export async function editCells(context: Context, change: Of<'edit-cells'>): Promise<Applied> {
  const before: Of<'edit-cells'>['runs'] = [];
  for (const run of change.runs) {
    refuseDerived(context, run.column);
    before.push(await replaceCells(context.q, run));
  }
  const grown = await setRowCount(context, change.rowCount ?? Math.max(context.study.rowCount, reachOf(change)));
  const [first] = change.runs;
  const count = change.runs.reduce((sum, { texts }) => sum + texts.length, 0);
  const name = first && columnOf(context, first.column).name;
  const text =
    first && count === 1
      ? `Row ${first.row} of ${name}: “${before[0]!.texts[0]!.slice(0, 60)}” became “${first.texts[0]!.slice(0, 60)}”`
      : `Edited ${plural(count, 'cell')}${first ? ` from row ${first.row} of ${name} on` : ''}`;
  return {
    // Undo runs backwards: a cell written twice gets its oldest text.
    inverse: { kind: 'edit-cells', runs: before.reverse(), ...grown },
    text: (change.note ? `${text}: ${change.note}` : text).slice(0, LONGEST_TEXT),
    place: first ? { column: first.column, row: first.row } : null,
  };
}
