import type { DistributionResult, Histogram } from '@verdict/core/analyses';
import {
  curveOver,
  distribution,
  familyByName,
  joined,
  wellPlaced,
  type Curve,
  type Window,
} from '@verdict/core/distributions';
import { formatPercentOf } from '@verdict/core/format';

/** What of the picture the analyst has chosen; NaN for an end that is left to it. */
export interface View {
  view: 'density' | 'cumulative';
  from: number;
  to: number;
}

/** Everything the picture shows, in the unit of the values. */
export interface Picture {
  window: Window;
  view: 'density' | 'cumulative';
  curve: Curve;
  over: Curve | null;
  /** Between these, or outside them; infinite where there is no limit on that side. */
  region: { lower: number; upper: number; outside: boolean; countsLower: boolean; countsUpper: boolean };
  /** Bars of readings as densities (or, for counts, as shares). */
  bars: { from: number; to: number; height: number }[];
  /** The shares that the region takes up on the scale of the cumulative curve, and up to where on the other. */
  strips: { from: number; to: number; until: number }[];
  /** The answer, written over its region. */
  answer: string;
  top: number;
  discrete: boolean;
}

/** The readings as bars on the scale of the curve: areas sum to one under a density, heights under probabilities. */
export function barsOf({ edges, counts }: Pick<Histogram, 'edges' | 'counts'>, discrete: boolean): Picture['bars'] {
  const n = counts.reduce((a, b) => a + b, 0);
  return counts.map((count, i) => {
    const [from, to] = [edges[i]!, edges[i + 1]!];
    return { from, to, height: n === 0 ? 0 : count / n / (discrete ? 1 : to - from) };
  });
}

/** The ends of the picture: as set, or where the curves (and the readings) are well placed. */
export function windowOf(
  { from, to }: Pick<View, 'from' | 'to'>,
  results: readonly DistributionResult[],
  bars: Picture['bars'],
): Window {
  const placed = joined(
    results.map(({ family, parameters }) => {
      const found = familyByName(family);
      return wellPlaced(found, distribution(found, parameters));
    }),
  );
  const withBars =
    bars.length === 0 ? placed : joined([placed, { from: bars[0]!.from, to: bars[bars.length - 1]!.to }]);
  const set = { from: Number.isFinite(from) ? from : withBars.from, to: Number.isFinite(to) ? to : withBars.to };
  return set.from < set.to ? set : withBars;
}

export function pictureOf(
  shown: View,
  result: DistributionResult,
  over: DistributionResult | null,
  histogram: Pick<Histogram, 'edges' | 'counts'> | null,
): Picture {
  const own = familyByName(result.family);
  const bars = histogram ? barsOf(histogram, own.discrete) : [];
  const window = windowOf(shown, over ? [result, over] : [result], bars);
  const curveOf = ({ family, parameters }: DistributionResult) => {
    const found = familyByName(family);
    return curveOver(found, distribution(found, parameters), window, shown.view);
  };
  const curve = curveOf(result);
  const second = over ? curveOf(over) : null;
  const included = result.ends !== 'excluded';
  const shownBars = shown.view === 'density' ? bars : cumulated(bars, own.discrete);
  const highest = Math.max(...curve.y, ...(second?.y ?? []), ...shownBars.map(({ height }) => height));
  return {
    ...{ window, view: shown.view, curve, over: second, bars: shownBars, discrete: own.discrete },
    region: {
      ...{ lower: result.lower ?? -Infinity, upper: result.upper ?? Infinity, outside: result.outside },
      ...{ countsLower: included, countsUpper: included && result.ends !== 'lower-only' },
    },
    strips: stripsOf(result, window),
    answer: result.question === 'at' ? '' : formatPercentOf(result.probability, result.complement),
    top: shown.view === 'cumulative' ? 1 : highest * 1.08,
  };
}

/** Where the asked region lies among the shares: from F at its lower limit to F at its upper one. */
function stripsOf(
  { lower, upper, outside, probability, complement, family, parameters, ends }: DistributionResult,
  { from, to }: Window,
) {
  const found = familyByName(family);
  const d = distribution(found, parameters);
  // What lies below the lower limit; a counted number belongs to the region itself.
  const counted = outside ? ends !== 'included' : ends !== 'excluded';
  const below = lower === null ? 0 : d.cumulative(found.discrete && counted ? Math.ceil(lower) - 1 : lower);
  const place = (x: number | null) => Math.min(to, Math.max(from, x ?? to));
  if (!outside) return [{ from: below, to: below + probability, until: place(upper) }];
  return [
    { from: 0, to: below, until: place(lower) },
    { from: below + complement, to: 1, until: to },
  ];
}

/** The bars as shares at or below their upper edge. */
function cumulated(bars: Picture['bars'], discrete: boolean): Picture['bars'] {
  let sum = 0;
  return bars.map(({ from, to, height }) => {
    sum += height * (discrete ? 1 : to - from);
    return { from, to, height: Math.min(1, sum) };
  });
}

/** True where a number of a discrete family lies in the region. */
export function isShaded({ lower, upper, outside, countsLower, countsUpper }: Picture['region'], k: number): boolean {
  // Outside, what counts for the region does not count for what lies between.
  const [low, high] = outside ? [!countsLower, !countsUpper] : [countsLower, countsUpper];
  const between = (low ? k >= lower : k > lower) && (high ? k <= upper : k < upper);
  return between !== outside;
}
