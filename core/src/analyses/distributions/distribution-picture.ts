import { histogram, type Histogram } from '../../describe/histogram.js';
import { curveOver, joined, wellPlaced, type Curve, type CurveScale, type Window } from '../../distributions/curve.js';
import { isIn, type Region } from '../../distributions/region.js';
import { distribution, familyByName } from '../../distributions/registry.js';
import { formatPercentOf } from '../../numeric/format.js';
import type { Sample } from '../../readings/sample.js';
import type { DistributionResult } from './distribution-result.js';

/** What of the picture is chosen; NaN for an end that is left to it. */
export interface DistributionView {
  view: CurveScale;
  from: number;
  to: number;
}

/** A stretch of readings with its height on the scale of the curve. */
export interface ReadingsBar {
  from: number;
  to: number;
  height: number;
}

/** Everything the picture shows, in the unit of the values. */
export interface DistributionPicture {
  window: Window;
  view: CurveScale;
  curve: Curve;
  over: Curve | null;
  /** Of a curve of bars: those whose numbers lie in the asked region. */
  shaded: boolean[];
  /** The asked region as closed shapes: under a density, or from the axis to the cumulative curve. */
  areas: { x: number[]; y: number[] }[];
  bars: ReadingsBar[];
  /** The answer, and the middle of the widest stretch of the region, over which it is written. */
  answer: { words: string; at: number };
  top: number;
  discrete: boolean;
}

/** The readings as bars on the scale of the curve: areas sum to one under a density, heights under probabilities. */
export function barsOf({ edges, counts }: Pick<Histogram, 'edges' | 'counts'>, discrete: boolean): ReadingsBar[] {
  const n = counts.reduce((a, b) => a + b, 0);
  return counts.map((count, i) => {
    const [from, to] = [edges[i]!, edges[i + 1]!];
    return { from, to, height: n === 0 ? 0 : count / n / (discrete ? 1 : to - from) };
  });
}

/** The bars of a column of readings: one a number for counts, by the width of Freedman and Diaconis for measures. */
function readingsBars(readings: Pick<Sample, 'values' | 'resolution'> | null, discrete: boolean): ReadingsBar[] {
  if (!readings || readings.values.length === 0) return [];
  const { values, resolution } = readings;
  if (discrete) return barsOf(histogram(values, 1, { rule: 'width', width: 1 }), true);
  return barsOf(histogram(values, resolution, { rule: 'freedman-diaconis' }), false);
}

/** The bars as shares at or below their upper edge. */
function cumulated(bars: readonly ReadingsBar[], discrete: boolean): ReadingsBar[] {
  let sum = 0;
  return bars.map(({ from, to, height }) => {
    sum += height * (discrete ? 1 : to - from);
    return { from, to, height: Math.min(1, sum) };
  });
}

const of = ({ family, parameters }: Pick<DistributionResult, 'family' | 'parameters'>) => {
  const found = familyByName(family);
  return { family: found, d: distribution(found, parameters) };
};

/** The ends of the picture: as set, or where the curves (and the readings) are well placed. */
function windowOf(
  { from, to }: Pick<DistributionView, 'from' | 'to'>,
  results: readonly DistributionResult[],
  bars: readonly ReadingsBar[],
): Window {
  const placed = joined(
    results.map((result) => {
      const { family, d } = of(result);
      return wellPlaced(family, d);
    }),
  );
  const withBars = bars.length === 0 ? placed : joined([placed, { from: bars[0]!.from, to: bars.at(-1)!.to }]);
  const set = { from: Number.isFinite(from) ? from : withBars.from, to: Number.isFinite(to) ? to : withBars.to };
  return set.from < set.to ? set : withBars;
}

/** The stretches of a picture that the asked region takes up, within its window. */
export function stretchesOf(
  { lower, upper, outside }: Pick<DistributionResult, 'lower' | 'upper' | 'outside'>,
  window: Window,
): Window[] {
  const clip = (from: number | null, to: number | null) => ({
    from: Math.max(from ?? -Infinity, window.from),
    to: Math.min(to ?? Infinity, window.to),
  });
  const all = outside ? [clip(null, lower), clip(upper, null)] : [clip(lower, upper)];
  return all.filter(({ from, to }) => from < to);
}

/** The height of a curve between its points. */
export function heightAt({ x, y }: Pick<Curve, 'x' | 'y'>, at: number): number {
  const i = x.findIndex((value) => value >= at);
  if (i <= 0) return i === 0 ? y[0]! : (y.at(-1) ?? 0);
  const share = (at - x[i - 1]!) / (x[i]! - x[i - 1]! || 1);
  return y[i - 1]! + share * (y[i]! - y[i - 1]!);
}

/** The shape under a density between two values. */
function under(curve: Curve, { from, to }: Window): { x: number[]; y: number[] } {
  const inner = [...curve.x.keys()].filter((i) => curve.x[i]! > from && curve.x[i]! < to);
  return {
    x: [from, from, ...inner.map((i) => curve.x[i]!), to, to],
    y: [0, heightAt(curve, from), ...inner.map((i) => curve.y[i]!), heightAt(curve, to), 0],
  };
}

/** Where the asked region lies among the shares: strips from F at its lower limit to F at its upper one, as far as the curve. */
export function stripsOf(
  result: DistributionResult,
  { from, to }: Window,
): { from: number; to: number; until: number }[] {
  const { lower, upper, outside, probability, complement, ends } = result;
  const { family, d } = of(result);
  // What lies below the lower limit; a counted number belongs to the region itself.
  const counted = outside ? ends !== 'included' : ends !== 'excluded';
  const below = lower === null ? 0 : d.cumulative(family.discrete && counted ? Math.ceil(lower) - 1 : lower);
  const place = (x: number | null) => Math.min(to, Math.max(from, x ?? to));
  if (!outside) return [{ from: below, to: below + probability, until: place(upper) }];
  return [
    { from: 0, to: below, until: place(lower) },
    { from: below + complement, to: 1, until: to },
  ];
}

function areasOf(result: DistributionResult, curve: Curve, view: CurveScale, window: Window) {
  if (view === 'cumulative') {
    return stripsOf(result, window).map(({ from, to, until }) => ({
      x: [window.from, until, until, window.from],
      y: [from, from, to, to],
    }));
  }
  return curve.bars ? [] : stretchesOf(result, window).map((stretch) => under(curve, stretch));
}

/** The picture of a distribution with the asked region, a second family over it and readings under it. */
export function distributionPicture(
  { view, ...ends }: DistributionView,
  result: DistributionResult,
  over: DistributionResult | null,
  readings: Pick<Sample, 'values' | 'resolution'> | null,
): DistributionPicture {
  const { discrete, lower, upper, outside } = result;
  const densities = readingsBars(readings, discrete);
  const window = windowOf(ends, over ? [result, over] : [result], densities);
  const curveOf = (one: DistributionResult) => {
    const { family, d } = of(one);
    return curveOver(family, d, window, view);
  };
  const curve = curveOf(result);
  const second = over ? curveOf(over) : null;
  const bars = view === 'density' ? densities : cumulated(densities, discrete);
  const highest = Math.max(...curve.y, ...(second?.y ?? []), ...bars.map(({ height }) => height));
  const region: Region = { lower: lower ?? -Infinity, upper: upper ?? Infinity, outside, ends: result.ends };
  const [widest = window] = stretchesOf(result, window).sort((a, b) => b.to - b.from - (a.to - a.from));
  const words = result.question === 'at' ? '' : formatPercentOf(result.probability, result.complement);
  return {
    window,
    view,
    curve,
    over: second,
    shaded: curve.bars ? curve.x.map((k) => isIn(region, k)) : [],
    areas: areasOf(result, curve, view, window),
    bars,
    answer: { words, at: (widest.from + widest.to) / 2 },
    top: view === 'cumulative' ? 1 : highest * 1.08,
    discrete,
  };
}
