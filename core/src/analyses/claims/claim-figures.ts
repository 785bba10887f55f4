import { formatFigure, formatP, formatPercent, formatPercentOf, groupThousands } from '../../numeric/format.js';
import type { FoundFigure } from '../../road/figure.js';
import type { ClaimExtra, ClaimResult } from './claim-result.js';
import { bareFigure, toldClaim, toldDistance, toldExpected, toldFigure, toldInterval } from '../../road/told.js';

/** A figure beside others, as it is shown. */
function extraText({ value, as }: ClaimExtra, result: ClaimResult): string {
  if (typeof value === 'string') return value;
  const one = (x: number) => {
    if (as === 'p') return formatP(x, result.alpha);
    if (as === 'statistic' || as === 'count') return formatFigure(x, as);
    if (as === 'spread') return toldFigure(x, { ...result, as: 'reading' }, 'spread');
    return bareFigure(x, { ...result, as });
  };
  return typeof value === 'number' ? one(value) : value.map(one).join(' to ');
}

type Row = Omit<FoundFigure, 'note' | 'texts'> & { text: string | null };

const METHODS = { exact: 'exact', asymptotic: 'by formula', simulated: 'simulated' } as const;
const isSpread = ({ intervalOf }: ClaimResult) => intervalOf.includes('sd');
const isDifference = ({ intervalOf }: ClaimResult) => /difference|shift/.test(intervalOf);

function estimateRows(result: ClaimResult): Row[] {
  const { claimed, estimate, difference, standardised, intervalOf } = result;
  const two = isDifference(result);
  const kind = isSpread(result) ? 'spread' : 'location';
  const shown = (value: number) => (two ? signed(value, result) : toldFigure(value, result, kind));
  return [
    {
      key: 'claimed',
      name: 'claimed',
      meaning: 'What somebody says it is.',
      formula: 'given',
      text: claimed === null || (two && claimed === 0) ? null : toldClaim(claimed, result),
    },
    {
      key: 'estimate',
      name: two ? 'difference' : 'found',
      meaning: `${intervalOf === '' ? 'It' : intervalOf[0]!.toUpperCase() + intervalOf.slice(1)}, as the readings give it.`,
      formula: two ? 'first − second' : 'from the readings',
      text: estimate === null || intervalOf === '' ? null : shown(estimate),
    },
    {
      key: 'difference',
      name: 'off by',
      meaning: 'What was found less what is claimed.',
      formula: 'found − claimed',
      text: difference === null || claimed === null || (two && claimed === 0) ? null : signed(difference, result),
    },
    {
      key: 'standardised',
      name: 'in sd',
      meaning: 'The difference over the sd of the readings: how large it is beside their own spread.',
      formula: 'difference/s',
      text: standardised === null ? null : formatFigure(standardised, 'statistic'),
    },
  ];
}

const signed = (value: number, result: ClaimResult) =>
  `${value < 0 ? '−' : value > 0 ? '+' : ''}${toldDistance(value, result)}`;

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
      name: `${formatPercentOf(confidence)} interval`,
      meaning: `Where the true value of ${intervalOf} lies, with this confidence.`,
      formula: 'the values that the test does not reject',
      text: interval ? toldInterval(interval, result, kind) : null,
    },
    {
      key: 'statistic',
      name: symbol,
      meaning: 'How far from the claim, in the units of the test.',
      formula: 'the law beside the picture',
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
      meaning: 'What the law of the statistic depends on.',
      formula: 'by the method',
      text: dfs,
    },
    {
      key: 'p',
      name: `p, ${METHODS[pMethod]}`,
      meaning: 'The chance of a sample at least as far from the claim, if the claim is true.',
      formula: 'the shaded part of the law',
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
      meaning: 'The chance to notice the difference that matters, with as many readings.',
      formula: 'the law of the statistic under that difference',
      text: power === null || power.chance === null ? null : percent(power.chance),
    },
    {
      key: 'smallest',
      name: 'noticed 8 in 10',
      meaning: 'The least true difference that as many readings notice 8 times in 10.',
      formula: 'where the power is 80 %',
      text: smallestNoticeable === null ? null : toldDistance(smallestNoticeable, scale),
    },
    {
      key: 'needed',
      name: 'n needed',
      meaning: `For the difference that matters to be noticed 8 times in 10: ${power?.per ?? 'readings'}.`,
      formula: 'where the power is 80 %',
      text:
        power === null || power.chance === null
          ? null
          : power.needed === null
            ? 'over a million'
            : groupThousands(power.needed),
    },
    {
      key: 'closeness',
      name: 'p of close enough',
      meaning:
        'The chance to look so close if it lay just outside the margin: small where it is shown to be close enough.',
      formula: 'two one-sided tests (Schuirmann 1987)',
      text: closeness ? formatP(closeness.pValue, alpha) : null,
    },
  ];
}

/** The figures of a claim, those it has. */
export function claimFigures(result: ClaimResult): FoundFigure[] {
  const extras: Row[] = result.extras.map(({ key, name, meaning, formula, ...extra }) => ({
    ...{ key, name, meaning, formula },
    text: extraText({ key, name, meaning, formula, ...extra }, result),
  }));
  return [...estimateRows(result), ...testRows(result), ...missedRows(result), ...extras].flatMap(({ text, ...row }) =>
    text === null ? [] : [{ ...row, note: '', texts: [text] }],
  );
}

/** What stands behind the picture: places, groups, or the law. */
export function claimTable(result: ClaimResult): (string | number)[][] {
  const { cells, groups, pairs, law } = result;
  if (cells.length > 0)
    return [
      ['place', 'observed', 'expected', 'difference', 'part of χ²', 'in sd'],
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
    ['group', 'n', 'centre', 'sd', 'lower', 'upper'],
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
    meaning: `The mean of ${first} less that of ${second}, its interval and its p with the level shared among all pairs.`,
    formula: 'Tukey (1953), Kramer (1956)',
    note: pValue < result.alpha ? 'differ' : '',
    texts: [
      signed(difference, result),
      toldInterval({ lower, upper }, { ...result, unit: '' }, 'difference'),
      formatP(pValue, result.alpha),
    ],
  }));

export const CELL_COLUMNS = ['counted', 'expected', 'of χ²'] as const;

/** Every place that was counted. */
export function cellFigures({ cells }: ClaimResult): FoundFigure[] {
  const total = cells.reduce((sum, { contribution }) => sum + contribution, 0);
  return cells.map(({ label, observed, expected, contribution, standardised }) => ({
    key: label,
    name: label,
    meaning: `${formatFigure(Math.abs(standardised), 'statistic')} sd ${standardised < 0 ? 'below' : 'above'} what is expected.`,
    formula: '(counted − expected)²/expected, as a share of χ²',
    note: '',
    texts: [groupThousands(observed), toldExpected(expected), total > 0 ? formatPercent(contribution / total, 2) : '–'],
  }));
}
