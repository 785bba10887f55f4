import { log } from '../../numeric/elementary.js';
import { centralMoments } from '../../numeric/sums.js';
import { isRefusal, refuse, type Family, type Parameters, type Refusal } from '../family.js';
import type { Note } from '../../readings/note.js';
import { completed, parameterFaults } from '../registry.js';
import { notesOf, runawaysOf, withoutRunaways } from './fit-notes.js';
import { censoredEnds } from './censored-ends.js';
import { logLikelihoodOf } from './likelihood.js';
import { Landscape, standardErrorsOf, type Peak } from './search.js';
import { profileThreshold } from './threshold.js';
import { freeNames, prepare, tooLittle, type FitMethod, type FitRequest, type Work } from './work.js';

export type { FitMethod, FitRequest } from './work.js';

/** A fitted family: its parameters, and how well it describes the readings. */
export interface Fit {
  family: string;
  method: FitMethod;
  parameters: Parameters;
  estimated: string[];
  /** From the observed information; null where it gives none. Empty for `moments` and `given`. */
  standardErrors: Record<string, number | null>;
  /** The covariance matrix of the estimated parameters, in their order; null where the observed information gives none. */
  covariance: number[][] | null;
  n: number;
  logLikelihood: number;
  /** Akaike's criterion (1974), its correction for small n (Hurvich & Tsai 1989; null when n is too small for it) and Schwarz's (1978). */
  aic: number;
  aicc: number | null;
  bic: number;
  /** True when the likelihood is that of rounded readings. */
  grouped: boolean;
  notes: Note[];
}

function criteria(logLikelihood: number, k: number, n: number): Pick<Fit, 'aic' | 'aicc' | 'bic'> {
  const aic = 2 * k - 2 * logLikelihood;
  return { aic, aicc: n > k + 1 ? aic + (2 * k * (k + 1)) / (n - k - 1) : null, bic: k * log(n) - 2 * logLikelihood };
}

/** The covariance of the two free parameters where their information has a closed form. */
function closedCovariance({ family, sorted, free }: Work, parameters: Parameters): number[][] | null {
  const information = family.estimation.information?.(parameters, sorted.length);
  if (!information || free.length !== 2 || !free.every((name, i) => information.names[i] === name)) return null;
  const [[a, b], [, d]] = information.matrix as [[number, number], [number, number]];
  const det = a * d - b * b;
  if (!(det > 0 && a > 0 && d > 0)) return null;
  return [
    [d / det, -b / det],
    [-b / det, a / det],
  ];
}

/** The place to start from, or the maximum itself where it is known in closed form for exactly these free parameters. */
function firstPlace({
  family,
  about,
  censored,
  fixed,
  free,
  request,
}: Work): { parameters: Parameters; exact: boolean } | Refusal {
  const { maximum, start } = family.estimation;
  const found = (maximum ?? start)!(about, fixed);
  if (isRefusal(found)) return found;
  const plain = freeNames(family, { method: request.method });
  const same = plain.length === free.length && plain.every((name) => free.includes(name));
  return {
    parameters: { ...fixed, ...found, ...(same ? {} : request.given) },
    exact: maximum !== undefined && same && !censored,
  };
}

function greatest(work: Work): Peak | Refusal {
  const { family, free, fixed, resolution, censored, logLikelihood, spread } = work;
  const place = firstPlace(work);
  if (isRefusal(place)) return place;
  if (censored && family.estimation.ends && free.length > 0) {
    const parameters = censoredEnds(work);
    const standardErrors = standardErrorsOf(free, null);
    return { parameters, logLikelihood: logLikelihood(parameters), standardErrors, covariance: null, converged: true };
  }
  const landscape = new Landscape(family, logLikelihood, free, { ...fixed, ...place.parameters }, spread);
  if (!place.exact) return landscape.climb(place.parameters);
  if (resolution !== null) return landscape.refine(place.parameters);
  const { ends } = family.estimation;
  const spared = free.length === 0 || ends !== undefined || work.request.errors === false;
  const covariance = spared ? null : closedCovariance(work, place.parameters);
  if (!spared && !covariance) return { ...landscape.at(place.parameters), parameters: place.parameters };
  return {
    parameters: place.parameters,
    logLikelihood: logLikelihood(place.parameters),
    standardErrors: standardErrorsOf(free, covariance),
    covariance,
    converged: true,
  };
}

function finished(work: Work, peak: Peak, notes: Note[]): Fit | Refusal {
  const { family, request, free, n } = work;
  const boundless = free.length > 0 ? (family.estimation.boundless?.(peak.parameters) ?? null) : null;
  if (boundless) return refuse(boundless);
  if (!Number.isFinite(peak.logLikelihood)) {
    const { lower, upper } = family.of(completed(family, peak.parameters)).support;
    // Possible, but of a probability that a double cannot hold.
    const isPossible = !family.discrete && work.sorted.every((x) => x >= lower && x <= upper);
    return refuse(
      isPossible
        ? `The likelihood is too small to be calculated: some readings are too far in a tail of the ${family.title} distribution with these parameters.`
        : `Some readings are impossible under the fitted ${family.title} distribution.`,
    );
  }
  return {
    family: family.family,
    method: request.method,
    parameters: completed(family, peak.parameters),
    estimated: free,
    standardErrors: peak.standardErrors,
    covariance: peak.covariance,
    n,
    logLikelihood: peak.logLikelihood,
    ...criteria(peak.logLikelihood, free.length, n),
    grouped: work.resolution !== null,
    notes,
  };
}

function byMoments(work: Work): Fit | Refusal {
  const { family, sorted, fixed, logLikelihood } = work;
  const { fromMoments } = family.estimation;
  if (work.censored)
    return refuse('Mean and standard deviation cannot be calculated from censored readings. Use maximum likelihood.');
  if (!fromMoments)
    return refuse(`The ${family.title} distribution is not determined by its mean and standard deviation.`);
  const { mean, s2, n } = centralMoments(sorted);
  if (n < 2) return refuse('A variance needs at least 2 readings.');
  const found = fromMoments(mean, s2 / (n - 1), fixed);
  if (isRefusal(found)) return found;
  const parameters = { ...fixed, ...found };
  const peak: Peak = {
    parameters,
    logLikelihood: logLikelihood(parameters),
    standardErrors: {},
    covariance: null,
    converged: true,
  };
  const text =
    'The likelihood is not the maximum: the parameters were calculated from the mean and the standard deviation (divisor n − 1).';
  return finished(work, peak, [{ code: 'moments', text }]);
}

/** How far inside the bound a search starts, in ranges of the readings. */
const INSIDE = 0.02;

/** The sorted readings that a threshold lies below; one that is known to lie below a bound needs room there. */
const leastOf = ({ sorted, censored }: Work): Float64Array =>
  censored ? Float64Array.from([...sorted, ...censored.upper.filter(Number.isFinite)]).sort() : sorted;

/** With a threshold to be found: profiled as if the readings were exact, which is close enough for coarse ones to start from. */
function byProfile(work: Work): Fit | Refusal {
  const { family, sorted, request, fixed, logLikelihood } = work;
  const exact = logLikelihoodOf(family, sorted, null, work.censored);
  const others = work.free.filter((name) => name !== 'threshold');
  const at = (threshold: number): Work => ({
    ...work,
    free: others,
    fixed: { ...fixed, threshold },
    request: { ...request, given: { ...request.given, threshold } },
  });
  const found = profileThreshold(leastOf(work), request.resolution ?? null, (threshold) => {
    if (work.censored) return greatest(at(threshold));
    const place = firstPlace(at(threshold));
    if (isRefusal(place)) return place;
    const parameters = { ...fixed, ...place.parameters, threshold };
    return { parameters, logLikelihood: exact(parameters) };
  });
  if (isRefusal(found)) return found;
  if (!found.atBound) {
    const peak = new Landscape(family, logLikelihood, work.free, fixed, work.spread).refine(found.parameters);
    return finished(work, peak, notesOf(work, peak));
  }
  const peak = greatest(at(found.threshold));
  if (isRefusal(peak)) return peak;
  if (work.resolution !== null) {
    // Coarse readings can have their peak just inside, where as exact ones they have none.
    const range = sorted[sorted.length - 1]! - sorted[0]!;
    const inside = { ...peak.parameters, threshold: found.threshold - INSIDE * range };
    const inner = new Landscape(family, logLikelihood, work.free, fixed, work.spread).newton(inside);
    if (inner && inner.logLikelihood > peak.logLikelihood && inner.parameters.threshold! < found.threshold) {
      return finished(work, inner, notesOf(work, inner));
    }
  }
  const text =
    'The threshold is unreliable: it lies at its upper limit, just below the minimum reading, and the likelihood still increases there.';
  return finished(work, { ...peak, standardErrors: { ...peak.standardErrors, threshold: null }, covariance: null }, [
    ...notesOf(work, peak).filter(({ code }) => code !== 'no-error'),
    { code: 'at-bound', text },
  ]);
}

/**
 * Fits a family to readings: by maximum likelihood with standard errors from the observed information, by moments, or with all parameters given.
 * Refused, with the reason, if the readings are impossible under the family, if they are too few, or if the likelihood has no maximum.
 */
export function fit(family: Family, values: ArrayLike<number>, request: FitRequest): Fit | Refusal {
  const work = prepare(family, values, request);
  const short = tooLittle(work);
  if (short) return short;
  if (request.method === 'given') {
    const fault = parameterFaults(family, request.given ?? {})[0];
    if (fault) return refuse(fault.message);
    const peak: Peak = {
      parameters: work.fixed,
      logLikelihood: work.logLikelihood(work.fixed),
      standardErrors: {},
      covariance: null,
      converged: true,
    };
    return finished(work, peak, []);
  }
  if (request.method === 'moments') return byMoments(work);
  if (work.free.includes('threshold')) return byProfile(work);
  const found = greatest(work);
  if (isRefusal(found)) return found;
  const ran = runawaysOf(work, found);
  const peak = withoutRunaways(work, found, ran);
  return finished(work, peak, notesOf(work, peak, ran));
}
