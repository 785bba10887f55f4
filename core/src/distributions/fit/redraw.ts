import { createSorter } from '../../numeric/sort.js';
import type { StreamState } from '../../random/stream.js';
import { isRefusal, type Distribution, type Parameters } from '../family.js';
import { distribution, familyByName } from '../registry.js';
import { refitter, type Fitting } from './refit.js';

/** The population of simulated samples, and how each is refitted: plain data. */
export interface Redrawn {
  n: number;
  fitting: Fitting;
  /** Of the distribution that is drawn from. */
  parameters: Parameters;
  /** The step to which every draw is rounded before it is fitted; null: not rounded. */
  step: number | null;
}

/** The number of attempts to redraw a sample that cannot be fitted. */
const MOST_DRAWS = 8;

/** `next` draws a sample into `values`, in rising order, and gives the distribution found from it: the one it was drawn from where that cannot be had. */
export function createRedraw({ n, fitting, parameters, step }: Redrawn) {
  const family = familyByName(fitting.family);
  const law = distribution(family, parameters);
  const refit = refitter(fitting);
  const values = new Float64Array(n);
  const sort = createSorter(n);
  function next(state: StreamState): Distribution {
    for (let draw = 0; draw < MOST_DRAWS; draw++) {
      law.sample(state, values);
      if (step !== null) for (let i = 0; i < n; i++) values[i] = Math.round(values[i]! / step) * step;
      sort(values);
      // Rounding can leave no spread to find anything from.
      if (step !== null && values[0] === values[n - 1]) continue;
      const found = refit(values);
      if (!isRefusal(found)) return family.of(found);
    }
    return law;
  }
  return { values, next };
}
