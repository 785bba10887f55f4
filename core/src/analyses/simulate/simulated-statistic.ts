import { formatValue } from '../../numeric/format.js';
import { readFiguresFormula } from '../../resampling/formula.js';
import type { Law } from '../../simulation/laws.js';
import { theoryOf } from '../../simulation/theory.js';
import { statisticOf, notationOf, whatWords } from '../../road/statistic-asked.js';
import { USUAL_PERCENTILE, type StatisticAsked } from '../../road/statistic-settings.js';
import { isPaired } from './asked-settings.js';
import { finite, sizesWords, type Found, type Of } from './simulated-parts.js';
import { shareOf } from './simulated-source.js';

/** Fourth powers of what is greater cannot be held. */
const GREATEST_SQUARED = 1e74;

/** A figure of every sample; why there is none. */
export function ofStatistic({ asked, source, groups, laws, counted }: Of): Found | string {
  const id = asked.statistic ?? 'mean';
  const figures = { ...asked, statistic: id } as StatisticAsked;
  const paired = isPaired(id);
  const uneven = groups.length === 2 && groups[0]!.n !== groups[1]!.n;
  if (paired && uneven) return 'Pairs need groups of equal size.';
  if (id === 'formula') {
    if (!asked.formula) return 'Enter a formula over the statistics of the samples.';
    const read = readFiguresFormula(asked.formula, groups.length, false);
    if ('problem' in read) return read.problem;
  }
  if (id === 'variance' && (source.sd ?? 0) > GREATEST_SQUARED)
    return 'The values are too large to calculate the variance of a variance. Choose a larger unit.';
  const statistic = statisticOf(figures, false);
  const { scale, kind } = notationOf(figures, source.head);
  const told = { ...scale, kind };
  const differences = id.endsWith('-of-differences');
  const least =
    id === 'sd' || id === 'variance' || id === 'cv' || id === 'skewness' || id === 'log-ratio-of-sds' ? 2 : 1;
  if (groups.some(({ n }) => n < (paired && !differences ? 2 : least)))
    return `This statistic needs at least ${Math.max(2, least)}.`;
  const name = sizesWords(groups);
  const shares = counted && laws.map((law) => shareOf(law, counted));
  return {
    repeated: { what: 'statistic', statistic, counted, differences },
    told,
    what: whatWords(figures, { name, by: null, names: ['the first group', 'the second group'], told: formatValue }),
    truth: truthOfStatistic(figures, laws, shares),
    theory: theoryOf(statistic, groups, { shares, differences }),
    ...{ holds: null, claim: '', cost: ['mean', 'sd', 'variance', 'share'].includes(id) ? 1 : 6 },
  };
}

/** What a statistic is after, where the population tells. */
function truthOfStatistic(
  asked: StatisticAsked,
  laws: readonly Law[],
  shares: readonly number[] | null,
): number | null {
  const [a, b] = laws as [Law, Law];
  const sd = (law: Law) => Math.sqrt(law.variance);
  switch (asked.statistic) {
    case 'mean':
      return finite(a.mean);
    case 'median':
      return a.quantile(0.5);
    case 'percentile':
      return finite(a.quantile(asked.percentile ?? USUAL_PERCENTILE));
    case 'sd':
      return finite(sd(a));
    case 'variance':
      return finite(a.variance);
    case 'cv':
      return a.mean === 0 ? null : finite(sd(a) / Math.abs(a.mean));
    case 'share':
      return shares![0]!;
    case 'difference-of-shares':
      return shares![0]! - shares![1]!;
    case 'difference-of-means':
    case 'mean-of-differences':
      return finite(a.mean - b.mean);
    case 'difference-of-medians':
      return a.quantile(0.5) - b.quantile(0.5);
    case 'log-ratio-of-sds':
      return null;
    case 'correlation':
    case 'slope':
      return 0;
    default:
      return null;
  }
}
