import { isRefusal, refuse, type Family, type Parameters, type Refusal } from '../family.js';
import { completed } from '../registry.js';
import { centralMoments } from '../../numeric/sums.js';
import { fit } from './fit.js';
import { logLikelihoodOf } from './likelihood.js';
import { Landscape } from './search.js';
import { freeNames } from './work.js';

/** How the parameters of a family were found, so that they can be found again from another sample: all of it is plain data. */
export interface Fitting {
  family: string;
  /** Those that are given: all of them for a claim, none where everything is estimated. */
  given: Parameters;
  estimateThreshold: boolean;
}

/** Families whose spread is told with divisor n − 1, as in the tests of normality (D’Agostino & Stephens 1986, section 4.8), and by which name. */
const SPREADS: Record<string, string> = { normal: 'sd', lognormal: 'logSd' };

/** The greatest likelihood divides by n; plots and tests of a normal, and of a normal of logarithms, by n − 1. */
export function asTested({ family }: Pick<Family, 'family'>, parameters: Parameters, n: number): Parameters {
  const spread = SPREADS[family];
  if (spread === undefined || n < 2) return parameters;
  return { ...parameters, [spread]: parameters[spread]! * Math.sqrt(n / (n - 1)) };
}

/**
 * By quasi-Newton steps from where the family starts its search. Where these do not end well (hardly ever, and in samples of a handful) the sample is
 * refused: the careful search would take a thousand times as long.
 */
function searched(family: Family, sorted: Float64Array, free: string[], fixed: Parameters): Parameters | Refusal {
  const { start, boundless } = family.estimation;
  const from = start!(sorted, fixed);
  if (isRefusal(from)) return from;
  const { s2, n } = centralMoments(sorted);
  const landscape = new Landscape(family, logLikelihoodOf(family, sorted, null), free, fixed, Math.sqrt(s2 / (n - 1)));
  const found = landscape.quickly({ ...fixed, ...from });
  if (!found) return refuse('The search for the greatest likelihood did not close in on one place.');
  const why = boundless?.(found);
  return why ? refuse(why) : found;
}

/** The parameters of a family found from a sorted sample in the way of a fitting, without standard errors: thousands of times. */
export function refitter(
  family: Family,
  { given, estimateThreshold }: Fitting,
): (sorted: Float64Array) => Parameters | Refusal {
  const request = { method: 'maximum-likelihood', given, estimateThreshold, errors: false } as const;
  const free = freeNames(family, request);
  if (free.length === 0) {
    const claimed = completed(family, given);
    return () => claimed;
  }
  const fixed = completed(family, given);
  const { maximum } = family.estimation;
  const plain = freeNames(family, { method: 'maximum-likelihood' });
  const adjusts = SPREADS[family.family] !== undefined && free.includes(SPREADS[family.family]!);
  const tested = (found: Parameters, n: number) => (adjusts ? asTested(family, found, n) : found);
  if (maximum && plain.length === free.length) {
    return (sorted) => {
      const found = maximum(sorted, fixed);
      return isRefusal(found) ? found : tested({ ...fixed, ...found }, sorted.length);
    };
  }
  const smooth = !estimateThreshold && family.estimation.start !== undefined && !family.estimation.ends;
  return (sorted) => {
    if (smooth) {
      const near = searched(family, sorted, free, fixed);
      return isRefusal(near) ? near : tested(near, sorted.length);
    }
    const found = fit(family, sorted, request);
    return isRefusal(found) ? found : tested(found.parameters, sorted.length);
  };
}
