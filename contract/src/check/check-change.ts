import { reachOf } from '../footprint.js';
import type { Change } from '../changes.js';
import {
  addColumnsObjection,
  changeColumnObjection,
  changeStudyObjection,
  freezeObjection,
  orderColumnsObjection,
  removeColumnsObjection,
  returnColumnsObjection,
  thawObjection,
} from './check-columns.js';
import { editCellsObjection, insertRowsObjection, readingsObjection, removeRowsObjection } from './check-rows.js';
import { no, type Objection, type StudyNow } from './study-now.js';

/**
 * What only undoing a change may do: restore columns, let a column follow again, restore marks or frozen values. As a change of its own it would
 * record something that nobody did.
 */
export function askedObjection(change: Change): Objection | null {
  const why = 'Only undoing a change does this.';
  if (change.kind === 'thaw-column' || change.kind === 'return-columns') return no('kind', why);
  if (change.kind === 'freeze-column' && change.texts) return no('texts', why);
  const marked = [
    ...(change.kind === 'set-aside' || change.kind === 'leave-in' ? change.readings : []),
    ...(change.kind === 'insert-rows' ? [...(change.aside ?? []), ...(change.leftIn ?? [])] : []),
  ];
  return marked.some(({ by }) => by) ? no('by', why) : null;
}

/**
 * Why a change cannot be done to this study, and the field at fault; null where it can. Everything about it is looked at before anything is
 * done; the page asks before it shows a change, the server before it stores one.
 * @param reach the last row that the change writes into, where its cells come by another way
 */
export function objectionTo(change: Change, study: StudyNow, reach = reachOf(change)): Objection | null {
  switch (change.kind) {
    case 'edit-cells':
      return editCellsObjection(study, change, reach);
    case 'add-columns':
      return addColumnsObjection(study, change, reach);
    case 'remove-columns':
      return removeColumnsObjection(study, change);
    case 'return-columns':
      return returnColumnsObjection(study, change);
    case 'change-column':
      return changeColumnObjection(study, change);
    case 'order-columns':
      return orderColumnsObjection(study, change);
    case 'freeze-column':
      return freezeObjection(study, change);
    case 'thaw-column':
      return thawObjection(study, change);
    case 'insert-rows':
      return insertRowsObjection(study, change);
    case 'remove-rows':
      return removeRowsObjection(study, change);
    case 'set-aside':
      return readingsObjection(study, change.readings, { is: study.isAside, wanted: false, words: 'set aside' });
    case 'put-back':
      return readingsObjection(study, change.readings, { is: study.isAside, wanted: true, words: 'set aside' });
    case 'leave-in':
      return readingsObjection(study, change.readings, {
        is: study.isLeftIn,
        wanted: false,
        words: 'kept with a reason',
      });
    case 'look-again':
      return readingsObjection(study, change.readings, {
        is: study.isLeftIn,
        wanted: true,
        words: 'kept with a reason',
      });
    case 'change-study':
      return changeStudyObjection(study, change);
  }
}
