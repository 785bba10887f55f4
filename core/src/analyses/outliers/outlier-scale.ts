import { fittedLaw } from '../../distributions/fit/fitted-law.js';
import { estimatedOf } from '../../distributions/fit/refit.js';
import { isRefusal, type Distribution } from '../../distributions/family.js';
import { distribution, familyByName } from '../../distributions/registry.js';
import { normalScore } from '../../distributions/normal-score.js';
import { normalCumulative, normalSurvival } from '../../numeric/standard-normal.js';

/** The scale on which readings are judged: their own for a normal, the normal scores of the fitted cumulative for any other family. */
export interface Scale {
  family: string;
  parameters: Record<string, number>;
  law: Distribution;
  /** In rising order, as are the readings. */
  sorted: Float64Array;
  /** A place of this scale as a reading. */
  reading(place: number): number;
}

/** The scale of a family for readings in rising order, or why it has none. */
export function scaleOf(family: string, sorted: Float64Array): Scale | string {
  const found = fittedLaw(sorted, estimatedOf(familyByName(family)));
  if (isRefusal(found)) return found.refused;
  const { parameters } = found;
  const law = distribution(familyByName(family), parameters);
  if (family === 'normal') return { family, parameters, law, sorted, reading: (x) => x };
  const reading = (score: number) =>
    score < 0 ? law.quantile(normalCumulative(score)) : law.survivalQuantile(normalSurvival(score));
  return { family, parameters, law, sorted: sorted.map((x) => normalScore(law, x)), reading };
}
