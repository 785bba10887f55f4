import type { PlottedLaw } from '../../distributions/fit/fitted-law.js';
import { normalScore } from '../../distributions/normal-score.js';
import { distribution, familyByName } from '../../distributions/registry.js';
import { formatFigure, formatP } from '../../numeric/format.js';
import { shapesOf, type PlotShape, type ShapeName } from '../../probability-plot/shapes.js';
import type { ProbabilityPlotResult } from './plot-result.js';

/** The patterns of sorted readings on the paper of a distribution: of their normal scores under it. */
export function readShapes(
  sorted: Float64Array,
  law: PlottedLaw,
  resolution: number | null,
  alpha: number,
): PlotShape[] {
  const own = distribution(familyByName(law.family), law.parameters);
  const scoreOf = (x: number) => normalScore(own, x);
  const scores = sorted.map(scoreOf);
  // In the middle, where most readings lie.
  const middle = own.quantile(0.5);
  const step = resolution === null ? 0 : scoreOf(middle + resolution / 2) - scoreOf(middle - resolution / 2);
  return shapesOf(scores, step, alpha);
}

const NAMES: Record<ShapeName, string> = {
  'right-tail-long': 'The right tail is long',
  'left-tail-long': 'The left tail is long',
  'tails-heavy': 'Both tails are heavy',
  'tails-light': 'Both tails are light',
  'one-far': 'One reading lies far out',
  'two-groups': 'An empty stretch parts two groups',
  steps: 'The plot climbs in steps',
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
      'one-far': `row ${rows[marks[0]!]}, ${said} quartile ranges beyond the quartile${p}`,
      'two-groups': `${said} sd wide${p}`,
      steps: `the resolution is coarse: ${said} steps in an sd`,
    };
    return { shape, name: NAMES[shape], why: figures[shape], marks };
  });
}

/** What is said in place of patterns that are not judged. */
const NOT_JUDGED = 'Patterns are not judged where readings lie beyond a limit: those would have to be known.';

/** What is said where no pattern is named. */
export const noShapeWords = ({ censored }: Pick<ProbabilityPlotResult, 'censored'>): string =>
  censored ? NOT_JUDGED : NO_SHAPE;

/** A departure without a name of these is still one: the sentence is about the patterns only. */
const NO_SHAPE =
  'No pattern stands out at the level: neither a long, heavy or light tail, nor one far reading, nor two groups.';
