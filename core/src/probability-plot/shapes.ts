import { farthestMultiple, fenceMultiple, shareBeyond } from '../describe/fence-multiples.js';
import { widestGap } from '../describe/gap.js';
import { quartilesOfSorted } from '../describe/quantiles.js';
import { kurtosisTest } from '../goodness-of-fit/normality/kurtosis.js';
import { skewnessTest } from '../goodness-of-fit/normality/skewness.js';
import { holm } from '../numeric/holm.js';
import { centralMoments } from '../numeric/sums.js';

export type ShapeName =
  'right-tail-long' | 'left-tail-long' | 'tails-heavy' | 'tails-light' | 'one-far' | 'two-groups' | 'steps';

/** A pattern that the sample supports: the figure that supports it, and which marks show it (indices into the sorted readings). */
export interface PlotShape {
  shape: ShapeName;
  /** The skewness, the excess kurtosis, quartile ranges beyond the quartile, the gap in sds, or the steps in an sd. */
  figure: number;
  /** Null for steps, which are counted and not inferred. */
  pValue: number | null;
  marks: number[];
}

/** Readings so close to each other that rounding makes steps of them: fewer than this many steps in an sd. */
const COARSE = 4;
/** The part of the plot that is called a tail. */
const TAIL = 1 / 6;

type Found = Omit<PlotShape, 'pValue'> & { pValue: number };

/** What lies at either end of n marks. */
function tails(n: number) {
  const count = Math.max(1, Math.floor(n * TAIL));
  const low = Array.from({ length: count }, (_, i) => i);
  const high = low.map((i) => n - 1 - i).reverse();
  return { low, high };
}

/**
 * The patterns in the normal scores of readings (in rising order) under the distribution they were fitted by: a lean (D'Agostino 1970), the weight of the tails (Anscombe
 * & Glynn 1983), one reading far beyond the quartiles, and an empty stretch (Fisher 1929). The level is shared among the looks by Holm's (1979) steps, so that a clean sample
 * gets any of them at most as often as the level says. `step` is the resolution in scores; 0 where none is known.
 */
export function shapesOf(scores: Float64Array, step: number, alpha: number): PlotShape[] {
  const { n, mean, s2, s3, s4 } = centralMoments(scores);
  const sd = Math.sqrt(s2 / (n - 1));
  if (!(sd > 0)) return [];
  const { low, high } = tails(n);
  const [g1, g2] = [s3 / n / (s2 / n) ** 1.5, s4 / n / (s2 / n) ** 2 - 3];
  const looks: (Found | null)[] = [
    lean(g1, n, low, high),
    weight(g2, n, low, high),
    far(scores, step),
    gap(scores, mean, sd, step),
  ];
  const known = looks.filter((look) => look !== null);
  const passed = holm(
    known.map(({ pValue }) => pValue),
    alpha,
  );
  const found: PlotShape[] = known.filter((_, i) => passed[i]);
  if (step > 0 && sd / step < COARSE) found.push({ shape: 'steps', figure: sd / step, pValue: null, marks: [] });
  return found;
}

function lean(g1: number, n: number, low: number[], high: number[]): Found | null {
  const test = skewnessTest(g1, n);
  if (!test) return null;
  const right = g1 > 0;
  return {
    shape: right ? 'right-tail-long' : 'left-tail-long',
    figure: g1,
    pValue: test.pValue,
    marks: right ? high : low,
  };
}

function weight(g2: number, n: number, low: number[], high: number[]): Found | null {
  const test = kurtosisTest(g2, n);
  if (!test) return null;
  return { shape: g2 > 0 ? 'tails-heavy' : 'tails-light', figure: g2, pValue: test.pValue, marks: [...low, ...high] };
}

function far(scores: Float64Array, step: number): Found | null {
  const n = scores.length;
  const [q1, q3] = quartilesOfSorted(scores, 7);
  if (!(q3 > q1)) return null;
  const at = fenceMultiple(scores[0]!, [q1, q3]) > fenceMultiple(scores[n - 1]!, [q1, q3]) ? 0 : n - 1;
  const multiple = farthestMultiple(scores, [q1, q3], step);
  const pValue = shareBeyond(multiple, n, 7);
  return pValue === null ? null : { shape: 'one-far', figure: multiple, pValue, marks: [at] };
}

/** An empty stretch parts two groups where neither side is a mark or two. */
const LEAST_GROUP = 0.1;

function gap(scores: Float64Array, mean: number, sd: number, step: number): Found | null {
  const found = widestGap(scores, mean, sd, step);
  if (!found) return null;
  const n = scores.length;
  const upper = scores.indexOf(found.to);
  if (Math.min(upper, n - upper) < Math.max(3, LEAST_GROUP * n)) return null;
  return { shape: 'two-groups', figure: (found.to - found.from) / sd, pValue: found.pValue, marks: [upper - 1, upper] };
}
