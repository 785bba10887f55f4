import { formatP, formatPercent, formatPercentOf, groupThousands } from '../../numeric/format.js';
import { simulatedTest } from '../../simulation/tests/registry.js';
import type { Law } from '../../simulation/laws.js';
import type { Note, Piece } from '../../road/analysis.js';
import { confidenceNote, levelNote } from '../../road/cautions.js';
import { toldStatistic } from '../../road/told.js';
import type { SimulationAsked } from './simulated-parts.js';
import type { CountedShare, SimulateResult } from './simulate-result.js';

const samplesWords = (count: number) => `${groupThousands(count)} ${count === 1 ? 'sample' : 'samples'}`;

/** "4.7 % of 1 000 samples". */
const shareWords = ({ share, of }: CountedShare) => `${formatPercentOf(share, 1 - share, 3)} of ${samplesWords(of)}`;

/** Whether a share lies within what is promised, as far as so many samples tell. */
function beside({ lower, upper }: CountedShare, promised: number, error = 0): 'within' | 'more' | 'fewer' {
  return promised < lower - error ? 'more' : promised > upper + error ? 'fewer' : 'within';
}

/** How far the level that a simulated table of critical values really has may lie from the one asked for: two standard errors. */
const tableError = ({ table, alpha }: SimulateResult): number =>
  table ? 2 * Math.sqrt((alpha * (1 - alpha)) / table) : 0;

/** Below it a share is of no use: only what came of each sample. */
const FEW = 20;

function testFinding(result: SimulateResult): Piece[] {
  const { belowAlpha, alpha, holds, claim, effect, sizes, replicates } = result;
  if (!belowAlpha) return [];
  const { count, of } = belowAlpha;
  const noticed = effect ?? `that what is claimed, ${claim}, is not so`;
  const level = formatPercent(alpha);
  if (of < FEW)
    return [
      { text: `${groupThousands(count)} of ${samplesWords(of)}`, strong: true, code: 'figure' } as const,
      {
        text: ` ${count === 1 && of === 1 ? 'has' : 'have'} p below ${level}. Draw more to see how often that happens.`,
      },
    ];
  const share = { text: shareWords(belowAlpha), strong: true, code: 'figure' } as const;
  if (!holds)
    return [
      share,
      { text: ` notice ${noticed}: they have p below ${level}. ` },
      {
        text: `${formatPercentOf(1 - belowAlpha.share, belowAlpha.share, 3)} of samples of ${sizes.join(' and ')} miss it.`,
      },
    ];
  const said = {
    within: `as many as a level of ${level} gives`,
    more: `more than the ${level} that the level promises: here the test does not keep its level`,
    fewer: `fewer than the ${level} that the level allows: here the test is on the careful side`,
  }[beside(belowAlpha, alpha, tableError(result))];
  return [
    share,
    {
      text: ` have p below ${level} though what is claimed holds, ${claim}: ${said}${replicates < 1_000 ? ', as far as so few tell' : ''}.`,
    },
  ];
}

function intervalFinding(result: SimulateResult): Piece[] {
  const { coverage, confidence, truth, replicates } = result;
  if (!coverage && replicates > 0)
    return [{ text: `None of ${samplesWords(replicates)} gives an interval: there are too few readings in each.` }];
  if (!coverage || truth === null) return [];
  const promised = formatPercent(confidence);
  const told = toldStatistic(truth, result);
  if (coverage.of < FEW)
    return [
      {
        text: `${groupThousands(coverage.count)} of ${groupThousands(coverage.of)} intervals`,
        strong: true,
        code: 'figure',
      },
      {
        text: ` ${coverage.count === 1 ? 'covers' : 'cover'} what is true, ${told}. Draw more to see how often that happens.`,
      },
    ];
  const said = {
    within: `as many as ${promised} promises`,
    more: `more than the ${promised} promised: the intervals are wider than they need be`,
    fewer: `fewer than the ${promised} promised: here the interval does not keep what it says`,
  }[beside(coverage, confidence)];
  return [
    {
      text: `${formatPercentOf(coverage.share, 1 - coverage.share, 3)} of ${groupThousands(coverage.of)} intervals`,
      strong: true,
      code: 'figure',
    },
    { text: ` cover what is true, ${told}: ${said}.` },
  ];
}

function statisticFinding(result: SimulateResult): Piece[] {
  const { mean, sd, replicates, what, theory, dots, quantiles } = result;
  if (mean === null) return replicates > 0 ? [{ text: `Of ${samplesWords(replicates)} there is no such figure.` }] : [];
  const only = dots.find((dot) => dot !== null);
  if (sd === null)
    return [
      { text: `In the first sample ${what} is ` },
      { text: toldStatistic(only ?? mean, result), strong: true, code: 'figure' } as const,
      { text: '. Draw more to see how it varies.' },
    ];
  // Without an sd of the population that of the samples does not settle either: what half of them lie between does.
  const [low, high] = [0.25, 0.75].map((share) => quantiles.find((one) => one.share === share)?.value);
  if (result.population.sd === null && low !== undefined && high !== undefined)
    return [
      { text: `Over ${samplesWords(replicates)} half of the time ${what} lies between ` },
      {
        text: `${toldStatistic(low, result)} and ${toldStatistic(high, result)}`,
        strong: true,
        code: 'figure',
      } as const,
      { text: '; an sd of it would not settle.' },
    ];
  const off = { ...result, kind: 'spread' as const };
  const tail = theory
    ? theory.sd > 0
      ? `; ${theory.exact ? 'theory' : 'theory, for large samples,'} says ${toldStatistic(theory.sd, off)} about ${toldStatistic(theory.mean, result)}`
      : ''
    : '';
  return [
    { text: `Over ${samplesWords(replicates)} ${what} varies by an ` },
    { text: `sd of ${toldStatistic(sd, off)}`, strong: true, code: 'figure' } as const,
    { text: ` about ${toldStatistic(mean, result)}${tail}.` },
  ];
}

export const simulateFinding = (result: SimulateResult): Piece[] =>
  ({ test: testFinding, interval: intervalFinding, statistic: statisticFinding })[result.repeated](result);

/** What is said of a share that is known only so far. */
export function knownWords({ belowAlpha, coverage }: SimulateResult): string | null {
  const share = belowAlpha ?? coverage;
  if (!share || share.of < FEW) return null;
  const [low, high] = [share.lower, share.upper].map((x) => formatPercentOf(x, 1 - x, 3));
  return `So many samples tell the share as ${low} to ${high}, with 95 % confidence.`;
}

/** A test of ranks about a median asks for more than that median. */
export function symmetryNotes(tests: readonly string[], { quantile }: Pick<Law, 'quantile'>): Note[] {
  if (!tests.includes('signed-rank')) return [];
  const [low, middle, high] = [quantile(0.1), quantile(0.5), quantile(0.9)];
  if (Math.abs(low + high - 2 * middle) <= 0.02 * (high - low)) return [];
  const text =
    'The signed rank test asks for a symmetrical distribution, and this one is not: p below the level can also tell of that.';
  return [{ code: 'asymmetrical', text }];
}

/** What a careful colleague would say. */
export function simulateNotes(result: SimulateResult, asked: SimulationAsked): Note[] {
  const notes: Note[] = [];
  const { repeated, undefined: none, distribution, replicates } = result;
  const add = (code: string, text: string) => notes.push({ code, text });
  if (repeated === 'test') notes.push(...levelNote(asked.alpha));
  if (repeated === 'interval') notes.push(...confidenceNote(asked.confidence));
  if (none > 0) {
    const whatNot = { test: 'a p', interval: 'an interval', statistic: 'such a figure' }[repeated];
    add(
      'undefined',
      `${samplesWords(none)} ${none === 1 ? 'is' : 'are'} without ${whatNot}: too few, or all readings alike. They count as not found.`,
    );
  }
  const beyond = distribution.below + distribution.above;
  if (repeated === 'statistic' && beyond > 0) {
    const share = formatPercentOf(beyond / replicates, 1 - beyond / replicates, 3);
    add(
      'beyond',
      `${samplesWords(beyond)} (${share}) ${beyond === 1 ? 'lies' : 'lie'} beyond the picture, which is cut off there.`,
    );
  }
  if (asked.test !== undefined && simulatedTest(asked.test).table)
    add(
      'table',
      `Its p is read from a table of samples with nothing to find, drawn for n = ${result.sizes[0]}: known to about ${formatP(0.003)} at 0.05.`,
    );
  return notes;
}
