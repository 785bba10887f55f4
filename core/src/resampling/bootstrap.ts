import { quantileRank } from '../describe/quantiles.js';
import { nextOpenUnit, type StreamState } from '../random/stream.js';
import { countDrawn, pickDrawn, squaresDrawn, sumDrawn } from './draw.js';
import { logRatio, type Figure } from './figure.js';
import { evaluatorOf, isOfPairs, type Statistic } from './statistic.js';

/** How bootstrap replicates are drawn, and the statistic computed from each. */
export interface BootstrapDraws {
  statistic: Statistic;
  /** Each in rising order; pairs as two columns in row order, drawn together. */
  groups: readonly ArrayLike<number>[];
  /** The size of a resample as a multiple of n. */
  times: number;
  /** Smoothing: each drawn reading is moved by up to half of this in either direction; 0 for none. */
  smooth: number;
  /** True if the standard error of every replicate is needed too: of a mean, or a difference of means. */
  studentised: boolean;
}

/** One replicate: its statistic, and its standard error where that is wanted, into two places. */
type Draw = (state: StreamState, into: Float64Array) => void;

/** The rounding error relative to the sums of squares. */
const DUST = 1e-13;

/** Divisor m − 1; without any spread exactly 0. */
function varianceOf(sum: number, squares: number, m: number): number {
  const s2 = squares - (sum * sum) / m;
  return s2 > DUST * squares ? s2 / (m - 1) : 0;
}

interface Group {
  /** Less the centre, in rising order. */
  values: Float64Array;
  centre: number;
  size: number;
}

/** Sums of squares of whole numbers are exact up to here. */
const EXACT = 2 ** 53;

/** About the mean, so that squares keep their digits; whole numbers, whose sums are exact, as they are. */
function centreOf(values: Float64Array): number {
  let squares = 0;
  for (const value of values) squares += Number.isInteger(value) ? value * value : Infinity;
  return squares < EXACT ? 0 : values.reduce((sum, value) => sum + value / values.length, 0);
}

function groupsOf({ groups, times }: BootstrapDraws): Group[] {
  return groups.map((readings) => {
    const values = new Float64Array(readings);
    const centre = centreOf(values);
    return { values: values.map((value) => value - centre), centre, size: values.length * times };
  });
}

const SIGNS = [1, -1];

/** A mean, or a difference of means, with the standard error of each. */
function studentisedDraw(groups: readonly Group[]): Draw {
  const centre = groups.reduce((sum, group, g) => sum + SIGNS[g]! * group.centre, 0);
  const sums = new Float64Array(2);
  return (state, into) => {
    let found = centre;
    let variance = 0;
    for (let g = 0; g < groups.length; g++) {
      const { values, size } = groups[g]!;
      squaresDrawn(state, values, size, sums);
      found += (SIGNS[g]! * sums[0]!) / size;
      variance += varianceOf(sums[0]!, sums[1]!, size) / size;
    }
    into[0] = found;
    into[1] = Math.sqrt(variance);
  };
}

/** Fills in a mean, or a difference of means, of every replicate. The loop stands by itself, since it is asked for most. */
function drawMeans([a, b]: readonly Group[], state: StreamState, out: Float64Array): void {
  const { values, size, centre } = a!;
  if (!b) {
    for (let r = 0; r < out.length; r++) out[r] = centre + sumDrawn(state, values, size) / size;
    return;
  }
  const shift = centre - b.centre;
  for (let r = 0; r < out.length; r++) {
    const first = sumDrawn(state, values, size) / size;
    out[r] = shift + first - sumDrawn(state, b.values, b.size) / b.size;
  }
}

/** The sd, the variance, the sd over the mean; or the log ratio of two sds. */
function spreadsDraw(groups: readonly Group[], name: 'sd' | 'variance' | 'cv' | 'log-ratio'): Draw {
  const sums = new Float64Array(2);
  const varianceIn = (state: StreamState, { values, size }: Group) => {
    squaresDrawn(state, values, size, sums);
    return varianceOf(sums[0]!, sums[1]!, size);
  };
  const [a, b] = groups as [Group, Group];
  switch (name) {
    case 'sd':
      return (state, into) => void (into[0] = Math.sqrt(varianceIn(state, a)));
    case 'variance':
      return (state, into) => void (into[0] = varianceIn(state, a));
    case 'cv':
      return (state, into) => {
        const sd = Math.sqrt(varianceIn(state, a));
        const mean = a.centre + sums[0]! / a.size;
        into[0] = mean === 0 ? NaN : sd / Math.abs(mean);
      };
    case 'log-ratio':
      return (state, into) => {
        const first = varianceIn(state, a);
        const second = varianceIn(state, b);
        into[0] = logRatio(Math.sqrt(first), Math.sqrt(second));
      };
  }
}

/** A median or another percentile, or the difference of two: the readings are sorted, so that only counts of them need to be followed. */
function orderDraw({ groups: readings, times }: BootstrapDraws, figure: Figure): Draw {
  const groups = readings.map((one) => ({ values: new Float64Array(one), size: one.length * times }));
  const places = groups.map(({ values, size }) => {
    const rank = figure.name === 'percentile' ? quantileRank(size, figure.share, figure.type) : middleRank(size);
    const pivot = Math.min(values.length - 1, Math.floor((rank.at / size) * values.length));
    return { counts: new Int32Array(values.length), rank, pivot };
  });
  return (state, into) => {
    let found = 0;
    for (let g = 0; g < groups.length; g++) {
      const { values, size } = groups[g]!;
      const {
        counts,
        pivot,
        rank: { at, beyond },
      } = places[g]!;
      counts.fill(0);
      // The place is looked for from where it stands among the readings: it is never far.
      let i = pivot;
      let passed = countDrawn(state, counts, size, pivot) + counts[pivot]!;
      while (passed < at) passed += counts[++i]!;
      while (passed - counts[i]! >= at) passed -= counts[i--]!;
      let value = values[i]!;
      if (beyond > 0) {
        while (passed < at + 1) passed += counts[++i]!;
        value += beyond * (values[i]! - value);
      }
      found += SIGNS[g]! * value;
    }
    into[0] = found;
  };
}

const middleRank = (n: number) => (n % 2 === 1 ? { at: (n + 1) / 2, beyond: 0 } : { at: n / 2, beyond: 0.5 });

/** The standard error of a mean, or of a difference of means, of readings as they are. */
function standardErrorOf(groups: readonly Float64Array[]): number {
  let variance = 0;
  for (const values of groups) {
    const n = values.length;
    const mean = values.reduce((sum, value) => sum + value / n, 0);
    variance += values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (n - 1) / n;
  }
  return Math.sqrt(variance);
}

/** Any other statistic: the readings are drawn, then it is computed. */
function plainDraw(input: BootstrapDraws): Draw {
  const { statistic, smooth, studentised, times } = input;
  const from = input.groups.map((readings) => new Float64Array(readings));
  const drawn = from.map((values) => new Float64Array(values.length * times));
  const picks = from.map((values) => new Int32Array(values.length * times));
  const evaluate = evaluatorOf(statistic);
  const together = isOfPairs(statistic);
  return (state, into) => {
    for (let g = 0; g < from.length; g++) {
      if (g === 0 || !together) pickDrawn(state, from[g]!.length, picks[g]!);
      const [values, out, which] = [from[g]!, drawn[g]!, picks[together ? 0 : g]!];
      for (let i = 0; i < out.length; i++) out[i] = values[which[i]!]!;
      if (smooth > 0) for (let i = 0; i < out.length; i++) out[i]! += (nextOpenUnit(state) - 0.5) * smooth;
      if (!together) out.sort();
    }
    into[0] = evaluate(drawn);
    if (studentised) into[1] = standardErrorOf(drawn);
  };
}

function drawOf(input: BootstrapDraws): Draw {
  const { statistic, smooth, studentised } = input;
  if (smooth > 0) return plainDraw(input);
  if (statistic.of === 'log-ratio') return spreadsDraw(groupsOf(input), 'log-ratio');
  if (statistic.of !== 'one' && statistic.of !== 'difference') return plainDraw(input);
  const { figure, of } = statistic;
  switch (figure.name) {
    case 'mean':
      return studentised ? studentisedDraw(groupsOf(input)) : plainDraw(input);
    case 'median':
    case 'percentile':
      return orderDraw(input, figure);
    case 'sd':
    case 'variance':
    case 'cv':
      return of === 'one' ? spreadsDraw(groupsOf(input), figure.name) : plainDraw(input);
    default:
      return plainDraw(input);
  }
}

/** The statistics of the replicates, NaN if undefined; each followed by its standard error if that is needed. */
export function bootstrapReplicates(input: BootstrapDraws, state: StreamState, replicates: number): Float64Array {
  const { statistic, studentised, smooth } = input;
  const stride = studentised ? 2 : 1;
  const out = new Float64Array(replicates * stride);
  const linear = statistic.of === 'one' || statistic.of === 'difference' ? statistic.figure.name === 'mean' : false;
  if (linear && !studentised && smooth === 0) {
    drawMeans(groupsOf(input), state, out);
    return out;
  }
  const draw = drawOf(input);
  const found = new Float64Array(2);
  for (let r = 0; r < replicates; r++) {
    draw(state, found);
    out[r * stride] = found[0]!;
    if (stride === 2) out[r * 2 + 1] = found[1]!;
  }
  return out;
}
