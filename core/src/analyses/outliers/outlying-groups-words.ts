import { equalsP, formatFigure, formatP, formatValue, groupThousands } from '../../numeric/format.js';
import { listed, plural } from '../../numeric/grammar.js';
import { COARSE } from '../../goodness-of-fit/rounding.js';
import { hasLevel } from '../../outliers/rules.js';
import type { Note, Piece } from '../../road/analysis.js';
import { levelNote } from '../../road/cautions.js';
import type { FoundFigure } from '../../road/figure.js';
import type { GroupTest, OutlyingGroupsResult } from './outlying-groups-result.js';
import { RULE_FACTS } from './rule-facts.js';

const TESTS = {
  cochran: { title: 'Cochran’s test', what: 'spread' },
  grubbs: { title: 'Grubbs’ test of the means', what: 'mean' },
} as const;

const pWords = ({ pValue, pMethod, pFormula }: GroupTest, alpha: number) =>
  pValue === 1 ? 'p = 1' : equalsP(pValue!, alpha, pMethod === 'formula' && !pFormula!.exact ? '≤' : '=');

/** Which group differs in spread or mean from the rest. */
export function outlyingGroupsFinding(result: OutlyingGroupsResult): Piece[] {
  const { tests, alpha, groups, by } = result;
  const told = tests.filter(({ reason }) => reason === null);
  const of = `the ${plural(groups.length, 'group')} by ${by}`;
  if (told.length === 0) return [{ text: tests.map(({ reason }) => reason).join(' ') }];
  if (told.some(({ pValue }) => pValue === null)) return [{ text: `Clean groups for ${of} are being simulated.` }];
  const level =
    told.length > 1 ? `significance level ${formatValue(alpha)} for each` : `significance level ${formatValue(alpha)}`;
  const named = told.filter(({ group }) => group !== null);
  const others = told.map((test) => `${TESTS[test.test].title} ${pWords(test, alpha)}`).join(', ');
  if (named.length === 0) {
    return [
      { text: 'No outlying group', strong: true, code: 'no-evidence' },
      { text: ` in ${told.map(({ test }) => TESTS[test].what).join(' or ')} among ${of} (${others}; ${level}).` },
    ];
  }
  const [first, second] = named;
  // One group may be named twice.
  const words =
    second && second.group === first!.group
      ? [`${first!.group} (${TESTS[first!.test].what} and ${TESTS[second.test].what})`]
      : named.map(({ group, test }) => `${group} (${TESTS[test].what})`);
  return [
    { text: `Outlying: ${listed(words)}`, strong: true, code: 'evidence' },
    { text: ` among ${of} (${others}; ${level}).` },
  ];
}

/** What a careful colleague would add. */
export function outlyingGroupsNotes(result: OutlyingGroupsResult): Note[] {
  const { alpha, groups, tests, parts, rule, without, by, setAside, resolution } = result;
  const notes: Note[] = [...levelNote(alpha)];
  if (setAside > 0) {
    const text = `The significance level may not hold: ${plural(setAside, 'reading is', 'readings are')} already set aside. If a test flagged ${setAside === 1 ? 'it' : 'them'}, restore ${setAside === 1 ? 'it' : 'them'} first.`;
    notes.push({ code: 'second-look', text });
  }
  const sizes = new Set(groups.map(({ n }) => n));
  if (sizes.size > 1) {
    const text = `Grubbs’ test may flag small groups too often, because the groups have ${Math.min(...sizes)} to ${Math.max(...sizes)} readings. Cochran’s test is simulated for these sizes.`;
    notes.push({ code: 'sizes-differ', text });
  }
  if (without > 0) {
    const text = `${plural(without, 'reading has', 'readings have')} no ${by} and ${without === 1 ? 'is' : 'are'} left out.`;
    notes.push({ code: 'no-label', text });
  }
  // Between groups the resolution hardly matters; within them it can be most of the spread.
  const spreads = groups.flatMap(({ sd }) => (sd === null ? [] : [sd]));
  if (resolution !== null && spreads.length > 0 && Math.min(...spreads) < COARSE * resolution) {
    const text = `The p of Cochran’s test is approximate, because the resolution of ${formatValue(resolution)} is coarse for the spread within the groups.`;
    notes.push({ code: 'coarse', text });
  }
  for (const { reason } of tests) if (reason !== null) notes.push({ code: 'no-test', text: reason });
  const naming = parts.filter(({ rows }) => rows !== null && rows.length > 0);
  if (naming.length > 0) {
    const told = naming.map(
      ({ name, rows }) => `${name}: row ${rows!.slice(0, 3).join(', ')}${rows!.length > 3 ? ' …' : ''}`,
    );
    const shared = hasLevel(rule) ? ', adjusted for the number of groups' : '';
    const text = `A single reading may make a group outlying. Suspected outliers within groups (${RULE_FACTS[rule].title}${shared}): ${told.join('; ')}.`;
    notes.push({ code: 'within', text });
  }
  return notes;
}

/** The reminder before an outlying group is excluded; null where there is none. */
export const groupCauseWords = ({ tests }: OutlyingGroupsResult): string | null =>
  tests.some(({ group }) => group !== null)
    ? 'A test result alone does not justify excluding a group. Look for the cause first.'
    : null;

export const GROUP_TEST_COLUMNS = ['statistic', 'critical value', 'p', 'group'] as const;

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
          ? 'The largest variance divided by the sum of all variances: does one group vary more than the others?'
          : 'The distance of the most extreme group mean from the mean of the means, in SDs: does one group differ from the others?'),
      formula: isSpread ? 'C = s²max / Σs² (Cochran 1941)' : 'G = |mean − mean of means| / SD of means (Grubbs 1950)',
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
  const at = (of: string) => levels.map((level) => `${of}, critical value at ${level}`);
  return [[by, 'n', 'mean', 'SD', 'h', ...at('h'), 'k', ...at('k'), 'flagged rows'], ...rows];
}
