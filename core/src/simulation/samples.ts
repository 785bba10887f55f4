import { createStream, type StreamState } from '../random/stream.js';
import { evaluatorOf, isOfPairs, type Statistic } from '../resampling/statistic.js';
import { createDrawer } from './drawing.js';
import { simulatedInterval } from './intervals.js';
import { momentsOf } from './moments.js';
import { isColumn, type Population } from './population.js';
import { tOfColumn } from './t-of-column.js';
import { simulatedTest } from './simulated-tests/registry.js';
import { pOfT, tStatistic } from './simulated-tests/means.js';
import { countIn } from './simulated-tests/shares.js';
import type { Claim, Counted, TestSetting } from './simulated-tests/simulated-test.js';

/** A sample size and its population. */
export interface Group {
  population: Population;
  n: number;
}

/** The statistic computed from each sample. */
export type Repeated =
  | {
      what: 'statistic';
      statistic: Statistic;
      /** Readings are counted: 1 for each that is, 0 for the others. */
      counted: Counted | null;
      /** The differences of pairs take the place of two groups. */
      differences: boolean;
    }
  | ({ what: 'test'; test: string } & Omit<TestSetting, 'sizes'>)
  | { what: 'interval'; interval: string; confidence: number; claim: Claim };

/** Samples drawn from populations, one for every group each time, and what is computed from them. */
export interface SimulatedSamples {
  groups: readonly Group[];
  repeated: Repeated;
}

/** Numbers that each sample gives: of an interval its two ends. */
export const strideOf = ({ what }: Repeated): number => (what === 'interval' ? 2 : 1);

/** Readings drawn at once: samples come in blocks, since drawing a few at a time costs more. Part of what makes the bits. */
const IN_A_BLOCK = 4_096;

/** Blocks of samples: views of every group's sample k, filled anew with each block. */
export interface Blocks {
  /** Samples in a block. */
  size: number;
  samples: readonly (readonly Float64Array[])[];
  blocks: readonly Float64Array[];
  /** Which readings of a block are not like the others, by group. */
  strange: readonly (Uint8Array | null)[];
  next(state: StreamState): void;
}

export function createBlocks(groups: readonly Group[]): Blocks {
  const size = Math.max(1, Math.floor(IN_A_BLOCK / groups.reduce((sum, { n }) => sum + n, 0)));
  const blocks = groups.map(({ n }) => new Float64Array(size * n));
  const drawers = groups.map(({ population, n }) => createDrawer(population, n, size * n));
  return {
    ...{ size, blocks, strange: drawers.map(({ strange }) => strange) },
    samples: Array.from({ length: size }, (_, k) => groups.map(({ n }, g) => blocks[g]!.subarray(k * n, (k + 1) * n))),
    next(state) {
      for (let g = 0; g < groups.length; g++) drawers[g]!.fill(state, blocks[g]!);
    },
  };
}

/**
 * The function computed from samples of these sizes: a statistic or p in the first place, or two ends of an interval; for a test its statistic in the
 * second place.
 */
export function workedOf(
  repeated: Repeated,
  sizes: readonly number[],
): (samples: readonly Float64Array[], into: Float64Array) => void {
  switch (repeated.what) {
    case 'test':
      return simulatedTest(repeated.test).make({ ...repeated, sizes });
    case 'interval':
      return simulatedInterval(repeated.interval).make({ ...repeated, sizes });
    case 'statistic':
      return statisticOf(repeated, sizes);
  }
}

function statisticOf(
  { statistic, counted, differences }: Extract<Repeated, { what: 'statistic' }>,
  sizes: readonly number[],
): (samples: readonly Float64Array[], into: Float64Array) => void {
  if (counted)
    return ([a, b], into) => {
      into[0] = countIn(a!, counted) / a!.length - (b ? countIn(b, counted) / b.length : 0);
    };
  const plain = statistic.of === 'one' && !differences ? statistic.figure.name : null;
  if (plain === 'mean' || plain === 'sd' || plain === 'variance') {
    const figures = new Float64Array(2);
    return ([values], into) => {
      const n = values!.length;
      momentsOf(values!, 0, n, figures);
      const variance = n > 1 ? figures[1]! / (n - 1) : NaN;
      into[0] = plain === 'mean' ? figures[0]! : plain === 'variance' ? variance : Math.sqrt(variance);
    };
  }
  const evaluate = evaluatorOf(statistic);
  const together = isOfPairs(statistic);
  const own = (differences ? [sizes[0]!] : sizes).map((n) => new Float64Array(n));
  return (samples, into) => {
    if (together) return void (into[0] = evaluate(samples));
    for (let g = 0; g < own.length; g++) {
      own[g]!.set(samples[g]!);
      if (differences) for (let i = 0; i < own[g]!.length; i++) own[g]![i]! -= samples[1]![i]!;
      own[g]!.sort();
    }
    into[0] = evaluate(own);
  };
}

/** p of t of so many samples: the same as by `simulatedTest('t')`. It is asked for most; of a plain column it does not even go through blocks. */
function tReplicates({ groups, repeated }: SimulatedSamples, state: StreamState, replicates: number): Float64Array {
  const { alternative, claim } = repeated as Extract<Repeated, { what: 'test' }>;
  const { population, n } = groups[0]!;
  const { base, mixed, move, step } = population;
  const out = new Float64Array(replicates);
  const plain = mixed === null && move === null && step === null;
  if (plain && isColumn(base) && base.replacement) {
    tOfColumn(state, { values: new Float64Array(base.values), n, claimed: claim.mean }, out);
  } else {
    const { size, blocks, next } = createBlocks(groups);
    const figures = new Float64Array(2);
    for (let done = 0; done < replicates; done += size) {
      next(state);
      const last = Math.min(size, replicates - done);
      for (let k = 0; k < last; k++) {
        momentsOf(blocks[0]!, k * n, n, figures);
        out[done + k] = tStatistic(figures[0]!, figures[1]!, n, claim.mean);
      }
    }
  }
  const p = pOfT(n - 1, alternative);
  for (let r = 0; r < replicates; r++) out[r] = p(out[r]!);
  return out;
}

/** What is beyond all numbers is no figure: very heavy tails draw such readings. */
const finiteOrNone = (x: number): number => (Number.isFinite(x) ? x : NaN);

/** The statistics of the samples, NaN if undefined; for intervals both ends of each. */
export function simulatedSamples(input: SimulatedSamples, state: StreamState, replicates: number): Float64Array {
  const { groups, repeated } = input;
  if (repeated.what === 'test' && repeated.test === 't') return tReplicates(input, state, replicates);
  const stride = strideOf(repeated);
  const out = new Float64Array(replicates * stride);
  const { size, samples, next } = createBlocks(groups);
  const worked = workedOf(
    repeated,
    groups.map(({ n }) => n),
  );
  const found = new Float64Array(2);
  for (let done = 0; done < replicates; done += size) {
    next(state);
    const last = Math.min(size, replicates - done);
    for (let k = 0; k < last; k++) {
      worked(samples[k]!, found);
      out[(done + k) * stride] = finiteOrNone(found[0]!);
      if (stride === 2) out[(done + k) * 2 + 1] = finiteOrNone(found[1]!);
    }
  }
  return out;
}

/** One sample, drawn again by itself: the same readings as in the run, from the same stream. */
export interface OneSample {
  values: Float64Array[];
  /** The contaminated readings. */
  strange: (Uint8Array | null)[];
  /** As `workedOf` gives it. */
  worked: Float64Array;
}

export function sampleOf(
  { groups, repeated }: SimulatedSamples,
  { seed, number, chunkSize }: { seed: number; number: number; chunkSize: number },
): OneSample {
  const chunk = Math.floor((number - 1) / chunkSize);
  const state = createStream(seed, chunk);
  const { size, samples, strange, next } = createBlocks(groups);
  const place = number - 1 - chunk * chunkSize;
  for (let block = 0; block <= Math.floor(place / size); block++) next(state);
  const k = place % size;
  const values = samples[k]!.map((view) => view.slice());
  const worked = new Float64Array(2);
  workedOf(
    repeated,
    groups.map(({ n }) => n),
  )(values, worked);
  if (repeated.what !== 'test') for (let i = 0; i < 2; i++) worked[i] = finiteOrNone(worked[i]!);
  return {
    values,
    strange: strange.map((flags, g) => flags && flags.slice(k * groups[g]!.n, (k + 1) * groups[g]!.n)),
    worked,
  };
}
