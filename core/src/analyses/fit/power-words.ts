import { COARSE } from '../../goodness-of-fit/rounding.js';
import { familyByName } from '../../distributions/registry.js';
import type { Noticed } from '../../goodness-of-fit/power.js';
import { centralMoments } from '../../numeric/sums.js';
import { formatPercentOf, groupThousands } from '../../numeric/format.js';
import { article, plural, sentenceCase } from '../../numeric/grammar.js';
import type { Sample } from '../../readings/sample.js';
import type { Note, Piece } from '../../road/analysis.js';
import { levelNote, unreadableNotes } from '../../road/cautions.js';
import type { FoundFigure } from '../../road/figure.js';
import { DEPARTURES, departureOf } from './power-departures.js';
import { GREATEST_SIZE, type FamiliesPower, type NormalPower, type PowerResult } from './power-result.js';

/** A simulated power as a whole percentage, bounded where it is near 0 or 1. */
export function simulatedPowerWords(share: number): string {
  if (share < 0.005) return 'less than 1\u00a0% power';
  return share > 0.995 ? 'more than 99\u00a0% power' : `about ${Math.round(share * 100)}\u00a0% power`;
}

/** An n that was found by simulation: two digits are all that is known of it. */
export const sizeWords = (n: number): string => groupThousands(Number(Math.ceil(n).toPrecision(2)));

function neededWords(needed: number | null, greatest: number, n: number): string {
  if (needed === null) return `For 80\u00a0% power, more than ${groupThousands(greatest)} readings are needed`;
  return needed <= n
    ? `For 80\u00a0% power, about ${sizeWords(needed)} readings are enough`
    : `For 80\u00a0% power, about ${sizeWords(needed)} readings are needed`;
}

function normalFinding({ n, asked, alpha }: NormalPower): Piece[] {
  const { kind, value, at, over, needed } = asked;
  const what = departureOf(kind).words(value);
  const moment = departureOf(kind).moment(value);
  if (!at) return [{ text: `The power of ${plural(n, 'reading')} against ${what} is being simulated.` }];
  const lead = `With ${plural(n, 'reading')} and significance level ${alpha}, ${what}${moment ? ` (${moment})` : ''} is detected with `;
  const power: Piece = { text: simulatedPowerWords(at.noticed), strong: true, code: 'power' };
  if (over.length === 0 || (needed === null && over.at(-1)!.n < GREATEST_SIZE))
    return [{ text: lead }, power, { text: '.' }];
  return [{ text: lead }, power, { text: `. ${neededWords(needed, over.at(-1)!.n, n)}.` }];
}

const lawTitle = (family: string) => {
  return article(familyByName(family).title);
};

function familiesFinding({ n, law, curves, alpha }: FamiliesPower): Piece[] {
  const own = lawTitle(law.family);
  const [nearest] = curves;
  if (!nearest)
    return [
      {
        text: `The power of ${plural(n, 'reading')} to distinguish other distributions from ${own} is being simulated.`,
      },
    ];
  const at = nearest.points.find((point) => point.n === n)!;
  return [
    {
      text: `With ${plural(n, 'reading')} and significance level ${alpha}, ${lawTitle(nearest.family)} distribution, the nearest alternative to ${own} one, is detected with `,
    },
    { text: simulatedPowerWords(at.noticed), strong: true, code: 'power' },
    { text: `. ${neededWords(nearest.needed, nearest.points.at(-1)!.n, n)}.` },
  ];
}

/** The power of the test at this sample size. */
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
    const text = `The power is limited by the resolution of ${resolution}. The simulated samples are rounded like the readings; a finer resolution would detect more.`;
    notes.push({ code: 'rounded', text });
  }
  const text =
    of === 'families'
      ? 'The alternatives are the best-fitting other distributions, which are the hardest to distinguish.'
      : 'The power depends on the number of readings and the resolution, not on the values.';
  notes.push({ code: of === 'families' ? 'nearest' : 'of-the-size', text });
  return notes;
}

const percent = (share: number) => formatPercentOf(share, undefined, 2);
const intervalWords = ({ interval: [low, high] }: Noticed) => `${percent(low)} – ${percent(high)}`;

/** The heads of the figures of power. */
export const POWER_COLUMNS = ['power', '95 % interval'] as const;

/** A row a departure at its usual size, or an other family at this n. */
export function powerFigures(result: PowerResult): FoundFigure[] {
  if (result.of === 'normal') {
    return result.curves.map(({ kind, points }) => {
      const { usual, title, words, moment } = departureOf(kind);
      const at = points.find(({ value }) => value === usual)!;
      return {
        ...{ key: kind, name: sentenceCase(title), note: '', formula: moment(usual) },
        meaning: `The power against ${words(usual)} with ${plural(result.n, 'reading')}.`,
        texts: [percent(at.noticed), intervalWords(at)],
      };
    });
  }
  return result.curves.map(({ family, points, needed }) => {
    const at = points.find(({ n }) => n === result.n)!;
    return {
      ...{ key: family, name: sentenceCase(familyByName(family).title), note: '', formula: '' },
      meaning: `The power against this distribution, as fitted to the readings. ${neededWords(needed, points.at(-1)!.n, result.n)}.`,
      texts: [percent(at.noticed), intervalWords(at)],
    };
  });
}

/** Every share simulated, as a table. */
export function powerTable(result: PowerResult): (string | number)[][] {
  const row = ({ noticed, replicates, interval }: Noticed) => [noticed, interval[0], interval[1], replicates];
  const heads = ['power', 'lower', 'upper', 'samples'];
  if (result.of === 'families') {
    const rows = result.curves.flatMap(({ family, points }) => points.map((point) => [family, point.n, ...row(point)]));
    return [['distribution', 'n', ...heads], ...rows];
  }
  const { n, curves, asked } = result;
  const rows = curves.flatMap(({ kind, points }) => points.map((point) => [kind, point.value, n, ...row(point)]));
  const over = asked.over.map((point) => [asked.kind, asked.value, point.n, ...row(point)]);
  return [['departure', 'size', 'n', ...heads], ...rows, ...over];
}

/** The title of a departure, and what its axis is called. */
export const departureFacts = DEPARTURES.map(({ kind, title, axis, values, words, moment }) => ({
  ...{ kind, title, axis, values },
  said: (value: number) => `${words(value)}${moment(value) ? ` (${moment(value)})` : ''}`,
}));
