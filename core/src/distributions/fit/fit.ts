import { formatFigure } from '../../numeric/format.js';
import { log } from '../../numeric/elementary.js';
import { centralMoments } from '../../numeric/sums.js';
import { isRefusal, refuse, type Family, type Parameters, type Refusal } from '../family.js';
import type { Note } from '../../readings/note.js';
import { completed, parameterFaults } from '../registry.js';
import { logLikelihoodOf, type LogLikelihood } from './likelihood.js';
import { Landscape, type Peak } from './search.js';
import { profileThreshold } from './threshold.js';

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

/** A family with its parameters, and how well it describes the readings. */
export interface Fit {
  family: string;
  method: FitMethod;
  parameters: Parameters;
  estimated: string[];
  /** From the observed information; null where it gives none. Empty for `moments` and `given`. */
  standardErrors: Record<string, number | null>;
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

/** A resolution wider than this share of the sd is coarse (STATISTICS section 3). */
const COARSE = 0.2;

function criteria(logLikelihood: number, k: number, n: number): Pick<Fit, 'aic' | 'aicc' | 'bic'> {
  const aic = 2 * k - 2 * logLikelihood;
  return { aic, aicc: n > k + 1 ? aic + (2 * k * (k + 1)) / (n - k - 1) : null, bic: k * log(n) - 2 * logLikelihood };
}

/** Everything a fit is worked out from. */
interface Work {
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
function freeNames(family: Family, { given = {}, estimateThreshold = false }: FitRequest): string[] {
  return family.parameters
    .map(({ name }) => name)
    .filter((name) => !(name in given) && !family.estimation.given?.includes(name))
    .filter((name) => name !== 'threshold' || estimateThreshold);
}

function prepare(family: Family, values: ArrayLike<number>, request: FitRequest): Work {
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
function tooLittle({ family, sorted, free, spread }: Work): Refusal | null {
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

/** Standard errors where the information has a closed form. */
function closedErrors({ family, sorted, free }: Work, parameters: Parameters): Record<string, number | null> | null {
  const information = family.estimation.information?.(parameters, sorted.length);
  if (!information || information.names.length !== 2 || !information.names.every((name) => free.includes(name)))
    return null;
  if (free.length !== 2) return null;
  const [[a, b], [, d]] = information.matrix as [[number, number], [number, number]];
  const det = a * d - b * b;
  const error = (v: number) => (det > 0 && v > 0 ? Math.sqrt(v / det) : null);
  return { [information.names[0]!]: error(d), [information.names[1]!]: error(a) };
}

/** The place to start from, or the maximum itself where it is known in closed form for exactly these free parameters. */
function firstPlace({
  family,
  sorted,
  fixed,
  free,
  request,
}: Work): { parameters: Parameters; exact: boolean } | Refusal {
  const { maximum, start } = family.estimation;
  const found = (maximum ?? start)!(sorted, fixed);
  if (isRefusal(found)) return found;
  const plain = freeNames(family, { method: request.method });
  const same = plain.length === free.length && plain.every((name) => free.includes(name));
  return { parameters: { ...fixed, ...found, ...(same ? {} : request.given) }, exact: maximum !== undefined && same };
}

function greatest(work: Work): Peak | Refusal {
  const { family, free, fixed, resolution, logLikelihood, spread } = work;
  const place = firstPlace(work);
  if (isRefusal(place)) return place;
  const landscape = new Landscape(family, logLikelihood, free, { ...fixed, ...place.parameters }, spread);
  if (!place.exact) return landscape.climb(place.parameters);
  if (resolution !== null) return landscape.refine(place.parameters);
  const { ends } = family.estimation;
  const standardErrors =
    free.length === 0 || ends || work.request.errors === false
      ? Object.fromEntries(free.map((name) => [name, null]))
      : closedErrors(work, place.parameters);
  if (!standardErrors) return { ...landscape.at(place.parameters), parameters: place.parameters };
  return {
    parameters: place.parameters,
    logLikelihood: logLikelihood(place.parameters),
    standardErrors,
    converged: true,
  };
}

function notesOf(work: Work, peak: Peak, ran: readonly string[] = []): Note[] {
  const { family, free, resolution } = work;
  const notes: Note[] = [];
  if (resolution !== null) {
    notes.push({
      code: 'grouped',
      text: `The resolution of ${resolution} is coarse beside the sd: each reading counts as the interval it was rounded from.`,
    });
  }
  if (!peak.converged) {
    notes.push({
      code: 'not-converged',
      text: 'The search for the greatest likelihood did not close in on one place; read these parameters with care.',
    });
  }
  if (family.estimation.ends?.some((name) => free.includes(name))) {
    notes.push({
      code: 'ends',
      text: 'The ends are those of the readings themselves: the true ones lie further out, and no standard error can be given.',
    });
  } else {
    const asked = work.request.errors !== false;
    const without = free.filter((name) => asked && peak.standardErrors[name] === null && !ran.includes(name));
    if (without.length > 0) {
      notes.push({
        code: 'no-error',
        text: `The likelihood is too flat around ${without.join(' and ')} for a standard error.`,
      });
    }
  }
  const texts = new Set(ran.map((name) => RUNAWAYS[family.family]![name]!.text));
  for (const text of texts) notes.push({ code: 'at-bound', text });
  return notes;
}

/** A parameter that can run off to where the family turns into another, and what is said then. */
const RUNAWAYS: Record<string, Record<string, { beyond: number; text: string }>> = {
  'student-t': {
    df: {
      beyond: 200,
      text: 'df ran off to large values: not told apart from a normal distribution. The standard errors of location and scale are those with df as found.',
    },
  },
  'negative-binomial': {
    size: { beyond: 1e6, text: 'The size ran off to large values: the counts vary as Poisson counts do.' },
  },
  f: {
    df1: {
      beyond: 1e5,
      text: 'The degrees of freedom ran off to large values: one of the two variances is not seen to vary.',
    },
    df2: {
      beyond: 1e5,
      text: 'The degrees of freedom ran off to large values: one of the two variances is not seen to vary.',
    },
  },
};
/** A standard error of so many times the estimate itself says that the readings do not bound it. */
const UNBOUNDED = 5;

function runawaysOf({ family, free }: Work, { parameters, standardErrors }: Peak): string[] {
  const known = RUNAWAYS[family.family] ?? {};
  return free.filter((name) => {
    const limit = known[name];
    const error = standardErrors[name];
    return limit && (parameters[name]! > limit.beyond || (error && error > UNBOUNDED * parameters[name]!));
  });
}

/** With estimates that ran off taken as they are: they have no standard error, and the others those that they have beside them. */
function withoutRunaways(work: Work, peak: Peak, ran: readonly string[]): Peak {
  if (ran.length === 0 || work.request.errors === false) return peak;
  const free = work.free.filter((name) => !ran.includes(name));
  const landscape = new Landscape(work.family, work.logLikelihood, free, peak.parameters, work.spread);
  const standardErrors = { ...landscape.at(peak.parameters).standardErrors };
  for (const name of ran) standardErrors[name] = null;
  return { ...peak, standardErrors };
}

function finished(work: Work, peak: Peak, notes: Note[]): Fit | Refusal {
  const { family, request, free, sorted } = work;
  if (!Number.isFinite(peak.logLikelihood)) {
    return refuse(`Readings among these are impossible under the ${family.title} distribution found.`);
  }
  const n = sorted.length;
  return {
    family: family.family,
    method: request.method,
    parameters: completed(family, peak.parameters),
    estimated: free,
    standardErrors: peak.standardErrors,
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
  if (!fromMoments) return refuse(`The ${family.title} distribution is not told one to one by its mean and sd.`);
  const { mean, s2, n } = centralMoments(sorted);
  if (n < 2) return refuse('At least two readings are needed for a variance.');
  const found = fromMoments(mean, s2 / (n - 1), fixed);
  if (isRefusal(found)) return found;
  const parameters = { ...fixed, ...found };
  const peak: Peak = { parameters, logLikelihood: logLikelihood(parameters), standardErrors: {}, converged: true };
  const text =
    'From the mean and the sd with divisor n − 1; the likelihood is that of these parameters, not its maximum.';
  return finished(work, peak, [{ code: 'moments', text }]);
}

/** How far inside the bound a search starts, in ranges of the readings. */
const INSIDE = 0.02;

/** With a threshold to be found: profiled as if the readings were exact, which is close enough for coarse ones to start from. */
function byProfile(work: Work): Fit | Refusal {
  const { family, sorted, request, fixed, logLikelihood } = work;
  const exact = logLikelihoodOf(family, sorted, null);
  const others = work.free.filter((name) => name !== 'threshold');
  const at = (threshold: number): Work => ({
    ...work,
    free: others,
    fixed: { ...fixed, threshold },
    request: { ...request, given: { ...request.given, threshold } },
  });
  const found = profileThreshold(sorted, request.resolution ?? null, (threshold) => {
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
    'The threshold ended on the greatest value it may take, just below the least reading: the likelihood would rise further towards it.';
  return finished(work, { ...peak, standardErrors: { ...peak.standardErrors, threshold: null } }, [
    ...notesOf(work, peak).filter(({ code }) => code !== 'no-error'),
    { code: 'at-bound', text },
  ]);
}

/**
 * Fits a family to readings: by maximum likelihood with standard errors from the observed information, by moments, or with everything
 * given. Refused, with the reason, where the readings are impossible under the family, too few, or the likelihood has no maximum.
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
