import { simulatedNotes } from '../../road/simulated-notes.js';
import { articleOf } from '../../distributions/names.js';
import { familyByName } from '../../distributions/registry.js';
import type { FittedTest } from '../../goodness-of-fit/fitted/battery.js';
import { equalsP, formatFigure } from '../../numeric/format.js';
import { holm } from '../../numeric/holm.js';
import type { Sample } from '../../readings/sample.js';
import type { Note, Piece } from '../../road/analysis.js';
import { levelNote, leftOutNotes } from '../../road/cautions.js';
import {
  mainFittedTest,
  type Differs,
  type GoodnessOfFitResult,
  type GoodnessOfFitTest,
} from './goodness-of-fit-result.js';
import { lawWords } from './law-words.js';

export const FITTED_SYMBOLS: Record<FittedTest, string> = {
  'anderson-darling': 'A²',
  'cramer-von-mises': 'W²',
  'kolmogorov-smirnov': 'D',
  'chi-square': 'χ²',
};

/** What the readings differ in from a claim: of centre, spread and shape, what Holm's (1979) steps leave at the level. */
export function differenceWords({ centre, spread, shape }: Differs, alpha: number): string {
  const looks = [
    { words: `their centre lies ${centre.statistic < 0 ? 'lower' : 'higher'}`, p: centre.pValue },
    { words: `their spread is ${formatFigure(spread.ratio, 'statistic')} times as wide`, p: spread.pValue },
    ...(shape ? [{ words: 'their shape is another', p: shape.pValue }] : []),
  ];
  const passed = holm(
    looks.map(({ p }) => p),
    alpha,
  );
  const found = looks.filter((_, i) => passed[i]);
  if (found.length === 0) return 'what they differ in is not told apart.';
  return `${found.map(({ words, p }) => `${words} (${equalsP(p, alpha)})`).join(', ')}.`;
}

/** The finding: never "follows", always the level. */
export function fitFinding(result: GoodnessOfFitResult): Piece[] {
  const { law, claim, alpha, outcome, differs, resolution } = result;
  const test = mainFittedTest(result);
  const { title } = familyByName(law.family);
  const name = claim ? ` the claimed ${title} distribution` : ` ${articleOf(title)} ${title} distribution`;
  const of = `${name} with ${lawWords(result)}`;
  const figures = `${FITTED_SYMBOLS[test.test]}\u00a0=\u00a0${formatFigure(test.statistic!, 'statistic')}`;
  const said = test.pValue === null ? '' : equalsP(test.pValue, alpha);
  switch (outcome) {
    case 'open':
      return [{ text: `${figures} against${of}; its p-value is being simulated.` }];
    case 'no-evidence':
      return [
        { text: 'There is ' },
        { text: 'no evidence against', strong: true, code: 'no-evidence' },
        { text: `${of}: ${figures}, ${said}, level ${alpha}.` },
      ];
    case 'rounding':
      return [
        { text: 'Coarse rounding alone', strong: true, code: 'no-evidence' },
        {
          text: ` can explain the departure from${of}: ${figures}, ${said} as written, but ${equalsP(test.pResolution!.pValue, alpha)} against the same rounded to ${resolution}, level ${alpha}.`,
        },
      ];
    case 'evidence':
      return [
        { text: 'The readings ' },
        { text: 'depart from', strong: true, code: 'evidence' },
        {
          text: `${of}: ${figures}, ${said}, level ${alpha}${differs ? `; ${differenceWords(differs, alpha)}` : '.'}`,
        },
      ];
  }
}

/** What a careful colleague would add to the test. */
export function fitNotes(sample: Sample, test: GoodnessOfFitTest, alpha: number, claim: boolean): Note[] {
  const n = sample.values.length;
  const notes = [...leftOutNotes(sample), ...levelNote(alpha)];
  if (n < 20) {
    const text = `${n} readings can show only gross departures: no evidence against a family is weak comfort.`;
    notes.push({ code: 'small-n', text });
  }
  if (claim) {
    const text =
      'A claim is only tested by readings that it was not set from: from its own readings hardly any looks wrong.';
    notes.push({ code: 'claim', text });
  }
  // Beside an exact p the simulated one is only a check.
  return test.pExact === null ? [...notes, ...simulatedNotes(test.pSimulated, alpha)] : notes;
}
