import { log } from '../../numeric/elementary.js';
import { familyByName } from '../../distributions/registry.js';
import { familyScale, type FamilyScale } from '../../probability-plot/family-scale.js';
import { percentTicks, scoreRange } from '../../probability-plot/percent-axis.js';
import { outsideOf } from './plot-bands.js';
import { readPlot, type ProbabilityPlotResult } from './plot-result.js';

/** A way through the plot, in the units of its axes. */
export interface PlotPath {
  across: number[];
  up: number[];
}

/** What stands along an axis, and from where to where. Ticks are given where the units of the axis are not those that are read. */
export interface PlotAxisRange {
  of: 'readings' | 'percent' | 'score' | 'expected' | 'difference';
  min: number;
  max: number;
  ticks: readonly { at: number; value: number }[] | null;
  /** The place of a reading on it; null where no reading stands on it. */
  placeOf: ((reading: number) => number) | null;
}

/** What the picture of a probability plot is made of. */
export interface PlotPicture {
  across: PlotAxisRange;
  up: PlotAxisRange;
  points: { across: ArrayLike<number>; up: ArrayLike<number> };
  line: PlotPath;
  /** The edge of the band, once around. */
  band: PlotPath | null;
  /** Readings beyond a limit, at the edge of the plot towards which they lie further; none where no reading stands along an axis. */
  beyond: PlotPath;
  /** Indices into the table of the readings outside the band. */
  outside: ReadonlySet<number>;
  /** True where both axes are in the unit of the readings, at equal scales. */
  equal: boolean;
  /** From a reading to its place on the axis of readings, and back. */
  placeOf: (reading: number) => number;
  readingAt: (place: number) => number;
  /** The score of a share, where scores stand along an axis. */
  scoreOf: ((share: number) => number) | null;
}

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

const STEPS = [1, 2, 5, 10];
const decadesOf = (value: number) => log(value) / Math.LN10;

/** Round readings along an axis of logarithms: about seven of them, evenly where it spans little, by decades where it spans much. */
function logarithmTicks({ placeOf, readingAt, above }: FamilyScale, min: number, max: number) {
  const threshold = above ?? 0;
  const [low, high] = [readingAt(min), readingAt(max)];
  const [first, last] = [low - threshold, high - threshold];
  const values: number[] = [];
  if (last / first > 12) {
    for (let decade = 10 ** Math.floor(decadesOf(first)); decade <= last; decade *= 10) {
      for (const step of last / first > 500 ? [1] : [1, 2, 5])
        values.push(Number((decade * step + threshold).toPrecision(10)));
    }
  } else {
    const rough = (high - low) / 7;
    const decade = 10 ** Math.floor(decadesOf(rough));
    const step = decade * STEPS.find((s) => s * decade >= rough)!;
    for (let k = Math.ceil(low / step); k * step <= high; k++) values.push(Number((k * step).toPrecision(10)));
  }
  return values.filter((value) => value > low && value < high).map((value) => ({ at: placeOf(value), value }));
}

/** Both edges as one closed path: they do not meet at the same places. */
const around = (lower: number[], upper: number[], along: number[]) => ({
  limits: [...lower, ...upper.toReversed()],
  along: [...along, ...along.toReversed()],
});

/** The places of readings beyond a limit: their limits along the axis of readings, on the lower edge those that lie below, on the upper those above. */
function beyondAt({ censored }: ProbabilityPlotResult, readings: PlotAxisRange, other: PlotAxisRange): PlotPath {
  if (!censored || !readings.placeOf) return { across: [], up: [] };
  const across = Array.from(censored.limits, (limit) => {
    const at = readings.placeOf!(limit);
    return Math.min(readings.max, Math.max(readings.min, Number.isNaN(at) ? readings.min : at));
  });
  return { across, up: Array.from(censored.sides, (side) => (side < 0 ? other.min : other.max)) };
}

/** Readings on the family's own scale against scores. */
function onPaper(result: ProbabilityPlotResult, outside: ReadonlySet<number>): PlotPicture {
  const { band, line, law, limits } = result;
  const scale = familyScale(familyByName(law.family), law.parameters);
  const { placeOf } = scale;
  const scores = scoreRange(result.scores);
  const ends = [scores.min, scores.max];
  const places = Float64Array.from(result.readings, placeOf);
  const bounds = [limits.lower, limits.target, limits.upper, ...(result.censored?.limits ?? [])].flatMap((at) =>
    at === null || (scale.above !== null && at <= scale.above) ? [] : [placeOf(at)],
  );
  const [lower, upper] = [band?.lower.map(placeOf) ?? [], band?.upper.map(placeOf) ?? []];
  const onLine = ends.map((score) => line.intercept + 0.9 * line.slope * score);
  const range = rangeOf(places, [...lower.slice(0, 1), ...upper.slice(-1), ...onLine], bounds);
  const edge =
    band &&
    around(
      lower,
      upper,
      band.ranks.map((rank) => result.scores[rank]!),
    );
  const readings: PlotAxisRange = {
    of: 'readings',
    ...range,
    ticks: scale.above === null ? null : logarithmTicks(scale, range.min, range.max),
    placeOf,
  };
  const percent = result.axis === 'percent';
  const ticks = percent
    ? percentTicks(scores, scale.scoreOf).map(({ percent: value, score }) => ({ at: score, value }))
    : null;
  const up: PlotAxisRange = { of: percent ? 'percent' : 'score', ...scores, ticks, placeOf: null };
  return {
    across: readings,
    up,
    beyond: beyondAt(result, readings, up),
    points: { across: places, up: result.scores },
    line: { across: ends.map((score) => line.intercept + line.slope * score), up: ends },
    band: edge && { across: edge.limits, up: edge.along },
    outside,
    equal: false,
    placeOf,
    readingAt: scale.readingAt,
    scoreOf: (share) => scale.scoreOf(share),
  };
}

/** Readings against what the line expects of them, or how far off they are. */
function againstExpected(result: ProbabilityPlotResult, outside: ReadonlySet<number>): PlotPicture {
  const { band, readings, limits } = result;
  const expected = expectedReadings(result);
  const differs = result.axis === 'difference';
  const less = (reading: number, i: number) => (differs ? reading - expected[i]! : reading);
  const observed = Float64Array.from(readings, less);
  const lower = band?.lower.map((at, j) => less(at, band.ranks[j]!)) ?? [];
  const upper = band?.upper.map((at, j) => less(at, band.ranks[j]!)) ?? [];
  const edge =
    band &&
    around(
      lower,
      upper,
      band.ranks.map((rank) => expected[rank]!),
    );
  const bounds = differs
    ? []
    : [limits.lower, limits.target, limits.upper, ...(result.censored?.limits ?? [])].flatMap((at) => at ?? []);
  const off = differs ? observed.toSorted() : observed;
  const furthest = differs ? FURTHEST_DIFFERENCE : FURTHEST;
  const range = rangeOf(off, [...lower, ...upper, ...(differs ? [0] : [])], bounds, furthest);
  const expectedRange = rangeOf(expected, [], []);
  const both = { min: Math.min(range.min, expectedRange.min), max: Math.max(range.max, expectedRange.max) };
  const along = differs ? expectedRange : both;
  const ends = [along.min, along.max];
  const own: PlotAxisRange = differs
    ? { of: 'difference', ...range, ticks: null, placeOf: null }
    : { of: 'readings', ...both, ticks: null, placeOf: (reading) => reading };
  const up: PlotAxisRange = { of: 'expected', ...along, ticks: null, placeOf: null };
  return {
    across: own,
    up,
    beyond: beyondAt(result, own, up),
    points: { across: observed, up: expected },
    line: { across: differs ? [0, 0] : ends, up: ends },
    band: edge && { across: edge.limits, up: edge.along },
    outside,
    equal: !differs,
    placeOf: (reading) => reading,
    readingAt: (place) => place,
    scoreOf: null,
  };
}

function turned({ across, up, points, line, band, beyond, ...same }: PlotPicture): PlotPicture {
  const turn = <T>(of: { across: T; up: T }) => ({ across: of.up, up: of.across });
  return {
    ...same,
    across: up,
    up: across,
    points: turn(points),
    beyond: turn(beyond),
    line: turn(line),
    band: band && turn(band),
  };
}

/** Axes, line, points and band of a probability plot. */
export function plotPicture(kept: ProbabilityPlotResult): PlotPicture {
  const result = readPlot(kept);
  const outside = new Set(result.band ? outsideOf(result, result.band) : []);
  const drawn =
    result.axis === 'percent' || result.axis === 'score' ? onPaper(result, outside) : againstExpected(result, outside);
  // Differences stand upright where the readings lie across: they are looked at from left to right.
  const swap = (result.sides === 'readings-up') !== (result.axis === 'difference');
  return swap ? turned(drawn) : drawn;
}

/** The table behind the plot, its head first, readings beyond a limit last, without a place: rank, row, reading, p, score, what the line expects there, and how far off the reading is. */
export function plotTable(kept: ProbabilityPlotResult): (readonly (string | number)[])[] {
  const result = readPlot(kept);
  const { rows, readings, positions, scores, ranks, censored } = result;
  const expected = expectedReadings(result);
  const lines = Array.from(readings, (reading, i) => [
    ranks?.[i] ?? i + 1,
    rows[i]!,
    reading,
    positions[i]!,
    scores[i]!,
    expected[i]!,
    reading - expected[i]!,
  ]);
  const beyond = Array.from(censored?.rows ?? [], (row, i) => [
    '–',
    row,
    `${censored!.sides[i]! < 0 ? '<' : '>'}${censored!.limits[i]!}`,
    ...['', '', '', ''],
  ]);
  return [['i', 'row', 'reading', 'p', 'score', 'expected', 'observed − expected'], ...lines, ...beyond];
}
