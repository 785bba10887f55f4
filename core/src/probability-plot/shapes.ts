import { farthestMultiple, fenceMultiple, shareBeyond } from '../describe/fence-multiples.js';
import { widestGap } from '../describe/gap.js';
import { quartilesOfSorted } from '../describe/quantiles.js';
import { kurtosisTest } from '../goodness-of-fit/normality/kurtosis.js';
import { skewnessTest } from '../goodness-of-fit/normality/skewness.js';
import { createRedraw, type Redrawn } from '../distributions/fit/redraw.js';
import { normalScore } from '../distributions/normal-score.js';
import { holm } from '../numeric/holm.js';
import { centralMoments } from '../numeric/sums.js';
import type { StreamState } from '../random/stream.js';

export type ShapeName =
  'right-tail-long' | 'left-tail-long' | 'tails-heavy' | 'tails-light' | 'one-far' | 'two-groups' | 'steps';

/** A pattern that the sample supports: the figure that supports it, and which marks show it (indices into the sorted readings). */
export interface PlotShape {
  shape: ShapeName;
  /** The skewness, the excess kurtosis, quartile ranges beyond the quartile, the gap in sds, or the steps in an sd. */
  figure: number;
  /** Null for steps of the resolution, which are counted and not tested. */
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

/** The patterns that are tested, each with p for the scores of a normal sample; null if a test needs more readings. */
function looksAt(scores: Float64Array, step: number): { looks: (Found | null)[]; sd: number } {
  const { n, mean, s2, s3, s4 } = centralMoments(scores);
  const sd = Math.sqrt(s2 / (n - 1));
  if (!(sd > 0)) return { looks: [], sd: 0 };
  const { low, high } = tails(n);
  const [g1, g2] = [s3 / n / (s2 / n) ** 1.5, s4 / n / (s2 / n) ** 2 - 3];
  const looks = [lean(g1, n, low, high), weight(g2, n, low, high), far(scores, step), gap(scores, mean, sd, step)];
  return { looks, sd };
}

/** The significant patterns, with the significance level shared by Holm's (1979) procedure, and the steps of a coarse resolution. */
function named(looks: readonly (Found | null)[], sd: number, step: number, alpha: number): PlotShape[] {
  const known = looks.filter((look) => look !== null);
  const passed = holm(
    known.map(({ pValue }) => pValue),
    alpha,
  );
  const found: PlotShape[] = known.filter((_, i) => passed[i]);
  if (step > 0 && sd > 0 && sd / step < COARSE)
    found.push({ shape: 'steps', figure: sd / step, pValue: null, marks: [] });
  return found;
}

/**
 * The patterns in the normal scores of readings (in rising order) under the distribution they were fitted by: skewness (D'Agostino 1970), the weight of the tails (Anscombe
 * & Glynn 1983), one suspected outlier beyond the quartiles, and an empty stretch (Fisher 1929). The level is shared among the looks, so that a clean sample gets any of
 * them at most as often as the level says. `step` is the resolution in scores; 0 where none is known. For families without estimated ends only: see `shapesBySamples`.
 */
export function shapesOf(scores: Float64Array, step: number, alpha: number): PlotShape[] {
  const { looks, sd } = looksAt(scores, step);
  return named(looks, sd, step, alpha);
}

/** The number of statistics for one sample. */
export const LOOKS = 4;
/** Skewness and kurtosis are judged on both sides, the others where they are large. */
const TWO_SIDED = [true, true, false, false];

/** The statistics of the tests, greater for a clearer pattern; −∞ if a test cannot be made. */
const figuresOf = (looks: readonly (Found | null)[]): number[] =>
  Array.from({ length: LOOKS }, (_, k) => {
    const look = looks[k];
    if (!look) return -Infinity;
    return k === 3 ? -look.pValue : look.figure;
  });

export interface LookSamples extends Redrawn {
  /** The resolution in normal scores; 0 where none is known. */
  scoreStep: number;
}

/** The statistics of the tests for samples of a distribution that is refitted to each, one sample after another. */
export function simulateLooks(
  { scoreStep, ...redrawn }: LookSamples,
  state: StreamState,
  replicates: number,
): Float64Array {
  const { values, next } = createRedraw(redrawn);
  const scores = new Float64Array(values.length);
  const out = new Float64Array(replicates * LOOKS);
  for (let r = 0; r < replicates; r++) {
    const own = next(state);
    for (let i = 0; i < scores.length; i++) scores[i] = normalScore(own, values[i]!);
    out.set(figuresOf(looksAt(scores, scoreStep).looks), r * LOOKS);
  }
  return out;
}

/**
 * The same patterns for distributions with estimated ends or thresholds: the most extreme readings then lie at the ends of the distribution, and the
 * scores are not those of a normal sample. The p of each test comes from refitted samples (STATISTICS section 10).
 */
export function shapesBySamples(
  scores: Float64Array,
  step: number,
  alpha: number,
  chunks: readonly Float64Array[],
): PlotShape[] {
  const { looks, sd } = looksAt(scores, step);
  const observed = figuresOf(looks);
  const replicates = chunks.reduce((sum, chunk) => sum + chunk.length, 0) / LOOKS;
  const judged = looks.map((look, k) => {
    if (!look) return null;
    let [above, below] = [0, 0];
    for (const chunk of chunks)
      for (let i = k; i < chunk.length; i += LOOKS) {
        if (chunk[i]! >= observed[k]!) above++;
        if (chunk[i]! <= observed[k]!) below++;
      }
    const tail = TWO_SIDED[k] ? 2 * (Math.min(above, below) + 1) : above + 1;
    const pValue = Math.min(1, tail / (replicates + 1));
    // Which of the two it is follows from the samples: light and heavy are so beside them.
    return { ...look, pValue, ...(k < 2 ? sided(k, above < below, look) : {}) };
  });
  return named(judged, sd, step, alpha);
}

/** The name of a pattern by the side on which its figure lies. */
function sided(k: number, isHigh: boolean, { marks }: Found): Pick<Found, 'shape' | 'marks'> {
  if (k === 1) return { shape: isHigh ? 'tails-heavy' : 'tails-light', marks };
  return { shape: isHigh ? 'right-tail-long' : 'left-tail-long', marks };
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

/** A gap separates two groups if more than two readings lie on either side. */
const LEAST_GROUP = 0.1;

function gap(scores: Float64Array, mean: number, sd: number, step: number): Found | null {
  const found = widestGap(scores, mean, sd, step);
  if (!found) return null;
  const n = scores.length;
  const upper = scores.indexOf(found.to);
  if (Math.min(upper, n - upper) < Math.max(3, LEAST_GROUP * n)) return null;
  return { shape: 'two-groups', figure: (found.to - found.from) / sd, pValue: found.pValue, marks: [upper - 1, upper] };
}
