import { exp, log } from '../../numeric/elementary.js';
import { nelderMead } from '../../numeric/nelder-mead.js';
import type { Parameters } from '../family.js';
import type { Work } from './work.js';

/** So many places are tried for a mode, evenly over the readings. */
const MOST_MODES = 60;

function modesOf({ family, sorted }: Work): number[] {
  if (!family.parameters.some(({ name }) => name === 'mode')) return [NaN];
  const count = Math.min(sorted.length, MOST_MODES);
  return Array.from(
    { length: count },
    (_, k) => sorted[Math.round((k * (sorted.length - 1)) / Math.max(1, count - 1))]!,
  );
}

/**
 * Where the likelihood of a family that ends at its readings (uniform, triangular) is greatest when some are censored: the ends by a simplex in the
 * logarithms of their distances beyond the readings, an end being laid onto them where that is likelier still; the best of the modes among the readings.
 */
export function censoredEnds(work: Work): Parameters {
  const { sorted, censored, logLikelihood } = work;
  const [least, greatest] = [sorted[0]!, sorted[sorted.length - 1]!];
  // A left-censored reading needs room below its bound, a right-censored one above it.
  const low = censored!.upper.reduce((a, b) => Math.min(a, b), least);
  const high = censored!.lower.reduce((a, b) => Math.max(a, b), greatest);
  const range = high - low;
  let best = { parameters: {} as Parameters, value: -Infinity };
  for (const mode of modesOf(work)) {
    const at = (lower: number, upper: number): Parameters => ({
      lower,
      upper,
      ...(Number.isNaN(mode) ? {} : { mode }),
    });
    const beyond = (t: ArrayLike<number>) => [low - range * exp(t[0]!), high + range * exp(t[1]!)] as const;
    const found = nelderMead((t) => -logLikelihood(at(...beyond(t))), new Float64Array([log(0.1), log(0.1)]), 1);
    const [lower, upper] = beyond(found.at);
    for (const parameters of [at(lower, upper), at(low, upper), at(lower, high), at(low, high)]) {
      const value = logLikelihood(parameters);
      if (value > best.value) best = { parameters, value };
    }
  }
  return best.parameters;
}
