import { formatFigure, formatP, formatPercent, formatPercentOf, groupThousands } from '../../numeric/format.js';
import type { FoundFigure } from '../../road/figure.js';
import type { ClaimExtra, ClaimResult } from './claim-result.js';
import {
  bareFigure,
  formatClaim,
  formatDistance,
  formatExpected,
  formatQuantity,
  formatInterval,
} from '../../road/formatted.js';

/** A figure beside others, as it is shown. */
function extraText({ value, as }: ClaimExtra, result: ClaimResult): string {
  if (typeof value === 'string') return value;
  const one = (x: number) => {
    if (as === 'p') return formatP(x, result.alpha);
    if (as === 'statistic' || as === 'count') return formatFigure(x, as);
    if (as === 'spread') return formatQuantity(x, { ...result, as: 'reading' }, 'spread');
    return bareFigure(x, { ...result, as });
  };
  return typeof value === 'number' ? one(value) : value.map(one).join(' to ');
}

type Row = Omit<FoundFigure, 'note' | 'texts'> & { text: string | null };

const METHODS = { exact: 'exact', asymptotic: 'asymptotic', simulated: 'simulated' } as const;
const isSpread = ({ intervalOf }: ClaimResult) => /standard deviation|absolute deviations/.test(intervalOf);
const isDifference = ({ intervalOf }: ClaimResult) => /difference|shift/.test(intervalOf);

function estimateRows(result: ClaimResult): Row[] {
  const { claimed, estimate, difference, standardised, intervalOf } = result;
  const two = isDifference(result);
  const kind = isSpread(result) ? 'spread' : 'location';
  const shown = (value: number) => (two ? signed(value, result) : formatQuantity(value, result, kind));
  return [
    {
      key: 'claimed',
      name: 'claimed value',
      meaning: 'The value stated in the claim.',
      formula: 'given',
      text: claimed === null || (two && claimed === 0) ? null : formatClaim(claimed, result),
    },
    {
      key: 'estimate',
      name: two ? 'difference' : 'estimate',
      meaning: `${intervalOf === '' ? 'It' : intervalOf[0]!.toUpperCase() + intervalOf.slice(1)}, estimated from the readings.`,
      formula: two ? 'first − second' : 'from the readings',
      text: estimate === null || intervalOf === '' ? null : shown(estimate),
    },
    {
      key: 'difference',
      name: 'difference from claim',
      meaning: 'The estimate minus the claimed value.',
      formula: 'estimate − claimed',
      text: difference === null || claimed === null || (two && claimed === 0) ? null : signed(difference, result),
    },
    {
      key: 'standardised',
      name: 'standardised difference',
      meaning: 'The difference divided by the standard deviation of the readings.',
      formula: 'difference/s',
      text: standardised === null ? null : formatFigure(standardised, 'statistic'),
    },
  ];
}

const signed = (value: number, result: ClaimResult) =>
  `${value < 0 ? '−' : value > 0 ? '+' : ''}${formatDistance(value, result)}`;

function testRows(result: ClaimResult): Row[] {
  const { interval, confidence, intervalOf, statistic, symbol, df, pValue, pMethod, alpha } = result;
  const kind = isDifference(result) ? 'difference' : isSpread(result) ? 'spread' : 'location';
  const dfs =
    df === null
      ? null
      : (typeof df === 'number' ? [df] : df)
          .map((one) => (Number.isInteger(one) ? groupThousands(one) : one.toFixed(2)))
          .join(' and ');
  return [
    {
      key: 'interval',
      name: `${formatPercentOf(confidence)} confidence interval`,
      meaning: `The range that contains the true value of ${intervalOf}, at this confidence level.`,
      formula: 'the values that the test does not reject',
      text: interval ? formatInterval(interval, result, kind) : null,
    },
    {
      key: 'statistic',
      name: symbol,
      meaning: 'The test statistic: how far the data lie from the claim.',
      formula: 'see the null distribution in the picture',
      text:
        statistic === null
          ? null
          : Number.isInteger(statistic)
            ? groupThousands(statistic)
            : formatFigure(statistic, 'statistic'),
    },
    {
      key: 'df',
      name: 'degrees of freedom',
      meaning: 'Determine the null distribution of the statistic.',
      formula: 'given by the test',
      text: dfs,
    },
    {
      key: 'p',
      name: `p, ${METHODS[pMethod]}`,
      meaning: 'The probability of data at least as far from the claim, if the claim is true.',
      formula: 'the shaded area of the null distribution',
      text: pValue === null ? '…' : formatP(pValue, alpha),
    },
  ];
}

function missedRows(result: ClaimResult): Row[] {
  const { power, smallestNoticeable, closeness, alpha } = result;
  const scale = { ...result, as: power?.as ?? result.as };
  const percent = (chance: number) => formatPercent(chance, 3);
  return [
    {
      key: 'power',
      name: 'power',
      meaning:
        'The probability that this test detects the smallest difference of interest, with this number of readings.',
      formula: 'the distribution of the statistic under that difference',
      text: power === null || power.chance === null ? null : percent(power.chance),
    },
    {
      key: 'smallest',
      name: 'smallest detectable difference',
      meaning: 'The smallest true difference that this number of readings detects with 80 % power.',
      formula: 'where the power is 80 %',
      text: smallestNoticeable === null ? null : formatDistance(smallestNoticeable, scale),
    },
    {
      key: 'needed',
      name: 'sample size needed',
      meaning: `To detect the smallest difference of interest with 80 % power: ${power?.per ?? 'readings'}.`,
      formula: 'where the power is 80 %',
      text:
        power === null || power.chance === null
          ? null
          : power.needed === null
            ? 'more than 1 000 000'
            : groupThousands(power.needed),
    },
    {
      key: 'closeness',
      name: 'p of equivalence',
      meaning:
        'The probability of data this close to the claim if the true value were at the edge of the equivalence margin. A small value shows equivalence.',
      formula: 'two one-sided tests (Schuirmann 1987)',
      text: closeness ? formatP(closeness.pValue, alpha) : null,
    },
  ];
}

/** The figures of a claim, those it has. */
export function claimFigures(result: ClaimResult): FoundFigure[] {
  // The p that the finding goes by stands above already.
  const others = result.extras.filter(({ key }) => key !== `p-${result.pMethod}`);
  const extras: Row[] = others.map((extra) => {
    const { key, name, meaning, formula } = extra;
    return { key, name, meaning, formula, text: extraText(extra, result) };
  });
  return [...estimateRows(result), ...testRows(result), ...missedRows(result), ...extras].flatMap(({ text, ...row }) =>
    text === null ? [] : [{ ...row, note: '', texts: [text] }],
  );
}

/** The data of the picture: categories, groups, or the null distribution. */
export function claimTable(result: ClaimResult): (string | number)[][] {
  const { cells, groups, pairs, law } = result;
  if (cells.length > 0)
    return [
      ['category', 'observed', 'expected', 'difference', 'contribution to χ²', 'standardised residual'],
      ...cells.map((cell) => [
        cell.label,
        cell.observed,
        cell.expected,
        cell.difference,
        cell.contribution,
        cell.standardised,
      ]),
    ];
  const ofGroups: (string | number)[][] = [
    ['group', 'n', 'centre', 'SD', 'lower', 'upper'],
    ...groups.map(({ name, n, centre, sd, interval }) => [
      name,
      n,
      centre,
      sd ?? '',
      interval?.lower ?? '',
      interval?.upper ?? '',
    ]),
  ];
  if (pairs.length > 0)
    return [
      ...ofGroups,
      [],
      ['first', 'second', 'difference', 'lower', 'upper', 'p'],
      ...pairs.map(({ first, second, difference, interval, pValue }) => [
        first,
        second,
        difference,
        ...interval,
        pValue,
      ]),
    ];
  if (groups.length > 1 || !law) return ofGroups;
  return [...ofGroups, [], [law.axis, 'density'], ...law.x.map((x, i) => [x, law.y[i]!])];
}

export const PAIR_COLUMNS = ['difference', 'interval', 'p'] as const;

/** Every pair of several groups. */
export const pairFigures = (result: ClaimResult): FoundFigure[] =>
  result.pairs.map(({ first, second, difference, interval: [lower, upper], pValue }) => ({
    key: `${first} ${second}`,
    name: `${first} − ${second}`,
    meaning: `The mean of ${first} minus the mean of ${second}, with interval and p adjusted for all pairs.`,
    formula: 'Tukey (1953), Kramer (1956)',
    note: pValue < result.alpha ? 'they differ' : '',
    texts: [
      signed(difference, result),
      formatInterval({ lower, upper }, { ...result, unit: '' }, 'difference'),
      formatP(pValue, result.alpha),
    ],
  }));

export const CELL_COLUMNS = ['observed', 'expected', 'proportion of χ²'] as const;

/** Every category. */
export function cellFigures({ cells }: ClaimResult): FoundFigure[] {
  const total = cells.reduce((sum, { contribution }) => sum + contribution, 0);
  return cells.map(({ label, observed, expected, contribution, standardised }) => ({
    key: label,
    name: label,
    meaning: `${formatFigure(Math.abs(standardised), 'statistic')} standard deviations ${standardised < 0 ? 'below' : 'above'} the expected count.`,
    formula: '(observed − expected)²/expected, as a proportion of χ²',
    note: '',
    texts: [
      groupThousands(observed),
      formatExpected(expected),
      total > 0 ? formatPercent(contribution / total, 2) : '–',
    ],
  }));
}
