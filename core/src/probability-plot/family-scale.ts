import { exp, log, log1p } from '../numeric/elementary.js';
import { normalQuantile } from '../numeric/standard-normal.js';
import type { Distribution, Family, Parameters } from '../distributions/family.js';
import { distribution } from '../distributions/registry.js';

/** The probability paper of a family: the place of readings, the place of cumulative proportions, and the straight line of the distribution. */
export interface FamilyScale {
  /** The place of a reading: itself, or its logarithm above the threshold. */
  placeOf(reading: number): number;
  readingAt(place: number): number;
  /** The score of a share: the quantile of the standard distribution, `rest` being 1 − p. */
  scoreOf(p: number, rest?: number): number;
  /** On this paper the distribution is the line place = intercept + slope · score. */
  intercept: number;
  slope: number;
  /** Above which readings have a place; null where all have one. */
  above: number | null;
}

const logistic = (p: number, rest: number) => log(p) - log(rest);
/** The smallest of many: the logarithm of a standard exponential. */
const smallestExtreme = (p: number, rest: number) => log(p < 0.5 ? -log1p(-p) : -log(rest));
const score = (p: number, rest: number) => (p < 0.5 ? normalQuantile(p) : -normalQuantile(rest));

/** Families whose logarithm above the threshold has a location and a scale: on a scale of logarithms they are lines whatever their shape. */
const OF_LOGARITHMS: Record<string, (p: Parameters) => Pick<FamilyScale, 'scoreOf' | 'intercept' | 'slope'>> = {
  lognormal: ({ logMean, logSd }) => ({
    scoreOf: (p, rest = 1 - p) => score(p, rest),
    intercept: logMean!,
    slope: logSd!,
  }),
  weibull: ({ scale, shape }) => ({
    scoreOf: (p, rest = 1 - p) => smallestExtreme(p, rest),
    intercept: log(scale!),
    slope: 1 / shape!,
  }),
  'log-logistic': ({ logLocation, logScale }) => ({
    scoreOf: (p, rest = 1 - p) => logistic(p, rest),
    intercept: logLocation!,
    slope: logScale!,
  }),
};

const LOCATIONS = ['location', 'threshold', 'lower'];

/** The location and scale of a family, and its parameters once both are taken out. */
function standardised({ family, parameters: specs }: Family, parameters: Parameters) {
  if (family === 'normal') return { location: parameters.mean!, scale: parameters.sd!, standard: { mean: 0, sd: 1 } };
  if (family === 'inverse-gaussian') {
    const { mean, shape } = parameters;
    return { location: 0, scale: mean!, standard: { mean: 1, shape: shape! / mean! } };
  }
  const named = LOCATIONS.find((name) => specs.some((spec) => spec.name === name));
  const location = named ? parameters[named]! : 0;
  if (parameters.upper !== undefined && parameters.lower !== undefined) {
    const scale = parameters.upper - parameters.lower;
    const standard: Record<string, number> = { ...parameters, lower: 0, upper: 1 };
    if (parameters.mode !== undefined) standard.mode = (parameters.mode - location) / scale;
    return { location, scale, standard };
  }
  const scale = specs.some(({ name }) => name === 'scale') ? parameters.scale! : 1;
  const standard: Parameters = {
    ...parameters,
    ...(named ? { [named]: 0 } : {}),
    ...(parameters.scale === undefined ? {} : { scale: 1 }),
  };
  return { location, scale, standard };
}

/**
 * The probability paper of a family with these parameters. For families with location and scale only (on a logarithmic scale for lognormal, Weibull
 * and log-logistic) the scores do not depend on the parameters; a remaining shape, such as that of a gamma, is used as given.
 */
export function familyScale(family: Family, parameters: Parameters): FamilyScale {
  const ofLogarithms = OF_LOGARITHMS[family.family];
  if (ofLogarithms) {
    const threshold = parameters.threshold ?? 0;
    return {
      ...ofLogarithms(parameters),
      placeOf: (reading) => log(reading - threshold),
      readingAt: (place) => threshold + exp(place),
      above: threshold,
    };
  }
  const { location, scale, standard } = standardised(family, parameters);
  const law: Distribution = distribution(family, standard);
  return {
    placeOf: (reading) => reading,
    readingAt: (place) => place,
    scoreOf: (p, rest = 1 - p) => (p < 0.5 ? law.quantile(p) : law.survivalQuantile(rest)),
    intercept: location,
    slope: scale,
    above: null,
  };
}
