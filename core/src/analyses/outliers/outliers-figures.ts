import { formatFigure, formatP, formatPercentOf, formatValue } from '../../numeric/format.js';
import { hasLevel } from '../../outliers/rules.js';
import type { Slip } from '../../outliers/typing-slips.js';
import type { Extreme, OutliersResult, OutlierTest } from './outliers-result.js';
import { RULE_FACTS } from './rule-facts.js';

const percent = (share: number) => formatPercentOf(share, undefined, 2);
const statistic = (value: number | null) => (value === null ? '–' : formatFigure(value, 'statistic'));

/** The most extreme readings as texts, one row each. */
export interface ExtremeRow {
  row: number;
  value: string;
  group: string;
  z: string;
  /** Without the more extreme readings. */
  zWithout: string;
  modifiedZ: string;
  fence: string;
  probability: string;
  slips: { words: string; value: number }[];
  named: boolean;
}

const FENCES = { inside: '', outside: 'outside', far: 'beyond the outer fence' } as const;
const SLIPS: Record<Slip['kind'], string> = {
  'decimal-point': 'decimal point shifted',
  thousand: 'factor of 1000',
  inch: 'inches and millimetres confused',
  'digits-swapped': 'digits swapped',
  'digit-twice': 'digit repeated',
  sign: 'sign',
};

export function extremeRows(
  { extremes, resolution, replicates }: OutliersResult,
  named: readonly number[],
): ExtremeRow[] {
  return extremes.map((one): ExtremeRow => {
    const { row, value, group = '', z, zWithout, modifiedZ, fence, probability, slips } = one;
    return {
      ...{ row, group, value: formatFigure(value, 'reading', resolution), z: statistic(z) },
      zWithout: statistic(zWithout),
      ...{ modifiedZ: statistic(modifiedZ), fence: FENCES[fence], probability: chanceWords(probability, replicates) },
      slips: slips.map((slip) => ({ words: `${SLIPS[slip.kind]}: ${formatValue(slip.value)}`, value: slip.value })),
      named: named.includes(row),
    };
  });
}

function chanceWords(share: number | null, replicates: number): string {
  if (share === null) return '…';
  // No replicate is as extreme: (b + 1)/(B + 1) is a bound.
  if (share * (replicates + 1) < 1.5) return `< ${percent(1 / replicates)}`;
  return share > 0.995 ? '> 99\u00a0%' : percent(share);
}

/** The description of an extreme reading. */
export const extremeWords = (
  { z, modifiedZ, fence, probability, group }: Extreme,
  { replicates }: Pick<OutliersResult, 'replicates'>,
): string =>
  [
    ...(group === undefined ? [] : [group]),
    `z ${statistic(z)}`,
    `modified z ${statistic(modifiedZ)}`,
    ...(fence === 'inside' ? [] : [fence === 'far' ? 'beyond the outer fence' : 'beyond the fence']),
    ...(probability === null ? [] : [`as extreme in ${chanceWords(probability, replicates)} of clean samples`]),
  ].join(', ');

/** The rules side by side as texts. */
export interface RuleRow {
  key: string;
  test: OutlierTest;
  name: string;
  meaning: string;
  formula: string;
  symbol: string;
  statistic: string;
  critical: string;
  /** The one that the finding uses. */
  p: string;
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
  return rows.length <= 3 ? rows.join(', ') : `${rows.length} rows`;
}

export function ruleRows({ tests, rule, alpha }: OutliersResult): RuleRow[] {
  return tests.map((test): RuleRow => {
    const { short, meaning, formula, symbol } = RULE_FACTS[test.rule];
    const { pFormula, pSimulated, falseAlarms, reason } = test;
    const bound = pFormula && !pFormula.exact ? '≤ ' : '';
    return {
      ...{ key: test.rule, test, name: short, meaning: reason ?? meaning, ofStudy: test.rule === rule },
      formula: test.ratio ? `${formula}; here ${test.ratio}` : formula,
      symbol,
      statistic: statistic(test.statistic),
      critical: statistic(test.critical),
      p:
        test.pValue === null
          ? hasLevel(test.rule) && reason === null
            ? '…'
            : '–'
          : `${test.pMethod === 'formula' ? bound : ''}${formatP(test.pValue, alpha)}`,
      pFormula: pFormula ? `${bound}${formatP(pFormula.pValue, alpha)}` : '–',
      pSimulated: pSimulated ? formatP(pSimulated.pValue, alpha) : hasLevel(test.rule) && reason === null ? '…' : '–',
      names: namesWords(test),
      alarms: falseAlarms ? percent(falseAlarms.share) : reason === null ? '…' : '–',
    };
  });
}

/** The rules as a table. */
export function rulesTable({ tests }: OutliersResult): (string | number)[][] {
  const heads = [
    'rule',
    'side',
    'statistic',
    'critical',
    'p from the formula',
    'simulated p',
    'simulated p, lower',
    'simulated p, upper',
  ];
  const rows = tests.map(
    ({ rule, side, statistic: found, critical, pFormula, pSimulated, rows: named, falseAlarms, reason }) => [
      ...[RULE_FACTS[rule].short, side, found ?? '', critical ?? '', pFormula?.pValue ?? '', pSimulated?.pValue ?? ''],
      ...(pSimulated?.pInterval ?? ['', '']),
      ...[named?.join(' ') ?? '', falseAlarms?.share ?? '', reason ?? ''],
    ],
  );
  return [[...heads, 'flagged rows', 'false-alarm rate', 'reason'], ...rows];
}

/** The farthest readings as a table. */
export function extremesTable({ extremes }: OutliersResult): (string | number)[][] {
  const rows = extremes.map(({ row, value, group, z, zWithout, modifiedZ, fence, probability }) => [
    ...[row, value, group ?? '', z, zWithout ?? '', modifiedZ, fence, probability ?? ''],
  ]);
  const heads = ['row', 'value', 'label', 'z', 'z without more extreme readings', 'modified z', 'fence', 'probability'];
  return [heads, ...rows];
}

/** Every reading left out in turn, as a table. */
export function influenceTable({ rows, readings, influence, mean, sd }: OutliersResult): (string | number)[][] {
  const lines = Array.from(rows, (row, i) => [
    ...[row, readings[i]!, influence.mean[i]!, influence.mean[i]! - mean, influence.sd[i]!, influence.sd[i]! - sd],
  ]);
  return [['row', 'value', 'mean without', 'change of the mean', 'SD without', 'change of the SD'], ...lines];
}
