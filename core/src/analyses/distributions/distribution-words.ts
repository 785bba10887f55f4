import { distributionName } from '../../distributions/names.js';
import { familyByName } from '../../distributions/registry.js';
import { formatPercentOf, formatValue } from '../../numeric/format.js';
import { article, plural } from '../../numeric/grammar.js';
import type { Piece } from '../../road/analysis.js';
import type { DistributionRequest } from './distribution-request.js';
import type { DistributionResult } from './distribution-result.js';

/** The question as a sentence: the method that is kept with the evidence. */
export function distributionSentence(request: DistributionRequest): string {
  const { parameters, moments } = request;
  const { title } = familyByName(request.family);
  const of = moments
    ? `${article(title)} distribution with mean ${formatValue(moments.mean)} and ${moments.sd === undefined ? `variance ${formatValue(moments.variance!)}` : `standard deviation ${formatValue(moments.sd)}`}`
    : distributionName(request.family, parameters ?? {});
  const beside = request.column === undefined ? '' : ` For comparison: the readings of ${request.column}.`;
  return `For ${of}, ${questionWords(request)}${beside}`;
}

/** For counts it matters whether the limit is included; for measurements it does not. */
const belowWords = (limit: number, discrete: boolean, counted: boolean) =>
  `${!discrete ? 'below' : counted ? 'at most' : 'fewer than'} ${formatValue(limit)}`;
const aboveWords = (limit: number, discrete: boolean, counted: boolean) =>
  `${!discrete ? 'above' : counted ? 'at least' : 'more than'} ${formatValue(limit)}`;

function questionWords(request: DistributionRequest): string {
  const { below, above, between, outside, withinSd, recordedAs, resolution, lowerShare, upperShare, centralShare, at } =
    request;
  const strictly = request.ends === 'excluded' ? ', limits excluded' : '';
  const chance = (where: string) => `what is the probability of a value ${where}?`;
  const { discrete } = familyByName(request.family);
  const counted = request.ends !== 'excluded';
  const ofOne = (words: string) => (discrete ? `what is the probability of ${words}?` : chance(words));
  if (below !== undefined) return ofOne(belowWords(below, discrete, counted));
  if (above !== undefined) return ofOne(aboveWords(above, discrete, counted));
  if (between) return chance(`between ${formatValue(between[0])} and ${formatValue(between[1])}${strictly}`);
  if (outside) return chance(`outside ${formatValue(outside[0])} to ${formatValue(outside[1])}`);
  if (withinSd !== undefined) return chance(`within ${formatValue(withinSd)} SD of the mean`);
  if (recordedAs !== undefined)
    return chance(`recorded as ${formatValue(recordedAs)} with a resolution of ${formatValue(resolution!)}`);
  if (lowerShare !== undefined) return `which value has ${formatPercentOf(lowerShare)} of values below it?`;
  if (upperShare !== undefined) return `which value has ${formatPercentOf(upperShare)} of values above it?`;
  if (centralShare !== undefined) return `which two values enclose the middle ${formatPercentOf(centralShare)}?`;
  return `what are density and probabilities at ${plural(at!.length, 'value')}?`;
}

/** At the beginning of a sentence: "All but 3 × 10⁻⁹ % of values". */
const values = (percent: string) => `${percent[0]!.toUpperCase()}${percent.slice(1)} of values`;

/** Where the region lies, in words that name the direction. */
function whereWords({ question, lower, upper, outside, ends, discrete, resolution }: DistributionResult): string {
  const low = lower === null ? '' : formatValue(lower);
  const high = upper === null ? '' : formatValue(upper);
  const counted = discrete && ends === 'included';
  if (question === 'recordedAs')
    return `recorded as ${formatValue((lower! + upper!) / 2)}, that is from ${low} to just below ${high} (resolution ${formatValue(resolution!)})`;
  if (outside) return `${belowWords(lower!, discrete, counted)} or ${aboveWords(upper!, discrete, counted)}`;
  if (lower === null) return belowWords(upper!, discrete, counted);
  if (upper === null) return aboveWords(lower, discrete, counted);
  return discrete
    ? counted
      ? `from ${low} to ${high} (limits included)`
      : `between ${low} and ${high} (limits excluded)`
    : `between ${low} and ${high}`;
}

/** The answer in words with its direction spelled out. */
export function distributionFinding(result: DistributionResult): Piece[] {
  const { question, probability, complement, lower, upper, value, discrete } = result;
  const found: Piece[] = [];
  if (question === 'at') {
    const n = result.points!.length;
    return [
      { text: `Density and probabilities at ` },
      { text: plural(n, 'value'), strong: true, code: 'figure' },
      { text: '.' },
    ];
  }
  if (question === 'lowerShare' || question === 'upperShare') {
    const side = question === 'lowerShare' ? (discrete ? 'at or below' : 'below') : 'above';
    found.push(
      { text: `${formatPercentOf(probability, complement)} of values are ${side} ` },
      { text: formatValue(value!), strong: true, code: 'figure' },
    );
    found.push({ text: discrete ? ', the smallest number that reaches the proportion asked for.' : '.' });
  } else if (question === 'centralShare') {
    found.push(
      { text: 'Range ' },
      { text: `${formatValue(lower!)} to ${formatValue(upper!)}`, strong: true, code: 'figure' },
    );
    const share = formatPercentOf(probability, complement);
    found.push({
      text: discrete
        ? ` contains ${share} of values: the shortest range with at most the same proportion excluded on each side.`
        : ` contains the middle ${share} of values, with equal proportions below and above.`,
    });
  } else {
    found.push(
      { text: values(formatPercentOf(probability, complement)), strong: true, code: 'figure' },
      { text: ` are ${whereWords(result)}.` },
    );
  }
  return found;
}

/** What lies elsewhere, and for counts what the other reading of the limits gives: the second sentence under the answer. */
export function complementSentence(result: DistributionResult): string {
  const { question, complement, probability, otherEnds, lower, upper, ends } = result;
  if (question === 'at') return '';
  const others = formatPercentOf(complement, probability);
  const rest = `${others.startsWith('all') ? `All others, ${others} of values,` : `The other ${others}`} ${restWords(result)}.`;
  if (otherEnds === undefined) return rest;
  const two = lower !== null && upper !== null;
  const counted = ends === 'included';
  const limits = two ? (counted ? 'neither limit' : 'both limits') : formatValue(lower ?? upper!);
  const other = upper === null ? aboveWords(lower!, true, !counted) : belowWords(upper, true, !counted);
  const lead = two ? `With ${limits} included` : `For ${other},`;
  return `${rest} ${lead} it is ${formatPercentOf(otherEnds)}.`;
}

function restWords({ lower, upper, outside, discrete, ends }: DistributionResult): string {
  const low = lower === null ? '' : formatValue(lower);
  const high = upper === null ? '' : formatValue(upper);
  const counted = discrete && ends === 'included';
  if (outside) return discrete ? `are from ${low} to ${high}` : `lie between ${low} and ${high}`;
  if (lower === null) return `are ${aboveWords(upper!, discrete, !counted)}`;
  if (upper === null) return `are ${belowWords(lower, discrete, !counted)}`;
  return `are ${belowWords(lower, discrete, !counted)} or ${aboveWords(upper, discrete, !counted)}`;
}

/** The share of readings in the same region, with its interval. */
export function readingsSentence({ readings, probability, complement }: DistributionResult): Piece[] {
  if (!readings) return [];
  const { count, n, share, interval, column } = readings;
  const [low, high] = interval;
  const expected = probability < low || probability > high ? 'outside' : 'inside';
  return [
    { text: `Of the readings of ${column}, ` },
    { text: `${count} of ${n}`, strong: true, code: 'figure' },
    {
      text: ` (${formatPercentOf(share, 1 - share, 3)}) are in this range, 95 % confidence interval ${formatPercentOf(low, 1 - low, 3)} to ${formatPercentOf(high, 1 - high, 3)}. The ${formatPercentOf(probability, complement)} of the distribution are ${expected} this interval.`,
    },
  ];
}
