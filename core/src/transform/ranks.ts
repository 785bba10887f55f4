import { normalQuantile } from '../numeric/standard-normal.js';
import { positionsOfRanks } from '../probability-plot/positions.js';

/** The rank of each value from the least, with mean ranks for ties; NaN stays NaN and is not counted. */
export function ranks(values: Float64Array): Float64Array {
  const order = [...values.keys()].filter((i) => !Number.isNaN(values[i]!)).sort((a, b) => values[a]! - values[b]!);
  const result = new Float64Array(values.length).fill(NaN);
  for (let from = 0; from < order.length;) {
    let to = from;
    while (to + 1 < order.length && values[order[to + 1]!] === values[order[from]!]) to++;
    for (let k = from; k <= to; k++) result[order[k]!] = (from + to) / 2 + 1;
    from = to + 1;
  }
  return result;
}

/** Normal scores: the standard normal quantiles at Blom's positions (1958), (rank − 3/8)/(n + 1/4). NaN stays NaN. */
export function normalScores(values: Float64Array): Float64Array {
  const found = ranks(values);
  const n = found.reduce((sum, rank) => sum + (Number.isNaN(rank) ? 0 : 1), 0);
  return positionsOfRanks(found, n, 'blom').map((p) => (Number.isNaN(p) ? NaN : normalQuantile(p)));
}
