import { formatFigure } from '../../numeric/format.js';
import { centralMoments } from '../../numeric/sums.js';
import { refuse, type Family, type Parameters, type Refusal } from '../family.js';
import { completed } from '../registry.js';
import { substituted, type CensoredReadings } from './censored-readings.js';
import { logLikelihoodOf, type LogLikelihood } from './likelihood.js';

/** How parameters are found: where the likelihood is greatest, from mean and sd, or not at all: a claim. */
export type FitMethod = 'maximum-likelihood' | 'moments' | 'given';

export interface FitRequest {
  method: FitMethod;
  /** Parameters that are not estimated: all of them for `given`; otherwise such as the trials of a binomial. */
  given?: Parameters;
  /** True to estimate the threshold as well; it is 0, or as given, otherwise. */
  estimateThreshold?: boolean;
  /** False where only the curve is wanted: standard errors cost several times the maximum where that has a closed form. */
  errors?: boolean;
  /** The step of the instrument, if known: coarse readings are fitted through the intervals they stand for. */
  resolution?: number | null;
  /** Readings beside the others of which only bounds are known. */
  censored?: CensoredReadings | undefined;
}

/** A resolution wider than this share of the sd is coarse (STATISTICS section 3). */
export const COARSE = 0.2;

/** Everything a fit is worked out from. */
export interface Work {
  family: Family;
  sorted: Float64Array;
  request: FitRequest;
  /** Names that are estimated. */
  free: string[];
  fixed: Parameters;
  resolution: number | null;
  /** Undefined where every reading is known. */
  censored: CensoredReadings | undefined;
  /** The readings with the censored ones about where they lie: what a search starts from; the readings themselves where none is censored. */
  about: Float64Array;
  /** How many readings there are, the censored ones among them. */
  n: number;
  logLikelihood: LogLikelihood;
  spread: number;
}

/** The names of the estimated parameters: all but the given ones, those that a family never estimates, and a threshold unless it is requested. */
export function freeNames(family: Family, { given = {}, estimateThreshold = false }: FitRequest): string[] {
  return family.parameters
    .map(({ name }) => name)
    .filter((name) => !(name in given) && !family.estimation.given?.includes(name))
    .filter((name) => name !== 'threshold' || estimateThreshold);
}

export function prepare(family: Family, values: ArrayLike<number>, request: FitRequest): Work {
  const sorted = Float64Array.from(values).sort();
  const fixed = completed(family, request.given ?? {});
  const censored = request.censored && request.censored.lower.length > 0 ? request.censored : undefined;
  const about = censored
    ? Float64Array.from([...sorted, ...substituted(censored, fixed.threshold ?? 0)]).sort()
    : sorted;
  const { s2 } = centralMoments(about);
  const sd = about.length > 1 ? Math.sqrt(s2 / (about.length - 1)) : 0;
  const n = sorted.length + (censored?.lower.length ?? 0);
  const r = request.resolution ?? null;
  const coarse = r !== null && !family.discrete && sd > 0 && r > COARSE * sd;
  const free = request.method === 'given' ? [] : freeNames(family, request);
  const resolution = coarse ? r : null;
  return {
    family,
    sorted,
    request,
    free,
    fixed,
    resolution,
    censored,
    about,
    n,
    logLikelihood: logLikelihoodOf(family, sorted, resolution, censored),
    spread: sd,
  };
}

/** Why these readings cannot be fitted whatever the family, or null. */
export function tooLittle({ family, sorted, free, censored }: Work): Refusal | null {
  const n = sorted.length;
  if (n === 0 && censored && free.length > 0) return refuse('All readings are censored, so nothing can be fitted.');
  if (n === 0 && !censored) return refuse('There are no readings to fit.');
  if (family.estimation.never && free.length > 0) return refuse(family.estimation.never);
  if (n < free.length) {
    const known = `${n} ${censored ? 'known ' : ''}${n === 1 ? 'reading is' : 'readings are'}`;
    return refuse(`${known} too few for ${free.length} parameters.`);
  }
  // The known ones alone: beyond a limit others can differ from them by anything.
  if (free.length > 1 && sorted[0] === sorted[n - 1]) {
    return refuse(`All readings are ${formatFigure(sorted[0]!, 'reading')}, so only one parameter can be estimated.`);
  }
  return null;
}
