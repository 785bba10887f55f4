import type { StudyFile } from '@verdict/contract';

const withoutEnd = (cells: readonly string[]) => {
  let length = cells.length;
  while (length > 0 && cells[length - 1] === '') length--;
  return cells.slice(0, length);
};

/**
 * Everything about a study that taking a change back has to bring back, as a text to compare. A column that was added and taken out
 * again stays, out of the table: `known` names the columns that were there before.
 */
export function stateOf(
  { study, columns, setAside, leftIn, evidence, verdicts }: StudyFile,
  known: ReadonlySet<string>,
): string {
  const { revision: _, ...facts } = study;
  const shown = columns.filter(({ id, removed }) => !removed || known.has(id));
  const ids = new Set(shown.map(({ id }) => id));
  const own = shown
    .map((column) => ({ ...column, cells: withoutEnd(column.cells) }))
    .sort((a, b) => (a.id < b.id ? -1 : 1));
  const marked = (all: StudyFile['setAside']) =>
    all
      .filter(({ columnId }) => ids.has(columnId))
      .map((reading) => JSON.stringify(reading))
      .sort();
  return JSON.stringify({
    facts,
    own,
    order: columns.filter((c) => !c.removed).map(({ id }) => id),
    aside: marked(setAside),
    left: marked(leftIn),
    evidence,
    verdicts,
  });
}
