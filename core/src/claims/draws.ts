import { binomial } from '../distributions/families/binomial.js';
import { poisson } from '../distributions/families/poisson.js';
import { centralMoments } from '../numeric/sums.js';
import { fillNormals } from '../random/normal.js';
import { nextWord, type StreamState } from '../random/stream.js';
import { nextBelow } from '../random/whole.js';
import { dealerOf } from './simulated-counts.js';
import { pooled, welch, type MeanFigures } from './means.js';
import { welchSeveral } from './several-means.js';
import { brownForsythe, oneWay } from './spreads.js';

/** How samples are drawn as if a claim were true, and which statistic is taken of each: nothing but what that statistic depends on. */
export type ClaimDraws =
  /** A mean by t, or by z. */
  | { of: 'mean'; n: number; known: boolean }
  | { of: 'spread'; n: number }
  | { of: 'two-means'; sizes: readonly number[]; sds: readonly number[]; method: 'welch' | 'pooled' }
  | { of: 'several-means'; sizes: readonly number[]; sds: readonly number[]; method: 'welch' | 'one-way' }
  | { of: 'spreads'; sizes: readonly number[]; method: 'f' | 'brown-forsythe' }
  | { of: 'count'; n: number; share: number }
  | { of: 'events'; mean: number }
  | { of: 'counts'; n: number; shares: readonly number[] }
  /** Ranks, doubled, each with a sign by chance. */
  | { of: 'signs'; ranks: readonly number[] }
  /** Ranks, doubled, so many of which go to the first group. */
  | { of: 'ranks'; ranks: readonly number[]; first: number };

type Draw = (state: StreamState) => number;

function normals(n: number, sd = 1): (state: StreamState) => Float64Array {
  const out = new Float64Array(n);
  return (state) => {
    fillNormals(state, out);
    if (sd !== 1) for (let i = 0; i < n; i++) out[i]! *= sd;
    return out;
  };
}

const figuresOf = (values: Float64Array): MeanFigures => {
  const { n, mean, s2 } = centralMoments(values);
  return { n, mean, sd: Math.sqrt(s2 / (n - 1)) };
};

function drawOf(model: ClaimDraws): Draw {
  switch (model.of) {
    case 'mean': {
      const sample = normals(model.n);
      return (state) => {
        const { n, mean, s2 } = centralMoments(sample(state));
        return (mean * Math.sqrt(n)) / (model.known ? 1 : Math.sqrt(s2 / (n - 1)));
      };
    }
    case 'spread': {
      const sample = normals(model.n);
      return (state) => centralMoments(sample(state)).s2;
    }
    case 'two-means':
    case 'several-means': {
      const samples = model.sizes.map((n, i) => normals(n, model.sds[i]!));
      return (state) => {
        const groups = samples.map((sample) => sample(state));
        if (model.method === 'one-way') return oneWay(groups).statistic;
        const figures = groups.map(figuresOf);
        if (model.of === 'several-means') return welchSeveral(figures).statistic;
        return (model.method === 'welch' ? welch : pooled)(figures[0]!, figures[1]!).statistic;
      };
    }
    case 'spreads': {
      const samples = model.sizes.map((n) => normals(n));
      return (state) => {
        const groups = samples.map((sample) => sample(state));
        if (model.method === 'brown-forsythe') return brownForsythe(groups).statistic;
        return (figuresOf(groups[0]!).sd / figuresOf(groups[1]!).sd) ** 2;
      };
    }
    default:
      return drawOfCounts(model);
  }
}

function drawOfCounts(model: Extract<ClaimDraws, { of: 'count' | 'events' | 'counts' | 'signs' | 'ranks' }>): Draw {
  const one = new Float64Array(1);
  switch (model.of) {
    case 'count': {
      const law = binomial.of({ trials: model.n, probability: model.share });
      return (state) => (law.sample(state, one), one[0]!);
    }
    case 'events': {
      const law = poisson.of({ mean: model.mean });
      return (state) => (law.sample(state, one), one[0]!);
    }
    case 'counts': {
      const deal = dealerOf(model);
      const counts = new Float64Array(model.shares.length);
      return (state) => {
        deal(state, counts);
        return counts.reduce((sum, count, i) => sum + (count * count) / (model.n * model.shares[i]!), -model.n);
      };
    }
    case 'signs': {
      const { ranks } = model;
      return (state) => {
        let [sum, bits, left] = [0, 0, 0];
        for (const rank of ranks) {
          if (left === 0) [bits, left] = [nextWord(state), 32];
          if (bits & 1) sum += rank;
          [bits, left] = [bits >>> 1, left - 1];
        }
        return sum / 2;
      };
    }
    case 'ranks': {
      const items = Int32Array.from(model.ranks);
      const { first } = model;
      return (state) => {
        let sum = 0;
        for (let i = 0; i < first; i++) {
          const other = i + nextBelow(state, items.length - i);
          [items[i], items[other]] = [items[other]!, items[i]!];
          sum += items[i]!;
        }
        return (sum - first * (first + 1)) / 2;
      };
    }
  }
}

/** The statistics of samples drawn as if the claim were true. */
export function drawClaims(model: ClaimDraws, state: StreamState, replicates: number): Float64Array {
  const draw = drawOf(model);
  return Float64Array.from({ length: replicates }, () => draw(state));
}
