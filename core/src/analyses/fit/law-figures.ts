import { dividesByLess } from '../../distributions/fit/refit.js';
import { distribution, familyByName } from '../../distributions/registry.js';
import { formatFigure, formatPercent, formatPercentOf, formatValue } from '../../numeric/format.js';
import { intervalOfQuantile, intervalOfShare } from '../../probability-plot/fit-intervals.js';
import { readingOfShare } from '../../probability-plot/fitted-band.js';
import type { FoundFigure } from '../../road/figure.js';
import { briefly, parameterText } from './law-words.js';
import { fittedTo, readPlot, type Interval, type ProbabilityPlotResult } from './plot-result.js';

type Plot = Pick<ProbabilityPlotResult, 'law' | 'resolution' | 'unit' | 'limits'>;

const lawOf = ({ law }: Plot) => distribution(familyByName(law.family), law.parameters);

/** The parameters with their standard errors, and the share of the distribution outside the limits. */
export function lawFigures(kept: ProbabilityPlotResult): FoundFigure[] {
  const plot = readPlot(kept);
  const { law, resolution } = plot;
  const rows = familyByName(law.family)
    .parameters.filter(
      ({ optional, name, usual }) => !optional || law.estimated.includes(name) || law.parameters[name] !== usual,
    )
    .map(({ name, title, meaning }): FoundFigure => {
      const error = law.standardErrors[name];
      const known = law.estimated.includes(name);
      return {
        key: name,
        name: title,
        meaning: `${meaning[0]!.toUpperCase()}${meaning.slice(1)}.`,
        formula: !known
          ? 'given'
          : dividesByLess(law.family, name)
            ? 'divisor n − 1, as in the tests'
            : 'maximum likelihood',
        note: !known ? 'given' : error ? `± ${briefly(error, 2)}` : '',
        texts: [
          known ? parameterText(name, law.parameters[name]!, resolution, error) : formatValue(law.parameters[name]!),
        ],
      };
    });
  return [...rows, ...outsideFigure(plot)];
}

const shareWords = (share: number) => formatPercentOf(share, 1 - share);
const intervalWords = ({ lower, upper }: Interval) => `${shareWords(lower)} – ${shareWords(upper)}`;

function outsideFigure({ limits }: Plot): FoundFigure[] {
  const { outside, interval, confidence } = limits;
  if (outside === null) return [];
  return [
    {
      key: 'outsideLimits',
      name: 'outside the limits',
      meaning:
        'The proportion of the fitted distribution outside the limits of the column: the long-run proportion, if the distribution holds in the tails.',
      formula:
        'F(lower limit) + 1 − F(upper limit); interval exact for normal and lognormal, else profile likelihood below 50 readings, else delta method',
      use: 'Use it only if plot and test give no evidence against the distribution; proportions in the tails depend on it entirely.',
      note: interval ? `${formatPercent(confidence)}: ${intervalWords(interval)}` : '',
      texts: [shareWords(outside)],
    },
  ];
}

/** A reading of the distribution and the share below it, each with its interval (null where nothing was estimated). */
export interface ReadOff {
  share: number;
  value: number;
  valueInterval: Interval | null;
  shareInterval: Interval | null;
}

/** The reading that a share lies below, or the share below a reading; null where the distribution has none. */
export function readOff(
  kept: ProbabilityPlotResult,
  asked: { share: number } | { value: number },
  confidence: number,
): ReadOff | null {
  const plot = readPlot(kept);
  const { law } = plot;
  const own = lawOf(plot);
  const share = 'share' in asked ? asked.share : own.cumulative(asked.value);
  const value = 'value' in asked ? asked.value : readingOfShare(own, share);
  if (!(share > 0 && share < 1) || !Number.isFinite(value)) return null;
  const fitted = fittedTo(plot);
  return {
    share,
    value,
    valueInterval: intervalOfQuantile(law.family, law, share, confidence, fitted),
    shareInterval: intervalOfShare(law.family, law, { below: value, above: null }, confidence, fitted),
  };
}

/** What was read off, in words: its intervals are those of the fitted distribution. */
export function readOffWords(
  { resolution, unit }: Pick<ProbabilityPlotResult, 'resolution' | 'unit'>,
  { value, valueInterval, share, shareInterval: ofShare }: ReadOff,
  confidence: number,
): string {
  if (!valueInterval || !ofShare) return '';
  const of = unit ? `\u00a0${unit}` : '';
  const told = (x: number) => formatFigure(x, 'location', resolution);
  const at = formatPercent(confidence);
  return `${at} confidence interval of the ${shareWords(share)} quantile: ${told(valueInterval.lower)} to ${told(valueInterval.upper)}${of}; of the proportion below ${told(value)}${of}: ${intervalWords(ofShare)}.`;
}
