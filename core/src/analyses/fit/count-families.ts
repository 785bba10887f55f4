import { isRefusal, type Parameters } from '../../distributions/family.js';
import { akaikeWeights, hasFittedEnds } from '../../distributions/fit/akaike.js';
import { fit } from '../../distributions/fit/fit.js';
import { familyByName } from '../../distributions/registry.js';
import { binomial } from '../../distributions/families/binomial.js';
import { COUNT_FAMILIES, fitCounts, type CountFamily, type CountModel } from '../../goodness-of-fit/counts/model.js';
import type { CountFitResult, RankedCounts } from './count-fit-result.js';

/** A family fitted to counts, with its likelihood; why it is not. */
export interface FittedCounts extends Omit<RankedCounts, 'aicc'> {
  standardErrors: Record<string, number | null>;
  aicc: number | null;
}

/** A binomial whose counts may have trials of their own: p = Σx/Σm, its error √(p(1 − p)/Σm). */
function binomialFit(model: CountModel, counts: Float64Array): FittedCounts | string {
  const parameters = fitCounts(model, counts);
  if (isRefusal(parameters)) return parameters.refused;
  const { probability } = parameters as { probability: number };
  const trials = model.trials!;
  let [logLikelihood, all] = [0, 0];
  trials.forEach((m, i) => {
    all += m;
    if (m > 0) logLikelihood += binomial.of({ trials: m, probability }).logDensity(counts[i]!);
  });
  const n = counts.length;
  return {
    family: 'binomial',
    parameters,
    standardErrors: { probability: Math.sqrt((probability * (1 - probability)) / all) },
    logLikelihood,
    aicc: n > 2 ? 2 - 2 * logLikelihood + 4 / (n - 2) : null,
  };
}

/** Fits one family to counts. */
export function fittedCounts(model: CountModel, counts: Float64Array): FittedCounts | string {
  if (model.family === 'binomial') return binomialFit(model, counts);
  const found = fit(familyByName(model.family), counts, { method: 'maximum-likelihood' });
  if (isRefusal(found)) return found.refused;
  const { parameters, standardErrors, logLikelihood, aicc } = found;
  return { family: model.family, parameters, standardErrors, logLikelihood, aicc };
}

const modelOf = (family: CountFamily, trials: readonly number[] | null): CountModel => ({
  family,
  trials: family === 'binomial' ? trials : null,
});

/** All families of counts by AICc, apart from them those whose ends are found from the counts, and those that say nothing of these. */
export function comparedCounts(
  counts: Float64Array,
  trials: readonly number[] | null,
): Pick<CountFitResult, 'families' | 'apart' | 'left'> {
  const found: RankedCounts[] = [];
  const apart: RankedCounts[] = [];
  const left: CountFitResult['left'] = [];
  for (const family of COUNT_FAMILIES) {
    const one =
      family === 'binomial' && !trials
        ? 'It needs the number of trials of each count.'
        : fittedCounts(modelOf(family, trials), counts);
    if (typeof one === 'string') left.push({ family, reason: one });
    else if (one.aicc === null) left.push({ family, reason: 'There are too few counts to compare it.' });
    else {
      const { standardErrors: _, ...told } = one;
      (hasFittedEnds(familyByName(family)) ? apart : found).push({ ...told, aicc: one.aicc });
    }
  }
  found.sort((a, b) => a.aicc - b.aicc);
  const best = found[0]?.aicc ?? 0;
  const weights = akaikeWeights(found.map(({ aicc }) => aicc));
  const families = found.map((one, i) => ({ ...one, difference: one.aicc - best, weight: weights[i]! }));
  return { families, apart, left };
}

/** The parameters that are estimated. */
export const estimatedCount = (parameters: Parameters, family: CountFamily): number =>
  family === 'binomial' ? 1 : Object.keys(parameters).length;
