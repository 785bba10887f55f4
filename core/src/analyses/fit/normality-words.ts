import { simulatedNotes } from '../../road/simulated-notes.js';
import { COARSE } from '../../goodness-of-fit/rounding.js';
import { equalsP, errorOfSd, formatEstimate, formatFigure, formatValue } from '../../numeric/format.js';
import { listed, plural } from '../../numeric/grammar.js';
import type { Sample } from '../../readings/sample.js';
import type { NormalityTestName } from '../../goodness-of-fit/normality/battery.js';
import type { Note, Piece } from '../../road/analysis.js';
import { levelNote, levelWords, tiedCount, leftOutNotes } from '../../road/cautions.js';
import { mainTest, type Missed, type NormalityResult, type NormalityTest, type Outcome } from './normality-result.js';
import { testFacts } from './normality-tests.js';

/** The answer, then the numbers: never "is normal". */
export function normalityFinding(result: NormalityResult): Piece[] {
  const { summary, mean, sd, unit, resolution, alpha, n } = result;
  const test = mainTest(result);
  const of = unit ? `\u00a0${unit}` : '';
  const estimates = ` Mean ${formatEstimate(mean, sd / Math.sqrt(n), resolution)}${of}, standard deviation ${formatEstimate(sd, errorOfSd(sd, n), resolution)}${of}, ${plural(n, 'reading')}.`;
  const figures = `${testFacts(test.test, n).symbol} = ${formatFigure(test.statistic!, 'statistic')}`;
  switch (summary.outcome) {
    case 'no-evidence':
      return [
        { text: 'No evidence', strong: true, code: 'no-evidence' },
        {
          text: ` against a normal distribution (${figures}, ${equalsP(test.pValue!, alpha)}${levelWords(alpha)}).${estimates}`,
        },
      ];
    case 'evidence':
      return [
        { text: 'The readings depart from a normal distribution', strong: true, code: 'evidence' },
        { text: ` (${figures}, ${equalsP(test.pValue!, alpha)}${levelWords(alpha)}).${estimates}` },
      ];
    case 'rounding':
      return [
        { text: 'Rounding alone explains the departure', strong: true, code: 'no-evidence' },
        {
          text: ` from a normal distribution: ${figures}, ${equalsP(test.pValue!, alpha)}; with rounding to ${resolution} allowed for, ${equalsP(test.pResolution!.pValue, alpha)}${levelWords(alpha)}.${estimates}`,
        },
      ];
    case 'open':
      return [{ text: `Testing a normal distribution: ${figures}, p is being simulated.${estimates}` }];
  }
}

const MISSED_NAMES: Record<Missed['population'], string> = {
  lognormal: 'a lognormal distribution with skewness 1',
  'two-groups': 'two equal groups 3 SD apart',
};

/** The power to two figures: "about 75 % power", bounded where it is near 0 or 1. */
function withPower(missed: number): string {
  const power = 1 - missed;
  if (power > 0.995) return 'more than 99\u00a0% power';
  return power < 0.005 ? 'less than 1\u00a0% power' : `about ${Math.round(100 * power)}\u00a0% power`;
}

/** A coarse resolution is part of the sentence. */
const stepsWords = (resolution: number | null, sd: number) =>
  resolution !== null && sd < COARSE * resolution ? ` at a resolution of ${formatValue(resolution)}` : '';

/** The power of the test at this sample size; null where it was not calculated. */
export function missedSentence({
  n,
  missed,
  alpha,
  resolution,
  sd,
}: Pick<NormalityResult, 'n' | 'missed' | 'alpha' | 'resolution' | 'sd'>): string | null {
  if (missed.length === 0) return null;
  const parts = missed.map(({ population, share }) => `${MISSED_NAMES[population]} with ${withPower(share)}`);
  return `With ${plural(n, 'reading')}${stepsWords(resolution, sd)} and significance level ${alpha}, the test detects ${listed(parts)}.`;
}

/** How the nine tests stand at the level; empty while any p is still to come. */
export function agreementSentence({
  summary,
  alpha,
  main,
  n,
  resolution,
  sd,
}: Pick<NormalityResult, 'summary' | 'alpha' | 'main' | 'n' | 'resolution' | 'sd'>): string {
  const { against, without } = summary;
  const aware = resolution !== null && sd < COARSE * resolution ? ', rounding allowed for' : '';
  const total = against.length + without.length;
  if (total < 2 || summary.outcome === 'open') return '';
  if (against.length === 0)
    return `None of ${total} tests finds evidence against normality (significance level ${alpha}${aware}).`;
  if (without.length === 0)
    return `All ${total} tests find evidence against normality (significance level ${alpha}${aware}).`;
  const said = (tests: readonly NormalityTestName[]) =>
    tests.map((test) => `${testFacts(test, n).name} (${testFacts(test, n).looksAt})`).join(', ');
  const found = `${against.length} of ${total} tests ${against.length === 1 ? 'finds' : 'find'} evidence against normality`;
  const lead =
    against.length <= without.length
      ? `${found}: ${said(against)}; the others do not.`
      : `${found}; not: ${said(without)}.`;
  return `${lead} The tests are sensitive to different departures. ${testFacts(main, n).name} was chosen in advance; choosing the most favourable test afterwards is not valid.`;
}

function resolutionNote(
  sample: Sample,
  sorted: Float64Array,
  test: NormalityTest,
  alpha: number,
  outcome: Outcome,
): Note[] {
  const { resolution } = sample;
  const tied = tiedCount(sorted);
  if (!resolution || !test.pResolution || tied === 0) return [];
  const steps = `${plural(tied, 'reading is', 'readings are')} tied (resolution ${resolution})`;
  if (test.tooCoarse) {
    const text = `The test cannot detect a departure: the resolution ${resolution} is too coarse for this spread and ${plural(sorted.length, 'reading')}. Use an instrument with a finer resolution.`;
    return [{ code: 'too-coarse', text }];
  }
  const rounded = `With rounding allowed for, ${equalsP(test.pResolution.pValue, alpha)}`;
  if (outcome === 'rounding') {
    return [
      { code: 'rounding', text: `${steps}. ${rounded}; a finer resolution, not more readings, would clarify it.` },
    ];
  }
  // Coarse readings are compared by another statistic, which can find what plain A² does not.
  const matters = test.pValue !== null && test.pValue >= alpha && test.pResolution.pValue < alpha;
  const so = matters
    ? '; the two p-values disagree, so more readings are needed'
    : '; rounding does not change the result';
  return [{ code: 'ties', text: `${steps}. ${rounded}${so}.`, ...(matters ? {} : { quiet: true }) }];
}

/** What a careful colleague would add to the test. */
export function normalityNotes(
  sample: Sample,
  sorted: Float64Array,
  test: NormalityTest,
  alpha: number,
  outcome: Outcome,
): Note[] {
  const n = sorted.length;
  const notes = [...leftOutNotes(sample), ...levelNote(alpha), ...resolutionNote(sample, sorted, test, alpha, outcome)];
  if (n < 20) {
    const text = `With ${plural(n, 'reading')}, only gross departures are detected. “No evidence” says little here.`;
    notes.push({ code: 'small-n', text });
  }
  if (n > 1000 && outcome === 'evidence') {
    const text = `The departure may be too small to matter: with ${plural(n, 'reading')} even small ones are detected. Judge its size on the plot.`;
    notes.push({ code: 'large-n', text });
  }
  return [...notes, ...simulatedNotes(test.pSimulated, alpha)];
}
