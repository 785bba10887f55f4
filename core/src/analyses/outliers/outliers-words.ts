import { simulatedNotes } from '../../road/simulated-notes.js';
import { familyByName } from '../../distributions/registry.js';
import { equalsP, formatFigure, formatP, formatPercentOf, formatValue, groupThousands } from '../../numeric/format.js';
import { article, listed, plural } from '../../numeric/grammar.js';
import { greatestScore } from '../../outliers/grubbs.js';
import { hasLevel, type Rule } from '../../outliers/rules.js';
import { Z_LIMIT } from '../../outliers/screens.js';
import type { Note, Piece } from '../../road/analysis.js';
import { confidenceNote, levelNote, levelWords } from '../../road/cautions.js';
import { studyTest, type FoundShare, type OutliersResult, type OutlierTest } from './outliers-result.js';
import { RULE_FACTS, SIDE_WORDS } from './rule-facts.js';

/** What a test is called in a finding, where the name of its result is not it. */
const TEST_NAMES: Partial<Record<Rule, string>> = {
  grubbs: 'Grubbs’ test',
  'pair-same-end': 'Grubbs’ test, two on the same side',
  'pair-both-ends': 'Grubbs’ test, one on each side',
  dixon: 'Dixon’s test',
  'generalized-esd': 'generalised ESD test',
  'modified-z': RULE_FACTS['modified-z'].title,
  fences: 'box-plot fences',
  'z-score': RULE_FACTS['z-score'].title,
};

const MOST_TOLD = 4;
const percent = (share: number) => formatPercentOf(share, undefined, 2);

/** "row 7 (17.84)", "rows 7 (17.84) and 12 (1.20)"; of many the first. */
export function rowWords({ rows, readings, resolution }: OutliersResult, named: readonly number[]): string {
  const told = named.slice(0, MOST_TOLD).map((row) => {
    const value = readings[rows.indexOf(row)]!;
    return `${row} (${formatFigure(value, 'reading', resolution)})`;
  });
  const more = named.length - told.length;
  const list = more > 0 ? [...told, `${groupThousands(more)} more`] : told;
  return `${named.length === 1 ? 'row' : 'rows'} ${listed(list)}`;
}

const sampleWords = ({ family }: OutliersResult) =>
  family === 'normal' ? '' : ` for ${article(familyByName(family).title)} distribution`;

/** "generalised ESD test, up to 4 outliers, p = 0.034". */
function ruleWords(result: OutliersResult, { rule, pValue, pFormula, pMethod, pSimulated, falseAlarms }: OutlierTest) {
  const { alpha, side, most } = result;
  const { test } = RULE_FACTS[rule];
  const upTo = rule === 'generalized-esd' ? `, up to ${plural(most, 'outlier')}` : '';
  const named = `${TEST_NAMES[rule] ?? test}${sampleWords(result)}${upTo}${side === 'either' ? '' : `, ${SIDE_WORDS[side]}`}`;
  if (!hasLevel(rule)) {
    const alarms = falseAlarms ? `, ${alarmWords(falseAlarms)}` : '';
    return `${named}; no significance level${alarms}`;
  }
  const bound = pMethod === 'formula' && pFormula && !pFormula.exact ? '≤' : '=';
  const p =
    pValue === null
      ? ''
      : `, ${pValue === 1 && bound === '≤' ? 'p ≤ 1' : equalsP(pValue, alpha, bound).replaceAll(' ', '\u00a0')}`;
  // Dixon’s p has no formula: it comes with how well it is known.
  const between =
    rule === 'dixon' && pMethod === 'simulated' && pSimulated
      ? ` (95\u00a0% confidence interval ${pSimulated.pInterval.map((end) => formatP(end)).join(' to ')})`
      : '';
  return `${named}${p}${between}${levelWords(alpha)}`;
}

const alarmWords = ({ share }: FoundShare) =>
  share === 0 ? 'no false alarm in the simulated clean samples' : `false-alarm rate ${percent(share)}`;

/** Which reading the rule would flag. */
function reachWords({ resolution, unit }: OutliersResult, { lines }: OutlierTest): string {
  const told = (value: number) => formatFigure(value, 'location', resolution);
  const of = unit ? `\u00a0${unit}` : '';
  const parts = [
    ...(lines && lines.lower !== null ? [`below ${told(lines.lower)}`] : []),
    ...(lines && lines.upper !== null ? [`above ${told(lines.upper)}`] : []),
  ];
  return parts.length ? ` A further reading ${parts.join(' or ')}${of} would be flagged.` : '';
}

/** The same rule for a normal sample, where another family is asked about. */
function normalWords(result: OutliersResult, rows: readonly number[]): string {
  const other = result.forNormal?.rows;
  if (!other) return '';
  const same = other.length === rows.length && other.every((row) => rows.includes(row));
  if (same)
    return rows.length === 0
      ? ' For a normal distribution the rule finds none either.'
      : ' For a normal distribution the rule finds the same.';
  return other.length === 0
    ? ' For a normal distribution the rule finds none.'
    : ` For a normal distribution the rule finds ${rowWords(result, other)}.`;
}

/** What the rule of the study finds, and which reading it would flag. */
export function outliersFinding(result: OutliersResult): Piece[] {
  const test = studyTest(result);
  const { rows, rule } = test;
  if (test.reason !== null) return [{ text: test.reason }];
  if (rows === null) return [{ text: `Clean samples for ${RULE_FACTS[rule].title} are being simulated.` }];
  const how = ` (${ruleWords(result, test)}).`;
  const normal = normalWords(result, rows);
  const reach = reachWords(result, test);
  if (rows.length === 0) {
    return [
      { text: 'No outliers found', strong: true, code: 'no-evidence' },
      { text: how },
      ...(reach === '' ? [] : [{ text: reach, code: 'threshold' } as const]),
      { text: normal },
    ];
  }
  return [
    {
      text: `${rows.length === 1 ? 'Suspected outlier' : 'Suspected outliers'}: ${rowWords(result, rows)}`,
      strong: true,
      code: 'evidence',
    },
    { text: `${how}${normal}` },
  ];
}

const testOf = ({ tests }: OutliersResult, rule: Rule) => tests.find((test) => test.rule === rule)!;
const namesOf = (result: OutliersResult, rule: Rule) => testOf(result, rule).rows ?? [];

/** Why rules disagree: one outlier masks another, or swamps a normal reading. */
function disagreementNotes(result: OutliersResult): Note[] {
  const notes: Note[] = [];
  const [one, several, pair] = (['grubbs', 'generalized-esd', 'pair-same-end'] as const).map((rule) =>
    namesOf(result, rule),
  ) as [number[], number[], number[]];
  if (several.length > one.length && several.length > 1) {
    const text = `Grubbs’ test may miss outliers (masking): it finds ${one.length === 0 ? 'none' : `only ${rowWords(result, one)}`}, because outliers inflate the standard deviation. The generalised ESD test finds ${several.length}; use that one.`;
    notes.push({ code: 'masking', text });
  } else if (several.length < 2 && pair.length > 1 && one.length === 0) {
    const text = `An outlier may be masked: two readings on the same side are conspicuous together (${rowWords(result, pair)}), but neither alone. Allow at least 2 outliers in the generalised ESD test.`;
    notes.push({ code: 'masking', text });
  }
  if (several.length === 1 && pair.length > 1) {
    const drawn = pair.filter((row) => !several.includes(row));
    const text = `The test for two outliers may flag one reading too many (swamping): it flags ${rowWords(result, pair)}. Without row ${several[0]}, ${rowWords(result, drawn)} is not an outlier.`;
    if (drawn.length > 0) notes.push({ code: 'swamping', text });
  }
  return notes;
}

/** Steps of the test above their critical values whose joint p is not below the level. */
function approximationNotes(result: OutliersResult): Note[] {
  const { count = 0, rows, pSimulated } = testOf(result, 'generalized-esd');
  if (count === 0 || rows === null || rows.length > 0 || !pSimulated) return [];
  const text = `The published critical values may be too small: they would flag ${plural(count, 'reading')}, but the simulated p is ${percent(pSimulated.pValue)}, above the significance level of ${percent(result.alpha)}.`;
  return [{ code: 'approximation', text }];
}

/** What rules of thumb cannot find at this sample size, and their false alarms. */
function thumbNotes(result: OutliersResult): Note[] {
  const { n, side, tests } = result;
  const notes: Note[] = [];
  if (greatestScore(n) <= Z_LIMIT) {
    const most = formatFigure(greatestScore(n), 'statistic');
    const text = `The rule z > ${Z_LIMIT} cannot find any outlier here: with ${plural(n, 'reading')}, |z| is at most ${most}. Use another rule.`;
    notes.push({ code: 'z-limit', text });
  }
  const strict = tests.some(({ rule, rows }) => hasLevel(rule) && rows !== null && rows.length > 0);
  const loud = tests.filter(({ rule, rows, falseAlarms }) => !hasLevel(rule) && rows?.length && falseAlarms);
  if (!strict && loud.length > 0) {
    const told = loud.map(({ rule, falseAlarms }) => `${RULE_FACTS[rule].title} (${percent(falseAlarms!.share)})`);
    const text = `The flagged readings may be false alarms: only rules of thumb flag any, namely ${listed(told)}. The percentage is the false-alarm rate in clean samples of ${groupThousands(n)}${side === 'either' ? '' : ' on this side'}.`;
    notes.push({ code: 'cries-wolf', text });
  }
  return notes;
}

/** Tied extremes, coarse resolution, or no spread. */
function tieNotes(result: OutliersResult): Note[] {
  const { extremes, readings, rounded, resolution } = result;
  const notes: Note[] = [];
  const { rows } = studyTest(result);
  const [first] = extremes;
  const alike = first ? readings.reduce((sum, x) => sum + Number(x === first.value), 0) : 0;
  if (alike > 1) {
    const named = rows?.includes(first!.row)
      ? 'All of them are flagged together'
      : 'A test for a single outlier cannot distinguish them';
    const text = `The most extreme reading is not unique: ${alike} readings are ${formatFigure(first!.value, 'reading', resolution)}. ${named}.`;
    notes.push({ code: 'tied-ends', text });
  }
  if (rounded) {
    const text = `Published critical values do not hold at the coarse resolution of ${formatValue(resolution!)}. The clean samples are rounded like the readings, and every p is simulated.`;
    notes.push({ code: 'coarse', text });
  }
  if (readings.length > 0 && result.fences[0] === result.fences[1]) {
    const text =
      'The fences have no width, because at least half of the readings are equal. The modified z uses the mean absolute deviation instead of the median.';
    notes.push({ code: 'no-width', text });
  }
  return notes;
}

/** Readings that were set aside before. */
function secondLookNotes({ setAside }: OutliersResult): Note[] {
  if (setAside === 0) return [];
  const [were, it] = setAside === 1 ? ['reading is', 'it'] : ['readings are', 'them'];
  const text = `The significance level may not hold: ${groupThousands(setAside)} ${were} already set aside. If a test flagged ${it}, restore ${it} and test for several outliers at once with the generalised ESD test.`;
  return [{ code: 'second-look', text }];
}

/** What a careful colleague would add. */
export function outliersNotes(result: OutliersResult): Note[] {
  const { alpha, confidence } = result;
  const { pSimulated, pMethod } = studyTest(result);
  return [
    ...secondLookNotes(result),
    ...levelNote(alpha),
    ...confidenceNote(confidence),
    ...disagreementNotes(result),
    ...approximationNotes(result),
    ...tieNotes(result),
    ...thumbNotes(result),
    // That p is small is said in the finding; that it is not known on which side of the level it lies is not.
    ...(pMethod === 'simulated' ? simulatedNotes(pSimulated, alpha).filter(({ code }) => code !== 'p-at-floor') : []),
  ];
}

/** The reminder before a flagged reading is set aside; null where none is flagged. */
export const causeWords = (result: OutliersResult): string | null =>
  studyTest(result).rows?.length
    ? 'A test result alone does not justify setting a reading aside. Look for the cause first.'
    : null;
