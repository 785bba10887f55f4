/** The values that occur most often, and how often; none, with count 0, where every value occurs once. */
export interface Modes {
  values: number[];
  count: number;
  /** How many such values there are; `values` holds the first 20. */
  total: number;
}

const MOST_NAMED = 20;

/** The modes of readings in rising order, how many different values there are, and how many readings share theirs with another. */
export function modesOfSorted(sorted: Float64Array): { modes: Modes; distinct: number; tied: number } {
  let most = 1;
  let total = 0;
  let distinct = 0;
  let tied = 0;
  let values: number[] = [];
  for (let from = 0; from < sorted.length;) {
    const value = sorted[from]!;
    let to = from + 1;
    while (to < sorted.length && sorted[to] === value) to++;
    const count = to - from;
    distinct++;
    if (count > 1) tied += count;
    if (count > most) {
      most = count;
      values = [];
      total = 0;
    }
    if (count === most && count > 1) {
      total++;
      if (values.length < MOST_NAMED) values.push(value);
    }
    from = to;
  }
  return { modes: { values, count: total === 0 ? 0 : most, total }, distinct, tied };
}
