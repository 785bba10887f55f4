import type { Change } from '@verdict/contract';
import { editCells } from './cells.js';
import { addColumns, changeColumn, freezeColumn, markColumns, orderColumns, thawColumn } from './columns.js';
import type { Applied, Context } from './context.js';
import { leaveIn, lookAgain, putBack, setReadingsAside } from './marks.js';
import { insertRows, removeRows } from './rows.js';
import { changeStudy } from './study.js';

/** Carries out one change inside the caller's transaction and says how to take it back. */
export function applyChange(context: Context, change: Change): Promise<Applied> {
  switch (change.kind) {
    case 'edit-cells':
      return editCells(context, change);
    case 'add-columns':
      return addColumns(context, change);
    case 'remove-columns':
    case 'return-columns':
      return markColumns(context, change);
    case 'change-column':
      return changeColumn(context, change);
    case 'order-columns':
      return orderColumns(context, change);
    case 'freeze-column':
      return freezeColumn(context, change);
    case 'thaw-column':
      return thawColumn(context, change);
    case 'insert-rows':
      return insertRows(context, change);
    case 'remove-rows':
      return removeRows(context, change);
    case 'set-aside':
      return setReadingsAside(context, change);
    case 'put-back':
      return putBack(context, change);
    case 'leave-in':
      return leaveIn(context, change);
    case 'look-again':
      return lookAgain(context, change);
    case 'change-study':
      return changeStudy(context, change);
  }
}
