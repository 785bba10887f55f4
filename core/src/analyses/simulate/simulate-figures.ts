import { formatFigure, formatPercent, formatPercentOf, formatValue, groupThousands } from '../../numeric/format.js';
import type { FoundFigure } from '../../road/figure.js';
import { toldDistance, toldFigure, toldStatistic, type Told } from '../../road/told.js';
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
    'known to lie within',
    `${percent(found.lower)} to ${percent(found.upper)}`,
    'As far as so many samples tell, with 95 % confidence.',
    'Clopper and Pearson (1934)',
  ),
];

function statisticRows(result: SimulateResult): FoundFigure[] {
  const { mean, sd, theory, truth } = result;
  const told = (value: number) => toldStatistic(value, result);
  const settles = result.population.sd !== null;
  return [
    ...(truth === null ? [] : [row('truth', 'what is true', told(truth), 'The same figure of the whole population.')]),
    ...(mean === null || !settles
      ? []
      : [
          row(
            'mean',
            'mean of the samples',
            told(mean),
            'In the middle of all samples; off the truth where the figure is biased.',
          ),
        ]),
    ...(sd === null || !settles
      ? []
      : [
          row(
            'sd',
            'sd of the samples',
            toldDistance(sd, result),
            'How much the figure varies from sample to sample.',
            'divisor B − 1',
          ),
        ]),
    ...(theory
      ? [
          row(
            'theory',
            'sd by theory',
            toldDistance(theory.sd, result),
            theory.exact ? 'Exact.' : 'Of large samples.',
            theory.name,
          ),
        ]
      : []),
    ...result.quantiles.map(({ share, value }) =>
      row(
        `q${share}`,
        `${formatPercent(share)} lie below`,
        told(value),
        'Of the samples in order.',
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
      : [row('truth', 'what is true', toldStatistic(result.truth, result), 'What each interval is meant to cover.')]),
    ...shareRows('coverage', 'cover it', coverage, 'Intervals that hold what is true.'),
    row('low', 'lie below it', groupThousands(coverage.tooLow), 'Intervals that end below what is true.'),
    row('high', 'lie above it', groupThousands(coverage.tooHigh), 'Intervals that begin above what is true.'),
    ...(coverage.width === null
      ? []
      : [
          row('width', 'width in the middle', toldDistance(coverage.width, result), 'The mean width of all intervals.'),
        ]),
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
            ...shareRows('below', `p below ${formatValue(alpha)}`, belowAlpha, 'Samples whose p is below the level.'),
            ...quantiles
              .filter(({ share }) => share === 0.05 || share === 0.5)
              .map(({ share, value }) =>
                row(
                  `q${share}`,
                  `${formatPercent(share)} of p lie below`,
                  formatFigure(value, 'p'),
                  'Of all p in order; of a p that is uniform it would be the same number.',
                ),
              ),
          ]
        : [],
  }[repeated]();
  return [
    ...rows,
    ...(none > 0 ? [row('none', 'without any', groupThousands(none), 'Samples that are too few, or all alike.')] : []),
    ...(mean === null && sd === null && size === null
      ? [row('no-mean', 'of the population', 'no mean, no sd', 'Its tails are too heavy.')]
      : []),
  ];
}

/** How results are piled up, or the first intervals, as a table. */
export function simulateTable({ repeated, distribution, firsts, theory }: SimulateResult): (string | number)[][] {
  if (repeated === 'interval')
    return [
      ['sample', 'lower', 'upper', 'covers'],
      ...firsts.map(({ lower, upper, covers }, i) => [i + 1, lower, upper, covers ? 'yes' : 'no']),
    ];
  const { values, edges, counts, examples } = distribution;
  const expected = (i: number) => theory?.expected[i] ?? '';
  if (values)
    return [
      ['value', 'samples', 'by theory', 'one of them'],
      ...values.map((x, i) => [x, counts[i]!, expected(i), examples[i]!]),
    ];
  return [
    ['from', 'to', 'samples', 'by theory', 'one of them'],
    ...counts.map((count, i) => [edges[i]!, edges[i + 1]!, count, expected(i), examples[i] || '']),
  ];
}

/** The readings of one sample with their figures, as rows. */
export const sampleTable = ({ groups }: OneSampleResult): (string | number)[][] => [
  ['group', 'place', 'reading'],
  ...groups.flatMap(({ name, values }) => values.map((value, i) => [name, i + 1, value])),
];

/** How readings of a sample are written. */
export const readingTold = ({ readings }: OneSampleResult): Told => ({ ...readings, as: 'reading', kind: 'location' });
export const groupWords = (result: OneSampleResult): string[] =>
  result.groups.map(({ name, n, mean, sd }) => {
    const told = readingTold(result);
    const spread = sd === null ? '' : `, sd ${toldFigure(sd, told, 'spread')}`;
    return `${name ? `${name}: ` : ''}n = ${groupThousands(n)}, mean ${toldFigure(mean, told)}${spread}`;
  });
