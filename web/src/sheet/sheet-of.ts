import {
  decisionWords,
  type Checked,
  QUESTION_WORDS,
  type Evidence,
  type MarkedReading,
  type Study,
  type Verdict,
} from '@verdict/contract';
import { analysisById } from '@verdict/core/analyses';
import { groupThousands } from '@verdict/core/format';
import type { Sample } from '@verdict/core/readings';
import { cautionsWithAnswers } from './pieces.js';
import { moment, type Sheet, type SheetPiece, type SheetTable } from './sheet.js';

/** All that a sheet is made of. */
export interface SheetSource {
  study: Study;
  /** The verdict that stands. */
  standing: Verdict | null;
  onSheet: readonly Evidence[];
  leftOut: readonly Evidence[];
  stale: ReadonlySet<string>;
  sample: Sample | null;
  /** The text of a cell. */
  cellOf: (column: string, row: number) => string;
  weighed: string;
  notSeen: string;
  /** What checking the record found; null while it is being checked. */
  checked: Checked | null;
  /** The rows of the appendix, or null. */
  appendix: SheetTable | null;
}

/** So much of a fingerprint tells it from the others of a sheet; they stand in full at its end. */
const SHORT = 12;

const count = (n: number, one: string, many = `${one}s`) => `${groupThousands(n)} ${n === 1 ? one : many}`;

function nameOf({ study }: SheetSource, { analysis, column, request }: Evidence): string {
  const { name } = analysisById(analysis);
  if (column === null) return name;
  return `${name} of ${study.columns.find(({ id }) => id === column)?.name ?? String(request.column)}`;
}

function provenanceOf({
  analysis,
  version,
  appVersion,
  seed,
  column,
  revision,
  fingerprint,
  who,
  at,
  recomputed,
}: Evidence) {
  const data =
    column === null ? 'no data needed' : `readings at change ${revision}, fingerprint ${fingerprint.slice(0, SHORT)}…`;
  const again = recomputed
    ? recomputed.same
      ? `recomputed ${moment(recomputed.at)}: the same, bit for bit`
      : `recomputed ${moment(recomputed.at)}: the result differs`
    : 'not yet recomputed';
  const by = `${analysis} version ${version}, Verdict ${appVersion}${seed === null ? '' : `, seed ${seed}`}`;
  return `${by}; ${data}. Kept by ${who}, ${moment(at)}; ${again}.`;
}

function pieceOf(source: SheetSource, item: Evidence): SheetPiece {
  const { revision } = item;
  return {
    id: item.id,
    heading: nameOf(source, item),
    leads: item.leads,
    stale: source.stale.has(item.id)
      ? `The data changed since change ${revision}; the result refers to the earlier data.`
      : '',
    finding: item.finding,
    method: item.method,
    cautions: cautionsWithAnswers(item).map(({ text, answer }) => ({
      text,
      answer: answer ? `${answer.words} (${answer.who}, ${moment(answer.at)})` : '',
    })),
    note: item.note,
    provenance: provenanceOf(item),
  };
}

function headlineOf(source: SheetSource): Sheet['headline'] {
  const at = source.onSheet.findIndex(({ leads }) => leads);
  const item = source.onSheet[at];
  return item ? { finding: item.finding, of: `${at + 1} ${nameOf(source, item)}` } : null;
}

/** The subject in a line or two: how many readings, of what, at which level, within which limits. */
function readingsOf({ study, sample }: SheetSource): string[] {
  const column = study.columns.find(({ id }) => id === study.subject);
  if (!column || !sample) return ['No readings yet.'];
  const left = [
    [sample.missing, 'missing'],
    [sample.unreadable, 'not a number'],
    [sample.beyondLimit, 'censored'],
    [sample.setAside, 'set aside'],
  ] as const;
  const others = left.filter(([n]) => n > 0).map(([n, what]) => `${groupThousands(n)} ${what}`);
  const named = column.unit ? `${column.name}, ${column.unit}` : column.name;
  const limits = [
    column.lowerLimit === null ? '' : `lower limit ${column.lowerLimit}`,
    column.target === null ? '' : `target ${column.target}`,
    column.upperLimit === null ? '' : `upper limit ${column.upperLimit}`,
    sample.resolution === null ? '' : `resolution ${sample.resolution}`,
  ].filter(Boolean);
  const used = `${named}: ${count(sample.values.length, 'reading')} used, ${others.join(', ') || 'none set aside'}. Significance level ${study.alpha}.`;
  return limits.length
    ? [used, `${limits.join(', ')}${column.unit ? ` (${column.unit})` : ''}.`.replace(/^./, (c) => c.toUpperCase())]
    : [used];
}

/** Readings of the subject that were marked, each in a line. */
function marked({ study, cellOf }: SheetSource, readings: readonly MarkedReading[]): string[] {
  return readings
    .filter(({ column }) => column === study.subject)
    .map(({ column, row, reason, who, at }) => `row ${row}, ${cellOf(column, row)}: ${reason} (${who}, ${moment(at)})`);
}

const earlierWords = ({ decision, family, reason, who, at, reopened }: Verdict) =>
  `${decisionWords(decision, family)} (${who}, ${moment(at)}: ${reason})${reopened ? `; reopened by ${reopened.who}, ${moment(reopened.at)}: ${reopened.reason}` : ''}.`;

/** How an auditor has every number again, from the study file or from the readings alone. */
/** The end of the chain, by which a printed sheet is compared with the record; what it does not vouch for. */
function recordOf({ checked }: SheetSource): string[] {
  if (!checked) return ['The record is being checked.'];
  const { entries, head, earlier, notVerified } = checked;
  if (notVerified) return [`Not verified. The study does not agree with its record: ${notVerified}`];
  if (!head) return ['The record has no entries yet.'];
  const before = earlier ? ` ${count(earlier, 'change')} recorded before the chain began cannot be verified.` : '';
  return [`Record verified: ${count(entries, 'entry', 'entries')}, head ${head}.${before}`];
}

function recomputeOf(source: SheetSource): string[] {
  const { study, onSheet } = source;
  const said = [
    `Study ${study.id}, at change ${study.revision}. In Verdict, “Recompute” calculates each piece of evidence again and compares every bit of its numbers.`,
    'On another computer, open the study file in Verdict, or run the command line on the readings (CSV) with the request of a piece as its options. The same request, seed and readings give the same bits in every JavaScript engine. A fingerprint is the SHA-256 of the readings used (little-endian doubles in row order).',
  ];
  const used = new Map(onSheet.filter(({ column }) => column !== null).map((item) => [item.fingerprint, item]));
  const fingerprints = [...used].map(
    ([fingerprint, { column, request, revision }]) =>
      `Readings of ${study.columns.find(({ id }) => id === column)?.name ?? String(request.column)} at change ${revision}: fingerprint ${fingerprint}.`,
  );
  return [...recordOf(source), ...(onSheet.length ? [...said, ...fingerprints] : said.slice(0, 1))];
}

/** The sheet of a study: everything that is needed to follow the decision without the page. */
export function sheetOf(source: SheetSource): Sheet {
  const { study, standing, onSheet, leftOut, weighed, notSeen, appendix } = source;
  const replaced = new Set([...onSheet, ...leftOut].map(({ replaces }) => replaces));
  const aside = marked(source, study.setAside);
  const asideRows = new Set(study.setAside.map(({ column, row }) => `${column}/${row}`));
  const decision = standing && {
    words: decisionWords(standing.decision, standing.family),
    ...{ reason: standing.reason, leftOpen: standing.leftOpen },
    ...{ who: standing.who, at: standing.at, revision: standing.revision },
  };
  return {
    title: study.name || 'untitled study',
    kicker: standing ? 'Verdict' : 'Verdict, not decided yet',
    notVerified: source.checked?.notVerified ?? '',
    question: study.question || (study.asks ? QUESTION_WORDS[study.asks] : 'No question was written down.'),
    decision,
    headline: headlineOf(source),
    readings: readingsOf(source),
    aside,
    // Those that were set aside since are told among these.
    leftIn: marked(
      source,
      study.leftIn.filter(({ column, row }) => !asideRows.has(`${column}/${row}`)),
    ),
    pieces: onSheet.map((item) => pieceOf(source, item)),
    leftOut: leftOut.map(
      (item) =>
        `${nameOf(source, item)}${replaced.has(item.id) ? ', run again since' : ''} (${item.who}, ${moment(item.at)})`,
    ),
    weighed: [weighed, notSeen].filter(Boolean),
    earlier: study.verdicts.filter((verdict) => verdict !== standing).map(earlierWords),
    recompute: recomputeOf(source),
    appendix,
  };
}
