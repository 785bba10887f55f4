import { normalQuantile } from '../../numeric/standard-normal.js';
import type { Distribution, Family, Parameters } from '../family.js';
import type { Fit } from './fit.js';

/** The parts of a fit that an interval needs. */
export type Estimated = Pick<Fit, 'parameters' | 'estimated' | 'covariance'>;

/** Steps of a derivative, in standard errors. */
const STEP = 1e-3;

/**
 * The standard error of a figure of the fitted distribution by the delta method (Meeker & Escobar 1998, appendix B.2): √(g′ᵀ Σ g′), the
 * derivatives by central differences of a thousandth of a standard error. Null where the fit has no covariance, or the figure no derivative.
 */
export function deltaError(
  family: Family,
  { parameters, estimated, covariance }: Estimated,
  figure: (distribution: Distribution) => number,
): number | null {
  if (!covariance || estimated.length === 0) return null;
  const at = (change: Parameters) => figure(family.of({ ...parameters, ...change }));
  const slopes = estimated.map((name, i) => {
    const h = STEP * Math.sqrt(covariance[i]![i]!);
    const value = parameters[name]!;
    return (at({ [name]: value + h }) - at({ [name]: value - h })) / (2 * h);
  });
  let variance = 0;
  slopes.forEach((a, i) => slopes.forEach((b, j) => (variance += a * b * covariance[i]![j]!)));
  return Number.isFinite(variance) && variance >= 0 ? Math.sqrt(variance) : null;
}

/** The half-width of an interval of this confidence in standard errors. */
export const reachOf = (confidence: number): number => -normalQuantile((1 - confidence) / 2);
