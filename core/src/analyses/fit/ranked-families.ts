import { fittedLaw } from '../../distributions/fit/fitted-law.js';
import { estimatedOf } from '../../distributions/fit/refit.js';
import { akaikeWeights, hasFittedEnds, plausibleCount } from '../../distributions/fit/akaike.js';
import { CONTINUOUS, OF_STATISTICS } from '../../distributions/measured.js';
import { isRefusal, type Family } from '../../distributions/family.js';
import { fit } from '../../distributions/fit/fit.js';
import { distribution } from '../../distributions/registry.js';
import { fittedStatistics } from '../../goodness-of-fit/fitted/battery.js';
import { readingOfShare } from '../../probability-plot/fitted-band.js';
import type { Sample } from '../../readings/sample.js';
import { formatPercentOf } from '../../numeric/format.js';
import { boundsOf, TOO_MUCH_BEYOND } from '../../road/beyond-limits.js';
import type { CompareFamiliesResult, FittedFamily } from './compare-families-result.js';
import { positionsAmong } from './positions-among.js';

const MOST_PLACES = 40;

/** At most forty places of a small plot, evenly over the ranks. */
export function smallPlot(
  family: Family,
  { parameters }: Pick<FittedFamily, 'parameters'>,
  sorted: Float64Array,
  positions: Float64Array,
): FittedFamily['small'] {
  const law = distribution(family, parameters);
  const n = sorted.length;
  const [least, range] = [sorted[0]!, sorted[n - 1]! - sorted[0]!];
  const count = Math.min(n, MOST_PLACES);
  const ranks = Array.from({ length: count }, (_, k) => (count === 1 ? 0 : Math.round((k * (n - 1)) / (count - 1))));
  const share = (x: number) => Math.min(1.5, Math.max(-0.5, (x - least) / range));
  return {
    expected: ranks.map((i) => share(readingOfShare(law, positions[i]!))),
    observed: ranks.map((i) => share(sorted[i]!)),
  };
}

/** A family with its parameters, its likelihood and its A²; why it has none. */
function compared(
  family: Family,
  sorted: Float64Array,
  { resolution, censored: beyond }: Sample,
  positions: Float64Array,
): FittedFamily | string {
  if (OF_STATISTICS.has(family.family)) return 'It is the distribution of a test statistic, not of readings.';
  const censored = boundsOf(beyond);
  const law = fittedLaw(sorted, estimatedOf(family), censored);
  if (isRefusal(law)) return law.refused;
  // Coarse readings count as the intervals they were rounded from.
  const likely = fit(family, sorted, { method: 'maximum-likelihood', errors: false, resolution, censored });
  if (isRefusal(likely)) return likely.refused;
  const { logLikelihood, aicc } = likely;
  if (aicc === null) return `${likely.n} readings are too few for ${law.estimated.length} parameters.`;
  // A² asks for every reading.
  const [statistic] = censored ? [null] : fittedStatistics(sorted, distribution(family, law.parameters), 0);
  const { notes: _, ...told } = law;
  return {
    ...told,
    logLikelihood,
    aicc,
    statistic: statistic!,
    pSimulated: null,
    small: smallPlot(family, law, sorted, positions),
  };
}

/**
 * The families that a measure may follow by AICc, the best first, without their p; apart from them those whose ends are found from the readings; those that are left out; or
 * why there is no such list.
 */
export function rankedFamilies(
  sample: Sample,
): Pick<CompareFamiliesResult, 'n' | 'families' | 'apart' | 'left'> | string {
  const sorted = Float64Array.from(sample.values).sort();
  const placed = positionsAmong(sample, sorted, 'midpoint');
  if (isRefusal(placed)) return placed.refused;
  const { censored, values } = sample;
  const beyond = censored ? censored.limits.length / (censored.limits.length + values.length) : 0;
  if (beyond > TOO_MUCH_BEYOND)
    return `${formatPercentOf(beyond, 1 - beyond, 2)} of the readings are censored, which is too many to compare distributions. Choose one from knowledge of the process.`;
  const found: FittedFamily[] = [];
  const apart: FittedFamily[] = [];
  const left: CompareFamiliesResult['left'] = [];
  for (const family of CONTINUOUS) {
    const one = compared(family, sorted, sample, placed.positions);
    if (typeof one === 'string') left.push({ family: family.family, reason: one });
    else (hasFittedEnds(family) ? apart : found).push(one);
  }
  found.sort((a, b) => a.aicc - b.aicc);
  const best = found[0]?.aicc ?? 0;
  const weights = akaikeWeights(found.map(({ aicc }) => aicc));
  const plausible = plausibleCount(weights);
  const families = found.map((one, i) => ({
    ...one,
    difference: one.aicc - best,
    weight: weights[i]!,
    plausible: i < plausible,
  }));
  return { n: placed.n, families, apart, left };
}
