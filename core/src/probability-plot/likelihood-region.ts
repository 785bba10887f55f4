import { isRefusal, type Distribution, type Parameters } from '../distributions/family.js';
import type { CensoredReadings } from '../distributions/fit/censored-readings.js';
import type { Estimated } from '../distributions/fit/delta.js';
import { logLikelihoodOf } from '../distributions/fit/likelihood.js';
import { studentT } from '../distributions/families/student-t.js';
import { familyByName, parameterFaults } from '../distributions/registry.js';
import { bracketedRoot } from '../numeric/bracketed-root.js';
import { choleskyOf } from '../numeric/cholesky.js';
import { exp, log1p } from '../numeric/elementary.js';

/** Directions from the likeliest parameters in which the edge of the region is looked for: on a circle, and on a sphere. */
const ON_CIRCLE = 64;
const ON_SPHERE = 240;
const MOST_PARAMETERS = 3;
const FAR = 1e4;

/** The readings that a distribution was fitted to. */
export interface FittedTo {
  sorted: Float64Array;
  censored?: CensoredReadings | undefined;
}

/** Unit vectors, evenly over all directions. */
function directionsOf(dimensions: number): number[][] {
  if (dimensions === 1) return [[1], [-1]];
  if (dimensions === 2)
    return Array.from({ length: ON_CIRCLE }, (_, k) => {
      // Half turns of a rational circle need no sine: (1 − t²)/(1 + t²), 2t/(1 + t²).
      const t = -1 + (2 * (k % (ON_CIRCLE / 2))) / (ON_CIRCLE / 2);
      const sign = k < ON_CIRCLE / 2 ? 1 : -1;
      return [(sign * (1 - t * t)) / (1 + t * t), (sign * 2 * t) / (1 + t * t)];
    });
  // Points on rings of equal area.
  const rings = 12;
  const each = ON_SPHERE / rings;
  return Array.from({ length: ON_SPHERE }, (_, k) => {
    const z = -1 + (2 * Math.floor(k / each) + 1) / rings;
    const [x, y] = directionsOf(2)[Math.floor(((k % each) * ON_CIRCLE) / each)]!;
    const r = Math.sqrt(1 - z * z);
    return [r * x!, r * y!, z];
  });
}

/**
 * The allowed drop of the log-likelihood: for the mean of normal readings the drop at the ends of the t interval, n/2·log(1 + t²/ν), instead of half
 * a χ² quantile.
 */
function dropFor(n: number, estimated: number, confidence: number): number {
  const df = Math.max(1, n - estimated + 1);
  const t = studentT.of({ df, location: 0, scale: 1 }).survivalQuantile((1 - confidence) / 2);
  return (n / 2) * log1p((t * t) / df);
}

/**
 * Distributions on the edge of the region of parameters that the readings leave open: those whose likelihood falls short of the greatest by so much that one figure of the distribution
 * is covered with a confidence (profile likelihood: Meeker & Escobar 1998, section 8.2; the least and the greatest of a figure over the edge are the ends of its interval). Null
 * where the fit has no covariance to start from, or more than three parameters.
 */
export function likelihoodEdge(
  familyName: string,
  { parameters, estimated, covariance }: Estimated,
  { sorted, censored }: FittedTo,
  confidence: number,
): Distribution[] | null {
  const k = estimated.length;
  if (!covariance || k === 0 || k > MOST_PARAMETERS) return null;
  const family = familyByName(familyName);
  // Parameters above 0 move on the scale of logarithms, where the region is rounder.
  const isPositive = estimated.map((name) => family.parameters.find((spec) => spec.name === name)?.range.above === 0);
  const size = estimated.map((name, i) => (isPositive[i] ? parameters[name]! : 1));
  const scaled = covariance.flatMap((row, i) => row.map((value, j) => value / (size[i]! * size[j]!)));
  const lower = choleskyOf(Float64Array.from(scaled), k);
  if (!lower) return null;
  const logLikelihood = logLikelihoodOf(family, sorted, null, censored);
  const greatest = logLikelihood(parameters);
  const n = sorted.length + (censored?.lower.length ?? 0);
  const drop = dropFor(n, k, confidence);
  const at = (direction: readonly number[], r: number): Parameters => {
    const moved: Record<string, number> = { ...parameters };
    estimated.forEach((name, i) => {
      let step = 0;
      for (let j = 0; j <= i; j++) step += lower[i * k + j]! * direction[j]!;
      moved[name] = isPositive[i] ? parameters[name]! * exp(r * step) : parameters[name]! + r * step;
    });
    return moved;
  };
  /** Below 0 inside the region; a large number where the parameters are impossible. */
  const beyond = (direction: readonly number[], r: number): number => {
    const tried = at(direction, r);
    if (parameterFaults(family, tried).length > 0) return FAR;
    const found = logLikelihood(tried);
    return Number.isFinite(found) ? Math.min(FAR, greatest - found - drop) : FAR;
  };
  const edge: Distribution[] = [];
  for (const direction of directionsOf(k)) {
    let high = Math.sqrt(2 * drop);
    while (beyond(direction, high) < 0 && high < FAR) high *= 2;
    if (high >= FAR) return null;
    let r = bracketedRoot((x) => beyond(direction, x), 0, high, 1e-4 * high);
    if (parameterFaults(family, at(direction, r)).length > 0) r *= 1 - 1e-3;
    const law = family.of(at(direction, r));
    if (!isRefusal(law)) edge.push(law);
  }
  return edge;
}

/** The least and the greatest of a figure over such distributions. */
export function overEdge(edge: readonly Distribution[], figure: (law: Distribution) => number) {
  let [lower, upper] = [Infinity, -Infinity];
  for (const law of edge) {
    const value = figure(law);
    if (Number.isNaN(value)) return null;
    lower = Math.min(lower, value);
    upper = Math.max(upper, value);
  }
  return { lower, upper };
}
