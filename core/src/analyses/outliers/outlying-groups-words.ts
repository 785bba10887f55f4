import { equalsP, formatFigure, formatP, formatValue, groupThousands } from '../../numeric/format.js';
import { COARSE } from '../../goodness-of-fit/rounding.js';
import { hasLevel } from '../../outliers/rules.js';
import type { Note, Piece } from '../../road/analysis.js';
import { levelNote } from '../../road/cautions.js';
import type { FoundFigure } from '../../road/figure.js';
import type { GroupTest, OutlyingGroupsResult } from './outlying-groups-result.js';
import { RULE_FACTS } from './rule-facts.js';

const TESTS = {
  cochran: { title: 'Cochran’s C', what: 'spread' },
  grubbs: { title: 'Grubbs of the means', what: 'mean' },
} as const;

const pWords = ({ pValue, pMethod, pFormula }: GroupTest, alpha: number) =>
  pValue === 1 ? 'p = 1' : equalsP(pValue!, alpha, pMethod === 'formula' && !pFormula!.exact ? '≤' : '=');

/** Which group has another spread or mean than the rest. */
export function outlyingGroupsFinding(result: OutlyingGroupsResult): Piece[] {
  const { tests, alpha, groups, by } = result;
  const told = tests.filter(({ reason }) => reason === null);
  const of = `${groupThousands(groups.length)} groups by ${by}`;
  if (told.length === 0) return [{ text: tests.map(({ reason }) => reason).join(' ') }];
  if (told.some(({ pValue }) => pValue === null)) return [{ text: `Clean groups for ${of} are being simulated.` }];
  const level = `level ${formatValue(alpha)} for each`;
  const named = told.filter(({ group }) => group !== null);
  const others = told.map((test) => `${TESTS[test.test].title} ${pWords(test, alpha)}`).join(', ');
  if (named.length === 0) {
    return [
      { text: `No group of ${groups.length} by ${by} stands out`, strong: true, code: 'no-evidence' },
      { text: ` in its ${told.map(({ test }) => TESTS[test].what).join(' or ')}: ${others}, ${level}.` },
    ];
  }
  const [first, second] = named;
  // One group may be named twice.
  const words =
    second && second.group === first!.group
      ? [`${first!.group} stands out by its ${TESTS[first!.test].what} and its ${TESTS[second.test].what}`]
      : named.map(({ group, test }) => `${group} stands out by its ${TESTS[test].what}`);
  return [{ text: words.join(', '), strong: true, code: 'evidence' }, { text: ` among ${of}: ${others}, ${level}.` }];
}

/** What a careful colleague would add. */
export function outlyingGroupsNotes(result: OutlyingGroupsResult): Note[] {
  const { alpha, groups, tests, parts, rule, without, by, setAside, resolution } = result;
  const notes: Note[] = [...levelNote(alpha)];
  if (setAside > 0) {
    const text = `Second look: ${groupThousands(setAside)} ${setAside === 1 ? 'reading is' : 'readings are'} set aside already. If a rule named them, the level no longer holds.`;
    notes.push({ code: 'second-look', text });
  }
  const sizes = new Set(groups.map(({ n }) => n));
  if (sizes.size > 1) {
    const text = `The groups have ${Math.min(...sizes)} to ${Math.max(...sizes)} readings: Cochran’s C is simulated for these sizes; means of small groups scatter more than Grubbs’ test allows for.`;
    notes.push({ code: 'sizes-differ', text });
  }
  if (without > 0) {
    const text = `${without === 1 ? '1 reading has' : `${groupThousands(without)} readings have`} no ${by}: left out of the groups.`;
    notes.push({ code: 'no-label', text });
  }
  // Between groups the steps hardly tell; within them they can be most of the spread.
  const spreads = groups.flatMap(({ sd }) => (sd === null ? [] : [sd]));
  if (resolution !== null && spreads.length > 0 && Math.min(...spreads) < COARSE * resolution) {
    const text = `The steps of ${formatValue(resolution)} are coarse beside the spread within the groups: clean groups are drawn without rounding, and the p of Cochran’s C is only near.`;
    notes.push({ code: 'coarse', text });
  }
  for (const { reason } of tests) if (reason !== null) notes.push({ code: 'no-test', text: reason });
  const naming = parts.filter(({ rows }) => rows !== null && rows.length > 0);
  if (naming.length > 0) {
    const told = naming.map(
      ({ name, rows }) => `${name}: row ${rows!.slice(0, 3).join(', ')}${rows!.length > 3 ? ' …' : ''}`,
    );
    const shared = hasLevel(rule) ? ', the level shared among the groups' : '';
    const text = `Within their groups lie too far out by ${RULE_FACTS[rule].title}${shared}: ${told.join('; ')}. One such reading makes a group stand out by itself.`;
    notes.push({ code: 'within', text });
  }
  return notes;
}

/** What has to be asked before a named group is left out; null where none is named. */
export const groupCauseWords = ({ tests }: OutlyingGroupsResult): string | null =>
  tests.some(({ group }) => group !== null)
    ? 'A test alone is no reason to leave a group out: look for its cause first.'
    : null;

export const GROUP_TEST_COLUMNS = ['statistic', 'critical', 'p', 'about'] as const;

/** The two tests of the groups. */
export function groupTestFigures({ tests, alpha }: OutlyingGroupsResult): FoundFigure[] {
  const bare = (x: number | null) => (x === null ? '–' : formatFigure(x, 'statistic'));
  return tests.map((test): FoundFigure => {
    const { statistic, critical, pValue, pMethod, pFormula, candidate, reason } = test;
    const isSpread = test.test === 'cochran';
    const bound = pMethod === 'formula' && pFormula && !pFormula.exact ? '≤ ' : '';
    return {
      ...{ key: test.test, name: TESTS[test.test].title, note: '' },
      meaning:
        reason ??
        (isSpread
          ? 'The greatest variance over the sum of all: is one group more scattered than the rest?'
          : 'The farthest group mean, in sd of the means: does one group lie off the rest?'),
      formula: isSpread ? 'C = s²max / Σs² (Cochran 1941)' : 'G = |mean − mean of means| / sd of means (Grubbs 1950)',
      texts: [
        bare(statistic),
        bare(critical),
        pValue === null ? '–' : `${bound}${formatP(pValue, alpha)}`,
        candidate ?? '–',
      ],
    };
  });
}

/** A group with its figures as texts. */
export interface GroupRow {
  name: string;
  n: string;
  mean: string;
  sd: string;
  h: string;
  k: string;
  names: string;
  /** Beyond the critical value at the level. */
  farMean: boolean;
  farSpread: boolean;
}

export function groupRows({ groups, parts, resolution }: OutlyingGroupsResult): GroupRow[] {
  return groups.map(({ name, n, mean, sd, h, hCritical, k, kCritical }, i): GroupRow => {
    const { rows, reason } = parts[i]!;
    return {
      ...{ name, n: groupThousands(n), mean: formatFigure(mean, 'location', resolution) },
      sd: sd === null ? '–' : formatFigure(sd, 'spread', resolution),
      h: h === null ? '–' : formatFigure(h, 'statistic'),
      k: k === null ? '–' : formatFigure(k, 'statistic'),
      names:
        reason !== null
          ? '–'
          : rows === null
            ? '…'
            : rows.length === 0
              ? 'none'
              : `row ${rows.slice(0, 3).join(', ')}${rows.length > 3 ? ' …' : ''}`,
      farMean: h !== null && Math.abs(h) > hCritical![0]!,
      farSpread: k !== null && k > kCritical![0]!,
    };
  });
}

export function outlyingGroupsTable({ groups, parts, by, levels }: OutlyingGroupsResult): (string | number)[][] {
  const rows = groups.map(({ name, n, mean, sd, h, hCritical, k, kCritical }, i) => [
    ...[name, n, mean, sd ?? '', h ?? ''],
    ...levels.map((_, j) => hCritical?.[j] ?? ''),
    k ?? '',
    ...levels.map((_, j) => kCritical?.[j] ?? ''),
    parts[i]!.rows?.join(' ') ?? '',
  ]);
  const at = (of: string) => levels.map((level) => `${of} critical at ${level}`);
  return [[by, 'n', 'mean', 'sd', 'h', ...at('h'), 'k', ...at('k'), 'names rows'], ...rows];
}
