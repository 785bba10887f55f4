import { isRefusal, refuse, type Family, type Parameters, type Refusal } from '../family.js';
import { completed, familyByName } from '../registry.js';
import { centralMoments } from '../../numeric/sums.js';
import { fit } from './fit.js';
import { logLikelihoodOf } from './likelihood.js';
import { Landscape } from './search.js';
import { freeNames } from './work.js';

/** How the parameters of a family were estimated, so that other samples can be fitted in the same way: plain data. */
export interface Fitting {
  family: string;
  /** Those that are given: all of them for a claim, none where everything is estimated. */
  given: Parameters;
  estimateThreshold: boolean;
}

const FOUND = { method: 'maximum-likelihood', errors: false } as const;
const freeOf = ({ given, estimateThreshold }: Fitting, family: Family) =>
  freeNames(family, { ...FOUND, given, estimateThreshold });

/** How the parameters of a sample are found: given, in closed form, by quasi-Newton steps, or by the careful search. */
export type FittingKind = 'claimed' | 'closed' | 'searched' | 'careful';

export function fittingKind(fitting: Fitting): FittingKind {
  const family = familyByName(fitting.family);
  const free = freeOf(fitting, family);
  if (free.length === 0) return 'claimed';
  const { maximum, slow, ends } = family.estimation;
  // A threshold has a profile of its own.
  if (fitting.estimateThreshold || slow) return 'careful';
  if (maximum && freeNames(family, FOUND).length === free.length) return 'closed';
  // A likelihood that ends at the readings has no slope to follow.
  return ends ? 'careful' : 'searched';
}

/** Families whose spread is told with divisor n − 1, as in the tests of normality (D’Agostino & Stephens 1986, section 4.8), and by which name. */
const SPREADS: Record<string, string> = { normal: 'sd', lognormal: 'logSd' };

/** True where an estimated parameter divides by n − 1 in plots and tests; the greatest likelihood divides by n. */
export const dividesByLess = (family: string, name: string): boolean => SPREADS[family] === name;

/** Parameters for plots and tests: an estimated SD of a normal or lognormal has divisor n − 1. */
export function asTested(family: string, parameters: Parameters, estimated: readonly string[], n: number): Parameters {
  const spread = estimated.find((name) => dividesByLess(family, name));
  if (spread === undefined || n < 2) return parameters;
  return { ...parameters, [spread]: parameters[spread]! * Math.sqrt(n / (n - 1)) };
}

/**
 * By quasi-Newton steps from where the family starts its search. Where these do not end well (hardly ever, and in samples of a handful) the sample is
 * refused: the careful search would take a thousand times as long.
 */
function searched(family: Family, sorted: Float64Array, free: string[], fixed: Parameters): Parameters | Refusal {
  const { maximum, start, boundless } = family.estimation;
  const from = (maximum ?? start)!(sorted, fixed);
  if (isRefusal(from)) return from;
  const { s2, n } = centralMoments(sorted);
  const landscape = new Landscape(family, logLikelihoodOf(family, sorted, null), free, fixed, Math.sqrt(s2 / (n - 1)));
  const found = landscape.quickly({ ...fixed, ...from });
  if (!found) return refuse('The maximum likelihood search did not converge.');
  const why = boundless?.(found);
  return why ? refuse(why) : found;
}

/** The maximum-likelihood estimate of a sorted sample for a given fitting, without standard errors: called thousands of times. */
export function likeliest(fitting: Fitting): (sorted: Float64Array) => Parameters | Refusal {
  const family = familyByName(fitting.family);
  const { given, estimateThreshold } = fitting;
  const free = freeOf(fitting, family);
  const fixed = completed(family, given);
  switch (fittingKind(fitting)) {
    case 'claimed':
      return () => fixed;
    case 'closed':
      return (sorted) => {
        const found = family.estimation.maximum!(sorted, fixed);
        return isRefusal(found) ? found : { ...fixed, ...found };
      };
    case 'searched':
      return (sorted) => searched(family, sorted, free, fixed);
    case 'careful':
      return (sorted) => {
        const found = fit(family, sorted, { ...FOUND, given, estimateThreshold });
        return isRefusal(found) ? found : found.parameters;
      };
  }
}

/** The same with the spread as plots and tests take it. */
export function refitter(fitting: Fitting): (sorted: Float64Array) => Parameters | Refusal {
  const find = likeliest(fitting);
  if (fittingKind(fitting) === 'claimed') return find;
  const free = freeOf(fitting, familyByName(fitting.family));
  return (sorted) => {
    const found = find(sorted);
    return isRefusal(found) ? found : asTested(fitting.family, found, free, sorted.length);
  };
}

/** The same family with all parameters estimated. */
export const estimatedOf = ({ family: name }: Pick<Family, 'family'>): Fitting => ({
  family: name,
  given: {},
  estimateThreshold: false,
});
