import type { PlottedLaw } from '../../distributions/fit/fitted-law.js';
import { fitCost } from '../../distributions/fit/fit-cost.js';
import { fittingKind, type Fitting } from '../../distributions/fit/refit.js';
import { normalScore } from '../../distributions/normal-score.js';
import { distribution, familyByName } from '../../distributions/registry.js';
import { formatFigure, formatP } from '../../numeric/format.js';
import { shapesBySamples, shapesOf, type PlotShape, type ShapeName } from '../../probability-plot/shapes.js';
import { chunkSizeFor, type KernelOrder } from '../../road/kernels.js';
import { orderBook } from '../../road/order-book.js';
import type { ProbabilityPlotResult } from './plot-result.js';

/** Normal scores of sorted readings under a distribution, and the resolution in such scores where most readings lie. */
function scored(sorted: Float64Array, law: PlottedLaw, resolution: number | null) {
  const own = distribution(familyByName(law.family), law.parameters);
  const scoreOf = (x: number) => normalScore(own, x);
  const middle = own.quantile(0.5);
  const step = resolution === null ? 0 : scoreOf(middle + resolution / 2) - scoreOf(middle - resolution / 2);
  return { scores: sorted.map(scoreOf), step };
}

/** Are ends or a threshold of the distribution found from the outermost readings? */
const hasEstimatedEnds = ({ family, estimated }: PlottedLaw): boolean => {
  const ends: readonly string[] = familyByName(family).estimation.ends ?? [];
  return estimated.some((name) => name === 'threshold' || ends.includes(name));
};

/** As many samples judge the patterns at most; where every fit is a careful search, just enough for a p of 0.01 on two sides. */
const MOST_SAMPLES = 999;
const MOST_SEARCHED = 199;

/** The patterns of sorted readings on the paper of a distribution, or the samples that are needed to judge them. */
export function readShapes(
  sorted: Float64Array,
  law: PlottedLaw,
  resolution: number | null,
  alpha: number,
): PlotShape[] | null {
  if (hasEstimatedEnds(law)) return null;
  const { scores, step } = scored(sorted, law, resolution);
  return shapesOf(scores, step, alpha);
}

/** The samples from which patterns are judged where ends are estimated. */
export function looksOrders(
  sorted: Float64Array,
  law: PlottedLaw,
  step: number | null,
  resolution: number | null,
  { fitting, seed, replicates }: { fitting: Fitting; seed: number; replicates: number },
): KernelOrder[] {
  const n = sorted.length;
  const scoreStep = scored(sorted, law, resolution).step;
  const { times } = fitCost(fitting);
  const book = orderBook(seed, chunkSizeFor(n * times));
  const input = { n, fitting, parameters: law.parameters, step, scoreStep };
  const most = fittingKind(fitting) === 'careful' ? MOST_SEARCHED : MOST_SAMPLES;
  book.add({ kernel: 'plot-looks', input }, Math.min(replicates, most));
  return book.orders;
}

/** The patterns by these samples. */
export function shapesFrom(
  sorted: Float64Array,
  law: PlottedLaw,
  resolution: number | null,
  alpha: number,
  chunks: readonly Float64Array[],
): PlotShape[] {
  const { scores, step } = scored(sorted, law, resolution);
  return shapesBySamples(scores, step, alpha, chunks);
}

const NAMES: Record<ShapeName, string> = {
  'right-tail-long': 'The right tail is long',
  'left-tail-long': 'The left tail is long',
  'tails-heavy': 'Both tails are heavy',
  'tails-light': 'Both tails are light',
  'one-far': 'One suspected outlier',
  'two-groups': 'A gap separates two groups',
  steps: 'The plot has steps',
};

/** A pattern with the figure that supports it, for a line of the page. */
export interface ShapeWords {
  shape: ShapeName;
  name: string;
  why: string;
  marks: readonly number[];
}

export function shapeWords({ shapes = [], rows }: Pick<ProbabilityPlotResult, 'shapes' | 'rows'>): ShapeWords[] {
  return shapes.map(({ shape, figure, pValue, marks }) => {
    const said = formatFigure(figure, 'statistic');
    const p = pValue === null ? '' : `, p\u00a0${pValue < 0.0001 ? '' : '=\u00a0'}${formatP(pValue)}`;
    const figures: Record<ShapeName, string> = {
      'right-tail-long': `skewness of the scores ${said}${p}`,
      'left-tail-long': `skewness of the scores ${said}${p}`,
      'tails-heavy': `excess kurtosis of the scores ${said}${p}`,
      'tails-light': `excess kurtosis of the scores ${said}${p}`,
      'one-far': `row ${rows[marks[0]!]}, ${said} IQR beyond the quartile${p}`,
      'two-groups': `${said} SD wide${p}`,
      steps: `coarse resolution: ${said} steps per SD`,
    };
    return { shape, name: NAMES[shape], why: figures[shape], marks };
  });
}

/** What is said in place of patterns that are not judged. */
const NOT_JUDGED = 'Patterns are not tested if readings are censored.';

/** What is said while the patterns are simulated. */
const OPEN = 'The tests of patterns are being simulated.';

/** A departure without a name of these is still one: the sentence is about the patterns only. */
const NO_SHAPE =
  'No evidence of a long, heavy or light tail, a suspected outlier or two groups at this significance level.';

/** What is said where no pattern is named. */
export function noShapeWords({ censored, shapes }: Pick<ProbabilityPlotResult, 'censored' | 'shapes'>): string {
  if (censored) return NOT_JUDGED;
  return shapes ? NO_SHAPE : OPEN;
}
