import { formatFigure, formatP, formatValue, groupThousands } from '../../numeric/format.js';
import type { Note, Piece } from '../../road/analysis.js';
import { plural } from '../../numeric/grammar.js';
import { holmLevel, levelNote } from '../../road/cautions.js';

/** One of many columns or groups beside its claim. */
export interface ScreenedClaim {
  name: string;
  n: number;
  unit: string;
  resolution: number | null;
  labels: boolean;
  claimedMean: number | null;
  claimedSd: number | null;
  mean: number | null;
  sd: number | null;
  /** Of labels: how many categories are claimed to be equally frequent. */
  places: number | null;
  statistic: number | null;
  pValue: number | null;
  /** Adjusted for all of them. */
  pHolm: number | null;
  reason: string | null;
}

export interface ClaimScreenResult {
  available: true;
  n: number;
  missing: number;
  setAside: number;
  alpha: number;
  /** The label column, or null where the parts are columns. */
  by: string | null;
  parts: ScreenedClaim[];
  notes: Note[];
}

const partsOf = ({ by }: ClaimScreenResult, count: number) =>
  by === null ? (count === 1 ? 'column' : 'columns') : `${count === 1 ? 'group' : 'groups'} by ${by}`;

/** Which of them differ from their claims. */
export function claimScreenFinding(result: ClaimScreenResult): Piece[] {
  const { parts, alpha } = result;
  const judged = parts.filter(({ pHolm }) => pHolm !== null);
  if (judged.length === 0) return [{ text: `None of ${parts.length} ${partsOf(result, parts.length)} can be tested.` }];
  const of = `${groupThousands(judged.length)} ${partsOf(result, judged.length)}`;
  const shared = `(${holmLevel(alpha, judged.length)})`;
  const off = judged.filter(({ pHolm }) => pHolm! < alpha);
  if (off.length === 0)
    return [
      { text: 'No evidence', strong: true, code: 'no-evidence' },
      {
        text: ` that ${judged.length === 1 ? 'the claim of ' : 'any of '}${of} differs from its claim ${shared}.`,
      },
    ];
  const named = off
    .slice(0, 3)
    .map(({ name }) => name)
    .join(', ');
  const more = off.length > 3 ? ` and ${off.length - 3} more` : '';
  return [
    { text: `${off.length} of ${of} ` },
    { text: off.length === 1 ? 'differs from its claim' : 'differ from their claims', strong: true, code: 'evidence' },
    { text: `: ${named}${more} ${shared}.` },
  ];
}

/** The cautions. */
export function claimScreenNotes({ parts, alpha }: ClaimScreenResult): Note[] {
  const notes = levelNote(alpha);
  const left = parts.filter(({ reason }) => reason !== null).length;
  if (left > 0) {
    const text = `${groupThousands(left)} of ${parts.length} could not be tested; the reason is given in ${left === 1 ? 'its row' : 'each row'}.`;
    notes.push({ code: 'left-out', text });
  }
  return notes;
}

/** A row of many columns as texts. */
export interface ClaimScreenRow {
  name: string;
  part: ScreenedClaim;
  n: string;
  claimed: string;
  found: string;
  p: string;
  pHolm: string;
  reason: string;
}

/** What is claimed, and what was found, in the same order. */
function beside({
  labels,
  places,
  claimedMean,
  claimedSd,
  mean,
  sd,
  resolution,
  unit,
}: ScreenedClaim): [string, string] {
  if (labels)
    return [
      places === null ? '–' : `equal frequency of ${plural(places, 'category', 'categories')}`,
      places === null ? '–' : 'as counted',
    ];
  const claims = [
    ...(claimedMean === null ? [] : [`mean ${formatValue(claimedMean)}`]),
    ...(claimedSd === null ? [] : [`SD ${formatValue(claimedSd)}`]),
  ];
  const found = [
    ...(claimedMean === null || mean === null ? [] : [formatFigure(mean, 'location', resolution)]),
    ...(claimedSd === null || sd === null ? [] : [formatFigure(sd, 'spread', resolution)]),
  ];
  const withUnit = (texts: string[]) => (texts.length ? `${texts.join(', ')}${unit ? ` ${unit}` : ''}` : '–');
  return [withUnit(claims), withUnit(found)];
}

export function claimScreenRows({ parts, alpha }: ClaimScreenResult): ClaimScreenRow[] {
  return parts.map((part): ClaimScreenRow => {
    const [claimed, found] = beside(part);
    const told = (p: number | null) => (p === null ? '–' : formatP(p, alpha));
    return {
      ...{ name: part.name, part, n: groupThousands(part.n), claimed, found },
      ...{ p: told(part.pValue), pHolm: told(part.pHolm), reason: part.reason ?? '' },
    };
  });
}

export function claimScreenTable({ parts, by }: ClaimScreenResult): (string | number)[][] {
  const rows = parts.map((part) => [
    ...[part.name, part.n, part.unit, part.claimedMean ?? '', part.mean ?? '', part.claimedSd ?? '', part.sd ?? ''],
    ...[part.places ?? '', part.statistic ?? '', part.pValue ?? '', part.pHolm ?? '', part.reason ?? ''],
  ]);
  const heads = [
    'n',
    'unit',
    'claimed mean',
    'mean',
    'claimed SD',
    'sd',
    'places',
    'statistic',
    'p',
    'adjusted p (Holm)',
    'reason',
  ];
  return [[by ?? 'column', ...heads], ...rows];
}
