import { formatP, formatPercent, groupThousands } from '../../numeric/format.js';
import { limitsWords } from '../../road/beyond-limits.js';
import type { FigureOf } from '../../road/figure.js';
import type { Described } from './describe-result.js';
import { quantileChoice } from './describe-words.js';
import { inUnit, NOTHING, one, pair, type Figure } from './figure.js';

/** How many readings count, and how many do not. */
export const COUNT_FIGURE: FigureOf<Described> = {
  key: 'n',
  name: 'n',
  meaning: 'The number of readings used. Missing, excluded and censored readings are listed beside it.',
  formula: 'count',
  text: ({ n, missing, setAside, withBeyond, resolution }) => {
    const others = [
      missing ? `${groupThousands(missing)} missing` : '',
      setAside ? `${groupThousands(setAside)} set aside` : '',
      withBeyond ? limitsWords(withBeyond.beyond, resolution) : '',
    ];
    return [groupThousands(n), ...others.filter(Boolean)].join(', ');
  },
};

const CENTRE: Figure[] = [
  one(
    {
      ...{ key: 'mean', group: 'Centre', name: 'mean', first: true },
      meaning: 'The arithmetic mean. An outlier moves it.',
      formula: 'Σx / n',
      others: ['median', 'geometricMean', 'modes'],
    },
    'location',
    (d) => d.mean,
  ),
  pair(
    {
      ...{ key: 'meanInterval', group: 'Centre', name: 'confidence interval of the mean', first: true },
      meaning:
        'The range that contains the population mean at this confidence level, if the readings are about normal.',
      formula: 'mean ± t(n − 1) · s / √n',
      others: ['medianInterval'],
    },
    'location',
    (d) => d.meanInterval,
  ),
  one(
    {
      ...{ key: 'median', group: 'Centre', name: 'median', first: true },
      meaning: 'Half of the readings lie at or below it. Outliers hardly move it.',
      formula: 'the middle reading, or the mean of the two middle ones',
      others: ['mean', 'geometricMean', 'modes'],
    },
    'location',
    (d) => d.median,
  ),
  {
    ...{ key: 'medianInterval', group: 'Centre', name: 'confidence interval of the median' },
    meaning: 'Two readings that enclose the population median. It holds for any distribution, with the coverage given.',
    formula: 'from the k-th smallest to the k-th largest reading, k from the binomial distribution (n, ½)',
    others: ['meanInterval'],
    values: ({ medianInterval: m }) => (m ? [m.lower, m.upper, m.coverage] : []),
    text: (d) => {
      const { medianInterval: m } = d;
      if (!m) return NOTHING;
      const ends = `${inUnit(d, m.lower, 'location')} – ${inUnit(d, m.upper, 'location')}`;
      return `${ends} (coverage ${formatPercent(m.coverage, 3)})`;
    },
  },
  one(
    {
      ...{ key: 'geometricMean', group: 'Centre', name: 'geometric mean' },
      meaning: 'The n-th root of the product of the readings; for readings that are all above 0.',
      formula: 'exp(Σ log x / n)',
      others: ['mean', 'median'],
    },
    'location',
    (d) => d.geometricMean,
  ),
  {
    ...{ key: 'modes', group: 'Centre', name: 'mode' },
    meaning: 'The values that occur most often, and how often. There is none if every value occurs once.',
    formula: 'count',
    others: ['mean', 'median'],
    values: ({ modes }) => modes.values,
    text: (d) => {
      const { values, count, total } = d.modes;
      if (count === 0) return 'none';
      const named = values.slice(0, 3).map((value) => inUnit(d, value, 'reading'));
      return `${named.join(', ')}${total > 3 ? ` and ${total - 3} more` : ''}, ${groupThousands(count)} times`;
    },
  },
  one(
    {
      ...{ key: 'sum', group: 'Centre', name: 'sum' },
      meaning: 'The sum of all readings.',
      formula: 'Σx',
    },
    'reading',
    (d) => d.sum,
  ),
];

const SPREAD: Figure[] = [
  one(
    {
      ...{ key: 'sd', group: 'Spread', name: 'SD (n − 1)', first: true },
      meaning: 'The standard deviation, as an estimate for the population.',
      formula: '√(Σ(x − mean)² / (n − 1))',
      others: ['sdPopulation', 'madSigma', 'meanAbsoluteDeviation'],
    },
    'spread',
    (d) => d.sd,
  ),
  one(
    {
      ...{ key: 'sdPopulation', group: 'Spread', name: 'SD (n)', first: true },
      meaning: 'The standard deviation of these readings alone, if they are the whole population.',
      formula: '√(Σ(x − mean)² / n)',
      others: ['sd', 'madSigma'],
    },
    'spread',
    (d) => d.sdPopulation,
  ),
  one(
    {
      ...{ key: 'iqr', group: 'Spread', name: 'interquartile range (IQR)', first: true },
      meaning: 'The width of the middle 50 % of the readings.',
      formula: 'upper quartile − lower quartile',
      others: ['sd', 'medianAbsoluteDeviation', 'range'],
    },
    'spread',
    (d) => d.iqr,
  ),
  pair(
    {
      ...{ key: 'sdInterval', group: 'Spread', name: 'confidence interval of the SD' },
      meaning:
        'The range that contains the population standard deviation at this confidence level; only if the readings are about normal.',
      formula: 's · √((n − 1) / χ²)',
    },
    'spread',
    (d) => d.sdInterval,
  ),
  one(
    {
      ...{ key: 'variance', group: 'Spread', name: 'variance (n − 1)' },
      meaning: 'The square of the standard deviation. Variances of independent errors add up.',
      formula: 'Σ(x − mean)² / (n − 1)',
      others: ['variancePopulation'],
    },
    'statistic',
    (d) => d.variance,
  ),
  one(
    {
      ...{ key: 'variancePopulation', group: 'Spread', name: 'variance (n)' },
      meaning: 'The variance of these readings alone.',
      formula: 'Σ(x − mean)² / n',
      others: ['variance'],
    },
    'statistic',
    (d) => d.variancePopulation,
  ),
  one(
    {
      ...{ key: 'standardError', group: 'Spread', name: 'standard error of the mean' },
      meaning: 'The standard deviation of the mean over repeated samples.',
      formula: 's / √n',
    },
    'spread',
    (d) => d.standardError,
  ),
  one(
    {
      ...{ key: 'cv', group: 'Spread', name: 'coefficient of variation' },
      meaning: 'The standard deviation relative to the mean. It is not useful if the mean is near 0.',
      formula: 's / |mean|',
    },
    'percent',
    (d) => d.cv,
  ),
  one(
    {
      ...{ key: 'meanAbsoluteDeviation', group: 'Spread', name: 'mean absolute deviation' },
      meaning: 'The mean distance of the readings from their mean.',
      formula: 'Σ|x − mean| / n',
      others: ['sd', 'medianAbsoluteDeviation'],
    },
    'spread',
    (d) => d.meanAbsoluteDeviation,
  ),
  one(
    {
      ...{ key: 'medianAbsoluteDeviation', group: 'Spread', name: 'median absolute deviation (MAD)' },
      meaning: 'Half of the readings lie closer to the median than this. Outliers hardly move it.',
      formula: 'median |x − median|',
      others: ['madSigma', 'meanAbsoluteDeviation'],
    },
    'spread',
    (d) => d.medianAbsoluteDeviation,
  ),
  one(
    {
      ...{ key: 'madSigma', group: 'Spread', name: 'MAD as an SD' },
      meaning: 'The standard deviation of a normal distribution with this median absolute deviation.',
      formula: '1.4826 · median |x − median|',
      others: ['sd', 'medianAbsoluteDeviation'],
    },
    'spread',
    (d) => d.madSigma,
  ),
  one(
    {
      ...{ key: 'range', group: 'Spread', name: 'range' },
      meaning: 'The maximum minus the minimum. It increases with n.',
      formula: 'maximum − minimum',
      others: ['iqr', 'sd'],
    },
    'spread',
    (d) => d.range,
  ),
];

const ORDER: Figure[] = [
  one(
    {
      ...{ key: 'min', group: 'Order', name: 'minimum', first: true },
      meaning: 'The smallest reading.',
      formula: 'x(1)',
    },
    'reading',
    (d) => d.min,
  ),
  {
    ...{ key: 'quartiles', group: 'Order', name: 'quartiles', first: true },
    meaning: 'A quarter of the readings lie below the first, a quarter above the second.',
    formula: 'by the definition chosen in the method',
    values: ({ q1, q3 }) => [q1, q3],
    text: (d) => `${inUnit(d, d.q1, 'location')} · ${inUnit(d, d.q3, 'location')}`,
  },
  one(
    {
      ...{ key: 'max', group: 'Order', name: 'maximum', first: true },
      meaning: 'The largest reading.',
      formula: 'x(n)',
    },
    'reading',
    (d) => d.max,
  ),
];

const SHAPE: Figure[] = [
  one(
    {
      ...{ key: 'skewness', group: 'Shape', name: 'skewness', first: true },
      meaning: 'Above 0 if the upper tail is longer, below 0 if the lower tail is. Adjusted for n.',
      formula: 'G1 = g1 · √(n(n − 1)) / (n − 2)',
      others: ['skewnessMoment', 'skewnessPearson', 'skewnessError'],
    },
    'statistic',
    (d) => d.skewness.adjusted,
  ),
  one(
    {
      ...{ key: 'kurtosis', group: 'Shape', name: 'excess kurtosis', first: true },
      meaning: 'Above 0 if the tails are heavier than those of a normal distribution. Adjusted for n.',
      formula: 'G2 = (n − 1)/((n − 2)(n − 3)) · ((n + 1)g2 + 6)',
      others: ['kurtosisMoment', 'kurtosisError'],
    },
    'statistic',
    (d) => d.kurtosis.adjusted,
  ),
  one(
    {
      ...{ key: 'skewnessPearson', group: 'Shape', name: 'Pearson skewness, 3(mean − median)/SD', first: true },
      meaning:
        'Three times the distance between mean and median, in SDs. An outlier changes it, because it moves the mean and the SD.',
      formula: '3 · (mean − median) / s',
      others: ['skewness', 'skewnessMoment'],
    },
    'statistic',
    (d) => d.skewness.pearsonMedian,
  ),
  one(
    {
      ...{ key: 'skewnessMoment', group: 'Shape', name: 'skewness (not adjusted)' },
      meaning: 'The third central moment divided by the cube of the standard deviation (n).',
      formula: 'g1 = m3 / m2^1.5',
      others: ['skewness', 'skewnessPearson'],
    },
    'statistic',
    (d) => d.skewness.moment,
  ),
  one(
    {
      ...{ key: 'skewnessError', group: 'Shape', name: 'standard error of the skewness' },
      meaning: 'The standard deviation of the skewness of n normal readings.',
      formula: '√(6n(n − 1) / ((n − 2)(n + 1)(n + 3)))',
    },
    'statistic',
    (d) => d.skewness.standardError,
  ),
  {
    ...{ key: 'skewnessTest', group: 'Shape', name: 'p of the skewness' },
    meaning: 'The probability that n normal readings are at least this skewed in either direction (D’Agostino).',
    formula: 'two-sided',
    values: ({ skewnessTest: t }) => [t?.pValue ?? null],
    text: ({ skewnessTest: t, alpha }) => (t ? formatP(t.pValue, alpha) : NOTHING),
  },
  one(
    {
      ...{ key: 'kurtosisMoment', group: 'Shape', name: 'excess kurtosis (not adjusted)' },
      meaning: 'The fourth central moment divided by the square of the variance (n), minus 3.',
      formula: 'g2 = m4 / m2² − 3',
      others: ['kurtosis'],
    },
    'statistic',
    (d) => d.kurtosis.moment,
  ),
  one(
    {
      ...{ key: 'kurtosisError', group: 'Shape', name: 'standard error of the kurtosis' },
      meaning: 'The standard deviation of the kurtosis of n normal readings.',
      formula: '2 · SES · √((n² − 1) / ((n − 3)(n + 5)))',
    },
    'statistic',
    (d) => d.kurtosis.standardError,
  ),
  {
    ...{ key: 'kurtosisTest', group: 'Shape', name: 'p of the kurtosis' },
    meaning:
      'The probability that the kurtosis of n normal readings is at least this extreme in either direction (Anscombe and Glynn).',
    formula: 'two-sided',
    values: ({ kurtosisTest: t }) => [t?.pValue ?? null],
    text: ({ kurtosisTest: t, alpha }) => (t ? formatP(t.pValue, alpha) : NOTHING),
  },
];

export const FIGURES: readonly Figure[] = [...CENTRE, ...SPREAD, ...ORDER, ...SHAPE];
export const FIGURE_GROUPS = ['Centre', 'Spread', 'Order', 'Shape'] as const;

/** Percentiles that were asked for, as figures of their own. */
export function percentileFigures({ percentiles }: Described): Figure[] {
  return percentiles.map(({ percent }, i) => ({
    ...{ key: `percentile-${i}`, group: 'Order', name: `percentile ${percent}`, first: true },
    meaning: `${percent} % of the readings lie at or below it.`,
    formula: 'by the definition chosen in the method',
    values: (d: Described) => [d.percentiles[i]?.value ?? null],
    text: (d: Described) => inUnit(d, d.percentiles[i]?.value ?? null, 'location'),
  }));
}

/** What the other definitions of quartiles and percentiles give, where they differ from the chosen one as shown. */
export function otherQuantiles(d: Described): { definition: string; values: string[] }[] {
  const figure = (value: number) => inUnit(d, value, 'location');
  const own = [d.q1, d.q3].map(figure).join();
  return d.quartiles
    .map(({ type, q1, q3 }) => ({ definition: quantileChoice(type), values: [q1, q3].map(figure) }))
    .filter(({ values }) => values.join() !== own);
}

/** The same for one percentile that was asked for. */
export function otherPercentiles(d: Described, i: number): { definition: string; values: string[] }[] {
  const { value, byType } = d.percentiles[i]!;
  const own = inUnit(d, value, 'location');
  return byType
    .map((other, k) => ({
      definition: quantileChoice((k + 1) as Described['quantileType']),
      values: [inUnit(d, other, 'location')],
    }))
    .filter(({ values }) => values[0] !== own);
}
