import { familyByName } from '../../distributions/registry.js';
import { equalsP, groupThousands } from '../../numeric/format.js';
import { article } from '../../numeric/grammar.js';
import { DECOYS, PLACES } from '../../probability-plot/line-up.js';
import type { Sample } from '../../readings/sample.js';
import type { Note, Piece } from '../../road/analysis.js';
import { leftOutNotes, levelWords } from '../../road/cautions.js';
import type { FigureOf } from '../../road/figure.js';
import type { LineUpResult } from './line-up-result.js';

/** "19 samples of a normal distribution". */
function decoys({ law }: Pick<LineUpResult, 'law'>): string {
  const { title } = familyByName(law.family);
  return `${DECOYS} samples of ${article(title)} distribution`;
}

const viewerWords = (count: number) => (count === 1 ? 'one viewer' : `${count} viewers`);

/** What the picks say; what there is to do before the first. */
export function lineUpFinding(result: LineUpResult): Piece[] {
  const { viewers, counted, right, pValue, alpha, place } = result;
  if (viewers.length === 0) {
    return place === null
      ? [
          { text: `One of these ${PLACES} pictures shows the readings, the others show ${decoys(result)}. ` },
          { text: 'Which one differs from the others?', strong: true, code: 'figure' },
        ]
      : [{ text: 'The readings are at ' }, { text: `position ${place}`, strong: true, code: 'figure' }, { text: '.' }];
  }
  const last = viewers.at(-1)!;
  const p = equalsP(pValue!, alpha);
  const lead =
    viewers.length > 1 || counted !== 1
      ? ''
      : last.right
        ? ` at position ${last.place}`
        : `: they were at position ${last.place}, position ${last.pick} was picked`;
  if (right === 0) {
    return [
      { text: 'The readings were ' },
      { text: 'not distinguished', strong: true, code: 'no-evidence' },
      {
        text: ` from ${decoys(result)}${lead || ` by ${viewerWords(counted)}`}. There is no visible evidence against the distribution.`,
      },
    ];
  }
  const of = counted === 1 ? '' : ` by ${right} of ${counted} viewers`;
  const verdict =
    pValue! < alpha
      ? ` (${p}${levelWords(alpha)}). The readings depart from the distribution.`
      : ` (${p}${levelWords(alpha)}). That is not evidence against the distribution${counted === 1 ? '; with a single viewer it cannot be. Ask more viewers' : ''}.`;
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
        ? 'the pick is weaker evidence'
        : `only ${counted === 1 ? 'the viewer who had not is' : `the ${counted} viewers who had not are`} counted`;
    notes.push({ code: 'seen', text: `${who} had seen a plot of these readings before: ${so}.` });
  }
  if (counted > 1 && right > 0 && pValue! > pIndependent! * 1.05) {
    const text = `The viewers are not independent, because all see the same readings. The reported p allows for that; for independent viewers it would be ${equalsP(pIndependent!).replace(/^p = /, '')}.`;
    notes.push({ code: 'alike', text });
  }
  if (n > 2_000) {
    const text = `The small pictures do not show all ${groupThousands(n)} readings, but the most extreme ones and evenly spaced ones between them.`;
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
    meaning: 'The viewers who had not seen a plot of these readings before; all viewers, if everybody had.',
    formula: 'one line-up per viewer',
    text: ({ viewers, counted }) => (viewers.length === 0 ? null : String(counted)),
  },
  {
    key: 'right',
    name: 'correct picks',
    meaning: 'The number of viewers who picked the readings.',
    formula: `probability 1/${PLACES} by chance`,
    text: ({ viewers, right }) => (viewers.length === 0 ? null : String(right)),
  },
  {
    key: 'pValue',
    name: 'p',
    meaning:
      'The probability of at least this many correct picks if the readings come from the distribution, allowing for viewers who see the same readings.',
    formula: 'beta-binomial distribution with shapes 1/19 and 1',
    use: 'Report this one.',
    text: ({ pValue, alpha }) => chance(pValue, alpha),
  },
  {
    key: 'pIndependent',
    name: 'p, independent viewers',
    meaning: 'The same probability for independent viewers.',
    formula: `binomial distribution with probability 1/${PLACES}`,
    text: ({ pIndependent, counted, alpha }) => (counted < 2 ? null : chance(pIndependent, alpha)),
  },
];
