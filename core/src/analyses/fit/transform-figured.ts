import { fittedLaw, type FittedLaw } from '../../distributions/fit/fitted-law.js';
import { isRefusal } from '../../distributions/family.js';
import { normal } from '../../distributions/families/normal.js';
import { familyByName } from '../../distributions/registry.js';
import { describe } from '../../describe/describe.js';
import { andersonDarling } from '../../goodness-of-fit/normality/anderson-darling.js';
import { formatValue, groupThousands } from '../../numeric/format.js';
import { intervalOfShare } from '../../probability-plot/fit-intervals.js';
import { sheetCell } from '../../probability-plot/sheet-cell.js';
import type { Sample } from '../../readings/sample.js';
import { foundLambda } from '../../transform/lambda.js';
import { normalScores } from '../../transform/ranks.js';
import {
  domainWords,
  takesZero,
  isPower,
  transformed,
  TRANSFORMATIONS,
  turnsRound,
  type Bounds,
  type TransformationName,
} from '../../transform/transformation.js';
import { TRANSFORMATION_TITLES } from '../../transform/words.js';
import type { OutsideShare, TransformOffer, TransformResult, TransformSide } from './transform-result.js';
import type { TransformRequest } from './transform-settings.js';

/** Readings transformed, with the λ that was used. */
export interface Transformed {
  values: Float64Array;
  lambda: TransformResult['lambda'];
}

const MOST_NAMED = 3;
/** Its square can still be held. */
const GREATEST = 1e150;
/** Transformed readings whose range is less of their size are mostly rounding. */
const FEW_DIGITS = 1e-11;

const subjectOf = (by: TransformationName) =>
  isPower(by) ? TRANSFORMATION_TITLES[by] : `The ${TRANSFORMATION_TITLES[by]}`;

/** Why not every reading can be transformed: which cannot, and what to do. */
function outsideDomain({ values, rows, name }: Sample, by: TransformationName, lambda: number): string | null {
  const wanted = domainWords(by, lambda);
  if (!wanted) return null;
  const withZero = takesZero(by, lambda);
  const bad = Array.from(values.keys()).filter((i) => (withZero ? values[i]! < 0 : values[i]! <= 0));
  if (bad.length === 0) return null;
  const named = bad.slice(0, MOST_NAMED).map((i) => `row ${rows[i]!}: ${formatValue(values[i]!)}`);
  const more = bad.length > MOST_NAMED ? ` and ${groupThousands(bad.length - MOST_NAMED)} more` : '';
  return `${subjectOf(by)} needs readings ${wanted}; ${name} has others (${named.join(', ')}${more}). Yeo–Johnson takes readings on either side of 0.`;
}

/** The λ of a power transformation. */
function lambdaFor(settings: TransformRequest, values: Float64Array): TransformResult['lambda'] {
  const { by, power: choice, lambda, confidence } = settings;
  if (!isPower(by)) return null;
  if (choice === 'given') return { used: lambda, choice, found: null };
  const found = foundLambda(by, values, confidence);
  return { used: choice === 'convenient' ? (found.convenient ?? found.likeliest) : found.likeliest, choice, found };
}

/** The readings of a sample transformed as asked, or why they cannot be. */
export function transformedSample(settings: TransformRequest, sample: Sample): Transformed | string {
  const { by } = settings;
  if (by === 'normal-scores') return { values: normalScores(sample.values), lambda: null };
  // A λ that is found asks for readings above 0.
  const known = settings.power === 'given' || !isPower(by) ? settings.lambda : 0;
  const reason = outsideDomain(sample, by, known);
  if (reason) return reason;
  const lambda = lambdaFor(settings, sample.values);
  const values = sample.values.map((x) => transformed(by, lambda?.used ?? 0, x));
  const ends = endsOf(values);
  if (!(sizeOf(ends) < GREATEST)) {
    return `${subjectOf(by)} gives values too large or too small to calculate with. Choose another ${isPower(by) ? 'lambda' : 'transformation'}.`;
  }
  if (hasFewDigits(endsOf(sample.values)))
    return `The readings of ${sample.name} differ too little relative to their size to be transformed accurately. Subtract a constant first.`;
  if (hasFewDigits(ends)) return pressedWords(sample, by, lambda?.used ?? null);
  return { values, lambda };
}

const hasFewDigits = ([least, greatest]: [number, number]) =>
  !(greatest - least > FEW_DIGITS * sizeOf([least, greatest]));

/** Why so strong a transformation cannot be had: a reading far from the others pulls lambda there. */
function pressedWords({ values, rows, name }: Sample, by: TransformationName, lambda: number | null): string {
  const sorted = values.slice().sort();
  const median = sorted[sorted.length >> 1]!;
  // Farthest in ratio: that is what a power sees.
  const far = values.reduce((most, x, i) => {
    const ratio = (of: number) => (of > median ? of / median : median / of);
    return ratio(x) > ratio(values[most]!) ? i : most;
  }, 0);
  const used =
    lambda === null ? subjectOf(by) : `${subjectOf(by)} with lambda ${formatValue(Number(lambda.toPrecision(3)))}`;
  return `${used} leaves no digits of the differences between the readings of ${name}. Row ${rows[far]!} (${formatValue(values[far]!)}) lies farthest from the others and decides so strong a power: check it as a suspected outlier, or choose another ${isPower(by) ? 'lambda' : 'transformation'}.`;
}

const sizeOf = ([least, greatest]: [number, number]) => Math.max(Math.abs(least), Math.abs(greatest));

function endsOf(values: Float64Array): [number, number] {
  let [least, greatest] = [Infinity, -Infinity];
  for (const t of values) {
    if (Number.isNaN(t)) return [NaN, NaN];
    [least, greatest] = [Math.min(least, t), Math.max(greatest, t)];
  }
  return [least, greatest];
}

/** Readings on one of the two scales: figures, pictures, A². */
export function sideOf(values: Float64Array, resolution: number | null, bounds: Bounds): TransformSide {
  const sorted = values.slice().sort();
  const { mean, sd, median, skewness, kurtosis } = describe(values, resolution);
  const law = normal.of({ mean, sd: sd! });
  return {
    ...{ mean, sd: sd!, median, skewness: skewness.adjusted, kurtosis: kurtosis.adjusted },
    ...{ statistic: andersonDarling(sorted, mean, sd!), pSimulated: null, pResolution: null },
    plot: sheetCell('plot', sorted, law, resolution),
    histogram: sheetCell('histogram', sorted, law, resolution),
    bounds,
  };
}

/** What every transformation would give, the chosen one as it is asked for. */
export function offersOf(settings: TransformRequest, sample: Sample): TransformOffer[] {
  return TRANSFORMATIONS.map((by): TransformOffer => {
    const power = settings.by === by ? settings.power : 'convenient';
    const found = transformedSample({ ...settings, by, power }, sample);
    if (typeof found === 'string') return { by, lambda: null, statistic: null, skewness: null, reason: found };
    const { mean, sd, skewness } = describe(found.values, null);
    const statistic = andersonDarling(found.values.slice().sort(), mean, sd!);
    return { by, lambda: found.lambda?.used ?? null, statistic, skewness: skewness.adjusted, reason: null };
  });
}

/** The share of a law outside limits with its interval. */
export function outsideShare(
  law: FittedLaw,
  { lower, upper }: Bounds,
  confidence: number,
  values: Float64Array,
): OutsideShare {
  const own = familyByName(law.family).of(law.parameters);
  const fitted = { sorted: values.slice().sort() };
  return {
    share: (lower === null ? 0 : own.cumulative(lower)) + (upper === null ? 0 : own.survival(upper)),
    interval: intervalOfShare(law.family, law, { below: lower, above: upper }, confidence, fitted),
  };
}

/** The share of a normal of the transformed readings outside the transformed limits. */
export function transformedShare(
  by: TransformationName,
  values: Float64Array,
  limits: Bounds,
  bounds: Bounds,
  confidence: number,
): OutsideShare | null {
  // An upper limit below all that the transformation takes: every reading of the law lies above it.
  if (limits.upper !== null && limits.upper <= 0 && bounds[turnsRound(by) ? 'lower' : 'upper'] === null)
    return { share: 1, interval: null };
  const law = fittedLaw(values, { family: 'normal', given: {}, estimateThreshold: false });
  if (isRefusal(law)) return null;
  return bounds.lower === null && bounds.upper === null
    ? { share: 0, interval: null }
    : outsideShare(law, bounds, confidence, values);
}
