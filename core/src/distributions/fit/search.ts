import { inverseOf } from '../../numeric/cholesky.js';
import { curvatureAt, type Curvature } from '../../numeric/curvature.js';
import { exp, log } from '../../numeric/elementary.js';
import { nelderMead } from '../../numeric/nelder-mead.js';
import { quasiNewton } from '../../numeric/quasi-newton.js';
import type { Family, Parameters, ParameterSpec } from '../family.js';
import type { LogLikelihood } from './likelihood.js';

/** A parameter as a number without bounds: its logarithm, its log odds, or itself in units of the spread. */
interface Coordinate {
  name: string;
  toFree(value: number): number;
  fromFree(t: number): number;
  /** d value/d t. */
  slope(t: number): number;
}

function coordinateOf({ name, range }: ParameterSpec, unit: number): Coordinate {
  if (range.above === 0 && range.below === 1) {
    const fromFree = (t: number) => 1 / (1 + exp(-t));
    return { name, toFree: (p) => log(p / (1 - p)), fromFree, slope: (t) => fromFree(t) * fromFree(-t) };
  }
  if (range.above === 0) return { name, toFree: log, fromFree: exp, slope: exp };
  return { name, toFree: (v) => v / unit, fromFree: (t) => t * unit, slope: () => unit };
}

/** The maximum of a likelihood, and what its curvature says about precision. */
export interface Peak {
  parameters: Parameters;
  logLikelihood: number;
  /** By name; null where the curvature gives none. */
  standardErrors: Record<string, number | null>;
  /** In the order of the free parameters; null where the curvature gives none. */
  covariance: number[][] | null;
  converged: boolean;
}

export function standardErrorsOf(free: readonly string[], covariance: number[][] | null): Peak['standardErrors'] {
  return Object.fromEntries(
    free.map((name, i) => {
      const variance = covariance?.[i]![i] ?? NaN;
      return [name, variance > 0 && Number.isFinite(variance) ? Math.sqrt(variance) : null];
    }),
  );
}

/** Newton's steps to the last digits; a start that is close needs two or three. */
const MOST_STEPS = 6;
/** So near the maximum, in free coordinates, a step makes no difference that is printed. */
const CLOSE = 1e-6;

/** Newton's step: the inverse of the curvature times the gradient. */
function stepFrom(gradient: Float64Array, inverse: ArrayLike<number>): Float64Array {
  const n = gradient.length;
  return gradient.map((_, i) => {
    let sum = 0;
    for (let j = 0; j < n; j++) sum += inverse[i * n + j]! * gradient[j]!;
    return sum;
  });
}

/** A likelihood over the free parameters of a family, the others fixed. */
export class Landscape {
  private readonly coordinates: Coordinate[];

  constructor(
    family: Family,
    private readonly logLikelihood: LogLikelihood,
    readonly free: readonly string[],
    private readonly fixed: Parameters,
    spread: number,
  ) {
    const inUnit = new Set(['mean', 'location', 'threshold', 'lower', 'upper', 'mode']);
    this.coordinates = family.parameters
      .filter(({ name }) => free.includes(name))
      .map((spec) => coordinateOf(spec, inUnit.has(spec.name) && spread > 0 ? spread : 1));
  }

  private parametersAt(t: Float64Array): Parameters {
    const found: Record<string, number> = { ...this.fixed };
    this.coordinates.forEach(({ name, fromFree }, i) => (found[name] = fromFree(t[i]!)));
    return found;
  }

  private height = (t: Float64Array): number => -this.logLikelihood(this.parametersAt(t));

  private placeOf(parameters: Parameters): Float64Array {
    return Float64Array.from(this.coordinates, ({ name, toFree }) => toFree(parameters[name]!));
  }

  /** Maximizes from `start` by Nelder–Mead, then by Newton's steps for the last digits, which a simplex does not reach. */
  climb(start: Parameters): Peak {
    const { at, converged } = nelderMead(this.height, this.placeOf(start), 0.2);
    return { ...this.peakAt(this.polished(at)), converged };
  }

  /** From a place that is not far, quickly, for thousands of samples; null where that does not close in on a maximum. */
  quickly(start: Parameters): Parameters | null {
    const found = quasiNewton(this.height, this.placeOf(start));
    return found && this.parametersAt(found.at);
  }

  /** From a place close to the maximum by Newton's steps; climbs where these do not close in on it. */
  refine(near: Parameters): Peak {
    return this.newton(near) ?? this.climb(near);
  }

  /** From a place close to the maximum by Newton's steps alone; null where these do not close in on it. */
  newton(near: Parameters): Peak | null {
    let at = this.placeOf(near);
    const steps = this.stepsAt(at);
    for (let round = 0; round < MOST_STEPS; round++) {
      const curvature = this.curvature(at, steps);
      const inverse = curvature && inverseOf(curvature.hessian, at.length);
      if (!curvature || !inverse) break;
      const step = stepFrom(curvature.gradient, inverse);
      // Newton's step may overshoot where the start is not close: it is halved while it does not climb.
      let part = 1;
      const further = () => at.map((t, i) => t - part * step[i]!);
      const allowed = curvature.value + 1e-12 * Math.abs(curvature.value);
      while (part > 0.01 && !(this.height(further()) <= allowed)) part /= 2;
      if (part <= 0.01) break;
      at = further();
      if (step.every((s) => Math.abs(s) < CLOSE)) return this.peakFrom(at, curvature);
    }
    return null;
  }

  /** The curvature at a maximum that is known already, such as one in closed form. */
  at(parameters: Parameters): Peak {
    return this.peakAt(this.placeOf(parameters));
  }

  private polished(from: Float64Array): Float64Array {
    let at = from;
    for (let round = 0; round < MOST_STEPS; round++) {
      const curvature = this.curvature(at);
      const inverse = curvature && inverseOf(curvature.hessian, at.length);
      if (!curvature || !inverse) return at;
      const step = stepFrom(curvature.gradient, inverse);
      const next = at.map((t, i) => t - step[i]!);
      // Newton's step may only refine: rounding in the heights is allowed for, nothing more.
      if (!(this.height(next) <= curvature.value + 1e-12 * Math.abs(curvature.value))) return at;
      at = next;
      if (step.every((s, i) => Math.abs(s) < 1e-11 * Math.max(1, Math.abs(at[i]!)))) return at;
    }
    return at;
  }

  /** A tenth of a standard error each way, that error itself found from coarser differences first. */
  private stepsAt(at: Float64Array): Float64Array {
    let steps = at.map(() => 1e-3);
    for (let round = 0; round < 3; round++) {
      const { hessian } = curvatureAt(this.height, at, steps);
      steps = steps.map((h, i) => {
        const bend = hessian[i * at.length + i]!;
        return bend > 0 && Number.isFinite(bend) ? Math.min(0.5, 0.1 / Math.sqrt(bend)) : h / 4;
      });
    }
    return steps;
  }

  /** First and second differences; null where they are no numbers. */
  private curvature(at: Float64Array, steps = this.stepsAt(at)): Curvature | null {
    const found = curvatureAt(this.height, at, steps);
    return found.hessian.every(Number.isFinite) && Number.isFinite(found.value) ? found : null;
  }

  private peakAt(at: Float64Array): Peak {
    return this.peakFrom(at, this.curvature(at));
  }

  private peakFrom(at: Float64Array, curvature: Curvature | null): Peak {
    const n = at.length;
    const inverse = curvature && inverseOf(curvature.hessian, n);
    const slopes = this.coordinates.map(({ slope }, i) => slope(at[i]!));
    const covariance =
      inverse && slopes.map((a, i) => slopes.map((b, j) => a * b * inverse[Math.min(i, j) * n + Math.max(i, j)]!));
    const standardErrors = standardErrorsOf(
      this.coordinates.map(({ name }) => name),
      covariance,
    );
    const parameters = this.parametersAt(at);
    return { parameters, logLikelihood: this.logLikelihood(parameters), standardErrors, covariance, converged: true };
  }
}
