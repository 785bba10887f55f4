import { formatP, formatPercent, formatPercentOf, groupThousands } from '../../numeric/format.js';
import { plural } from '../../numeric/grammar.js';
import { simulatedTest } from '../../simulation/simulated-tests/registry.js';
import type { Law } from '../../simulation/laws.js';
import type { Note, Piece } from '../../road/analysis.js';
import { confidenceNote, levelNote } from '../../road/cautions.js';
import { formatStatistic } from '../../road/formatted.js';
import type { SimulationAsked } from './simulated-parts.js';
import type { CountedShare, SimulateResult } from './simulate-result.js';

const samplesWords = (count: number) => plural(count, 'sample');

/** "4.7 % of 1 000 samples". */
const shareWords = ({ share, of }: CountedShare) => `${formatPercentOf(share, 1 - share, 3)} of ${samplesWords(of)}`;

/** Whether a proportion agrees with the nominal one, as far as the samples can show. */
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
  const noticed = effect ?? `that the claim (${claim}) is false`;
  const level = formatPercent(alpha);
  if (of < FEW)
    return [
      { text: `${groupThousands(count)} of ${samplesWords(of)}`, strong: true, code: 'figure' } as const,
      {
        text: ` ${count === 1 && of === 1 ? 'has' : 'have'} p below ${level}. More samples are needed for a percentage.`,
      },
    ];
  const share = { text: shareWords(belowAlpha), strong: true, code: 'figure' } as const;
  if (!holds)
    return [
      share,
      { text: ` detect ${noticed} (p below ${level}, n = ${sizes.join(' and ')}). ` },
      { text: `${formatPercentOf(1 - belowAlpha.share, belowAlpha.share, 3)} miss it.` },
    ];
  const said = {
    within: `consistent with the nominal ${level}`,
    more: `more than the nominal ${level}: the test does not keep its significance level here`,
    fewer: `fewer than the nominal ${level}: the test is conservative here`,
  }[beside(belowAlpha, alpha, tableError(result))];
  return [
    share,
    {
      text: ` have p below ${level} although the claim is true (${claim}). That is ${said}.${replicates < 1_000 ? ' More samples would make this more certain.' : ''}`,
    },
  ];
}

function intervalFinding(result: SimulateResult): Piece[] {
  const { coverage, confidence, truth, replicates } = result;
  if (!coverage && replicates > 0)
    return [
      { text: `None of ${samplesWords(replicates)} gives an interval, because the samples have too few readings.` },
    ];
  if (!coverage || truth === null) return [];
  const promised = formatPercent(confidence);
  const told = formatStatistic(truth, result);
  if (coverage.of < FEW)
    return [
      {
        text: `${groupThousands(coverage.count)} of ${groupThousands(coverage.of)} intervals`,
        strong: true,
        code: 'figure',
      },
      {
        text: ` ${coverage.count === 1 ? 'contains' : 'contain'} the true value ${told}. More samples are needed for a percentage.`,
      },
    ];
  const said = {
    within: `consistent with the nominal ${promised}`,
    more: `more than the nominal ${promised}: the intervals are wider than necessary`,
    fewer: `fewer than the nominal ${promised}: the interval is not reliable here`,
  }[beside(coverage, confidence)];
  return [
    {
      text: `${formatPercentOf(coverage.share, 1 - coverage.share, 3)} of ${groupThousands(coverage.of)} intervals`,
      strong: true,
      code: 'figure',
    },
    { text: ` contain the true value ${told}. That is ${said}.` },
  ];
}

function statisticFinding(result: SimulateResult): Piece[] {
  const { mean, sd, replicates, what, theory, dots, quantiles } = result;
  if (mean === null)
    return replicates > 0
      ? [{ text: `The statistic cannot be calculated for any of ${samplesWords(replicates)}.` }]
      : [];
  const only = dots.find((dot) => dot !== null);
  if (sd === null)
    return [
      { text: `In the first sample, ${what} is ` },
      { text: formatStatistic(only ?? mean, result), strong: true, code: 'figure' } as const,
      { text: '. More samples are needed to show how it varies.' },
    ];
  // Without an sd of the population that of the samples does not settle either: what half of them lie between does.
  const [low, high] = [0.25, 0.75].map((share) => quantiles.find((one) => one.share === share)?.value);
  if (result.population.sd === null && low !== undefined && high !== undefined)
    return [
      { text: `In half of ${samplesWords(replicates)}, ${what} lies between ` },
      {
        text: `${formatStatistic(low, result)} and ${formatStatistic(high, result)}`,
        strong: true,
        code: 'figure',
      } as const,
      { text: '. Its standard deviation does not converge.' },
    ];
  const off = { ...result, kind: 'spread' as const };
  const tail = theory
    ? theory.sd > 0
      ? ` Theory${theory.exact ? '' : ' (large samples)'}: ${formatStatistic(theory.sd, off)} and ${formatStatistic(theory.mean, result)}.`
      : ''
    : '';
  return [
    { text: `In ${samplesWords(replicates)}, ${what} has a ` },
    { text: `standard deviation of ${formatStatistic(sd, off)}`, strong: true, code: 'figure' } as const,
    { text: ` and a mean of ${formatStatistic(mean, result)}.${tail}` },
  ];
}

export const simulateFinding = (result: SimulateResult): Piece[] =>
  ({ test: testFinding, interval: intervalFinding, statistic: statisticFinding })[result.repeated](result);

/** The uncertainty of a simulated proportion. */
export function knownWords({ belowAlpha, coverage }: SimulateResult): string | null {
  const share = belowAlpha ?? coverage;
  if (!share || share.of < FEW) return null;
  const [low, high] = [share.lower, share.upper].map((x) => formatPercentOf(x, 1 - x, 3));
  return `Simulation uncertainty: ${low} to ${high} (95 % confidence).`;
}

/** A signed rank test about a median assumes symmetry as well. */
export function symmetryNotes(tests: readonly string[], { quantile }: Pick<Law, 'quantile'>): Note[] {
  if (!tests.includes('signed-rank')) return [];
  const [low, middle, high] = [quantile(0.1), quantile(0.5), quantile(0.9)];
  if (Math.abs(low + high - 2 * middle) <= 0.02 * (high - low)) return [];
  const text =
    'A small p may be due to asymmetry, because the signed rank test assumes a symmetric distribution and this one is not.';
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
    const whatNot = { test: 'p-value', interval: 'interval', statistic: 'value' }[repeated];
    add(
      'undefined',
      `${samplesWords(none)} ${none === 1 ? 'has' : 'have'} no ${whatNot}, because there were too few readings or all were equal. ${none === 1 ? 'It counts' : 'They count'} as not detected.`,
    );
  }
  const beyond = distribution.below + distribution.above;
  if (repeated === 'statistic' && beyond > 0) {
    const share = formatPercentOf(beyond / replicates, 1 - beyond / replicates, 3);
    add(
      'beyond',
      `${samplesWords(beyond)} (${share}) ${beyond === 1 ? 'lies' : 'lie'} outside the range of the picture.`,
    );
  }
  if (asked.test !== undefined && simulatedTest(asked.test).table)
    add(
      'table',
      `p is approximate: it comes from simulated critical values for n = ${result.sizes[0]}, accurate to about ${formatP(0.003)} at 0.05.`,
    );
  return notes;
}
