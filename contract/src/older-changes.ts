/** A recorded change as it is written today: version 0.1 listed single cells where there are runs now. */
export function fromOlder(change: unknown): unknown {
  const { kind, cells, ...rest } = (change ?? {}) as {
    kind?: string;
    cells?: { column: string; row: number; text: string }[];
  };
  if (kind !== 'edit-cells' || !cells) return change;
  return { kind, ...rest, runs: cells.map(({ column, row, text }) => ({ column, row, texts: [text] })) };
}
