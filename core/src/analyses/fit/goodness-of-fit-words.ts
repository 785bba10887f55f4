import { simulatedNotes } from '../../road/simulated-notes.js';
import { familyByName } from '../../distributions/registry.js';
import type { FittedTest } from '../../goodness-of-fit/fitted/battery.js';
import { equalsP, formatFigure } from '../../numeric/format.js';
import { article, listed, plural, sentenceCase } from '../../numeric/grammar.js';
import { holm } from '../../numeric/holm.js';
import type { Sample } from '../../readings/sample.js';
import type { Note, Piece } from '../../road/analysis.js';
import { levelNote, leftOutNotes, levelWords } from '../../road/cautions.js';
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

/** Which of centre, spread and shape differ from a claim, after Holm's (1979) adjustment. */
export function differenceWords({ centre, spread, shape }: Differs, alpha: number): string {
  const looks = [
    { words: `the centre is ${centre.statistic < 0 ? 'lower' : 'higher'}`, p: centre.pValue },
    { words: `the spread is ${formatFigure(spread.ratio, 'statistic')} times the claimed one`, p: spread.pValue },
    ...(shape ? [{ words: 'the shape differs', p: shape.pValue }] : []),
  ];
  const passed = holm(
    looks.map(({ p }) => p),
    alpha,
  );
  const found = looks.filter((_, i) => passed[i]);
  if (found.length === 0) return 'It is not clear whether centre, spread or shape differ.';
  return `${sentenceCase(listed(found.map(({ words, p }) => `${words} (${equalsP(p, alpha)})`)))}.`;
}

/** The answer, then the numbers: never "follows". */
export function fitFinding(result: GoodnessOfFitResult): Piece[] {
  const { law, claim, alpha, outcome, differs, resolution } = result;
  const test = mainFittedTest(result);
  const { title } = familyByName(law.family);
  const name = claim ? `the claimed ${title} distribution` : `${article(title)} distribution`;
  const parameters = ` ${claim ? 'Claimed' : 'Estimated'}: ${lawWords(result)}.`;
  const figures = `${FITTED_SYMBOLS[test.test]}\u00a0=\u00a0${formatFigure(test.statistic!, 'statistic')}`;
  const said = test.pValue === null ? '' : equalsP(test.pValue, alpha);
  switch (outcome) {
    case 'open':
      return [{ text: `Testing ${name}: ${figures}, p is being simulated.${parameters}` }];
    case 'no-evidence':
      return [
        { text: 'No evidence', strong: true, code: 'no-evidence' },
        { text: ` against ${name} (${figures}, ${said}${levelWords(alpha)}).${parameters}` },
      ];
    case 'rounding':
      return [
        { text: 'Rounding alone explains the departure', strong: true, code: 'no-evidence' },
        {
          text: ` from ${name}: ${figures}, ${said}; with rounding to ${resolution} allowed for, ${equalsP(test.pResolution!.pValue, alpha)}${levelWords(alpha)}.${parameters}`,
        },
      ];
    case 'evidence':
      return [
        { text: `The readings depart from ${name}`, strong: true, code: 'evidence' },
        {
          text: ` (${figures}, ${said}${levelWords(alpha)}).${differs ? ` ${differenceWords(differs, alpha)}` : ''}${parameters}`,
        },
      ];
  }
}

/** What a careful colleague would add to the test. */
export function fitNotes(sample: Sample, test: GoodnessOfFitTest, alpha: number, claim: boolean): Note[] {
  const n = sample.values.length;
  const notes = [...leftOutNotes(sample), ...levelNote(alpha)];
  if (n < 20) {
    const text = `With ${plural(n, 'reading')}, only gross departures are detected. “No evidence” says little here.`;
    notes.push({ code: 'small-n', text });
  }
  if (claim) {
    const text =
      'The test is valid only if the claim was not derived from these readings. Otherwise it hardly ever rejects.';
    notes.push({ code: 'claim', text });
  }
  // Beside an exact p the simulated one is only a check.
  return test.pExact === null ? [...notes, ...simulatedNotes(test.pSimulated, alpha)] : notes;
}
