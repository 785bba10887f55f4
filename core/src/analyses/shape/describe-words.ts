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
import type { Piece } from '../../road/analysis.js';
import { isTooCoarse } from './describe-claims.js';
import type { Described, DescribeResult, Look } from './describe-result.js';
import { listed } from '../../road/listed.js';

/** Each definition of quartiles by what it does; the number is Hyndman & Fan's. */
const QUANTILE_WORDS: Record<QuantileType, string> = {
  1: 'the first reading that reaches the share (1)',
  2: 'the same, halved where it is met (2)',
  3: 'the nearest reading (3)',
  4: 'a line through i/n (4)',
  5: 'a line through step middles (5)',
  6: 'a line through i/(n + 1) (6)',
  7: 'a line from least to greatest (7)',
  8: 'a line through median ranks (8)',
  9: 'a line unbiased for a normal (9)',
  hinges: 'the medians of the halves',
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

/** Which way the readings lean, where that is claimed of them. */
export function leanOf({ claims, skewness }: Described): 'left' | 'right' | null {
  if (!claims.found.includes('lean')) return null;
  return skewness.moment! > 0 ? 'right' : 'left';
}

/** A p-value of one look among several, told apart from the level where it alone would be below it. */
function oneLook(p: number, found: boolean, { looks }: Described['claims'], alpha: number): string {
  const among = !found && p < alpha && looks > 1 ? `, which is no rarity in ${COUNTS[looks]} looks` : '';
  return `${equalsP(p, alpha)}${among}`;
}
const COUNTS = ['no', 'one', 'two', 'three', 'four', 'five'];

/** "the upper tail reaches 2.1 times as far as the lower": from the median to the ends. */
function reachWords({ min, median, max }: Described): string {
  const [down, up] = [median - min, max - median];
  const [longer, shorter] = up > down ? ['upper', 'lower'] : ['lower', 'upper'];
  const [far, near] = up > down ? [up, down] : [down, up];
  if (!(near > 0)) return `the ${shorter} half of the readings is one value`;
  const times = far / near;
  if (times < 1.15) return 'both tails reach about as far';
  return `the ${longer} tail reaches ${times < 10 ? times.toPrecision(2) : Math.round(times)} times as far as the ${shorter}`;
}

function oneFinding(figures: Described): Piece[] {
  const { n, mean, distinct } = figures;
  const centre: Piece = {
    text: n === 1 ? inUnit(figures, mean, 'location') : meanWords(figures),
    strong: true,
    code: 'figure',
  };
  if (n === 1) return [{ text: 'One reading stands at ' }, centre, { text: '.' }];
  const start = { text: `${groupThousands(n)} readings centre at ` };
  const spread = `, with an sd of ${sdWords(figures)}`;
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
  const to: Piece = { text: `lean to the ${lean}`, strong: true, code: 'evidence' };
  return [start, centre, { text: `${spread}, and ` }, to, { text: `: ${reachWords(figures)}.` }];
}

/** The finding: centre, spread and lean of a column, or how the groups compare. */
export function describeFinding(result: DescribeResult): Piece[] {
  const { groups, by } = result;
  if (!groups || groups.length < 2) return oneFinding(groups?.[0] ?? result);
  if (new Set(groups.map(({ unit }) => unit)).size > 1) {
    return [
      {
        text: `${groups.length} columns in different units stand side by side: compare their shapes, not their sizes.`,
      },
    ];
  }
  const byMean = [...groups].sort((a, b) => a.mean - b.mean);
  const [low, high] = [byMean[0]!, byMean.at(-1)!];
  const spreads = groups.filter(({ sd }) => sd !== null).sort((a, b) => a.sd! - b.sd!);
  const [tight, wide] = [spreads[0], spreads.at(-1)];
  const what =
    by === null ? `${groups.length} columns: the means run` : `${groups.length} groups by ${by}: the means run`;
  const pieces: Piece[] = [
    { text: `${what} from ` },
    { text: meanWords(low), strong: true, code: 'figure' },
    { text: ` (${low.name}) to ` },
    { text: meanWords(high), strong: true, code: 'figure' },
    { text: ` (${high.name})` },
  ];
  if (!tight || !wide) return [...pieces, { text: '.' }];
  const of = `the sds from ${sdWords(tight)} (${tight.name}) to ${sdWords(wide)} (${wide.name})`;
  return [...pieces, { text: `, ${of}.` }];
}

function symmetrySentence(figures: Described, alpha: number): string | null {
  const { skewnessTest: skew, kurtosisTest: tails, skewness, kurtosis, n, claims } = figures;
  // The sentence about the steps says so.
  if (isTooCoarse(figures)) return null;
  if (!skew) return `${n} readings are too few to tell a lean from chance.`;
  const lean = leanOf(figures);
  const figure = `skewness ${formatFigure(skewness.adjusted!, 'statistic')}, ${oneLook(skew.pValue, lean !== null, claims, alpha)}`;
  const leaning = lean
    ? `The lean is more than chance would give in ${groupThousands(n)} normal readings (${figure})`
    : `No evidence of skewness (${figure})`;
  if (!tails || !claims.found.includes('tails')) return `${leaning}.`;
  const kind = kurtosis.moment! > 0 ? 'reach further' : 'end sooner';
  const tailFigure = `excess kurtosis ${formatFigure(kurtosis.adjusted!, 'statistic')}, ${equalsP(tails.pValue, alpha)}`;
  return `${leaning}; the tails ${kind} than a normal’s (${tailFigure}).`;
}

/** The distance of mean and median, in words that do not make much of little. */
function centreSentence(figures: Described): string {
  const { mean, median, sd, q1, q3 } = figures;
  const apart = Math.abs(mean - median) / sd!;
  const where = `${inUnit(figures, q1, 'location')} and ${inUnit(figures, q3, 'location')}`;
  const half = `The middle half lies between ${where}`;
  if (apart < 0.1) return `${half}; mean and median stand close together.`;
  const side = mean > median ? 'above' : 'below';
  return `${half}; the mean stands ${apart.toPrecision(2)} sd ${side} the median, ${inUnit(figures, median, 'location')}.`;
}

/** The readings outside the fence that are named, the furthest first. */
function namedOutside(figures: Described, count: number): string {
  const named = figures.outside.slice(0, Math.min(3, count));
  const words = named.map(({ row, value }) => `${inUnit(figures, value, 'reading')}, row ${row}`).join('; ');
  return count > 3 ? `${words}; and ${groupThousands(count - 3)} more` : words;
}

function farSentence(figures: Described, alpha: number): string {
  const { farthest, farCount } = figures;
  const times = `the farthest ${formatValue(Number(farthest!.multiple.toPrecision(2)))} quartile ranges beyond the quartiles`;
  return `Far out: ${namedOutside(figures, Math.max(1, farCount))} (${times}, ${equalsP(farthest!.pValue, alpha)}).`;
}

/** A reading that the box plot marks though nothing is claimed of it: how often a clean sample has such a one. */
function fenceSentence(figures: Described): string {
  const { n, outsideCount, farthest } = figures;
  const lies = outsideCount === 1 ? 'lies' : 'lie';
  const share = `${formatPercentOf(farthest!.fenceShare, undefined, 2)} of normal samples of ${groupThousands(n)}`;
  return `${namedOutside(figures, outsideCount)} ${lies} outside the fence, as some reading does in about ${share}.`;
}

function driftSentence({ drift, claims }: Described, alpha: number): string {
  const way = drift!.correlation > 0 ? 'rise' : 'fall';
  const figure = `rank correlation ${formatFigure(drift!.correlation, 'statistic')}, ${equalsP(drift!.pValue, alpha)}`;
  return claims.found.includes('drift')
    ? `Over the rows the readings ${way} (${figure}).`
    : `A ${way} over the rows (${figure}) is no rarity in ${COUNTS[claims.looks]} looks.`;
}

/** Which drift the test could have detected. */
function driftPowerWords(figures: Described, alpha: number): string | null {
  const rise = detectableDrift(figures.n, alpha / Math.max(1, figures.claims.looks));
  if (rise === null) return null;
  const size = `${formatValue(Number((rise * figures.sd!).toPrecision(2)))}${figures.unit ? `\u00a0${figures.unit}` : ''}`;
  return `A rise or fall of ${size} from the first row to the last would be detected 80\u00a0% of the time.`;
}

/** Which skewness the test could have detected. */
function skewnessPowerWords({ n, claims }: Described, alpha: number): string {
  const found = detectableSkewness(n, alpha / Math.max(1, claims.looks));
  return found === null
    ? 'So few readings would miss even a gamma distribution with skewness 3 more than 20\u00a0% of the time.'
    : `A gamma distribution with skewness ${formatValue(Number(found.toPrecision(2)))} would be detected 80\u00a0% of the time.`;
}

function gapSentence(figures: Described, alpha: number): string {
  const { from, to, pValue } = figures.gap!;
  const p = equalsP(pValue, alpha, '≤');
  const ends = `${inUnit(figures, from, 'reading')} and ${inUnit(figures, to, 'reading')}`;
  return `Between ${ends} there is no reading: a wider gap than one normal group would leave (${p}).`;
}

const MANY = 500;

/** Coarse steps against the spread, and what they do. */
function stepSentence(figures: Described): string | null {
  const { resolution, sd, distinct, tied, n } = figures;
  if (resolution !== null && sd! > 0 && resolution > sd! / 5) {
    const untested = isTooCoarse(figures) ? ' Skewness and tails cannot be tested with such steps.' : '';
    return `The steps of ${resolution} are coarse against the spread: ${groupThousands(distinct)} different values in ${groupThousands(n)} readings.${untested}`;
  }
  // Among many readings ties are a matter of course.
  if (tied <= 0.2 * n || n > MANY) return null;
  return `${groupThousands(tied)} of ${groupThousands(n)} readings share their value with another.`;
}

/** What a careful colleague would say of a column, in a paragraph: middle, lean, gaps, far readings, steps, drift. */
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
    claimed('drift') || shyDrift || !drift ? '' : 'a drift over the rows',
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
    quiet.includes('a drift over the rows') ? driftPowerWords(figures, alpha) : null,
  ]
    .filter((sentence) => sentence !== null)
    .join(' ');
}

/** What stands out in one group, in a few words; nothing where nothing does. */
function oddWords(figures: Described): string {
  const { drift, farCount, claims } = figures;
  const lean = leanOf(figures);
  const far = farCount > 1 ? `${groupThousands(farCount)} far readings` : 'a far reading';
  const words: Record<Look, string> = {
    lean: `leans to the ${lean}`,
    tails: 'has tails unlike a normal’s',
    gap: 'has a gap',
    far: `has ${far} (${namedOutside(figures, Math.max(1, farCount))})`,
    drift: drift && drift.correlation > 0 ? 'rises over the rows' : 'falls over the rows',
  };
  return claims.found.length ? `${figures.name} ${claims.found.map((look) => words[look]).join(', ')}` : '';
}

/** The paragraph of a whole result: of the column, or what stands out in which group. */
export function resultParagraph(result: DescribeResult): string {
  const { groups, alpha } = result;
  if (!groups) return describeParagraph(result, alpha);
  if (groups.length === 0) return '';
  const odd = groups.map(oddWords).filter(Boolean);
  const among = `the level is shared among all ${groups[0]!.claims.looks} looks`;
  if (odd.length === 0)
    return `No evidence in any group of skewness, a gap, an outlier or a drift over the rows (${among}).`;
  return `What stands out (${among}): ${odd.join('; ')}.`;
}
