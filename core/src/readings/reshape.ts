/** Cells of a column with the reasons of those that are set aside, by row from 1. */
export interface Strand {
  name: string;
  cells: readonly string[];
  aside: ReadonlyMap<number, string>;
}

export interface Stacked {
  values: string[];
  labels: string[];
  aside: { row: number; reason: string }[];
}

function writtenLength(cells: readonly string[]): number {
  let n = cells.length;
  while (n > 0 && cells[n - 1]!.trim() === '') n--;
  return n;
}

/**
 * Several columns one below the other, with a label that says which each cell came from. Empty cells at the end of a column are not part
 * of it; those within are missing readings and stay. Set-aside readings stay set aside.
 */
export function stack(strands: readonly Strand[]): Stacked {
  const stacked: Stacked = { values: [], labels: [], aside: [] };
  for (const { name, cells, aside } of strands) {
    const n = writtenLength(cells);
    for (const [row, reason] of aside) if (row <= n) stacked.aside.push({ row: stacked.values.length + row, reason });
    for (let i = 0; i < n; i++) {
      stacked.values.push(cells[i]!);
      stacked.labels.push(name);
    }
  }
  return stacked;
}

/** One column for each level of a label, its cells in row order; cells without a level are left out. The inverse of `stack`. */
export function spread(
  { cells, aside }: Omit<Strand, 'name'>,
  levelOfRow: readonly (string | null)[],
  levels: readonly string[],
): { name: string; cells: string[]; aside: { row: number; reason: string }[] }[] {
  const columns = levels.map((name) => ({
    name,
    cells: [] as string[],
    aside: [] as { row: number; reason: string }[],
  }));
  const byName = new Map(columns.map((column) => [column.name, column]));
  cells.forEach((text, i) => {
    const column = byName.get(levelOfRow[i] ?? '');
    if (!column) return;
    column.cells.push(text);
    const reason = aside.get(i + 1);
    if (reason !== undefined) column.aside.push({ row: column.cells.length, reason });
  });
  return columns;
}
