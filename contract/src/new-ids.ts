import type { Derivation } from '@verdict/core/table';
import type { Change } from './changes.js';

/** The new id for an old one; an id that has no new one stays. */
export type NewId = (id: string) => string;

/** A derivation that follows the same columns under their new ids. */
export function derivationWithIds(derivation: Derivation, to: NewId): Derivation {
  switch (derivation.kind) {
    case 'made-up':
      return derivation;
    case 'formula':
      return {
        ...derivation,
        expression: derivation.expression.replace(/\[([^\][]+)\]/g, (_, id: string) => `[${to(id)}]`),
      };
    case 'share': {
      const { source, trials } = derivation;
      return { ...derivation, source: to(source), trials: typeof trials === 'string' ? to(trials) : trials };
    }
    default:
      return { ...derivation, source: to(derivation.source) };
  }
}

const orNull = <T>(value: T | null, to: (value: T) => T) => (value === null ? null : to(value));

interface Follows {
  derivation?: Derivation | null | undefined;
  frequencies?: string | null | undefined;
}

/** The columns that a column follows, under new ids; absent values stay absent. */
export const followsWithIds = <T extends Follows>(said: T, to: NewId): T => ({
  ...said,
  ...(said.derivation === undefined
    ? {}
    : { derivation: orNull(said.derivation, (derivation) => derivationWithIds(derivation, to)) }),
  ...(said.frequencies === undefined ? {} : { frequencies: orNull(said.frequencies, to) }),
});

const placed = <T extends { column: string }>(items: readonly T[], to: NewId): T[] =>
  items.map((item) => ({ ...item, column: to(item.column) }));

/** The same change to the same columns under their new ids. Ids are replaced where they are ids, never in a text. */
export function changeWithIds(change: Change, to: NewId): Change {
  switch (change.kind) {
    case 'edit-cells':
      return { ...change, runs: placed(change.runs, to) };
    case 'add-columns':
      return {
        ...change,
        columns: change.columns.map((column) => ({ ...followsWithIds(column, to), id: to(column.id) })),
      };
    case 'remove-columns':
    case 'return-columns': {
      const subject = change.subject === undefined ? {} : { subject: orNull(change.subject, to) };
      return { ...change, columns: change.columns.map(to), ...subject };
    }
    case 'order-columns':
      return { ...change, columns: change.columns.map(to) };
    case 'change-column':
      return {
        ...followsWithIds(change, to),
        column: to(change.column),
        ...(change.renames && { renames: placed(change.renames, to) }),
        ...(change.bounds && { bounds: placed(change.bounds, to) }),
      };
    case 'freeze-column':
      return { ...change, column: to(change.column) };
    case 'thaw-column':
      return { ...change, column: to(change.column), derivation: derivationWithIds(change.derivation, to) };
    case 'insert-rows': {
      const contents = change.contents && { contents: placed(change.contents, to) };
      const aside = change.aside && { aside: placed(change.aside, to) };
      return { ...change, ...contents, ...aside, ...(change.leftIn && { leftIn: placed(change.leftIn, to) }) };
    }
    case 'set-aside':
      return { ...change, readings: placed(change.readings, to) };
    case 'leave-in':
      return { ...change, readings: placed(change.readings, to) };
    case 'put-back':
    case 'look-again':
      return { ...change, readings: placed(change.readings, to) };
    case 'change-study':
      return change.subject === undefined ? change : { ...change, subject: orNull(change.subject, to) };
    case 'remove-rows':
      return change;
  }
}
