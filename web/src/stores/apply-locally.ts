import type { Change, Study, StudyCells, StudyColumn } from '@verdict/contract';

export interface Local {
  study: Study;
  cells: StudyCells;
  /** Columns taken out by a change that is still on its way, so that its inverse finds them. */
  removed: Map<string, StudyColumn>;
}

const grown = (cells: string[] | undefined, rowCount: number): string[] => {
  const copy = (cells ?? []).slice(0, rowCount);
  while (copy.length < rowCount) copy.push('');
  return copy;
};

function editCells({ study, cells }: Local, change: Extract<Change, { kind: 'edit-cells' }>): void {
  const reach = change.cells.reduce((most, { row }) => Math.max(most, row), study.rowCount);
  const rowCount = change.rowCount ?? reach;
  const touched = new Set(change.cells.map(({ column }) => column));
  for (const { id } of study.columns) {
    if (touched.has(id) || rowCount !== study.rowCount) cells[id] = grown(cells[id], Math.max(rowCount, reach));
  }
  for (const { column, row, text } of change.cells) cells[column]![row - 1] = text;
  if (rowCount < reach) for (const { id } of study.columns) cells[id] = grown(cells[id], rowCount);
  study.rowCount = rowCount;
}

/**
 * What the page shows at once, before the server has answered: the same change on the page's own copy. The server stays the judge; if
 * it refuses, the copy is read again.
 */
export function applyLocally(local: Local, change: Change, who: string, at: string): void {
  const { study, cells } = local;
  switch (change.kind) {
    case 'edit-cells':
      return editCells(local, change);
    case 'add-columns': {
      study.rowCount = Math.max(study.rowCount, ...change.columns.map((column) => column.cells.length));
      for (const { cells: text, ...column } of change.columns) {
        study.columns.push(column);
        cells[column.id] = text;
        study.subject ??= column.kind === 'measure' ? column.id : null;
      }
      for (const { id } of study.columns) cells[id] = grown(cells[id], study.rowCount);
      return;
    }
    case 'remove-columns': {
      for (const column of study.columns) if (change.columns.includes(column.id)) local.removed.set(column.id, column);
      study.columns = study.columns.filter(({ id }) => !change.columns.includes(id));
      if (study.subject && change.columns.includes(study.subject)) {
        study.subject = study.columns.find(({ kind }) => kind === 'measure')?.id ?? null;
      }
      return;
    }
    case 'return-columns':
      for (const id of change.columns) if (local.removed.has(id)) study.columns.push(local.removed.get(id)!);
      return;
    case 'change-column': {
      const column = study.columns.find(({ id }) => id === change.column);
      if (!column) return;
      const { kind: _, column: __, columnKind, ...rest } = change;
      Object.assign(column, rest, columnKind ? { kind: columnKind } : {});
      return;
    }
    case 'set-aside': {
      const places = new Set(change.readings.map(({ column, row }) => `${column}/${row}`));
      const others = study.setAside.filter(({ column, row }) => !places.has(`${column}/${row}`));
      study.setAside = [...others, ...change.readings.map((reading) => ({ ...reading, who, at }))];
      return;
    }
    case 'put-back': {
      const places = new Set(change.readings.map(({ column, row }) => `${column}/${row}`));
      study.setAside = study.setAside.filter(({ column, row }) => !places.has(`${column}/${row}`));
      return;
    }
    case 'change-study': {
      const { kind: _, ...rest } = change;
      Object.assign(study, rest);
    }
  }
}
