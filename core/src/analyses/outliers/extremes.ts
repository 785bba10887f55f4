import type { QuantileType } from '../../describe/quantiles.js';
import { medianOfSorted, quartilesOfSorted } from '../../describe/quantiles.js';
import { expm1, log1p } from '../../numeric/elementary.js';
import { decimalsOf } from '../../numeric/format.js';
import { centreAndSpread, type Side } from '../../outliers/grubbs.js';
import { fencePlace, modifiedZ, robustScale } from '../../outliers/screens.js';
import { typingSlips, type Slip } from '../../outliers/typing-slips.js';
import type { Sample } from '../../readings/sample.js';
import type { Scale } from './outlier-scale.js';
import { rowsAt } from './outlier-judging.js';
import type { Extreme } from './outliers-result.js';

/** As many are told, or as many as may be named. */
const USUAL_SHOWN = 8;
const MOST_SHOWN = 20;
/** A slip explains a reading where the mended one would be ordinary among the others. */
const ORDINARY_Z = 2.5;
const WRITTEN_DECIMALS = 6;

/** The chance that the farthest of n readings of a law lies at x or further out: 1 − (1 − tail)^n, of both tails twice the smaller. */
function chanceOfFarthest(x: number, n: number, side: Side, { law }: Scale): number {
  const [below, above] = [law.cumulative(x), law.survival(x)];
  const tail = side === 'upper' ? above : side === 'lower' ? below : Math.min(1, 2 * Math.min(below, above));
  return tail >= 1 ? 1 : -expm1(n * log1p(-tail));
}

/** The label of every row that has one. */
function labelsOf({ groups }: Sample): Map<number, string> | null {
  if (!groups || groups.by === null) return null;
  return new Map(groups.samples.flatMap(({ name, rows }) => Array.from(rows, (row): [number, string] => [row, name])));
}

/** The readings that lie farthest out on the side which is asked about, the farthest first. */
export function extremesOf(
  sample: Sample,
  sorted: Float64Array,
  scale: Scale,
  { side, most, quantileType }: { side: Side; most: number; quantileType: QuantileType },
): Extreme[] {
  const n = sorted.length;
  const shown = Math.min(Math.max(USUAL_SHOWN, most), MOST_SHOWN, n >> 1);
  const ends = { low: side === 'upper' ? 0 : shown, high: side === 'lower' ? 0 : shown };
  const { mean, sd } = centreAndSpread(sorted);
  const robust = robustScale(sorted);
  const quartiles = quartilesOfSorted(sorted, quantileType);
  const labels = labelsOf(sample);
  const at = new Map(rowsAt(sample, sorted, ends).map((row) => [row, 0]));
  sample.rows.forEach((row, i) => at.has(row) && at.set(row, sample.values[i]!));
  const decimals = sample.resolution === null ? WRITTEN_DECIMALS : decimalsOf(sample.resolution);
  const middle = medianOfSorted(sorted);
  const fits = (x: number) => Math.abs(modifiedZ(x, robust)) <= ORDINARY_Z;
  const found = [...at].map(([row, value]): Extreme => {
    const fence = fencePlace(value, quartiles);
    // Of one that is hardly out, a digit here or there makes an ordinary one in any case.
    const slips: Slip[] = fence === 'far' ? typingSlips(value, decimals, fits) : [];
    const group = labels?.get(row);
    return {
      ...{ row, value, ...(group === undefined ? {} : { group }), z: (value - mean) / sd },
      ...{ modifiedZ: modifiedZ(value, robust), fence, probability: chanceOfFarthest(value, n, side, scale) },
      // Of several those that come nearest to the others.
      slips: slips.sort((a, b) => Math.abs(a.value - middle) - Math.abs(b.value - middle)).slice(0, 2),
    };
  });
  const far = ({ value }: Extreme) => Math.abs(value - middle);
  const inOrder = found.sort((a, b) => a.probability - b.probability || far(b) - far(a) || a.row - b.row);
  // Of either side the farthest at both ends are told, however lopsided the readings.
  const first = new Set([inOrder.find(({ value }) => value > middle), inOrder.find(({ value }) => value < middle)]);
  const others = inOrder.filter((one) => !first.has(one)).slice(0, Math.max(0, shown - first.size));
  return inOrder.filter((one) => first.has(one) || others.includes(one));
}
