import { formatValue } from '../../numeric/format.js';
import type { FigureOf } from '../../road/figure.js';
import type { DistributionResult, MomentFigure } from './distribution-result.js';

const said = ({ value, reason }: MomentFigure) => (value === null ? (reason ?? '') : formatValue(value));

/** What a distribution is like, in six figures. */
export const DISTRIBUTION_FIGURES: readonly FigureOf<DistributionResult>[] = [
  {
    key: 'mean',
    name: 'mean',
    meaning: 'The balance point: what the mean of very many draws comes to.',
    formula: 'μ = E X',
    text: ({ mean }) => said(mean),
  },
  {
    key: 'median',
    name: 'median',
    meaning: 'Half of the draws lie at or below it.',
    formula: 'F(x) = ½',
    text: ({ median }) => formatValue(median),
  },
  {
    key: 'sd',
    name: 'sd',
    meaning: 'How far draws typically lie from the mean.',
    formula: 'σ = √(E(X − μ)²)',
    text: ({ sd }) => said(sd),
  },
  {
    key: 'variance',
    name: 'variance',
    meaning: 'The square of the sd; variances of independent errors add up.',
    formula: 'σ² = E(X − μ)²',
    text: ({ variance }) => said(variance),
  },
  {
    key: 'skewness',
    name: 'skewness',
    meaning: 'Above 0 the upper tail is the longer, below 0 the lower.',
    formula: 'E(X − μ)³ / σ³',
    text: ({ skewness }) => said(skewness),
  },
  {
    key: 'kurtosis',
    name: 'excess kurtosis',
    meaning: 'Above 0 the tails reach further than a normal’s, which has 0.',
    formula: 'E(X − μ)⁴ / σ⁴ − 3',
    text: ({ kurtosis }) => said(kurtosis),
  },
];
