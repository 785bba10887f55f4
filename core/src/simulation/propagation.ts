import type { Parameters } from '../distributions/family.js';
import { centralMoments } from '../numeric/sums.js';
import { choleskyOf } from '../numeric/cholesky.js';
import { fillNormals } from '../random/normal.js';
import type { StreamState } from '../random/stream.js';
import { pickDrawn } from '../resampling/draw.js';
import { evaluate } from '../table/evaluate.js';
import { CONSTANTS, readFormula, type ReadFormula } from '../table/formula.js';
import { isFunctionName } from '../table/functions.js';
import { columnLaw, familyLaw } from './population.js';
import type { Law } from './laws.js';

/** An input quantity of a formula: a distribution, or the empirical distribution of a column. */
export interface Input {
  name: string;
  from: { family: string; parameters: Parameters } | { values: ArrayLike<number> };
}

/** A formula over inputs, with their distributions. */
export interface Propagation {
  inputs: readonly Input[];
  formula: string;
  /** Correlated normal inputs: their places among the inputs, and the lower Cholesky factor of their correlations (`choleskyOf`). */
  correlated: { places: readonly number[]; lower: ArrayLike<number> } | null;
  /** An input held constant, to isolate the contribution of the others. */
  fixed: { place: number; value: number } | null;
}

export const inputLaw = ({ from }: Input): Law => ('family' in from ? familyLaw(from) : columnLaw(from.values));

/** Column functions have no meaning here, since every trial is independent. */
const OF_COLUMNS = /\b(mean|median|sd)\s*\(|\brow\b/u;
const NAMES = /(?<![\p{L}\p{N}_.])[\p{L}_][\p{L}\p{N}_]*/gu;
const WORDS = new Set(['and', 'or', 'not', 'xor', 'mod', 'row', ...Object.keys(CONSTANTS)]);

/** The input names of a formula in the order of their first occurrence. */
export const namesInFormula = (formula: string): string[] => [
  ...new Set(
    [...formula.matchAll(NAMES)].map(([name]) => name).filter((name) => !isFunctionName(name) && !WORDS.has(name)),
  ),
];

/** Parses a formula over inputs; errors are reported in words. */
export function readPropagated(formula: string, names: readonly string[]): ReadFormula | { problem: string } {
  if (OF_COLUMNS.test(formula))
    return { problem: 'This formula cannot use mean, median, sd or row, because each trial is calculated separately.' };
  const read = readFormula(
    formula,
    names.map((name) => ({ id: name, name })),
  );
  if (!read.ok) return { problem: read.message.replace('There is no column', 'There is no input') };
  if (read.uses.length === 0) return { problem: 'The formula contains no input, so its result does not vary.' };
  return read;
}

/** Evaluates a formula for many trials at once: values of every input in, results out. Throws if it cannot be parsed: check it first. */
export function formulaOf({ inputs, formula }: Pick<Propagation, 'inputs' | 'formula'>) {
  const names = inputs.map(({ name }) => name);
  const read = readPropagated(formula, names);
  if ('problem' in read) throw new RangeError(read.problem);
  const places = read.uses.map((id) => names.indexOf(id));
  return (values: readonly Float64Array[], count: number): Float64Array => {
    const found = evaluate(read.node, { rowCount: count, column: (k) => values[places[k]!]! });
    if (found instanceof Float64Array) return found;
    return new Float64Array(count).fill(typeof found === 'number' ? found : NaN);
  };
}

/** The results of the trials, NaN if a trial gives no number. */
export function propagatedTrials(input: Propagation, state: StreamState, trials: number): Float64Array {
  const { inputs, correlated, fixed } = input;
  const values = inputs.map(({ from }) => {
    const out = new Float64Array(trials);
    if ('family' in from) familyLaw(from).sample(state, out);
    else {
      const picks = new Int32Array(trials);
      pickDrawn(state, from.values.length, picks);
      for (let i = 0; i < trials; i++) out[i] = from.values[picks[i]!]!;
    }
    return out;
  });
  if (correlated) drawTogether(input, correlated, state, values);
  if (fixed) values[fixed.place]!.fill(fixed.value);
  const results = formulaOf(input)(values, trials);
  for (let i = 0; i < trials; i++) if (!Number.isFinite(results[i]!)) results[i] = NaN;
  return results;
}

/** Draws the correlated normals: mean + SD·L·z. */
function drawTogether(
  { inputs }: Propagation,
  { places, lower }: NonNullable<Propagation['correlated']>,
  state: StreamState,
  values: readonly Float64Array[],
): void {
  const size = places.length;
  const trials = values[0]!.length;
  const scores = places.map(() => {
    const out = new Float64Array(trials);
    fillNormals(state, out);
    return out;
  });
  places.forEach((place, i) => {
    const { mean, variance } = inputLaw(inputs[place]!);
    const sd = Math.sqrt(variance);
    const out = values[place]!;
    for (let t = 0; t < trials; t++) {
      let sum = 0;
      for (let j = 0; j <= i; j++) sum += lower[i * size + j]! * scores[j]![t]!;
      out[t] = mean + sd * sum;
    }
  });
}

/** The lower Cholesky factor of a correlation matrix; null if it is not positive definite. `r` is by pairs of places. */
export function correlationsOf(size: number, r: (i: number, j: number) => number): Float64Array | null {
  const matrix = new Float64Array(size * size);
  for (let i = 0; i < size; i++) for (let j = 0; j < size; j++) matrix[i * size + j] = i === j ? 1 : r(i, j);
  return choleskyOf(matrix, size);
}

export interface FirstOrder {
  /** The formula at the means of its inputs. */
  estimate: number;
  sd: number;
  /** The sensitivity coefficient of each input: the change of the result per unit of the input. */
  sensitivities: number[];
}

/** Beside the sd a step of differences is so small. */
const STEP = 0.02;

/**
 * The law of propagation of uncertainty to first order (GUM, JCGM 100:2008, 5.1.2 and 5.2.2): Σ(cᵢuᵢ)², and twice the products of correlated inputs.
 * Sensitivities by central differences, extrapolated with half the step (Richardson 1911). Null if an input has no SD, or the formula no value there.
 */
export function firstOrderOf(
  { inputs, formula }: Pick<Propagation, 'inputs' | 'formula'>,
  r: (i: number, j: number) => number,
): FirstOrder | null {
  const laws = inputs.map(inputLaw);
  const sds = laws.map(({ variance }) => Math.sqrt(variance));
  if (!sds.every(Number.isFinite)) return null;
  // The means, then four places about them for every input.
  const count = 1 + 4 * inputs.length;
  const values = laws.map(({ mean }) => new Float64Array(count).fill(mean));
  const offs = [1, -1, 0.5, -0.5];
  inputs.forEach((_, i) => offs.forEach((off, k) => (values[i]![1 + 4 * i + k]! += off * STEP * sds[i]!)));
  const found = formulaOf({ inputs, formula })(values, count);
  if (!found.every(Number.isFinite)) return null;
  const sensitivities = inputs.map((_, i) => {
    const at = 1 + 4 * i;
    if (sds[i] === 0) return 0;
    const [wide, half] = [found[at]! - found[at + 1]!, found[at + 2]! - found[at + 3]!];
    return (8 * half - wide) / (6 * STEP * sds[i]!);
  });
  const parts = sensitivities.map((c, i) => c * sds[i]!);
  let variance = 0;
  for (let i = 0; i < parts.length; i++)
    for (let j = 0; j < parts.length; j++) variance += parts[i]! * parts[j]! * (i === j ? 1 : r(i, j));
  // So steep a formula has no tangent that a double holds.
  if (!Number.isFinite(variance)) return null;
  return { estimate: found[0]!, sd: Math.sqrt(Math.max(0, variance)), sensitivities };
}

/** Summary of results: of a batch, or of all. */
export interface Summary {
  n: number;
  mean: number;
  sd: number;
  /** The probabilistically symmetric interval (JCGM 101, 7.7.1). */
  interval: [number, number];
  /** The shortest coverage interval (JCGM 101, 5.3.4). */
  shortest: [number, number];
}

/** Beyond these magnitudes squares leave what a double holds. */
const LARGE = 1e150;
const SMALL = 1e-150;

/** Mean and sum of squares; results of extreme size in units of the largest. */
function momentsOf(sorted: Float64Array): { n: number; mean: number; sd: number } {
  const n = sorted.length;
  const greatest = Math.max(Math.abs(sorted[0]!), Math.abs(sorted[n - 1]!));
  const unit = greatest > LARGE || (greatest < SMALL && greatest > 0) ? greatest : 1;
  const { mean, s2 } = centralMoments(unit === 1 ? sorted : sorted.map((x) => x / unit));
  return { n, mean: mean * unit, sd: n > 1 ? Math.sqrt(s2 / (n - 1)) * unit : 0 };
}

/** Mean, sd and intervals of results that are in rising order, none of them NaN. */
export function summaryOf(sorted: Float64Array, confidence: number): Summary {
  const { n, mean, sd } = momentsOf(sorted);
  const held = Math.min(n - 1, Math.round(confidence * n));
  const first = Math.max(0, Math.round((n - held) / 2) - 1);
  let shortest = 0;
  for (let i = 1; i + held < n; i++)
    if (sorted[i + held]! - sorted[i]! < sorted[shortest + held]! - sorted[shortest]!) shortest = i;
  return {
    ...{ n, mean, sd },
    interval: [sorted[first]!, sorted[Math.min(n - 1, first + held)]!],
    shortest: [sorted[shortest]!, sorted[shortest + held]!],
  };
}

/** The numerical tolerance: half a unit of the second significant digit of an uncertainty (JCGM 101, 7.9.2). */
export function toleranceOf(sd: number): number {
  const [, exponent] = sd.toExponential(1).split('e');
  return 0.5 * Number(`1e${Number(exponent) - 1}`);
}

/** The sds of batches that belong to a population with a variance lie this close to each other: their coefficient of variation. Of ratios of normals it is above 1. */
const SETTLED = 0.25;

/** Whether the SDs of batches converge. If the population has no variance, they are dominated by the largest draws. */
export function hasSettledSd(batches: readonly Summary[]): boolean {
  if (batches.length < 2) return true;
  // In units of the largest: squares of extreme results are beyond what a double holds.
  const greatest = Math.max(...batches.map(({ sd }) => sd));
  if (greatest === 0) return true;
  const { n, mean, s2 } = centralMoments(batches.map(({ sd }) => sd / greatest));
  return mean === 0 || Math.sqrt(s2 / (n - 1)) < SETTLED * mean;
}

/** Trials of a batch: 100/(1 − p), at least 10 000 (JCGM 101, 7.9.4). */
export const batchFor = (confidence: number): number => Math.max(10_000, Math.ceil(100 / (1 - confidence) - 1e-6));

/**
 * The least number of batches: with two, which the guide allows, agreement by chance is too frequent; the spread of ten is known to about a quarter
 * of itself.
 */
export const LEAST_BATCHES = 10;

/** True if mean, SD and both ends over at least ten batches vary by less than the tolerance (JCGM 101, 7.9.4). */
export function isStable(batches: readonly Summary[], sd: number): boolean {
  const h = batches.length;
  if (h < LEAST_BATCHES) return false;
  const tolerance = toleranceOf(sd);
  return [
    ({ mean }: Summary) => mean,
    (one: Summary) => one.sd,
    ({ interval }: Summary) => interval[0],
    ({ interval }: Summary) => interval[1],
  ].every((of) => {
    const { s2 } = centralMoments(batches.map((one) => of(one) / sd));
    return 2 * Math.sqrt(s2 / (h - 1) / h) < tolerance / sd;
  });
}
