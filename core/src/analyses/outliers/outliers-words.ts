import { simulatedNotes } from '../../road/simulated-notes.js';
import { familyByName } from '../../distributions/registry.js';
import { articleOf } from '../../distributions/names.js';
import { equalsP, formatFigure, formatP, formatPercentOf, formatValue, groupThousands } from '../../numeric/format.js';
import { greatestScore } from '../../outliers/grubbs.js';
import { hasLevel, type Rule } from '../../outliers/rules.js';
import { Z_LIMIT } from '../../outliers/screens.js';
import type { Note, Piece } from '../../road/analysis.js';
import { confidenceNote, levelNote } from '../../road/cautions.js';
import { studyTest, type FoundShare, type OutliersResult, type OutlierTest } from './outliers-result.js';
import { RULE_FACTS, SIDE_WORDS } from './rule-facts.js';
import { listed } from '../../road/listed.js';

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

const sampleWords = ({ family, n }: OutliersResult) =>
  `for ${articleOf(familyByName(family).title)} ${familyByName(family).title} sample of ${groupThousands(n)}`;

/** "the generalised ESD of up to 4, level 0.05, either side, p = 0.034". */
function ruleWords(
  { alpha, side, most }: OutliersResult,
  { rule, pValue, pFormula, pMethod, pSimulated, falseAlarms }: OutlierTest,
) {
  const { title } = RULE_FACTS[rule];
  const named = rule === 'generalized-esd' ? `${title} of up to ${most}` : title;
  if (!hasLevel(rule)) {
    const alarms = falseAlarms ? `; ${alarmWords(falseAlarms)}` : '';
    return `${named}, ${SIDE_WORDS[side]}, a rule of thumb without a level${alarms}`;
  }
  const bound = pMethod === 'formula' && pFormula && !pFormula.exact ? '≤' : '=';
  const p =
    pValue === null
      ? ''
      : `, ${pValue === 1 && bound === '≤' ? 'p ≤ 1' : equalsP(pValue, alpha, bound).replaceAll(' ', '\u00a0')}`;
  // Dixon’s p has no formula: it comes with how well it is known.
  const between =
    rule === 'dixon' && pMethod === 'simulated' && pSimulated
      ? ` (95\u00a0% interval ${pSimulated.pInterval.map((end) => formatP(end)).join(' to ')})`
      : '';
  return `${named}, level ${formatValue(alpha)}, ${SIDE_WORDS[side]}${p}${between}`;
}

const alarmWords = ({ share }: FoundShare) =>
  share === 0
    ? 'no clean sample of this size had such a reading'
    : `${percent(share)} of clean samples of this size have such a reading`;

/** What one further reading would have to be for the rule to flag it. */
function reachWords({ resolution }: OutliersResult, { lines }: OutlierTest): string {
  const told = (value: number) => formatFigure(value, 'location', resolution);
  const parts = [
    ...(lines && lines.lower !== null ? [`below ${told(lines.lower)}`] : []),
    ...(lines && lines.upper !== null ? [`above ${told(lines.upper)}`] : []),
  ];
  return parts.length ? ` One further reading ${parts.join(' or ')} would be flagged.` : '';
}

/** The same rule for a normal sample, where another family is asked about. */
function normalWords(result: OutliersResult, rows: readonly number[]): string {
  const other = result.forNormal?.rows;
  if (!other) return '';
  const same = other.length === rows.length && other.every((row) => rows.includes(row));
  if (same) return rows.length === 0 ? ' For a normal sample none either.' : ' For a normal sample as well.';
  return other.length === 0
    ? ' For a normal sample the same rule names none.'
    : ` For a normal sample the same rule names ${rowWords(result, other)}.`;
}

/** What the rule of the study says, and how far out it would have taken. */
export function outliersFinding(result: OutliersResult): Piece[] {
  const test = studyTest(result);
  const { rows, rule } = test;
  if (test.reason !== null) return [{ text: test.reason }];
  if (rows === null) return [{ text: `Clean samples for ${RULE_FACTS[rule].title} are being simulated.` }];
  const how = `: ${ruleWords(result, test)}.`;
  const normal = normalWords(result, rows);
  const reach = reachWords(result, test);
  if (rows.length === 0) {
    return [
      { text: 'No reading lies too far out', strong: true, code: 'no-evidence' },
      { text: ` ${sampleWords(result)}${how}` },
      ...(reach === '' ? [] : [{ text: reach, code: 'threshold' } as const]),
      { text: normal },
    ];
  }
  const words = rowWords(result, rows);
  return [
    {
      text: `${words[0]!.toUpperCase()}${words.slice(1)} ${rows.length === 1 ? 'lies' : 'lie'} too far out`,
      strong: true,
      code: 'evidence',
    },
    { text: ` ${sampleWords(result)}${how}${normal}` },
  ];
}

const testOf = ({ tests }: OutliersResult, rule: Rule) => tests.find((test) => test.rule === rule)!;
const namesOf = (result: OutliersResult, rule: Rule) => testOf(result, rule).rows ?? [];

/** Why rules disagree: one far reading hides another, or draws an innocent one along. */
function disagreementNotes(result: OutliersResult): Note[] {
  const notes: Note[] = [];
  const [one, several, pair] = (['grubbs', 'generalized-esd', 'pair-same-end'] as const).map((rule) =>
    namesOf(result, rule),
  ) as [number[], number[], number[]];
  if (several.length > one.length && several.length > 1) {
    const text = `Masking: Grubbs’ test names ${one.length === 0 ? 'none' : `${rowWords(result, one)} alone`}, for far readings widen the sd that all are measured in. The generalised ESD takes them away one by one and names ${several.length}.`;
    notes.push({ code: 'masking', text });
  } else if (several.length < 2 && pair.length > 1 && one.length === 0) {
    const text = `Masking: two together at one end are unlikely (${rowWords(result, pair)}), though neither is named alone. Allow the generalised ESD at least 2.`;
    notes.push({ code: 'masking', text });
  }
  if (several.length === 1 && pair.length > 1) {
    const drawn = pair.filter((row) => !several.includes(row));
    const text = `Swamping: the pair test names ${rowWords(result, pair)}; without row ${several[0]} the other, ${rowWords(result, drawn)}, is not too far out.`;
    if (drawn.length > 0) notes.push({ code: 'swamping', text });
  }
  return notes;
}

/** Steps above their published values that are not unlikely enough together. */
function approximationNotes(result: OutliersResult): Note[] {
  const { count = 0, rows, pSimulated } = testOf(result, 'generalized-esd');
  if (count === 0 || rows === null || rows.length > 0 || !pSimulated) return [];
  const text = `Rosner’s values alone would name ${count}; but steps so large come in ${percent(pSimulated.pValue)} of clean samples of ${groupThousands(result.n)}, and the level is ${percent(result.alpha)}.`;
  return [{ code: 'approximation', text }];
}

/** What rules of thumb cannot say of so many readings, and how often they cry wolf. */
function thumbNotes(result: OutliersResult): Note[] {
  const { n, side, tests } = result;
  const notes: Note[] = [];
  if (greatestScore(n) <= Z_LIMIT) {
    const most = formatFigure(greatestScore(n), 'statistic');
    const text = `No reading of ${n} can have |z| above ${most}: the rule of ${Z_LIMIT} can never name one.`;
    notes.push({ code: 'z-limit', text });
  }
  const strict = tests.some(({ rule, rows }) => hasLevel(rule) && rows !== null && rows.length > 0);
  const loud = tests.filter(({ rule, rows, falseAlarms }) => !hasLevel(rule) && rows?.length && falseAlarms);
  if (!strict && loud.length > 0) {
    const told = loud.map(({ rule, falseAlarms }) => `${RULE_FACTS[rule].title} (${percent(falseAlarms!.share)})`);
    const text = `Only rules of thumb name a reading: ${told.join(', ')}. In brackets how often they name one of a clean sample of ${groupThousands(n)}${side === 'either' ? '' : ' on this side'}.`;
    notes.push({ code: 'cries-wolf', text });
  }
  return notes;
}

/** Readings equally far out, or such as hardly differ at all. */
function tieNotes(result: OutliersResult): Note[] {
  const { extremes, readings, rounded, resolution } = result;
  const notes: Note[] = [];
  const { rows } = studyTest(result);
  const [first] = extremes;
  const alike = first ? readings.reduce((sum, x) => sum + Number(x === first.value), 0) : 0;
  if (alike > 1) {
    const named = rows?.includes(first!.row)
      ? 'all of them are named together'
      : 'a rule for one cannot tell them apart';
    const text = `${alike} readings are ${formatFigure(first!.value, 'reading', resolution)}, equally far out: ${named}.`;
    notes.push({ code: 'tied-ends', text });
  }
  if (rounded) {
    const text = `The steps of ${formatValue(resolution!)} are coarse: the clean samples are rounded as the readings are, and every p is simulated.`;
    notes.push({ code: 'coarse', text });
  }
  if (readings.length > 0 && result.fences[0] === result.fences[1]) {
    const text =
      'At least half of the readings are alike: fences have no width, and the modified z takes the mean distance in place of the median one.';
    notes.push({ code: 'no-width', text });
  }
  return notes;
}

/** Readings that were set aside before. */
function secondLookNotes({ setAside, n }: OutliersResult): Note[] {
  if (setAside === 0) return [];
  const [were, one, them] =
    setAside === 1 ? ['1 reading is', 'it', 'it'] : [`${groupThousands(setAside)} readings are`, 'they', 'them'];
  const text = `Second look: ${were} set aside already. If ${one} went because a rule named ${them}, the level no longer holds for the ${groupThousands(n)} that are left: put ${them} back and ask the generalised ESD for several at once.`;
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

/** What has to be asked before a named reading is set aside; null where none is named. */
export const causeWords = (result: OutliersResult): string | null =>
  studyTest(result).rows?.length ? 'A test alone is no reason to set a reading aside: look for its cause first.' : null;
