import type { Distribution, Family } from '../../distributions/family.js';
import { regionProbability, isIn, type Ends, type Region } from '../../distributions/region.js';
import { distribution, familyByName } from '../../distributions/registry.js';
import { clopperPearson } from '../../numeric/clopper-pearson.js';
import type { Sample } from '../../readings/sample.js';
import { defineAnalysis, type Note } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import {
  distributionRequest,
  parametersOf,
  questionOf,
  usualParameters,
  type DistributionRequest,
} from './distribution-request.js';
import type { DistributionResult, MomentFigure, ReadingsInRegion } from './distribution-result.js';
import { distributionFinding, distributionSentence } from './distribution-words.js';

const finite = (x: number): number | null => (Number.isFinite(x) ? x : null);
const figure = (x: number): MomentFigure =>
  Number.isFinite(x) ? { value: x } : { value: null, reason: Number.isNaN(x) ? 'does not exist' : 'infinite' };

/** The region that a question is about. */
function regionOf(settings: DistributionRequest, d: Distribution): Region {
  const { below, above, between, outside, withinSd, recordedAs, resolution, lowerShare, upperShare, centralShare } =
    settings;
  const region = (lower: number, upper: number, usual: Ends, isOutside = false): Region => ({
    ...{ lower, upper, outside: isOutside },
    ends: settings.ends ?? usual,
  });
  if (below !== undefined) return region(-Infinity, below, 'included');
  if (above !== undefined) return region(above, Infinity, 'included');
  if (between) return region(between[0], between[1], 'included');
  if (outside) return region(outside[0], outside[1], 'excluded', true);
  if (withinSd !== undefined) {
    const reach = withinSd * Math.sqrt(d.variance);
    return region(d.mean - reach, d.mean + reach, 'included');
  }
  if (recordedAs !== undefined) {
    return {
      lower: recordedAs - resolution! / 2,
      upper: recordedAs + resolution! / 2,
      outside: false,
      ends: 'lower-only',
    };
  }
  if (lowerShare !== undefined) return region(-Infinity, d.quantile(lowerShare), 'included');
  // For counts the upper tail asked for lies strictly above the value: P(X > value) ≤ share.
  if (upperShare !== undefined) return region(d.survivalQuantile(upperShare), Infinity, 'excluded');
  if (centralShare !== undefined) {
    const tail = (1 - centralShare) / 2;
    return region(d.quantile(tail), d.survivalQuantile(tail), 'included');
  }
  return region(-Infinity, Infinity, 'included');
}

function readingsIn(region: Region, { name, values, missing, setAside }: Sample): ReadingsInRegion {
  let count = 0;
  for (const x of values) if (isIn(region, x)) count++;
  const n = values.length;
  return { column: name, n, missing, setAside, count, share: count / n, interval: clopperPearson(count, n) };
}

function notesFor(
  settings: DistributionRequest,
  family: Family,
  d: Distribution,
  region: Region,
  probability: number,
): Note[] {
  const notes: Note[] = [];
  const { lower, upper } = d.support;
  for (const [x, side] of [
    [region.lower, 'lower'],
    [region.upper, 'upper'],
  ] as const) {
    if (!Number.isFinite(x)) continue;
    if (x < lower)
      notes.push({
        code: `${side}-beyond`,
        text: `The ${side} limit ${x} is below ${lower}, the lower end of this distribution.`,
      });
    if (x > upper)
      notes.push({
        code: `${side}-beyond`,
        text: `The ${side} limit ${x} is above ${upper}, the upper end of this distribution.`,
      });
  }
  if (probability === 0 && notes.length === 0 && settings.at === undefined) {
    notes.push({
      code: 'underflow',
      text: 'The probability is smaller than the smallest number that can be calculated (about 1e-308).',
    });
  }
  if (Number.isNaN(d.mean))
    notes.push({
      code: 'no-mean',
      text: 'This distribution has no mean and no standard deviation, because its tails are too heavy. The median exists.',
    });
  else if (d.mean === Infinity)
    notes.push({
      code: 'infinite-mean',
      text: 'The mean is infinite, because the upper tail is too heavy. The median exists.',
    });
  else if (!Number.isFinite(d.variance))
    notes.push({ code: 'infinite-variance', text: 'The variance is infinite, because the tails are too heavy.' });
  if (family.family === 'discrete-uniform' && lower === upper)
    notes.push({ code: 'one-value', text: 'Only one value is possible.' });
  return notes;
}

const BEYOND = 'The answer is too large to calculate (above 1e308). Choose less extreme parameters or another unit.';

/** The answer; null where it, or the median, is beyond what a double holds. */
function resultOf(settings: DistributionRequest, sample: Sample): DistributionResult | null {
  const family = familyByName(settings.family);
  const found = parametersOf(settings);
  if ('message' in found) throw new RangeError(found.message);
  const { parameters } = found;
  const d = distribution(family, parameters);
  const region = regionOf(settings, d);
  const { inside, rest } = regionProbability(family, d, region);
  const question = questionOf(settings);
  const median = d.quantile(0.5);
  const asked = [region.lower, region.upper].filter((x) => question !== 'at' && !Number.isFinite(x)).length;
  const open = ['below', 'above', 'lowerShare', 'upperShare'].includes(question) ? 1 : 0;
  if (![median, inside, rest].every(Number.isFinite) || asked > open) return null;
  const value =
    settings.lowerShare !== undefined ? region.upper : settings.upperShare !== undefined ? region.lower : undefined;
  const other: Ends = region.ends === 'included' ? 'excluded' : 'included';
  const limited = family.discrete && ['below', 'above', 'between', 'outside'].includes(question);
  return {
    available: true,
    ...{ family: family.family, discrete: family.discrete, parameters, question },
    ...{ lower: finite(region.lower), upper: finite(region.upper), outside: region.outside, ends: region.ends },
    ...{ probability: inside, complement: rest },
    ...(limited ? { otherEnds: regionProbability(family, d, { ...region, ends: other }).inside } : {}),
    ...(value === undefined ? {} : { value }),
    ...(settings.resolution === undefined ? {} : { resolution: settings.resolution }),
    ...(settings.at
      ? {
          points: settings.at.map((x) => ({
            ...{ x, density: finite(d.density(x)), cumulative: d.cumulative(x), survival: d.survival(x) },
          })),
        }
      : {}),
    ...{ mean: figure(d.mean), sd: figure(Math.sqrt(d.variance)), variance: figure(d.variance) },
    ...{ skewness: figure(d.skewness), kurtosis: figure(d.kurtosis), median },
    support: { lower: finite(d.support.lower), upper: finite(d.support.upper) },
    ...(settings.column !== undefined && sample.values.length > 0 ? { readings: readingsIn(region, sample) } : {}),
    unit: settings.column === undefined ? '' : sample.unit,
    notes: notesFor(settings, family, d, region, inside),
  };
}

/** Probabilities, quantiles and moments of any family, and the share of a column's readings in the same region (STATISTICS section 3). */
export const distributionAnalysis = defineAnalysis<DistributionRequest, DistributionResult>({
  id: 'distribution',
  version: 2,
  name: 'Distribution',
  title: 'probabilities and quantiles of any distribution; needs no data',
  needsReadings: false,
  request: distributionRequest,
  method: (asked) => [distributionSentence(asked)],
  /** The parameters a family starts from are written out: what is kept says all of them. */
  resolve: (settings) =>
    settings.moments || settings.parameters
      ? settings
      : { ...settings, parameters: usualParameters(familyByName(settings.family)) },
  *run(settings, sample) {
    if (settings.withinSd !== undefined) {
      const found = parametersOf(settings);
      const d = 'message' in found ? null : distribution(familyByName(settings.family), found.parameters);
      if (d && !Number.isFinite(d.variance)) {
        const reason =
          'This distribution has no standard deviation, because its tails are too heavy. Ask for the probability between two limits instead.';
        return unavailable(sample, reason);
      }
    }
    return resultOf(settings, sample) ?? unavailable(sample, BEYOND);
  },
  finding: distributionFinding,
});
