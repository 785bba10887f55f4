import { isRefusal } from '../../distributions/family.js';
import { fit, type Fit } from '../../distributions/fit/fit.js';
import { distribution, familyByName } from '../../distributions/registry.js';
import { formatFigure, groupThousands } from '../../numeric/format.js';
import { beyondLimits, type BeyondLimit } from '../../readings/censored.js';
import type { Sample } from '../../readings/sample.js';
import type { Note } from '../../road/analysis.js';
import { boundsOf, limitsWords } from '../../road/beyond-limits.js';

/** How many readings lie beyond a limit, and centre and spread with them by a fitted family; null where none can be fitted. */
export interface WithBeyond {
  /** All readings, those beyond a limit among them. */
  n: number;
  beyond: BeyondLimit[];
  fitted: { family: string; mean: number; sd: number } | null;
}

/** Families that readings with a limit are described by: the likeliest of them is taken. */
const FAMILIES = ['normal', 'lognormal', 'gamma', 'weibull'].map(familyByName);

/** Mean and sd with the readings beyond a limit, by the greatest likelihood of the likeliest of four families (all have two parameters). */
export function withBeyond(sample: Sample): WithBeyond | null {
  const { values, censored } = sample;
  if (!censored) return null;
  let best: Fit | null = null;
  for (const family of FAMILIES) {
    const found = fit(family, values, { method: 'maximum-likelihood', errors: false, censored: boundsOf(censored) });
    if (!isRefusal(found) && found.logLikelihood > (best?.logLikelihood ?? -Infinity)) best = found;
  }
  const law = best && distribution(familyByName(best.family), best.parameters);
  const known = law && Number.isFinite(law.mean) && Number.isFinite(law.variance);
  const fitted = known ? { family: best!.family, mean: law.mean, sd: Math.sqrt(law.variance) } : null;
  return { n: values.length + censored.limits.length, beyond: beyondLimits(sample), fitted };
}

/** What is said of readings beyond a limit beside figures that are worked out without them. */
export function beyondNote(
  { name, unit, resolution }: Pick<Sample, 'name' | 'unit' | 'resolution'>,
  { n, beyond, fitted }: WithBeyond,
  isPart: boolean,
): Note {
  const told = (value: number, kind: 'location' | 'spread') =>
    `${formatFigure(value, kind, resolution)}${unit ? `\u00a0${unit}` : ''}`;
  const lead = `${isPart ? `${name}: ` : ''}${limitsWords(beyond, resolution)} of ${groupThousands(n)} readings; the figures are those of the others.`;
  const text = fitted
    ? `${lead} With all of them mean ${told(fitted.mean, 'location')} and sd ${told(fitted.sd, 'spread')}, by a ${familyByName(fitted.family).title} distribution fitted to known readings and limits (the likeliest of normal, lognormal, gamma and Weibull).`
    : lead;
  return { code: 'beyond-limit', text };
}
