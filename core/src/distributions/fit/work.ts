import { formatFigure } from '../../numeric/format.js';
import { centralMoments } from '../../numeric/sums.js';
import { refuse, type Family, type Parameters, type Refusal } from '../family.js';
import { completed } from '../registry.js';
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
}

/** A resolution wider than this share of the sd is coarse (STATISTICS section 3). */
const COARSE = 0.2;

/** Everything a fit is worked out from. */
export interface Work {
  family: Family;
  sorted: Float64Array;
  request: FitRequest;
  /** Names that are estimated. */
  free: string[];
  fixed: Parameters;
  resolution: number | null;
  logLikelihood: LogLikelihood;
  spread: number;
}

/** The names to be estimated: all but the given ones, those that a family never estimates, and a threshold unless asked for. */
export function freeNames(family: Family, { given = {}, estimateThreshold = false }: FitRequest): string[] {
  return family.parameters
    .map(({ name }) => name)
    .filter((name) => !(name in given) && !family.estimation.given?.includes(name))
    .filter((name) => name !== 'threshold' || estimateThreshold);
}

export function prepare(family: Family, values: ArrayLike<number>, request: FitRequest): Work {
  const sorted = Float64Array.from(values).sort();
  const { s2, n } = centralMoments(sorted);
  const sd = n > 1 ? Math.sqrt(s2 / (n - 1)) : 0;
  const r = request.resolution ?? null;
  const coarse = r !== null && !family.discrete && sd > 0 && r > COARSE * sd;
  const free = request.method === 'given' ? [] : freeNames(family, request);
  const fixed = completed(family, request.given ?? {});
  const resolution = coarse ? r : null;
  return {
    family,
    sorted,
    request,
    free,
    fixed,
    resolution,
    logLikelihood: logLikelihoodOf(family, sorted, resolution),
    spread: sd,
  };
}

/** Why these readings cannot be fitted whatever the family, or null. */
export function tooLittle({ family, sorted, free, spread }: Work): Refusal | null {
  const n = sorted.length;
  if (n === 0) return refuse('There are no readings to fit.');
  if (family.estimation.never && free.length > 0) return refuse(family.estimation.never);
  const least = Math.max(1, free.length);
  if (n < least)
    return refuse(`${n} ${n === 1 ? 'reading is' : 'readings are'} too few for ${free.length} parameters.`);
  if (free.length > 1 && spread === 0) {
    return refuse(
      `All readings are ${formatFigure(sorted[0]!, 'reading')}: without any spread only one parameter can be found.`,
    );
  }
  return null;
}
