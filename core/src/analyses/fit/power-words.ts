import { COARSE } from '../../goodness-of-fit/rounding.js';
import { articleOf } from '../../distributions/names.js';
import { familyByName } from '../../distributions/registry.js';
import type { Noticed } from '../../goodness-of-fit/power.js';
import { centralMoments } from '../../numeric/sums.js';
import { formatPercentOf, groupThousands } from '../../numeric/format.js';
import type { Sample } from '../../readings/sample.js';
import type { Note, Piece } from '../../road/analysis.js';
import { levelNote, unreadableNotes } from '../../road/cautions.js';
import type { FoundFigure } from '../../road/figure.js';
import { DEPARTURES, departureOf } from './power-departures.js';
import { GREATEST_SIZE, type FamiliesPower, type NormalPower, type PowerResult } from './power-result.js';

/** A chance as cases one can picture: "4 times in 10". */
export function timesWords(share: number): string {
  if (share < 0.005) return 'hardly ever';
  if (share > 0.995) return 'nearly always';
  const tenths = Math.round(share * 10);
  if (tenths === 0 || tenths === 10) return `${Math.round(share * 100)} times in 100`;
  return tenths === 1 ? 'once in 10' : `${tenths} times in 10`;
}

/** An n that was found by simulation: two digits are all that is known of it. */
export const sizeWords = (n: number): string => groupThousands(Number(Math.ceil(n).toPrecision(2)));

function neededWords(needed: number | null, greatest: number, n: number): string {
  if (needed === null)
    return `more than ${groupThousands(greatest)} readings would be needed to notice it 8 times in 10`;
  return needed <= n
    ? `about ${sizeWords(needed)} are enough to notice it 8 times in 10`
    : `about ${sizeWords(needed)} readings would notice it 8 times in 10`;
}

const capital = (words: string) => words[0]!.toUpperCase() + words.slice(1);

function normalFinding({ n, asked, alpha }: NormalPower): Piece[] {
  const { kind, value, at, over, needed } = asked;
  const what = departureOf(kind).words(value);
  const moment = departureOf(kind).moment(value);
  if (!at) return [{ text: `What ${groupThousands(n)} readings notice of ${what} is being simulated.` }];
  const lead = `With ${groupThousands(n)} readings and level ${alpha}, ${what}${moment ? ` (${moment})` : ''} would go `;
  const unnoticed: Piece = { text: `unnoticed ${timesWords(1 - at.noticed)}`, strong: true, code: 'power' };
  if (over.length === 0 || (needed === null && over.at(-1)!.n < GREATEST_SIZE))
    return [{ text: lead }, unnoticed, { text: '.' }];
  return [{ text: lead }, unnoticed, { text: `; ${neededWords(needed, over.at(-1)!.n, n)}.` }];
}

const lawTitle = (family: string) => {
  const { title } = familyByName(family);
  return `${articleOf(title)} ${title}`;
};

function familiesFinding({ n, law, curves, alpha }: FamiliesPower): Piece[] {
  const own = lawTitle(law.family);
  const [nearest] = curves;
  if (!nearest) return [{ text: `What ${groupThousands(n)} readings notice against ${own} is being simulated.` }];
  const at = nearest.points.find((point) => point.n === n)!;
  return [
    {
      text: `Were the readings from ${lawTitle(nearest.family)} instead of ${own}, the nearest other, ${groupThousands(n)} of them would leave it `,
    },
    { text: `unnoticed ${timesWords(1 - at.noticed)}`, strong: true, code: 'power' },
    { text: ` at level ${alpha}; ${neededWords(nearest.needed, nearest.points.at(-1)!.n, n)}.` },
  ];
}

/** What a sample of this size could have missed. */
export const powerFinding = (result: PowerResult): Piece[] =>
  result.of === 'normal' ? normalFinding(result) : familiesFinding(result);

function spreadOf({ values }: Sample): number {
  const { n, s2 } = centralMoments(values);
  return n > 1 ? Math.sqrt(s2 / (n - 1)) : 0;
}

/** What a careful colleague would add. */
export function powerNotes(sample: Sample, result: PowerResult): Note[] {
  const notes = [...unreadableNotes(sample), ...levelNote(result.alpha)];
  const { resolution, of } = result;
  if (of === 'normal' && resolution !== null && spreadOf(sample) < COARSE * resolution) {
    const text = `The simulated samples are rounded to steps of ${resolution}, with the spread of these readings, and the test allows for the rounding: a finer instrument would detect more.`;
    notes.push({ code: 'rounded', text });
  }
  const text =
    of === 'families'
      ? 'The others are those that describe these very readings best: the hardest to tell apart.'
      : 'This depends on the number of readings and their steps, not on their values.';
  notes.push({ code: of === 'families' ? 'nearest' : 'of-the-size', text });
  return notes;
}

const percent = (share: number) => formatPercentOf(share, undefined, 2);
const intervalWords = ({ interval: [low, high] }: Noticed) => `${percent(low)} – ${percent(high)}`;

/** The heads of the figures of power. */
export const POWER_COLUMNS = ['noticed', '95 % interval'] as const;

/** A row a departure at its usual size, or an other family at this n. */
export function powerFigures(result: PowerResult): FoundFigure[] {
  if (result.of === 'normal') {
    return result.curves.map(({ kind, points }) => {
      const { usual, title, words, moment } = departureOf(kind);
      const at = points.find(({ value }) => value === usual)!;
      return {
        ...{ key: kind, name: capital(title), note: '', formula: moment(usual) },
        meaning: `How often ${words(usual)} would be noticed with ${groupThousands(result.n)} readings.`,
        texts: [percent(at.noticed), intervalWords(at)],
      };
    });
  }
  return result.curves.map(({ family, points, needed }) => {
    const at = points.find(({ n }) => n === result.n)!;
    return {
      ...{ key: family, name: capital(familyByName(family).title), note: '', formula: '' },
      meaning: `How often this distribution, as fitted to the readings, would be noticed: ${neededWords(needed, points.at(-1)!.n, result.n)}.`,
      texts: [percent(at.noticed), intervalWords(at)],
    };
  });
}

/** Every share simulated, as a table. */
export function powerTable(result: PowerResult): (string | number)[][] {
  const row = ({ noticed, replicates, interval }: Noticed) => [noticed, interval[0], interval[1], replicates];
  const heads = ['noticed', 'lower', 'upper', 'samples'];
  if (result.of === 'families') {
    const rows = result.curves.flatMap(({ family, points }) => points.map((point) => [family, point.n, ...row(point)]));
    return [['family', 'n', ...heads], ...rows];
  }
  const { n, curves, asked } = result;
  const rows = curves.flatMap(({ kind, points }) => points.map((point) => [kind, point.value, n, ...row(point)]));
  const over = asked.over.map((point) => [asked.kind, asked.value, point.n, ...row(point)]);
  return [['departure', 'how far', 'n', ...heads], ...rows, ...over];
}

/** The title of a departure, and what its axis is called. */
export const departureFacts = DEPARTURES.map(({ kind, title, axis, values, words, moment }) => ({
  ...{ kind, title, axis, values },
  said: (value: number) => `${words(value)}${moment(value) ? ` (${moment(value)})` : ''}`,
}));
