import { formatValue } from '../../numeric/format.js';
import type { FigureOf } from '../../road/figure.js';
import type { DistributionResult, MomentFigure } from './distribution-result.js';

const said = ({ value, reason }: MomentFigure) => (value === null ? (reason ?? '') : formatValue(value));

/** What a distribution is like, in six figures. */
export const DISTRIBUTION_FIGURES: readonly FigureOf<DistributionResult>[] = [
  {
    key: 'mean',
    name: 'mean',
    meaning: 'The expected value: the long-run mean of the values.',
    formula: 'μ = E X',
    text: ({ mean }) => said(mean),
  },
  {
    key: 'median',
    name: 'median',
    meaning: 'Half of the values lie at or below it.',
    formula: 'F(x) = ½',
    text: ({ median }) => formatValue(median),
  },
  {
    key: 'sd',
    name: 'SD',
    meaning: 'The standard deviation of the values.',
    formula: 'σ = √(E(X − μ)²)',
    text: ({ sd }) => said(sd),
  },
  {
    key: 'variance',
    name: 'variance',
    meaning: 'The square of the standard deviation. Variances of independent errors add up.',
    formula: 'σ² = E(X − μ)²',
    text: ({ variance }) => said(variance),
  },
  {
    key: 'skewness',
    name: 'skewness',
    meaning: 'Above 0 if the upper tail is longer, below 0 if the lower tail is.',
    formula: 'E(X − μ)³ / σ³',
    text: ({ skewness }) => said(skewness),
  },
  {
    key: 'kurtosis',
    name: 'excess kurtosis',
    meaning: 'Above 0 if the tails are heavier than those of a normal distribution, which has 0.',
    formula: 'E(X − μ)⁴ / σ⁴ − 3',
    text: ({ kurtosis }) => said(kurtosis),
  },
];
