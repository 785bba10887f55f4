import type { Figure } from '../resampling/figure.js';
import type { Statistic } from '../resampling/statistic.js';
import { formatPercent } from '../numeric/format.js';
import type { Scale } from './formatted.js';
import { USUAL_PERCENTILE, type StatisticAsked as Asked } from './statistic-settings.js';

/** The figure that is asked for, by its name. */
function figureAsked({ statistic, trim, percentile = USUAL_PERCENTILE, quantileType }: Asked): Figure {
  switch (statistic) {
    case 'median':
    case 'difference-of-medians':
    case 'median-of-differences':
      return { name: 'median' };
    case 'trimmed-mean':
      return { name: 'trimmed-mean', trim: Number(trim) };
    case 'percentile':
      return { name: 'percentile', share: percentile, type: quantileType === 'hinges' ? 7 : quantileType };
    case 'sd':
    case 'variance':
    case 'cv':
    case 'skewness':
      return { name: statistic };
    default:
      return { name: 'mean' };
  }
}

export function statisticOf(asked: Asked, pairs: boolean): Statistic {
  const { statistic, formula = '' } = asked;
  switch (statistic) {
    case 'difference-of-means':
    case 'difference-of-medians':
    case 'difference-of-shares':
      return { of: 'difference', figure: figureAsked(asked) };
    case 'log-ratio-of-sds':
      return { of: 'log-ratio' };
    case 'correlation':
    case 'slope':
    case 'f':
    case 'largest-difference':
      return { of: statistic };
    case 'formula':
      return { of: 'formula', formula, pairs };
    default:
      return { of: 'one', figure: figureAsked(asked) };
  }
}

/** How the statistic is written. */
export function notationOf(
  { statistic }: Asked,
  { unit, resolution }: Pick<Scale, 'unit' | 'resolution'>,
): { scale: Scale; kind: 'location' | 'spread' | 'difference' } {
  const in_ = (as: Scale['as'], kind: 'location' | 'spread' | 'difference') => ({
    scale: { unit, resolution, as },
    kind,
  });
  switch (statistic) {
    case 'mean':
    case 'median':
    case 'trimmed-mean':
    case 'percentile':
      return in_('reading', 'location');
    case 'sd':
      return in_('reading', 'spread');
    case 'share':
      return in_('share', 'location');
    case 'difference-of-shares':
      return in_('share', 'difference');
    case 'difference-of-means':
    case 'difference-of-medians':
    case 'mean-of-differences':
    case 'median-of-differences':
    case 'largest-difference':
      return in_('reading', 'difference');
    default:
      return in_('ratio', 'location');
  }
}

interface Named {
  name: string;
  by: string | null;
  names: readonly string[];
  told: (value: number) => string;
}

function shareWords({ of, lower, upper, level, figures }: Asked, { name, told }: Named): string {
  if (figures) return 'the proportion';
  if (level !== undefined) return `the proportion of “${level}” in ${name}`;
  const limits =
    lower !== undefined && upper !== undefined
      ? `${of} ${told(lower)} to ${told(upper)}`
      : lower !== undefined
        ? `${of === 'within' ? 'at or above' : 'below'} ${told(lower)}`
        : `${of === 'within' ? 'at or below' : 'above'} ${told(upper!)}`;
  return `the proportion of ${name} ${limits}`;
}

const PLAIN: Partial<Record<Asked['statistic'], string>> = {
  mean: 'the mean',
  median: 'the median',
  sd: 'the standard deviation',
  variance: 'the variance',
  cv: 'the coefficient of variation',
  skewness: 'the skewness g₁',
};
const OF_TWO: Partial<Record<Asked['statistic'], string>> = {
  'difference-of-means': 'the mean',
  'difference-of-medians': 'the median',
};

/** The statistic in words: "the mean of thickness in north minus that in south". */
export function whatWords(asked: Asked, named: Named): string {
  const { statistic, trim, percentile = USUAL_PERCENTILE, formula } = asked;
  const { name, by, names } = named;
  const [a, b] = names;
  const less = (figure: string) =>
    by === null ? `${figure} of ${a} minus that of ${b}` : `${figure} of ${name} in ${a} minus that in ${b}`;
  if (PLAIN[statistic]) return `${PLAIN[statistic]} of ${name}`;
  if (OF_TWO[statistic]) return less(OF_TWO[statistic]);
  switch (statistic) {
    case 'trimmed-mean':
      return `the trimmed mean of ${name} (${formatPercent(Number(trim))} at each end)`;
    case 'percentile':
      return `the ${formatPercent(percentile)} quantile of ${name}`;
    case 'share':
      return shareWords(asked, named);
    case 'difference-of-shares': {
      const share = shareWords(asked, named);
      if (asked.figures) return 'the first proportion minus the second';
      return by === null ? `${share.replace(name, a!)} minus that of ${b}` : `${share} in ${a} minus that in ${b}`;
    }
    case 'log-ratio-of-sds':
      return by === null
        ? `the log ratio of the standard deviations of ${a} and ${b}`
        : `the log ratio of the standard deviations of ${name} in ${a} and ${b}`;
    case 'mean-of-differences':
      return `the mean of ${a}`;
    case 'median-of-differences':
      return `the median of ${a}`;
    case 'correlation':
      return `the correlation of ${a} and ${b}`;
    case 'slope':
      return `the slope of ${a} against ${b}`;
    case 'f':
      return by === null ? `F for the means of ${names.length} columns` : `F for the means of ${name} by ${by}`;
    case 'largest-difference':
      return `the largest difference between the means of ${by === null ? `${names.length} columns` : `${name} by ${by}`}`;
    default:
      return `${formula} of ${names.length > 1 ? names.join(' and ') : name}`;
  }
}
