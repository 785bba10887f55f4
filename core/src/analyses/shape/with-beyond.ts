import { isRefusal } from '../../distributions/family.js';
import { fit, type Fit } from '../../distributions/fit/fit.js';
import { distribution, familyByName } from '../../distributions/registry.js';
import { deltaError, reachOf } from '../../distributions/fit/delta.js';
import { exp } from '../../numeric/elementary.js';
import { formatFigure, formatPercentOf, groupThousands } from '../../numeric/format.js';
import { article } from '../../numeric/grammar.js';
import { beyondLimits, type BeyondLimit } from '../../readings/censored.js';
import type { Sample } from '../../readings/sample.js';
import type { Note } from '../../road/analysis.js';
import { boundsOf, limitsWords, MUCH_BEYOND, TOO_MUCH_BEYOND } from '../../road/beyond-limits.js';

/** How many readings lie beyond a limit, and centre and spread with them by a fitted family; null where none can be fitted. */
export interface WithBeyond {
  /** All readings, those beyond a limit among them. */
  n: number;
  beyond: BeyondLimit[];
  fitted: { family: string; mean: number; sd: number; meanInterval: [number, number] | null } | null;
}

/** Families that readings with a limit are described by: the likeliest of them is taken. */
const FAMILIES = ['normal', 'lognormal', 'gamma', 'weibull'].map(familyByName);

const CONFIDENCE = 0.95;

export const beyondShare = ({ n, beyond }: Pick<WithBeyond, 'n' | 'beyond'>): number =>
  beyond.reduce((sum, { count }) => sum + count, 0) / n;

/** The interval of the mean by the delta method, on the scale of logarithms where readings are above 0. */
function meanIntervalOf(best: Fit, mean: number): [number, number] | null {
  const error = deltaError(familyByName(best.family), best, (law) => law.mean);
  if (error === null) return null;
  const reach = reachOf(CONFIDENCE) * error;
  if (best.family === 'normal') return [mean - reach, mean + reach];
  const times = exp(reach / mean);
  return [mean / times, mean * times];
}

/** Mean and sd with the readings beyond a limit, by the greatest likelihood of the likeliest of four families (all have two parameters). */
export function withBeyond(sample: Sample): WithBeyond | null {
  const { values, censored } = sample;
  if (!censored) return null;
  const all = { n: values.length + censored.limits.length, beyond: beyondLimits(sample) };
  if (beyondShare(all) > TOO_MUCH_BEYOND) return { ...all, fitted: null };
  let best: Fit | null = null;
  for (const family of FAMILIES) {
    const found = fit(family, values, { method: 'maximum-likelihood', errors: true, censored: boundsOf(censored) });
    if (!isRefusal(found) && found.logLikelihood > (best?.logLikelihood ?? -Infinity)) best = found;
  }
  const law = best && distribution(familyByName(best.family), best.parameters);
  const known = law && Number.isFinite(law.mean) && Number.isFinite(law.variance);
  const fitted = known
    ? {
        ...{ family: best!.family, mean: law.mean, sd: Math.sqrt(law.variance) },
        meanInterval: meanIntervalOf(best!, law.mean),
      }
    : null;
  return { ...all, fitted };
}

/** What is said of readings beyond a limit beside figures that are worked out without them. */
export function beyondNote(
  { name, unit, resolution }: Pick<Sample, 'name' | 'unit' | 'resolution'>,
  { n, beyond, fitted }: WithBeyond,
  isPart: boolean,
): Note {
  const told = (value: number, kind: 'location' | 'spread') =>
    `${formatFigure(value, kind, resolution)}${unit ? `\u00a0${unit}` : ''}`;
  const lead = `${isPart ? `${name}: ` : ''}${limitsWords(beyond, resolution)} of ${groupThousands(n)} readings; the figures are calculated from the others.`;
  const share = beyondShare({ n, beyond });
  const percent = formatPercentOf(share, 1 - share, 2);
  if (share > TOO_MUCH_BEYOND) {
    const text = `${lead} With ${percent} censored, a mean of all readings would depend on the chosen distribution alone and is not given. Choose a distribution in Fit.`;
    return { code: 'beyond-limit', text };
  }
  if (!fitted) return { code: 'beyond-limit', text: lead };
  const { meanInterval: ends } = fitted;
  const between = ends
    ? ` (95\u00a0% confidence interval ${told(ends[0], 'location')} to ${told(ends[1], 'location')})`
    : '';
  const caution = share > MUCH_BEYOND ? `; with ${percent} censored, the mean depends mainly on this choice` : '';
  const text = `${lead} With the censored readings: mean ${told(fitted.mean, 'location')}${between}, standard deviation ${told(fitted.sd, 'spread')}, from ${article(familyByName(fitted.family).title)} distribution (the best fit of normal, lognormal, gamma and Weibull${caution}).`;
  return { code: 'beyond-limit', text };
}
