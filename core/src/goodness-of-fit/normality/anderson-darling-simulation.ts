import { log } from '../../numeric/elementary.js';
import { erfc } from '../../numeric/error-function.js';
import { createSorter } from '../../numeric/sort.js';
import { standardise } from '../../numeric/standardise.js';
import { fillNormals } from '../../random/normal.js';
import type { StreamState } from '../../random/stream.js';
import type { RoundedNormal } from '../rounded-normal.js';
import { departureDraw, departureScale, type Departure, type Draw } from './departures.js';
import { roundDraw } from './rounded-draws.js';

/** Where a replicate is drawn from. The others are what the sample size is judged by: could it have been noticed? Two of them go by a name. */
export type Population = 'normal' | 'lognormal' | 'two-groups' | Departure;

/** log-sd of the lognormal whose skewness is 1: (e^(s²) + 2)·√(e^(s²) − 1) = 1. */
export const LOGNORMAL_LOG_SD = 0.31426398897259394;
/** Distance between the means of the two equal groups, in sds within a group. */
export const GROUP_DISTANCE = 3;

export interface AndersonDarlingReplicates {
  n: number;
  population: Population;
  /** Mean and sd in steps: every draw is brought to them and rounded to whole ones, as the instrument does. Null: not rounded. */
  rounding: RoundedNormal | null;
}

/** The departures that go by a name. */
const NAMED = {
  lognormal: { kind: 'lognormal', logSd: LOGNORMAL_LOG_SD },
  'two-groups': { kind: 'two-groups', distance: GROUP_DISTANCE },
} as const;

/** A sampler of a population, with the rounding of the instrument if requested. */
export function drawOf(population: Population, rounding: RoundedNormal | null): Draw {
  if (rounding && population === 'normal') return (values, state) => roundDraw(rounding, state, values);
  if (population === 'normal') return (values, state) => fillNormals(state, values);
  const departure = typeof population === 'string' ? NAMED[population] : population;
  const draw = departureDraw(departure);
  if (!rounding) return draw;
  const { mean, sd } = departureScale(departure);
  const standard = (state: StreamState, values: Float64Array) => {
    draw(values, state);
    for (let i = 0; i < values.length; i++) values[i] = (values[i]! - mean) / sd;
  };
  return (values, state) => roundDraw(rounding, state, values, standard);
}

/** The memory of a run of replicates: allocated once, since nothing may be allocated for each. */
export interface Scratch {
  values: Float64Array;
  lower: Float64Array;
  upper: Float64Array;
  sort: (values: Float64Array) => void;
}

export function createScratch(n: number): Scratch {
  return { values: new Float64Array(n), lower: new Float64Array(n), upper: new Float64Array(n), sort: createSorter(n) };
}

/**
 * A² of one replicate, the scratch's values, about its own mean and SD; leaves the sorted standard scores in their place. One erfc a point, for the
 * smaller tail, and logarithms of products: no replicate comes near underflow, and the logarithm is the most costly step. Must equal
 * `andersonDarling` (tested); written out because it runs 20 000 times.
 */
export function replicateStatistic({ values, lower, upper, sort }: Scratch): number {
  const n = values.length;
  standardise(values);
  sort(values);
  for (let i = 0; i < n; i++) {
    const x = values[i]! * Math.SQRT1_2;
    const tail = 0.5 * erfc(x < 0 ? -x : x);
    if (x < 0) {
      lower[i] = tail;
      upper[n - 1 - i] = 1 - tail;
    } else {
      lower[i] = 1 - tail;
      upper[n - 1 - i] = tail;
    }
  }
  // Weights 2i + 1 and 2(n − i) − 1 of a symmetric pair are n ± d: the n share goes by products of eight, the d share by quotients.
  let weighted = 0;
  let product = 1;
  for (let i = 0, j = n - 1; i < j; i++, j--) {
    const p = lower[i]! * upper[i]!;
    const q = lower[j]! * upper[j]!;
    weighted += (2 * i + 1 - n) * log(p / q);
    product *= p * q;
    if ((i & 3) === 3) {
      weighted += n * log(product);
      product = 1;
    }
  }
  if (n % 2 === 1) product *= lower[n >> 1]! * upper[n >> 1]!;
  weighted += n * log(product);
  return -n - weighted / n;
}

/** The statistics A² of replicates, in the order drawn. */
export function simulateAndersonDarling(
  { n, population, rounding }: AndersonDarlingReplicates,
  state: StreamState,
  replicates: number,
): Float64Array {
  const scratch = createScratch(n);
  const { values } = scratch;
  const statistics = new Float64Array(replicates);
  const draw = drawOf(population, rounding);
  for (let r = 0; r < replicates; r++) {
    draw(values, state);
    statistics[r] = replicateStatistic(scratch);
  }
  return statistics;
}
