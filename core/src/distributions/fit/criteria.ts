import { isRefusal } from '../family.js';
import { familyByName } from '../registry.js';
import { centralMoments } from '../../numeric/sums.js';
import { fit } from './fit.js';
import { logLikelihoodOf } from './likelihood.js';
import { likeliest } from './refit.js';
import { COARSE, freeNames } from './work.js';

export interface FamilyCriteria {
  /** In rising order. */
  values: number[];
  resolution: number | null;
  families: readonly string[];
}

/** AICc of one family (Hurvich & Tsai 1989); Infinity if it cannot be fitted. */
function criterion(name: string, sorted: Float64Array, resolution: number | null): number {
  const family = familyByName(name);
  const n = sorted.length;
  const { s2 } = centralMoments(sorted);
  if (resolution !== null && resolution > COARSE * Math.sqrt(s2 / (n - 1))) {
    const found = fit(family, sorted, { method: 'maximum-likelihood', errors: false, resolution });
    return isRefusal(found) ? Infinity : (found.aicc ?? Infinity);
  }
  const found = likeliest({ family: name, given: {}, estimateThreshold: false })(sorted);
  if (isRefusal(found)) return Infinity;
  const k = freeNames(family, { method: 'maximum-likelihood' }).length;
  if (n <= k + 1) return Infinity;
  const likelihood = logLikelihoodOf(family, sorted, null)(found);
  return Number.isFinite(likelihood) ? 2 * k - 2 * likelihood + (2 * k * (k + 1)) / (n - k - 1) : Infinity;
}

/** AICc of every family for one sample, computed quickly, to rank them for many columns. Deterministic. */
export function familyCriteria({ values, resolution, families }: FamilyCriteria): Float64Array {
  const sorted = Float64Array.from(values);
  return Float64Array.from(families, (name) => criterion(name, sorted, resolution));
}
