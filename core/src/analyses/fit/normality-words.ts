import { simulatedNotes } from '../../road/simulated-notes.js';
import { COARSE } from '../../goodness-of-fit/rounding.js';
import { equalsP, errorOfSd, formatEstimate, formatFigure, formatValue, groupThousands } from '../../numeric/format.js';
import type { Sample } from '../../readings/sample.js';
import type { NormalityTestName } from '../../goodness-of-fit/normality/battery.js';
import type { Note, Piece } from '../../road/analysis.js';
import { levelNote, tiedCount, leftOutNotes } from '../../road/cautions.js';
import { mainTest, type Missed, type NormalityResult, type NormalityTest, type Outcome } from './normality-result.js';
import { testFacts } from './normality-tests.js';

/** The finding: never "is normal", always the level. */
export function normalityFinding(result: NormalityResult): Piece[] {
  const { summary, mean, sd, unit, resolution, alpha, n } = result;
  const test = mainTest(result);
  const of = unit ? `\u00a0${unit}` : '';
  const normal = ` a normal distribution with mean ${formatEstimate(mean, sd / Math.sqrt(n), resolution)} and sd ${formatEstimate(sd, errorOfSd(sd, n), resolution)}${of}`;
  const figures = `${testFacts(test.test, n).symbol} = ${formatFigure(test.statistic!, 'statistic')}`;
  switch (summary.outcome) {
    case 'no-evidence':
      return [
        { text: 'There is ' },
        { text: 'no evidence against', strong: true, code: 'no-evidence' },
        { text: `${normal}: ${figures}, ${equalsP(test.pValue!, alpha)}, level ${alpha}.` },
      ];
    case 'evidence':
      return [
        { text: 'The readings ' },
        { text: 'depart from', strong: true, code: 'evidence' },
        { text: `${normal}: ${figures}, ${equalsP(test.pValue!, alpha)}, level ${alpha}.` },
      ];
    case 'rounding':
      return [
        { text: 'Coarse rounding alone', strong: true, code: 'no-evidence' },
        {
          text: ` can explain the departure from${normal}: ${figures}, ${equalsP(test.pValue!, alpha)} as written, but ${equalsP(test.pResolution!.pValue, alpha)} against a normal rounded to ${resolution}, level ${alpha}.`,
        },
      ];
    case 'open':
      return [{ text: `${figures} against${normal}; its p-value is being simulated.` }];
  }
}

const MISSED_NAMES: Record<Missed['population'], string> = {
  lognormal: 'a lognormal of skewness 1',
  'two-groups': 'two equal groups 3 sd apart',
};

/** A share as cases one can picture: "in 5 of 10 samples". */
function inSamples(share: number): string {
  const tenths = Math.round(share * 10);
  if (share < 0.005) return 'hardly ever';
  if (tenths === 0) return `in ${Math.round(share * 100)} of 100 samples`;
  return tenths === 10 ? 'nearly always' : `in ${tenths} of 10 samples`;
}

/** Steps that matter are part of what is said. */
const stepsWords = (resolution: number | null, sd: number) =>
  resolution !== null && sd < COARSE * resolution ? ` in steps of ${formatValue(resolution)}` : '';

/** What a sample of this size could have missed; null where that was not calculated. */
export function missedSentence({
  n,
  missed,
  alpha,
  resolution,
  sd,
}: Pick<NormalityResult, 'n' | 'missed' | 'alpha' | 'resolution' | 'sd'>): string | null {
  if (missed.length === 0) return null;
  const parts = missed.map(({ population, share }) => `${MISSED_NAMES[population]} ${inSamples(share)}`);
  return `With ${groupThousands(n)} readings${stepsWords(resolution, sd)} and level ${alpha} the test misses ${parts.join(', ')}.`;
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
  const aware = resolution !== null && sd < COARSE * resolution ? ', the rounding allowed for' : '';
  const total = against.length + without.length;
  if (total < 2 || summary.outcome === 'open') return '';
  if (against.length === 0)
    return `None of ${total} tests finds evidence against normal at the level ${alpha}${aware}.`;
  if (without.length === 0) return `All ${total} tests find evidence against normal at the level ${alpha}${aware}.`;
  const said = (tests: readonly NormalityTestName[]) =>
    tests.map((test) => `${testFacts(test, n).name} (${testFacts(test, n).looksAt})`).join(', ');
  const found = `${against.length} of ${total} tests ${against.length === 1 ? 'finds' : 'find'} evidence against normal`;
  const lead =
    against.length <= without.length
      ? `${found}: ${said(against)}; the others do not.`
      : `${found}; not so ${said(without)}.`;
  return `${lead} Each looks elsewhere. ${testFacts(main, n).name} was chosen: to take the friendliest of ${total} afterwards is no test.`;
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
  const share = tied === 1 ? '1 reading shares its value' : `${groupThousands(tied)} readings share a value`;
  const steps = `${share} with another: the readings step by ${resolution}.`;
  if (test.tooCoarse) {
    const text = `${steps} If the population has about this spread, ${groupThousands(sorted.length)} readings in such steps cannot show a departure from normal at this level, whatever they are. A finer instrument can.`;
    return [{ code: 'too-coarse', text }];
  }
  const rounded = `Against a normal rounded likewise ${equalsP(test.pResolution.pValue, alpha)}`;
  if (outcome === 'rounding') {
    return [{ code: 'rounding', text: `${steps} ${rounded}: a finer instrument, not more readings, would settle it.` }];
  }
  // Coarse readings are compared by another statistic, which can find what plain A² does not.
  const matters = test.pValue !== null && test.pValue >= alpha && test.pResolution.pValue < alpha;
  const so = matters
    ? ': the two fall on different sides of the level, and more readings should decide'
    : ', so it does not matter here';
  return [{ code: 'ties', text: `${steps} ${rounded}${so}.`, ...(matters ? {} : { quiet: true }) }];
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
    const text = `${n} readings can show only gross departures: no evidence against normal is weak comfort.`;
    notes.push({ code: 'small-n', text });
  }
  if (n > 1000 && outcome === 'evidence') {
    const text = `With ${groupThousands(n)} readings a departure too small to matter is found as well: judge its size on the plot.`;
    notes.push({ code: 'large-n', text });
  }
  return [...notes, ...simulatedNotes(test.pSimulated, alpha)];
}
