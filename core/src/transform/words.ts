import { formatValue } from '../numeric/format.js';
import type { TransformationName } from './transformation.js';

/** The name of a transformation in a list of choices. */
export const TRANSFORMATION_TITLES: Record<TransformationName, string> = {
  'box-cox': 'Box–Cox',
  'yeo-johnson': 'Yeo–Johnson',
  logarithm: 'logarithm',
  'square-root': 'square root',
  reciprocal: 'reciprocal',
  'normal-scores': 'normal scores',
};

/** The name with its power, if it has one: "Box–Cox with lambda 0.5". */
export const transformationWords = (name: TransformationName, lambda: number | null): string =>
  lambda === null ? TRANSFORMATION_TITLES[name] : `${TRANSFORMATION_TITLES[name]} with lambda ${formatValue(lambda)}`;
