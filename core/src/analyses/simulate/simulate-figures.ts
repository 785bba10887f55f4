import { formatFigure, formatPercent, formatPercentOf, formatValue, groupThousands } from '../../numeric/format.js';
import type { FoundFigure } from '../../road/figure.js';
import { formatDistance, formatQuantity, formatStatistic, type Notation } from '../../road/formatted.js';
import type { OneSampleResult } from './one-sample.js';
import type { CountedShare, SimulateResult } from './simulate-result.js';

const row = (key: string, name: string, text: string, meaning: string, formula = ''): FoundFigure => ({
  ...{ key, name, texts: [text], meaning, formula, note: '' },
});

const percent = (share: number) => formatPercentOf(share, 1 - share, 3);
const shareRows = (key: string, name: string, found: CountedShare, meaning: string): FoundFigure[] => [
  row(key, name, percent(found.share), meaning, `${groupThousands(found.count)} of ${groupThousands(found.of)}`),
  row(
    `${key}-known`,
    'simulation uncertainty',
    `${percent(found.lower)} to ${percent(found.upper)}`,
    '95 % confidence interval of the proportion.',
    'Clopper and Pearson (1934)',
  ),
];

function statisticRows(result: SimulateResult): FoundFigure[] {
  const { mean, sd, theory, truth } = result;
  const told = (value: number) => formatStatistic(value, result);
  const settles = result.population.sd !== null;
  return [
    ...(truth === null ? [] : [row('truth', 'true value', told(truth), 'The value in the population.')]),
    ...(mean === null || !settles
      ? []
      : [
          row(
            'mean',
            'mean of the samples',
            told(mean),
            'The mean over all samples. It differs from the true value if the statistic is biased.',
          ),
        ]),
    ...(sd === null || !settles
      ? []
      : [
          row(
            'sd',
            'SD of the samples',
            formatDistance(sd, result),
            'The standard deviation of the statistic over all samples.',
            'divisor B − 1',
          ),
        ]),
    ...(theory
      ? [
          row(
            'theory',
            'SD from theory',
            formatDistance(theory.sd, result),
            theory.exact ? 'Exact.' : 'For large samples.',
            theory.name,
          ),
        ]
      : []),
    ...result.quantiles.map(({ share, value }) =>
      row(
        `q${share}`,
        `${formatPercent(share)} lie below`,
        told(value),
        'From the sorted samples.',
        'quantile, type 7',
      ),
    ),
  ];
}

function intervalRows({ coverage, ...result }: SimulateResult): FoundFigure[] {
  if (!coverage) return [];
  return [
    ...(result.truth === null
      ? []
      : [
          row(
            'truth',
            'true value',
            formatStatistic(result.truth, result),
            'The value that each interval should contain.',
          ),
        ]),
    ...shareRows('coverage', 'coverage', coverage, 'Intervals that contain the true value.'),
    row('low', 'too low', groupThousands(coverage.tooLow), 'Intervals that lie below the true value.'),
    row('high', 'too high', groupThousands(coverage.tooHigh), 'Intervals that lie above the true value.'),
    ...(coverage.width === null
      ? []
      : [row('width', 'mean width', formatDistance(coverage.width, result), 'The mean width of all intervals.')]),
  ];
}

export function simulateFigures(result: SimulateResult): FoundFigure[] {
  const { repeated, belowAlpha, alpha, undefined: none, population, quantiles } = result;
  const { mean, sd, size } = population;
  const rows = {
    statistic: () => statisticRows(result),
    interval: () => intervalRows(result),
    test: () =>
      belowAlpha
        ? [
            ...shareRows(
              'below',
              `p below ${formatValue(alpha)}`,
              belowAlpha,
              'Samples with p below the significance level.',
            ),
            ...quantiles
              .filter(({ share }) => share === 0.05 || share === 0.5)
              .map(({ share, value }) =>
                row(
                  `q${share}`,
                  `${formatPercent(share)} of p lie below`,
                  formatFigure(value, 'p'),
                  'A quantile of all p-values. If p is uniform, it equals the percentage.',
                ),
              ),
          ]
        : [],
  }[repeated]();
  return [
    ...rows,
    ...(none > 0
      ? [
          row(
            'none',
            'not calculated',
            groupThousands(none),
            'Samples with too few readings, or with all readings equal.',
          ),
        ]
      : []),
    ...(mean === null && sd === null && size === null
      ? [row('no-mean', 'population', 'no mean, no SD', 'Its tails are too heavy.')]
      : []),
  ];
}

/** How results are piled up, or the first intervals, as a table. */
export function simulateTable({ repeated, distribution, firsts, theory }: SimulateResult): (string | number)[][] {
  if (repeated === 'interval')
    return [
      ['sample', 'lower', 'upper', 'contains the true value'],
      ...firsts.map(({ lower, upper, covers }, i) => [i + 1, lower, upper, covers ? 'yes' : 'no']),
    ];
  const { values, edges, counts, examples } = distribution;
  const expected = (i: number) => theory?.expected[i] ?? '';
  if (values)
    return [
      ['value', 'samples', 'expected', 'example'],
      ...values.map((x, i) => [x, counts[i]!, expected(i), examples[i]!]),
    ];
  return [
    ['from', 'to', 'samples', 'expected', 'example'],
    ...counts.map((count, i) => [edges[i]!, edges[i + 1]!, count, expected(i), examples[i] || '']),
  ];
}

/** How readings of a sample are written. */
export const readingNotation = ({ readings }: OneSampleResult): Notation => ({
  ...readings,
  as: 'reading',
  kind: 'location',
});
export const groupWords = (result: OneSampleResult): string[] =>
  result.groups.map(({ name, n, mean, sd }) => {
    const told = readingNotation(result);
    const spread = sd === null ? '' : `, SD ${formatQuantity(sd, told, 'spread')}`;
    return `${name ? `${name}: ` : ''}n = ${groupThousands(n)}, mean ${formatQuantity(mean, told)}${spread}`;
  });
