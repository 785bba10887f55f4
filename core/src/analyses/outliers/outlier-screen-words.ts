import { formatFigure, formatP, groupThousands } from '../../numeric/format.js';
import { plural } from '../../numeric/grammar.js';
import type { Side } from '../../outliers/grubbs.js';
import { hasLevel, type Rule } from '../../outliers/rules.js';
import type { Note, Piece } from '../../road/analysis.js';
import { holmLevel, levelNote } from '../../road/cautions.js';
import type { PartOutliers } from './outlier-parts.js';
import { RULE_FACTS } from './rule-facts.js';

export interface OutlierScreenResult {
  available: true;
  n: number;
  missing: number;
  setAside: number;
  alpha: number;
  /** The label column, or null where the parts are columns. */
  by: string | null;
  rule: Rule;
  side: Side;
  parts: PartOutliers[];
  notes: Note[];
}

const partsOf = ({ by }: OutlierScreenResult, count: number) =>
  by === null ? (count === 1 ? 'column' : 'columns') : `${count === 1 ? 'group' : 'groups'} by ${by}`;
const judgedOf = ({ parts }: OutlierScreenResult) => parts.filter(({ reason }) => reason === null);

/** In which of all the rule of the study flags readings. */
export function outlierScreenFinding(result: OutlierScreenResult): Piece[] {
  const { parts, alpha, rule } = result;
  const some = judgedOf(result);
  if (some.length === 0) return [{ text: `None of ${parts.length} ${partsOf(result, parts.length)} can be tested.` }];
  const of = `${groupThousands(some.length)} ${partsOf(result, some.length)}`;
  if (some.some(({ rows }) => rows === null)) return [{ text: `Clean samples for ${of} are being simulated.` }];
  const how = `${RULE_FACTS[rule].title}, ${hasLevel(rule) ? holmLevel(alpha, some.length) : 'no significance level'}`;
  const naming = some.filter(({ rows }) => rows!.length > 0);
  if (naming.length === 0) {
    return [
      { text: 'No outliers found', strong: true, code: 'no-evidence' },
      { text: ` in ${some.length === 1 ? '' : 'any of '}${of} (${how}).` },
    ];
  }
  const count = naming.reduce((sum, { rows }) => sum + rows!.length, 0);
  const named = naming.length <= 3 ? `: ${naming.map(({ name, rows }) => `${name} (${rows!.length})`).join(', ')}` : '';
  return [
    { text: plural(count, 'suspected outlier'), strong: true, code: 'evidence' },
    { text: ` in ${naming.length} of ${of}${named} (${how}).` },
  ];
}

/** What a careful colleague would add. */
export function outlierScreenNotes(result: OutlierScreenResult): Note[] {
  const { parts, alpha, rule } = result;
  const notes: Note[] = [...levelNote(alpha)];
  const left = parts.length - judgedOf(result).length;
  if (left > 0) {
    const text = `${groupThousands(left)} of ${parts.length} could not be tested; the reason is given in ${left === 1 ? 'its row' : 'each row'}.`;
    notes.push({ code: 'left-out', text });
  }
  if (!hasLevel(rule) && parts.length > 1) {
    const text = `False alarms are likely: ${RULE_FACTS[rule].title} is a rule of thumb and cannot be adjusted for the number of columns.`;
    notes.push({ code: 'no-level', text });
  }
  const aside = parts.filter(({ setAside }) => setAside > 0).map(({ name }) => name);
  if (aside.length > 0) {
    const text = `The significance level may not hold for ${aside.slice(0, 3).join(', ')}${aside.length > 3 ? ` and ${aside.length - 3} more` : ''}: readings are already set aside there. If a test flagged them, restore them first.`;
    notes.push({ code: 'second-look', text });
  }
  return notes;
}

/** A row of many columns as texts. */
export interface OutlierScreenRow {
  name: string;
  part: PartOutliers;
  n: string;
  farthest: string;
  p: string;
  pHolm: string;
  names: string;
  reason: string;
}

export function outlierScreenRows({ parts, alpha }: OutlierScreenResult): OutlierScreenRow[] {
  return parts.map((part): OutlierScreenRow => {
    const { name, n, farthest, resolution, test, pHolm, rows, reason } = part;
    const p = test?.pValue ?? null;
    const value = farthest && formatFigure(farthest.value, 'reading', resolution);
    return {
      ...{ name, part, n: groupThousands(n), reason: reason ?? '' },
      farthest: farthest ? `${value} (row ${farthest.row}), z ${formatFigure(farthest.z, 'statistic')}` : '–',
      p: p === null ? '–' : formatP(p, alpha),
      pHolm: pHolm === null ? '–' : formatP(pHolm, alpha),
      names:
        reason !== null
          ? '–'
          : rows === null
            ? '…'
            : rows.length === 0
              ? 'none'
              : `${rows.length}: row ${rows.slice(0, 4).join(', ')}${rows.length > 4 ? ' …' : ''}`,
    };
  });
}

export function outlierScreenTable({ parts, by }: OutlierScreenResult): (string | number)[][] {
  const rows = parts.map(({ name, n, unit, farthest, test, pHolm, rows: named, reason }) => [
    ...[name, n, unit, farthest?.row ?? '', farthest?.value ?? '', farthest?.z ?? '', test?.statistic ?? ''],
    ...[test?.critical ?? '', test?.pValue ?? '', pHolm ?? '', named?.join(' ') ?? '', reason ?? ''],
  ]);
  const heads = [
    'n',
    'unit',
    'row of the most extreme',
    'most extreme',
    'z',
    'statistic',
    'critical value',
    'p',
    'adjusted p (Holm)',
  ];
  return [[by ?? 'column', ...heads, 'flagged rows', 'reason'], ...rows];
}
