import { isRefusal, refuse, type Refusal } from '../family.js';
import type { CensoredReadings } from './censored-readings.js';
import { fit } from './fit.js';
import { asTested, fittingKind, type Fitting } from './refit.js';
import { familyByName } from '../registry.js';
import { centralMoments } from '../../numeric/sums.js';
import type { Note } from '../../readings/note.js';
import type { Parameters } from '../family.js';

/** The distribution with which readings are compared. */
export interface PlottedLaw {
  family: string;
  parameters: Parameters;
  /** Names of those that were estimated; none for a claim. */
  estimated: string[];
  standardErrors: Record<string, number | null>;
  covariance: number[][] | null;
}

export interface FittedLaw extends PlottedLaw {
  notes: Note[];
}

/** Mean and sd in closed form, as the tests of normality take them: errors sd/√n and sd/√(2n). */
function normalLaw(values: Float64Array): FittedLaw | Refusal {
  const { n, mean, s2 } = centralMoments(values);
  const sd = n > 1 ? Math.sqrt(s2 / (n - 1)) : 0;
  if (!(sd > 0)) return refuse('All readings are equal, so the standard deviation cannot be estimated.');
  const errors = { mean: sd / Math.sqrt(n), sd: sd / Math.sqrt(2 * n) };
  return {
    family: 'normal',
    parameters: { mean, sd },
    estimated: ['mean', 'sd'],
    standardErrors: errors,
    covariance: [
      [errors.mean ** 2, 0],
      [0, errors.sd ** 2],
    ],
    notes: [],
  };
}

/**
 * The distribution fitted to these readings as if they were exact, which is also how every simulated sample is fitted. Censored readings are
 * included.
 */
export function fittedLaw(values: Float64Array, fitting: Fitting, censored?: CensoredReadings): FittedLaw | Refusal {
  const { family: name, given, estimateThreshold } = fitting;
  if (name === 'normal' && Object.keys(given).length === 0 && !censored) return normalLaw(values);
  const claimed = fittingKind(fitting) === 'claimed';
  const found = fit(familyByName(name), values, {
    method: claimed ? 'given' : 'maximum-likelihood',
    given,
    estimateThreshold,
    censored,
  });
  if (isRefusal(found)) return found;
  const { estimated, standardErrors, covariance, notes } = found;
  const parameters = asTested(name, found.parameters, estimated, found.n);
  return { family: name, parameters, estimated, standardErrors, covariance, notes };
}
