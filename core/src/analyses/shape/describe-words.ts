import { detectableDrift } from '../../claims/power-of-drift.js';
import { detectableSkewness } from '../../claims/power-of-skewness.js';
import type { QuantileType } from '../../describe/quantiles.js';
import {
  equalsP,
  errorOfSd,
  formatEstimate,
  formatFigure,
  formatPercentOf,
  formatValue,
  groupThousands,
} from '../../numeric/format.js';
import { listed, plural } from '../../numeric/grammar.js';
import type { Piece } from '../../road/analysis.js';
import { isTooCoarse } from './describe-claims.js';
import type { Described, DescribeResult, Look } from './describe-result.js';

/** Each definition of quartiles by what it does; the number is Hyndman & Fan's. */
const QUANTILE_WORDS: Record<QuantileType, string> = {
  1: 'the inverse empirical distribution (type 1)',
  2: 'the inverse empirical distribution with averaging (type 2)',
  3: 'the nearest reading (type 3)',
  4: 'linear interpolation, i/n (type 4)',
  5: 'linear interpolation, (i − 0.5)/n (type 5)',
  6: 'linear interpolation, i/(n + 1) (type 6)',
  7: 'linear interpolation, (i − 1)/(n − 1) (type 7)',
  8: 'linear interpolation, median ranks (type 8)',
  9: 'linear interpolation, normal scores (type 9)',
  hinges: 'the medians of the two halves (hinges)',
};

/** A definition of quartiles as a word of a sentence. */
export const quantileChoice = (type: QuantileType): string => QUANTILE_WORDS[type];

/** A figure of a column in its unit. */
function inUnit(
  { resolution, unit, decimals }: Described,
  value: number,
  kind: 'reading' | 'location' | 'spread',
): string {
  return `${formatFigure(value, kind, resolution, decimals)}${unit ? `\u00a0${unit}` : ''}`;
}

/** A mean at the digits of its standard error, an sd at those of its own. */
const meanWords = ({ mean, standardError, resolution, decimals, unit }: Described) =>
  `${formatEstimate(mean, standardError, resolution, decimals)}${unit ? `\u00a0${unit}` : ''}`;
const sdWords = ({ sd, n, resolution, decimals, unit }: Described) =>
  `${formatEstimate(sd ?? 0, errorOfSd(sd ?? 0, n), resolution, decimals)}${unit ? `\u00a0${unit}` : ''}`;

/** To which side the readings are skewed, where there is evidence of it. */
export function leanOf({ claims, skewness }: Described): 'left' | 'right' | null {
  if (!claims.found.includes('lean')) return null;
  return skewness.moment! > 0 ? 'right' : 'left';
}

/** A p-value of one test among several, with a remark where it alone would be below the level. */
function oneLook(p: number, found: boolean, { looks }: Described['claims'], alpha: number): string {
  const among = !found && p < alpha && looks > 1 ? `, not significant after adjustment for ${looks} tests` : '';
  return `${equalsP(p, alpha)}${among}`;
}

/** "the upper tail reaches 2.1 times as far as the lower": from the median to the ends. */
function reachWords({ min, median, max }: Described): string {
  const [down, up] = [median - min, max - median];
  const [longer, shorter] = up > down ? ['upper', 'lower'] : ['lower', 'upper'];
  const [far, near] = up > down ? [up, down] : [down, up];
  if (!(near > 0)) return `the ${shorter} half of the readings has a single value`;
  const times = far / near;
  if (times < 1.15) return 'minimum and maximum are about equally far from the median';
  return `the ${longer} tail is ${times < 10 ? times.toPrecision(2) : Math.round(times)} times as long as the ${shorter} tail`;
}

function oneFinding(figures: Described): Piece[] {
  const { n, mean, distinct } = figures;
  const centre: Piece = {
    text: n === 1 ? inUnit(figures, mean, 'location') : meanWords(figures),
    strong: true,
    code: 'figure',
  };
  if (n === 1) return [{ text: 'One reading: ' }, centre, { text: '.' }];
  const start = { text: 'Mean ' };
  const spread = `, standard deviation ${sdWords(figures)}, ${plural(n, 'reading')}`;
  if (distinct === 1 || !figures.skewnessTest) return [start, centre, { text: `${spread}.` }];
  const lean = leanOf(figures);
  if (!lean)
    return [
      start,
      centre,
      { text: `${spread}. ` },
      { text: 'No evidence of skewness', strong: true, code: 'no-evidence' },
      { text: '.' },
    ];
  const to: Piece = { text: `Skewed to the ${lean}`, strong: true, code: 'evidence' };
  return [start, centre, { text: `${spread}. ` }, to, { text: `: ${reachWords(figures)}.` }];
}

/** The finding: centre, spread and skewness of a column, or how the groups compare. */
export function describeFinding(result: DescribeResult): Piece[] {
  const { groups, by } = result;
  if (!groups || groups.length < 2) return oneFinding(groups?.[0] ?? result);
  if (new Set(groups.map(({ unit }) => unit)).size > 1) {
    return [
      {
        text: `The ${groups.length} columns have different units: compare their shapes, not their values.`,
      },
    ];
  }
  const byMean = [...groups].sort((a, b) => a.mean - b.mean);
  const [low, high] = [byMean[0]!, byMean.at(-1)!];
  const spreads = groups.filter(({ sd }) => sd !== null).sort((a, b) => a.sd! - b.sd!);
  const [tight, wide] = [spreads[0], spreads.at(-1)];
  const what = by === null ? `${groups.length} columns: means` : `${groups.length} groups by ${by}: means`;
  const pieces: Piece[] = [
    { text: `${what} from ` },
    { text: meanWords(low), strong: true, code: 'figure' },
    { text: ` (${low.name}) to ` },
    { text: meanWords(high), strong: true, code: 'figure' },
    { text: ` (${high.name})` },
  ];
  if (!tight || !wide) return [...pieces, { text: '.' }];
  const of = `standard deviations from ${sdWords(tight)} (${tight.name}) to ${sdWords(wide)} (${wide.name})`;
  return [...pieces, { text: `, ${of}.` }];
}

function symmetrySentence(figures: Described, alpha: number): string | null {
  const { skewnessTest: skew, kurtosisTest: tails, skewness, kurtosis, n, claims } = figures;
  // The sentence about the steps says so.
  if (isTooCoarse(figures)) return null;
  if (!skew) return `${plural(n, 'reading is', 'readings are')} too few to test skewness.`;
  const lean = leanOf(figures);
  const figure = `skewness ${formatFigure(skewness.adjusted!, 'statistic')}, ${oneLook(skew.pValue, lean !== null, claims, alpha)}`;
  const leaning = lean ? `The readings are skewed to the ${lean} (${figure})` : `No evidence of skewness (${figure})`;
  if (!tails || !claims.found.includes('tails')) return `${leaning}.`;
  const kind = kurtosis.moment! > 0 ? 'heavier' : 'lighter';
  const tailFigure = `excess kurtosis ${formatFigure(kurtosis.adjusted!, 'statistic')}, ${equalsP(tails.pValue, alpha)}`;
  return `${leaning}. The tails are ${kind} than those of a normal distribution (${tailFigure}).`;
}

/** The distance of mean and median, in words that do not make much of little. */
function centreSentence(figures: Described): string {
  const { mean, median, sd, q1, q3 } = figures;
  const apart = Math.abs(mean - median) / sd!;
  const where = `${inUnit(figures, q1, 'location')} and ${inUnit(figures, q3, 'location')}`;
  const half = `The middle 50\u00a0% lie between ${where}`;
  if (apart < 0.1) return `${half}. Mean and median are close together.`;
  const side = mean > median ? 'above' : 'below';
  return `${half}. The mean is ${apart.toPrecision(2)} SD ${side} the median (${inUnit(figures, median, 'location')}).`;
}

/** The readings outside the fence that are named, the furthest first. */
function namedOutside(figures: Described, count: number): string {
  const named = figures.outside.slice(0, Math.min(3, count));
  const words = named.map(({ row, value }) => `${inUnit(figures, value, 'reading')} (row ${row})`);
  return listed(count > 3 ? [...words, `${groupThousands(count - 3)} more`] : words);
}

function farSentence(figures: Described, alpha: number): string {
  const { farthest, farCount } = figures;
  const times = `${formatValue(Number(farthest!.multiple.toPrecision(2)))} IQR beyond the quartiles`;
  return `${farCount > 1 ? 'Suspected outliers' : 'Suspected outlier'}: ${namedOutside(figures, Math.max(1, farCount))}, ${farCount > 1 ? 'the most extreme ' : ''}${times} (${equalsP(farthest!.pValue, alpha)}).`;
}

/** A reading outside the fences without evidence of an outlier: how often a normal sample has one. */
function fenceSentence(figures: Described): string {
  const { n, outsideCount, farthest } = figures;
  const lies = outsideCount === 1 ? 'lies' : 'lie';
  const share = `${formatPercentOf(farthest!.fenceShare, undefined, 2)} of normal samples of ${groupThousands(n)}`;
  return `${namedOutside(figures, outsideCount)} ${lies} outside the fences. That happens in about ${share}.`;
}

function driftSentence({ drift, claims }: Described, alpha: number): string {
  const way = drift!.correlation > 0 ? 'rise' : 'fall';
  const figure = `rank correlation ${formatFigure(drift!.correlation, 'statistic')}, ${equalsP(drift!.pValue, alpha)}`;
  return claims.found.includes('drift')
    ? `The readings ${way} in row order (${figure}).`
    : `A ${way} in row order (${figure}) is not significant after adjustment for ${claims.looks} tests.`;
}

/** Which drift the test could have detected. */
function driftPowerWords(figures: Described, alpha: number): string | null {
  const rise = detectableDrift(figures.n, alpha / Math.max(1, figures.claims.looks));
  if (rise === null) return null;
  const size = `${formatValue(Number((rise * figures.sd!).toPrecision(2)))}${figures.unit ? `\u00a0${figures.unit}` : ''}`;
  return `A drift of ${size} from the first row to the last would be detected with 80\u00a0% power.`;
}

/** Which skewness the test could have detected. */
function skewnessPowerWords({ n, claims }: Described, alpha: number): string {
  const found = detectableSkewness(n, alpha / Math.max(1, claims.looks));
  return found === null
    ? 'With so few readings, the power is below 80\u00a0% even for a gamma distribution with skewness 3.'
    : `A gamma distribution with skewness ${formatValue(Number(found.toPrecision(2)))} would be detected with 80\u00a0% power.`;
}

function gapSentence(figures: Described, alpha: number): string {
  const { from, to, pValue } = figures.gap!;
  const p = equalsP(pValue, alpha, '≤');
  const ends = `${inUnit(figures, from, 'reading')} and ${inUnit(figures, to, 'reading')}`;
  return `There is a gap between ${ends}, wider than expected for a single normal group (${p}).`;
}

const MANY = 500;

/** Coarse steps against the spread, and what they do. */
function stepSentence(figures: Described): string | null {
  const { resolution, sd, distinct, tied, n } = figures;
  if (resolution !== null && sd! > 0 && resolution > sd! / 5) {
    const untested = isTooCoarse(figures) ? ' Skewness and kurtosis cannot be tested with such coarse rounding.' : '';
    return `The resolution of ${resolution} is coarse for this spread: ${plural(distinct, 'different value')} in ${plural(n, 'reading')}.${untested}`;
  }
  // Among many readings ties are a matter of course.
  if (tied <= 0.2 * n || n > MANY) return null;
  return `${groupThousands(tied)} of ${groupThousands(n)} readings are tied.`;
}

/** A column in a paragraph: centre, skewness, gaps, outliers, resolution, drift. */
export function describeParagraph(figures: Described, alpha: number): string {
  if (figures.n < 3 || figures.distinct === 1 || !figures.sd) return '';
  const { claims, drift, outsideCount, farthest } = figures;
  const claimed = (look: Look) => claims.found.includes(look);
  const outside = !claimed('far') && outsideCount > 0 && farthest !== null;
  // Alone it would be below the level.
  const shyDrift = drift !== null && !claimed('drift') && drift.pValue < alpha;
  const quiet = [
    claimed('gap') ? '' : 'a gap',
    claimed('far') || outside ? '' : 'an outlier',
    claimed('drift') || shyDrift || !drift ? '' : 'a drift in row order',
  ].filter(Boolean);
  return [
    centreSentence(figures),
    symmetrySentence(figures, alpha),
    figures.skewnessTest && leanOf(figures) === null ? skewnessPowerWords(figures, alpha) : null,
    claimed('gap') ? gapSentence(figures, alpha) : null,
    claimed('far') ? farSentence(figures, alpha) : null,
    outside ? fenceSentence(figures) : null,
    stepSentence(figures),
    claimed('drift') || shyDrift ? driftSentence(figures, alpha) : null,
    quiet.length > 0 ? `No evidence of ${listed(quiet, 'or')}.` : null,
    quiet.includes('a drift in row order') ? driftPowerWords(figures, alpha) : null,
  ]
    .filter((sentence) => sentence !== null)
    .join(' ');
}

/** What is conspicuous in one group, in a few words; empty where nothing is. */
function oddWords(figures: Described): string {
  const { drift, farCount, claims } = figures;
  const lean = leanOf(figures);
  const far = farCount > 1 ? `${groupThousands(farCount)} suspected outliers` : 'a suspected outlier';
  const words: Record<Look, string> = {
    lean: `is skewed to the ${lean}`,
    tails: 'has tails that differ from those of a normal distribution',
    gap: 'has a gap',
    far: `has ${far}: ${namedOutside(figures, Math.max(1, farCount))}`,
    drift: drift && drift.correlation > 0 ? 'rises in row order' : 'falls in row order',
  };
  return claims.found.length ? `${figures.name} ${listed(claims.found.map((look) => words[look]))}` : '';
}

/** The paragraph of a whole result: of the column, or what is conspicuous in which group. */
export function resultParagraph(result: DescribeResult): string {
  const { groups, alpha } = result;
  if (!groups) return describeParagraph(result, alpha);
  if (groups.length === 0) return '';
  const odd = groups.map(oddWords).filter(Boolean);
  const among = `adjusted for ${plural(groups[0]!.claims.looks, 'test')}`;
  if (odd.length === 0)
    return `No evidence of skewness, a gap, an outlier or a drift in row order in any group (${among}).`;
  return `Conspicuous (${among}): ${odd.join('; ')}.`;
}
