import { isRefusal, type Refusal } from '../../distributions/family.js';
import { censoredRanks } from '../../probability-plot/censored-ranks.js';
import { plottingPositions, positionsOfRanks, type PositionRule } from '../../probability-plot/positions.js';
import type { Sample } from '../../readings/sample.js';

/** Where sorted known readings are plotted among all n, those beyond a limit among them; `ranks` is null where there are none such. */
export interface Placed {
  n: number;
  ranks: Float64Array | null;
  positions: Float64Array;
}

/** The positions of the sorted known readings; refused where limits cross. */
export function positionsAmong(
  { censored }: Pick<Sample, 'censored'>,
  sorted: Float64Array,
  rule: PositionRule,
): Placed | Refusal {
  if (!censored) return { n: sorted.length, ranks: null, positions: plottingPositions(sorted.length, rule) };
  const { limits, sides } = censored;
  const n = sorted.length + limits.length;
  const ranks = censoredRanks(sorted, {
    below: limits.filter((_, i) => sides[i]! < 0),
    above: limits.filter((_, i) => sides[i]! > 0),
  });
  return isRefusal(ranks) ? ranks : { n, ranks, positions: positionsOfRanks(ranks, n, rule) };
}
