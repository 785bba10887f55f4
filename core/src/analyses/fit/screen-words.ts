import { familyByName } from '../../distributions/registry.js';
import { formatFigure, formatP, groupThousands } from '../../numeric/format.js';
import type { Note, Piece } from '../../road/analysis.js';
import { holmLevel, levelNote } from '../../road/cautions.js';
import { testFacts } from './normality-tests.js';
import type { Ruling, ScreenedPart, ScreenResult } from './screen-result.js';

const partsOf = ({ by }: Pick<ScreenResult, 'by'>, count: number) =>
  by === null ? (count === 1 ? 'column' : 'columns') : `${count === 1 ? 'group' : 'groups'} by ${by}`;
const tested = ({ parts }: Pick<ScreenResult, 'parts'>) => parts.filter(({ reason }) => reason === null);

/** Which of all depart, adjusted for the number of tests. */
export function screenFinding(result: ScreenResult): Piece[] {
  const { parts, alpha } = result;
  const some = tested(result);
  if (some.length === 0) return [{ text: `None of ${parts.length} ${partsOf(result, parts.length)} can be tested.` }];
  const of = `${groupThousands(some.length)} ${partsOf(result, some.length)}`;
  if (some.some(({ p }) => p === null)) return [{ text: `The p-values of ${of} are being simulated.` }];
  const departing = some.filter(({ ruling }) => ruling === 'departs');
  const shared = ` (${holmLevel(alpha, some.length)})`;
  if (departing.length === 0) {
    return [
      { text: 'No evidence against normality', strong: true, code: 'no-evidence' },
      { text: ` in ${some.length === 1 ? '' : 'any of '}${of}${shared}.` },
    ];
  }
  const named = departing.length <= 3 ? `: ${departing.map(({ name }) => name).join(', ')}` : '';
  return [
    { text: `${groupThousands(departing.length)} of ${of} `, strong: true, code: 'evidence' },
    { text: `${departing.length === 1 ? 'departs' : 'depart'} from a normal distribution${named}${shared}.` },
  ];
}

/** What a careful colleague would add. */
export function screenNotes(result: ScreenResult): Note[] {
  const { parts, alpha, replicates } = result;
  const notes: Note[] = [...levelNote(alpha)];
  const some = tested(result);
  const left = parts.length - some.length;
  if (left > 0) {
    const text = `${groupThousands(left)} of ${parts.length} could not be tested; the reason is given in ${left === 1 ? 'its row' : 'each row'}.`;
    notes.push({ code: 'left-out', text });
  }
  // The least p that so many samples can show, times the number of tests.
  const floor = some.length / (replicates + 1);
  if (some.length > 1 && floor >= alpha) {
    const needed = Math.ceil(some.length / alpha);
    const text = `The adjusted p cannot fall below the significance level: with ${groupThousands(replicates)} simulated samples, p is at least ${formatP(1 / (replicates + 1))}. Use at least ${groupThousands(needed)} samples.`;
    notes.push({ code: 'too-few-replicates', text });
  }
  const alone = some.filter(({ p, pHolm }) => p !== null && p < alpha && pHolm !== null && pHolm >= alpha);
  if (alone.length > 0) {
    const text = `${groupThousands(alone.length)} more ${alone.length === 1 ? 'has' : 'have'} p below ${alpha} before adjustment. Of ${some.length} tests, about ${Number((some.length * alpha).toPrecision(2))} would by chance.`;
    notes.push({ code: 'by-themselves', text });
  }
  return notes;
}

const RULINGS: Record<Ruling, string> = {
  departs: 'departs',
  'no-evidence': 'no evidence',
  rounding: 'rounding explains it',
  open: '…',
};

/** A row of the screen as it is shown. */
export interface ScreenRow {
  name: string;
  n: string;
  statistic: string;
  p: string;
  pHolm: string;
  ruling: string;
  best: string;
  /** How many other families are plausible. */
  others: number;
  reason: string | null;
  departs: boolean;
  part: ScreenedPart;
}

/** In the order asked: the least p first, those without a test last; or by name, or by n. */
export function screenRows(result: ScreenResult): ScreenRow[] {
  const { alpha, parts } = result;
  const p = (value: number | null) => (value === null ? '–' : formatP(value, alpha));
  return parts
    .map((part): ScreenRow => ({
      name: part.name,
      n: groupThousands(part.n),
      statistic: part.statistic === null ? '–' : formatFigure(part.statistic, 'statistic'),
      p: p(part.p),
      pHolm: p(part.pHolm),
      ruling: part.ruling === null ? '–' : RULINGS[part.ruling],
      best: part.best === null ? '–' : familyByName(part.best).title,
      others: part.together.length,
      reason: part.reason,
      departs: part.ruling === 'departs',
      part,
    }))
    .sort((a, b) => (a.part.p ?? 2) - (b.part.p ?? 2));
}

/** The screen as a table. */
export function screenTable(result: ScreenResult): (string | number)[][] {
  const { symbol } = testFacts(result.test, 0);
  const heads = ['name', 'n', symbol, 'p', 'adjusted p (Holm)', 'result', 'best by AICc', 'also plausible', 'reason'];
  const rows = screenRows(result).map(({ part, ruling }) => {
    const { name, n, statistic, p, pHolm, best, together, reason } = part;
    return [name, n, statistic ?? '', p ?? '', pHolm ?? '', ruling, best ?? '', together.join(', '), reason ?? ''];
  });
  return [heads, ...rows];
}
