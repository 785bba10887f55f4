import { familyByName } from '../../distributions/registry.js';
import { familyScale } from '../../probability-plot/family-scale.js';
import { scoreRange } from '../../probability-plot/percent-axis.js';
import type { ProbabilityPlotResult } from './plot-result.js';

export interface Range {
  min: number;
  max: number;
}

/** How far a plot reaches: along the places of its readings (or differences), and along scores or what is expected. */
export interface PlotRanges {
  readings: Range;
  other: Range;
}

/** True where readings stand on the family's own scale, against percent or scores. */
export const isOnPaper = ({ axis }: Pick<ProbabilityPlotResult, 'axis'>): boolean =>
  axis === 'percent' || axis === 'score';

/** The reading that the line expects at each rank. */
export function expectedReadings({ law, line, scores }: ProbabilityPlotResult): Float64Array {
  const { readingAt } = familyScale(familyByName(law.family), law.parameters);
  return Float64Array.from(scores, (score) => readingAt(line.intercept + line.slope * score));
}

/** Bands of heavy tails run far out: so many ranges of the readings are shown on either side. */
const FURTHEST = 0.75;
/** Of differences the band is what they are looked at beside: it is shown nearly whole. */
const FURTHEST_DIFFERENCE = 4;
/** Limits further off than this share of the range do not squeeze the readings together. */
const FURTHEST_LIMIT = 0.6;
const AIR = 0.02;

/** The range that holds all readings, the band and near limits, and a little air. */
function rangeOf(
  readings: ArrayLike<number>,
  others: readonly number[],
  limits: readonly number[],
  furthest = FURTHEST,
) {
  const [least, most] = [readings[0]!, readings[readings.length - 1]!];
  const range = most - least || Math.abs(most) || 1;
  let [min, max] = [least, most];
  const near = (values: readonly number[], reach: number) => {
    for (const value of values) {
      if (!Number.isFinite(value)) continue;
      min = Math.min(min, Math.max(value, least - reach * range));
      max = Math.max(max, Math.min(value, most + reach * range));
    }
  };
  near(others, furthest);
  const within = limits.filter((at) => at > least - FURTHEST_LIMIT * range && at < most + FURTHEST_LIMIT * range);
  near(within, FURTHEST_LIMIT);
  const air = (max - min) * AIR;
  return { min: min - air, max: max + air };
}

/** Observed readings, or how far off they are, beside what the line expects; the band's edges likewise. */
export function observedAndExpected(result: ProbabilityPlotResult) {
  const { band, readings } = result;
  const expected = expectedReadings(result);
  const less = (reading: number, i: number) => (result.axis === 'difference' ? reading - expected[i]! : reading);
  return {
    expected,
    observed: Float64Array.from(readings, less),
    lower: band?.lower.map((at, j) => less(at, band.ranks[j]!)) ?? [],
    upper: band?.upper.map((at, j) => less(at, band.ranks[j]!)) ?? [],
  };
}

/** Target, limits, and the limits that readings lie beyond. */
const boundsOf = ({ limits, censored }: ProbabilityPlotResult): number[] =>
  [limits.lower, limits.target, limits.upper, ...Array.from(censored?.limits ?? [])].flatMap((at) => at ?? []);

function onPaper(result: ProbabilityPlotResult): PlotRanges {
  const { band, line, law } = result;
  const { placeOf, above } = familyScale(familyByName(law.family), law.parameters);
  const scores = scoreRange(result.scores);
  const bounds = boundsOf(result).flatMap((at) => (above !== null && at <= above ? [] : [placeOf(at)]));
  const [lower, upper] = [band?.lower.map(placeOf) ?? [], band?.upper.map(placeOf) ?? []];
  const onLine = [scores.min, scores.max].map((score) => line.intercept + 0.9 * line.slope * score);
  const places = Float64Array.from(result.readings, placeOf);
  return { readings: rangeOf(places, [...lower.slice(0, 1), ...upper.slice(-1), ...onLine], bounds), other: scores };
}

function againstExpected(result: ProbabilityPlotResult): PlotRanges {
  const { expected, observed, lower, upper } = observedAndExpected(result);
  const differs = result.axis === 'difference';
  const off = differs ? observed.toSorted() : observed;
  const furthest = differs ? FURTHEST_DIFFERENCE : FURTHEST;
  const readings = rangeOf(
    off,
    [...lower, ...upper, ...(differs ? [0] : [])],
    differs ? [] : boundsOf(result),
    furthest,
  );
  return { readings, other: rangeOf(expected, [], []) };
}

/** How far a plot reaches by itself. */
export const rangesOf = (result: ProbabilityPlotResult): PlotRanges =>
  isOnPaper(result) ? onPaper(result) : againstExpected(result);

const hull = (ranges: readonly Range[]): Range => ({
  min: Math.min(...ranges.map(({ min }) => min)),
  max: Math.max(...ranges.map(({ max }) => max)),
});

/** How far several plots reach together. */
export function commonRanges(results: readonly ProbabilityPlotResult[]): PlotRanges {
  const all = results.map(rangesOf);
  return { readings: hull(all.map(({ readings }) => readings)), other: hull(all.map(({ other }) => other)) };
}
