import type { QuantileType } from '../../describe/quantiles.js';
import { medianOfSorted, quartilesOfSorted } from '../../describe/quantiles.js';
import { simulatedP } from '../../goodness-of-fit/simulated-p.js';
import { decimalsOf } from '../../numeric/format.js';
import { centreAndSpread, farthest, type Side } from '../../outliers/grubbs.js';
import { fencePlace, modifiedZ, robustScale } from '../../outliers/screens.js';
import { typingSlips, type Slip } from '../../outliers/typing-slips.js';
import type { Sample } from '../../readings/sample.js';
import type { Scale } from './outlier-scale.js';
import { columnsOf, rowsOf } from './outlier-judging.js';
import type { Extreme } from './outliers-result.js';

/** As many are told, or as many as may be named. */
const USUAL_SHOWN = 8;
const MOST_SHOWN = 20;
/** A slip explains a reading where the mended one would be ordinary among the others. */
const ORDINARY_Z = 2.5;
const WRITTEN_DECIMALS = 6;

/** The label of every row that has one. */
function labelsOf({ groups }: Sample): Map<number, string> | null {
  if (!groups || groups.by === null) return null;
  return new Map(groups.samples.flatMap(({ name, rows }) => Array.from(rows, (row): [number, string] => [row, name])));
}

/** How many of the most extreme readings are shown: half of the sample at most. */
export const extremesShown = (n: number, most: number): number =>
  Math.min(Math.max(USUAL_SHOWN, most), MOST_SHOWN, n >> 1);

/** The places of the most extreme readings in rising order and their scores, each without those more extreme than it. */
function stepsOf(sorted: Float64Array, count: number, side: Side): { at: number; score: number | null }[] {
  let [from, to] = [0, sorted.length];
  return Array.from({ length: count }, () => {
    const rest = sorted.subarray(from, to);
    const hasSpread = rest[rest.length - 1]! > rest[0]!;
    const { mean, sd } = centreAndSpread(rest);
    const { at, statistic } = farthest(rest, mean, hasSpread ? sd : 1, side);
    const step = { at: from + at, score: hasSpread ? (at === 0 ? -statistic : statistic) : null };
    if (at === 0) from++;
    else to--;
    return step;
  });
}

/** The most extreme readings on the side which is asked about, in the order in which the generalised ESD would remove them. */
export function extremesOf(
  sample: Sample,
  sorted: Float64Array,
  scale: Scale,
  { side, most, quantileType }: { side: Side; most: number; quantileType: QuantileType },
): Extreme[] {
  const { mean, sd } = centreAndSpread(sorted);
  const robust = robustScale(sorted);
  const quartiles = quartilesOfSorted(sorted, quantileType);
  const labels = labelsOf(sample);
  const decimals = sample.resolution === null ? WRITTEN_DECIMALS : decimalsOf(sample.resolution);
  const middle = medianOfSorted(sorted);
  const fits = (x: number) => Math.abs(modifiedZ(x, robust)) <= ORDINARY_Z;
  const taken = new Set<number>();
  const found = stepsOf(scale.sorted, extremesShown(sorted.length, most), side).map(({ at, score }, k): Extreme => {
    const value = sorted[at]!;
    const equal = rowsOf(sample, value);
    const row = equal.find((one) => !taken.has(one)) ?? equal[0]!;
    taken.add(row);
    const fence = fencePlace(value, quartiles);
    // Of one that is hardly out, a digit here or there makes an ordinary one in any case.
    const slips: Slip[] = fence === 'far' ? typingSlips(value, decimals, fits) : [];
    const group = labels?.get(row);
    return {
      ...{
        place: k + 1,
        row,
        value,
        ...(group === undefined ? {} : { group }),
        z: (value - mean) / sd,
        zWithout: score,
      },
      ...{ modifiedZ: modifiedZ(value, robust), fence, probability: null },
      // Of several those that come nearest to the others.
      slips: slips.sort((a, b) => Math.abs(a.value - middle) - Math.abs(b.value - middle)).slice(0, 2),
    };
  });
  // A row of frequencies stands for all its readings, once.
  return found.filter(({ row }, k) => found.findIndex((one) => one.row === row) === k);
}

/** The same with how often clean samples have such a reading; their scores stand in the last columns of the chunks. */
export function withProbabilities(
  extremes: readonly Extreme[],
  side: Side,
  chunks: readonly Float64Array[],
  { before, shown }: { before: number; shown: number },
): Extreme[] {
  return extremes.map((one) => {
    const column = columnsOf(chunks, before + shown, before + one.place - 1);
    const score = one.zWithout ?? 0;
    const observed = side === 'lower' ? -score : side === 'upper' ? score : Math.abs(score);
    return { ...one, probability: simulatedP(observed, column, 0).pValue };
  });
}
