/** The least index from which on a rising condition holds. */
function firstWhere(length: number, holds: (i: number) => boolean): number {
  let low = 0;
  let high = length;
  while (low < high) {
    const mid = (low + high) >> 1;
    if (holds(mid)) high = mid;
    else low = mid + 1;
  }
  return low;
}

/** Where a row stands once others are in. @param rows their numbers once they are in, rising */
export const movedByInsert =
  (rows: readonly number[]) =>
  (row: number): number =>
    row + firstWhere(rows.length, (k) => rows[k]! - k > row);

/** Where a row stands once others are out; null for one of them. @param rows their numbers, rising */
export const movedByRemoval =
  (rows: readonly number[]) =>
  (row: number): number | null => {
    const before = firstWhere(rows.length, (k) => rows[k]! >= row);
    return rows[before] === row ? null : row - before;
  };
