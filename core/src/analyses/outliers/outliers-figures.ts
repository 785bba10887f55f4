import { equalsP, formatFigure, formatP, formatPercentOf, formatValue } from '../../numeric/format.js';
import { hasLevel } from '../../outliers/rules.js';
import type { Slip } from '../../outliers/typing-slips.js';
import type { FoundFigure } from '../../road/figure.js';
import type { Extreme, Figures, OutliersResult, OutlierTest } from './outliers-result.js';
import { RULE_FACTS } from './rule-facts.js';

const percent = (share: number) => formatPercentOf(share, undefined, 2);
const statistic = (value: number | null) => (value === null ? '–' : formatFigure(value, 'statistic'));

/** The farthest readings as texts, one row each. */
export interface ExtremeRow {
  row: number;
  value: string;
  group: string;
  z: string;
  modifiedZ: string;
  fence: string;
  probability: string;
  slips: { words: string; value: number }[];
  named: boolean;
}

const FENCES = { inside: '', outside: 'outside', far: 'far out' } as const;
const SLIPS: Record<Slip['kind'], string> = {
  'decimal-point': 'decimal point moved',
  thousand: 'a unit of 1000',
  inch: 'inches for millimetres, or the reverse',
  'digits-swapped': 'digits swapped',
  'digit-twice': 'a digit typed twice',
  sign: 'sign',
};

export function extremeRows({ extremes, resolution }: OutliersResult, named: readonly number[]): ExtremeRow[] {
  return extremes.map((one): ExtremeRow => {
    const { row, value, group = '', z, modifiedZ, fence, probability, slips } = one;
    return {
      ...{ row, group, value: formatFigure(value, 'reading', resolution), z: statistic(z) },
      ...{ modifiedZ: statistic(modifiedZ), fence: FENCES[fence], probability: chanceWords(probability) },
      slips: slips.map((slip) => ({ words: `${SLIPS[slip.kind]}: ${formatValue(slip.value)}`, value: slip.value })),
      named: named.includes(row),
    };
  });
}

const chanceWords = (share: number) => (share < 1e-4 ? '< 0.01\u00a0%' : percent(share));

/** What pointing at one of the farthest says. */
export const extremeWords = ({ z, modifiedZ, fence, probability, group }: Extreme): string =>
  [
    ...(group === undefined ? [] : [group]),
    `z ${statistic(z)}`,
    `modified z ${statistic(modifiedZ)}`,
    ...(fence === 'inside' ? [] : [fence === 'far' ? 'beyond the outer fence' : 'beyond the fence']),
    `farthest out there in ${chanceWords(probability)} of samples`,
  ].join(', ');

/** The rules side by side as texts. */
export interface RuleRow {
  key: string;
  test: OutlierTest;
  name: string;
  meaning: string;
  formula: string;
  statistic: string;
  critical: string;
  pFormula: string;
  pSimulated: string;
  names: string;
  alarms: string;
  ofStudy: boolean;
}

function namesWords({ rows, reason }: OutlierTest): string {
  if (reason !== null) return '–';
  if (rows === null) return '…';
  if (rows.length === 0) return 'none';
  return rows.length <= 3 ? `row ${rows.join(', ')}` : `${rows.length} rows`;
}

export function ruleRows({ tests, rule, alpha }: OutliersResult): RuleRow[] {
  return tests.map((test): RuleRow => {
    const { short, meaning, formula, symbol } = RULE_FACTS[test.rule];
    const { pFormula, pSimulated, falseAlarms, reason } = test;
    const bound = pFormula && !pFormula.exact ? '≤ ' : '';
    return {
      ...{ key: test.rule, test, name: short, meaning: reason ?? meaning, ofStudy: test.rule === rule },
      formula: test.ratio ? `${formula}; here ${test.ratio}` : formula,
      statistic: test.statistic === null ? '–' : `${symbol} ${statistic(test.statistic)}`,
      critical: statistic(test.critical),
      pFormula: pFormula ? `${bound}${formatP(pFormula.pValue, alpha)}` : '–',
      pSimulated: pSimulated ? formatP(pSimulated.pValue, alpha) : hasLevel(test.rule) && reason === null ? '…' : '–',
      names: namesWords(test),
      alarms: falseAlarms ? percent(falseAlarms.share) : reason === null ? '…' : '–',
    };
  });
}

/** The rules as a table. */
export function rulesTable({ tests }: OutliersResult): (string | number)[][] {
  const heads = ['rule', 'side', 'statistic', 'critical', 'p by formula', 'p simulated', 'p lower', 'p upper'];
  const rows = tests.map(
    ({ rule, side, statistic: found, critical, pFormula, pSimulated, rows: named, falseAlarms, reason }) => [
      ...[RULE_FACTS[rule].short, side, found ?? '', critical ?? '', pFormula?.pValue ?? '', pSimulated?.pValue ?? ''],
      ...(pSimulated?.pInterval ?? ['', '']),
      ...[named?.join(' ') ?? '', falseAlarms?.share ?? '', reason ?? ''],
    ],
  );
  return [[...heads, 'names rows', 'false alarms', 'why not'], ...rows];
}

/** The farthest readings as a table. */
export function extremesTable({ extremes }: OutliersResult): (string | number)[][] {
  const rows = extremes.map(({ row, value, group, z, modifiedZ, fence, probability }) => [
    ...[row, value, group ?? '', z, modifiedZ, fence, probability],
  ]);
  return [['row', 'value', 'label', 'z', 'modified z', 'fence', 'chance of the farthest'], ...rows];
}

/** The heads of before and after. */
export const WITHOUT_COLUMNS = ['all', 'without', 'change'] as const;

/** Before and after some readings are left out. */
export function withoutFigures({ resolution, alpha }: OutliersResult, before: Figures, after: Figures): FoundFigure[] {
  const location = (x: number) => formatFigure(x, 'location', resolution);
  const spread = (x: number) => formatFigure(x, 'spread', resolution);
  const bare = (x: number) => formatFigure(x, 'statistic');
  const line = (
    [key, name, meaning]: readonly [string, string, string],
    of: (figures: Figures) => number | null,
    told: (x: number) => string,
  ): FoundFigure => {
    const [a, b] = [of(before), of(after)];
    const signed = (x: number) => (x > 0 ? `+${told(x)}` : told(x));
    const texts = [
      a === null ? '–' : told(a),
      b === null ? '–' : told(b),
      a === null || b === null ? '–' : signed(b - a),
    ];
    return { key, name, meaning, note: '', formula: '', texts };
  };
  const range = (of: [number, number] | null, told: (x: number) => string) =>
    of ? `${told(of[0])} – ${told(of[1])}` : '–';
  const ranged = (
    [key, name, meaning]: readonly [string, string, string],
    of: 'meanInterval' | 'sdInterval',
    told: (x: number) => string,
  ): FoundFigure => ({
    ...{ key, name, meaning, note: '', formula: '' },
    texts: [range(before[of], told), range(after[of], told), ''],
  });
  const p = ({ pValue, statistic: found }: Figures) =>
    found === null ? '–' : pValue === null ? '…' : formatP(pValue, alpha);
  const outside = (of: 'counted' | 'expected', key: string, name: string): FoundFigure[] => {
    const [a, b] = [before.outside?.[of] ?? null, after.outside?.[of] ?? null];
    if (a === null || b === null) return [];
    const meaning =
      of === 'counted'
        ? 'The share of readings outside the limits.'
        : 'The share outside of a normal with this mean and sd.';
    return [{ key, name, meaning, note: '', formula: '', texts: [percent(a), percent(b), ''] }];
  };
  return [
    line(
      ['n', 'n', 'How many readings.'],
      ({ n }) => n,
      (x) => formatFigure(x, 'count'),
    ),
    line(['mean', 'mean', 'The sum over n.'], ({ mean }) => mean, location),
    line(['sd', 'sd', 'With divisor n − 1.'], ({ sd }) => sd, spread),
    line(['median', 'median', 'The middle reading.'], ({ median }) => median, location),
    line(['skewness', 'skewness', 'The adjusted G1.'], ({ skewness }) => skewness, bare),
    {
      key: 'p',
      name: 'p of A²',
      meaning: 'Of the Anderson–Darling test against a normal.',
      note: '',
      formula: '',
      texts: [p(before), p(after), ''],
    },
    ranged(['mean-interval', 'mean between', 'The t interval of the mean.'], 'meanInterval', location),
    ranged(['sd-interval', 'sd between', 'The chi-square interval of the sd.'], 'sdInterval', spread),
    ...outside('counted', 'outside', 'outside limits'),
    ...outside('expected', 'outside-normal', 'outside, normal'),
  ];
}

/** Every reading left out in turn, as a table. */
export function influenceTable({ rows, readings, influence, mean, sd }: OutliersResult): (string | number)[][] {
  const lines = Array.from(rows, (row, i) => [
    ...[row, readings[i]!, influence.mean[i]!, influence.mean[i]! - mean, influence.sd[i]!, influence.sd[i]! - sd],
  ]);
  return [['row', 'value', 'mean without', 'change of the mean', 'sd without', 'change of the sd'], ...lines];
}

/** "R = 3.21 > 2.94 (p = 0.004)": a test in a few words, where it is pointed at. */
export const testWords = ({ rule, statistic: found, critical, pValue }: OutlierTest, alpha: number): string =>
  found === null
    ? ''
    : `${RULE_FACTS[rule].symbol} ${statistic(found)}, critical ${statistic(critical)}${pValue === null ? '' : `, ${equalsP(pValue, alpha)}`}`;
