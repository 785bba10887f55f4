import type { StreamState } from '../random/stream.js';
import { centralMoments } from '../numeric/sums.js';
import { arranging, smallerOf, type Arranged } from './arrangements.js';
import { logRatio } from './figure.js';
import { sumFronts } from './shuffle.js';
import { evaluatorOf, type Statistic } from './statistic.js';

/** What is permuted, and the test statistic. */
export interface Shuffled {
  arranged: Arranged;
  statistic: Statistic;
  /** For labels: all readings in rising order. For signs: the distances from the claim. For pairs: the first column. */
  values: ArrayLike<number>;
  /** For pairs: the second column. */
  others?: ArrayLike<number>;
}

/** A statistic of an arrangement, as `Arranging.at` holds it. */
export type ArrangedFigure = (at: Int32Array) => number;

/** The readings of two groups, in rising order, out of the places of the smaller one. */
function partedBy(values: Float64Array, sizes: readonly number[]): (at: Int32Array) => [Float64Array, Float64Array] {
  const inside = new Uint8Array(values.length);
  const small = smallerOf(sizes);
  const parts: [Float64Array, Float64Array] = [new Float64Array(sizes[0]!), new Float64Array(sizes[1]!)];
  return (at) => {
    inside.fill(0);
    for (let i = 0; i < at.length; i++) inside[at[i]!] = 1;
    const ends = [0, 0];
    for (let i = 0; i < values.length; i++) {
      const group = inside[i] === 1 ? small : 1 - small;
      parts[group]![ends[group]!++] = values[i]!;
    }
    return parts;
  };
}

/** The median of m values accessed by rank. */
const middleOf = (m: number, valueAt: (rank: number) => number) =>
  m % 2 === 1 ? valueAt(m >> 1) : (valueAt((m >> 1) - 1) + valueAt(m >> 1)) / 2;

/** Both medians from the places of the smaller group: those of the other are found by skipping over them. */
function mediansFigure(values: Float64Array, sizes: readonly number[]): ArrangedFigure {
  const small = smallerOf(sizes);
  const inside = new Uint8Array(values.length);
  const sorted = new Int32Array(sizes[small]!);
  return (at) => {
    sorted.set(at);
    // A combination is in order as it comes, a shuffle is not.
    if (sorted.length > 64) {
      inside.fill(0);
      for (let i = 0; i < at.length; i++) inside[at[i]!] = 1;
      for (let i = 0, k = 0; k < sorted.length; i++) if (inside[i] === 1) sorted[k++] = i;
    } else sorted.sort();
    const own = middleOf(sorted.length, (rank) => values[sorted[rank]!]!);
    const rest = middleOf(values.length - sorted.length, (rank) => {
      let place = rank;
      for (let i = 0; i < sorted.length && sorted[i]! <= place; i++) place++;
      return values[place]!;
    });
    return small === 0 ? own - rest : rest - own;
  };
}

/** Sums over the smaller group; those of the other are what is left of all. */
function twoSums(values: Float64Array, sizes: readonly number[], of: 'difference' | 'log-ratio'): ArrangedFigure {
  const small = smallerOf(sizes);
  const { mean } = centralMoments(values);
  const own = values.map((value) => value - mean);
  const m = sizes[small]!;
  const rest = values.length - m;
  const total = own.reduce((sum, value) => sum + value, 0);
  const squares = own.reduce((sum, value) => sum + value * value, 0);
  const sign = small === 0 ? 1 : -1;
  if (of === 'difference')
    return (at) => {
      let sum = 0;
      for (let i = 0; i < m; i++) sum += own[at[i]!]!;
      return sign * (sum / m - (total - sum) / rest);
    };
  return (at) => {
    let [sum, square] = [0, 0];
    for (let i = 0; i < m; i++) {
      const value = own[at[i]!]!;
      sum += value;
      square += value * value;
    }
    const [left, leftSquare] = [total - sum, squares - square];
    const sd = (s: number, q: number, n: number) => {
      const s2 = q - (s * s) / n;
      return n > 1 && s2 > 1e-13 * squares ? Math.sqrt(s2 / (n - 1)) : 0;
    };
    return sign * logRatio(sd(sum, square, m), sd(left, leftSquare, rest));
  };
}

/** Of two groups or more: F, or the greatest less the least mean, out of sums. */
function severalFigure(values: Float64Array, sizes: readonly number[], of: 'f' | 'largest-difference'): ArrangedFigure {
  const { mean, s2 } = centralMoments(values);
  const own = values.map((value) => value - mean);
  const sums = new Float64Array(sizes.length);
  const [between, within] = [sizes.length - 1, values.length - sizes.length];
  const total = own.reduce((sum, value) => sum + value, 0);
  const small = smallerOf(sizes);
  /** Of two groups the places of the smaller one are told, of several the group of every reading. */
  const addUp = (at: Int32Array) => {
    sums.fill(0);
    if (sizes.length > 2) {
      for (let i = 0; i < at.length; i++) sums[at[i]!]! += own[i]!;
      return;
    }
    for (let i = 0; i < at.length; i++) sums[small]! += own[at[i]!]!;
    sums[1 - small] = total - sums[small]!;
  };
  return (at) => {
    addUp(at);
    if (of === 'f') {
      let amid = 0;
      for (let g = 0; g < sums.length; g++) amid += (sums[g]! * sums[g]!) / sizes[g]!;
      const rest = s2 - amid;
      return rest > 1e-13 * s2 && within > 0 ? amid / between / (rest / within) : NaN;
    }
    let [least, greatest] = [Infinity, -Infinity];
    for (let g = 0; g < sums.length; g++) {
      const found = sums[g]! / sizes[g]!;
      if (found < least) least = found;
      if (found > greatest) greatest = found;
    }
    return greatest - least;
  };
}

function signsFigure(values: Float64Array, name: 'mean' | 'median'): ArrangedFigure {
  const turned = new Float64Array(values.length);
  return (at) => {
    if (name === 'mean') {
      let sum = 0;
      for (let i = 0; i < at.length; i++) sum += values[i]! * (1 - 2 * at[i]!);
      return sum / values.length;
    }
    for (let i = 0; i < at.length; i++) turned[i] = values[i]! * (1 - 2 * at[i]!);
    turned.sort();
    return middleOf(turned.length, (rank) => turned[rank]!);
  };
}

function pairsFigure(x: Float64Array, y: Float64Array, of: 'correlation' | 'slope'): ArrangedFigure {
  const [a, b] = [centralMoments(x), centralMoments(y)];
  const [u, v] = [x.map((value) => value - a.mean), y.map((value) => value - b.mean)];
  const scale = of === 'slope' ? b.s2 : Math.sqrt(a.s2) * Math.sqrt(b.s2);
  return (at) => {
    let products = 0;
    for (let i = 0; i < at.length; i++) products += u[i]! * v[at[i]!]!;
    return scale > 0 ? products / scale : NaN;
  };
}

/** The statistic of an arrangement: from sums if possible, else computed from the readings. */
export function arrangedFigure({ arranged, statistic, values: readings, others }: Shuffled): ArrangedFigure {
  const values = new Float64Array(readings);
  if (arranged.design === 'signs') {
    if (statistic.of !== 'one' || (statistic.figure.name !== 'mean' && statistic.figure.name !== 'median'))
      throw new RangeError('Sign permutations are available for a mean or a median only.');
    return signsFigure(values, statistic.figure.name);
  }
  if (arranged.design === 'pairs') {
    const y = new Float64Array(others!);
    if (statistic.of === 'correlation' || statistic.of === 'slope') return pairsFigure(values, y, statistic.of);
    const evaluate = evaluatorOf(statistic);
    const moved = new Float64Array(y.length);
    return (at) => {
      for (let i = 0; i < at.length; i++) moved[i] = y[at[i]!]!;
      return evaluate([values, moved]);
    };
  }
  const { sizes } = arranged;
  if (statistic.of === 'f' || statistic.of === 'largest-difference') return severalFigure(values, sizes, statistic.of);
  if (statistic.of === 'log-ratio') return twoSums(values, sizes, 'log-ratio');
  if (statistic.of === 'difference' && statistic.figure.name === 'mean') return twoSums(values, sizes, 'difference');
  if (statistic.of === 'difference' && statistic.figure.name === 'median') return mediansFigure(values, sizes);
  const evaluate = evaluatorOf(statistic);
  const part = partedBy(values, sizes);
  return (at) => evaluate(part(at));
}

const isOfMeans = ({ statistic }: Shuffled) => statistic.of === 'difference' && statistic.figure.name === 'mean';

/** Differences of two means: the readings themselves are shuffled, and added up on the way. The same arrangements as `arranging` draws. */
function shuffledMeans(readings: ArrayLike<number>, sizes: readonly number[], state: StreamState, out: Float64Array) {
  const { mean } = centralMoments(readings);
  const values = new Float64Array(readings).map((value) => value - mean);
  const total = values.reduce((sum, value) => sum + value, 0);
  const small = smallerOf(sizes);
  const m = sizes[small]!;
  const rest = values.length - m;
  const sign = small === 0 ? 1 : -1;
  const scale = sign * (1 / m + 1 / rest);
  const shift = (sign * total) / rest;
  sumFronts(state, values, m, out);
  for (let r = 0; r < out.length; r++) out[r] = out[r]! * scale - shift;
}

/** The statistics of random permutations; NaN if undefined. */
export function permutationReplicates(input: Shuffled, state: StreamState, replicates: number): Float64Array {
  const out = new Float64Array(replicates);
  if (input.arranged.design === 'labels' && isOfMeans(input)) {
    shuffledMeans(input.values, input.arranged.sizes, state, out);
    return out;
  }
  const ways = arranging(input.arranged);
  const figure = arrangedFigure(input);
  for (let r = 0; r < replicates; r++) {
    ways.shuffle(state);
    out[r] = figure(ways.at);
  }
  return out;
}

/** A range of the enumeration of all arrangements. */
export interface CountedOut extends Shuffled {
  /** The first of them, from 0. */
  from: number;
}

/** The statistics of a range of the enumeration, one after the other: an exact test needs no random numbers. */
export function arrangementStatistics(input: CountedOut, _: StreamState, count: number): Float64Array {
  const ways = arranging(input.arranged);
  const figure = arrangedFigure(input);
  const out = new Float64Array(count);
  ways.goTo(input.from);
  for (let r = 0; r < count; r++, ways.next()) out[r] = figure(ways.at);
  return out;
}
