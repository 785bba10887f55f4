import { log } from '../../numeric/elementary.js';
import { counted } from '../counted.js';
import type { Family, Parameters } from '../family.js';
import { intervalProbability } from '../interval-probability.js';
import { parameterFaults } from '../registry.js';
import { countedBounds, type CensoredReadings } from './censored-readings.js';

/** The log-likelihood of readings as a function of all parameters; −Infinity if these are impossible. */
export type LogLikelihood = (parameters: Parameters) => number;

/** From here on readings share their values, as any instrument has steps: a search goes through each value once. */
const MANY = 5_000;

/** Σ log f(x), each value once. */
function manyExact(family: Family, sorted: Float64Array): LogLikelihood {
  const { values, counts } = counted(sorted);
  return (parameters) => {
    const distribution = family.of(parameters);
    let sum = 0;
    for (let i = 0; i < values.length; i++) sum += counts[i]! * distribution.logDensity(values[i]!);
    return sum;
  };
}

/** Σ log f(x). */
function exact(family: Family, x: Float64Array): LogLikelihood {
  return (parameters) => {
    const distribution = family.of(parameters);
    let sum = 0;
    for (let i = 0; i < x.length; i++) sum += distribution.logDensity(x[i]!);
    return sum;
  };
}

/**
 * Σ log P(x − r/2 ≤ X < x + r/2): what readings rounded to the resolution r say about the distribution before rounding (Sheppard's
 * question, answered by likelihood). Equal readings are counted once, with their number.
 */
function grouped(family: Family, sorted: Float64Array, r: number): LogLikelihood {
  const { values, counts } = counted(sorted);
  return (parameters) => {
    const distribution = family.of(parameters);
    let sum = 0;
    for (let i = 0; i < values.length; i++) {
      sum += counts[i]! * log(intervalProbability(distribution, values[i]! - r / 2, values[i]! + r / 2));
    }
    return sum;
  };
}

/** Σ log P(lower < X ≤ upper): what is known of censored readings (Lawless 2003, section 2.2). */
function beyond(family: Family, censored: CensoredReadings): LogLikelihood {
  const bounds = countedBounds(censored);
  return (parameters) => {
    const distribution = family.of(parameters);
    let sum = 0;
    for (const { lower, upper, count } of bounds) {
      sum += count * log(intervalProbability(distribution, lower, upper, family.discrete));
    }
    return sum;
  };
}

/** The log-likelihood of sorted readings, grouped if a resolution is given, and of censored ones; −Infinity for impossible parameters. */
export function logLikelihoodOf(
  family: Family,
  sorted: Float64Array,
  resolution: number | null,
  censored?: CensoredReadings,
): LogLikelihood {
  const plain = sorted.length > MANY ? manyExact : exact;
  const known = resolution === null ? plain(family, sorted) : grouped(family, sorted, resolution);
  const bounded = censored && beyond(family, censored);
  const inner: LogLikelihood = bounded ? (parameters) => known(parameters) + bounded(parameters) : known;
  return (parameters) => {
    if (parameterFaults(family, parameters).length > 0) return -Infinity;
    const value = inner(parameters);
    return Number.isNaN(value) ? -Infinity : value;
  };
}
