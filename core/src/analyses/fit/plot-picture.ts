import { log } from '../../numeric/elementary.js';
import { familyByName } from '../../distributions/registry.js';
import { familyScale, type FamilyScale } from '../../probability-plot/family-scale.js';
import { percentTicks } from '../../probability-plot/percent-axis.js';
import { outsideOf } from './plot-bands.js';
import { expectedReadings, isOnPaper, observedAndExpected, rangesOf, type PlotRanges } from './plot-ranges.js';
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
function onPaper(result: ProbabilityPlotResult, outside: ReadonlySet<number>, ranges: PlotRanges): PlotPicture {
  const { band, line, law } = result;
  const scale = familyScale(familyByName(law.family), law.parameters);
  const { placeOf } = scale;
  const { readings: range, other: scores } = ranges;
  const ends = [scores.min, scores.max];
  const edge =
    band &&
    around(
      band.lower.map(placeOf),
      band.upper.map(placeOf),
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
    points: { across: Float64Array.from(result.readings, placeOf), up: result.scores },
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
function againstExpected(
  result: ProbabilityPlotResult,
  outside: ReadonlySet<number>,
  { readings: own, other }: PlotRanges,
): PlotPicture {
  const { band } = result;
  const { expected, observed, lower, upper } = observedAndExpected(result);
  const differs = result.axis === 'difference';
  const edge =
    band &&
    around(
      lower,
      upper,
      band.ranks.map((rank) => expected[rank]!),
    );
  const both = { min: Math.min(own.min, other.min), max: Math.max(own.max, other.max) };
  const along = differs ? other : both;
  const ends = [along.min, along.max];
  const across: PlotAxisRange = differs
    ? { of: 'difference', ...own, ticks: null, placeOf: null }
    : { of: 'readings', ...both, ticks: null, placeOf: (reading) => reading };
  const up: PlotAxisRange = { of: 'expected', ...along, ticks: null, placeOf: null };
  return {
    across,
    up,
    beyond: beyondAt(result, across, up),
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

/** Axes, line, points and band of a probability plot, within its own ranges or those given. */
export function plotPicture(kept: ProbabilityPlotResult, given?: PlotRanges): PlotPicture {
  const result = readPlot(kept);
  const outside = new Set(result.band ? outsideOf(result, result.band) : []);
  const ranges = given ?? rangesOf(result);
  const drawn = isOnPaper(result) ? onPaper(result, outside, ranges) : againstExpected(result, outside, ranges);
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
