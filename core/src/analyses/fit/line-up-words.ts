import { articleOf } from '../../distributions/names.js';
import { familyByName } from '../../distributions/registry.js';
import { equalsP, groupThousands } from '../../numeric/format.js';
import { DECOYS, PLACES } from '../../probability-plot/line-up.js';
import type { Sample } from '../../readings/sample.js';
import type { Note, Piece } from '../../road/analysis.js';
import { leftOutNotes } from '../../road/cautions.js';
import type { FigureOf } from '../../road/figure.js';
import type { LineUpResult } from './line-up-result.js';

/** "19 samples of a normal distribution". */
function decoys({ law }: Pick<LineUpResult, 'law'>): string {
  const { title } = familyByName(law.family);
  return `${DECOYS} samples of ${articleOf(title)} ${title} distribution`;
}

const viewerWords = (count: number) => (count === 1 ? 'one viewer' : `${count} viewers`);

/** What the picks say; what there is to do before the first. */
export function lineUpFinding(result: LineUpResult): Piece[] {
  const { viewers, counted, right, pValue, alpha, place } = result;
  if (viewers.length === 0) {
    return place === null
      ? [
          { text: `One of these ${PLACES} is of the readings, the others are ${decoys(result)}. ` },
          { text: 'Which one is not like the others?', strong: true, code: 'figure' },
        ]
      : [{ text: 'The readings stand at ' }, { text: `place ${place}`, strong: true, code: 'figure' }, { text: '.' }];
  }
  const last = viewers.at(-1)!;
  const p = equalsP(pValue!, alpha);
  const lead =
    viewers.length > 1 || counted !== 1
      ? ''
      : last.right
        ? ` at place ${last.place}`
        : `: they stood at ${last.place}, place ${last.pick} was picked`;
  if (right === 0) {
    return [
      { text: 'The readings were ' },
      { text: 'not told apart', strong: true, code: 'no-evidence' },
      {
        text: ` from ${decoys(result)}${lead || ` by ${viewerWords(counted)}`}. There is no evidence against it that an eye could see.`,
      },
    ];
  }
  const of = counted === 1 ? '' : ` by ${right} of ${counted} viewers`;
  const verdict =
    pValue! < alpha
      ? `: ${p}, level ${alpha}. The readings depart from it.`
      : `: by chance ${p}, not below the level ${alpha}${counted === 1 ? '. One viewer alone can show no more: let others look' : ''}.`;
  return [
    { text: 'The readings were ' },
    { text: 'picked out', strong: true, code: 'evidence' },
    { text: ` from ${decoys(result)}${of}${lead}${verdict}` },
  ];
}

/** What a careful colleague would add to the picks. */
export function lineUpNotes(
  sample: Sample,
  { viewers, counted, right, pValue, pIndependent, n }: LineUpResult,
): Note[] {
  const notes = leftOutNotes(sample);
  const seen = viewers.filter((viewer) => viewer.seen).length;
  if (seen > 0) {
    const who = viewers.length === 1 ? 'The viewer' : `${seen} of ${viewers.length} viewers`;
    const so =
      seen === viewers.length
        ? 'what is known already is found again, and the pick counts for less'
        : `only the ${viewerWords(counted)} who had not ${counted === 1 ? 'is' : 'are'} counted`;
    notes.push({ code: 'seen', text: `${who} had seen a plot of these readings before: ${so}.` });
  }
  if (counted > 1 && right > 0 && pValue! > pIndependent! * 1.05) {
    const text = `Were the viewers independent of one another, p would be ${equalsP(pIndependent!).replace(/^p = /, '')}; but all look at the same readings, and whoever judges alike is right or wrong together. The greater p allows for that.`;
    notes.push({ code: 'alike', text });
  }
  if (n > 2_000) {
    const text = `Of ${groupThousands(n)} readings the small pictures show the outermost and as many again between them at even distances.`;
    notes.push({ code: 'thinned', text });
  }
  return notes;
}

const chance = (p: number | null, alpha: number) => (p === null ? null : equalsP(p, alpha).replace(/^p = /, ''));

/** The figures of a line-up once somebody has picked. */
export const LINE_UP_FIGURES: readonly FigureOf<LineUpResult>[] = [
  {
    key: 'viewers',
    name: 'viewers counted',
    meaning: 'Who picked without having seen a plot of these readings; all, where everybody had.',
    formula: 'each on a sheet of their own',
    text: ({ viewers, counted }) => (viewers.length === 0 ? null : String(counted)),
  },
  {
    key: 'right',
    name: 'right picks',
    meaning: 'How many of them picked the readings.',
    formula: `by chance one in ${PLACES}`,
    text: ({ viewers, right }) => (viewers.length === 0 ? null : String(right)),
  },
  {
    key: 'pValue',
    name: 'p',
    meaning:
      'The chance of at least so many right picks if the readings come from the distribution and all viewers judge alike.',
    formula: 'beta-binomial with shapes 1/19 and 1',
    use: 'The one to quote: all viewers look at the same readings.',
    text: ({ pValue, alpha }) => chance(pValue, alpha),
  },
  {
    key: 'pIndependent',
    name: 'p, viewers independent',
    meaning: 'The same chance if the picks of the viewers had nothing to do with one another.',
    formula: `binomial with 1/${PLACES}`,
    text: ({ pIndependent, counted, alpha }) => (counted < 2 ? null : chance(pIndependent, alpha)),
  },
];
