import { formatFigure, formatP, groupThousands } from '../../numeric/format.js';
import type { FigureOf } from '../../road/figure.js';
import type { NormalityResult, NormalityTest } from './normality-result.js';
import type { ProbabilityPlotResult } from './probability-plot.js';

const testOf = ({ tests }: NormalityResult): NormalityTest => tests[0]!;
const pOf = (p: number | null | undefined, { alpha }: NormalityResult) =>
  p === null || p === undefined ? null : formatP(p, alpha);

/** The test of normality: its statistic and its p-values, with which of them to quote. */
export const NORMALITY_FIGURES: readonly FigureOf<NormalityResult>[] = [
  {
    key: 'statistic',
    name: 'Anderson–Darling A²',
    meaning:
      'How far the steps of the readings lie from the fitted normal curve, the tails counting most; 0 would be on it.',
    formula: 'A² = −n − Σ (2i − 1)/n · (ln F(x₍ᵢ₎) + ln(1 − F(x₍ₙ₊₁₋ᵢ₎)))',
    text: (result) => formatFigure(testOf(result).statistic, 'statistic'),
  },
  {
    key: 'pSimulated',
    name: 'p, simulated',
    meaning:
      'How often a sample of this size from a normal distribution, fitted in the same way, lies at least as far off. Small speaks against normal.',
    formula: '(b + 1)/(B + 1), b of B samples with A² at least as great',
    use: 'The one to quote: it holds at any n, and the finding is read from it.',
    text: (result) => {
      const { pSimulated } = testOf(result);
      return pSimulated ? pOf(pSimulated.pValue, result) : '…';
    },
    note: (result) => {
      const { pSimulated: p } = testOf(result);
      if (!p) return '';
      const [low, high] = p.pInterval.map((end) => formatP(end));
      return `${groupThousands(p.replicates)} samples: ${low} – ${high}`;
    },
  },
  {
    key: 'pAsymptotic',
    name: 'p, by formula',
    meaning: 'The same p from a published approximation, without simulation (D’Agostino and Stephens 1986).',
    formula: 'exp of a quadratic in A²(1 + 0.75/n + 2.25/n²)',
    use: 'Only to compare with a figure that was worked out elsewhere by this formula; quote the simulated p.',
    text: (result) => pOf(testOf(result).pAsymptotic, result),
  },
  {
    key: 'pResolution',
    name: 'p, against a rounded normal',
    meaning:
      'How often a normal that is read to the same steps lies at least as far off: what is left once the rounding is allowed for.',
    formula: '(b + 1)/(B + 1), the samples rounded as the readings are',
    use: 'Quote it beside the simulated p where the readings step coarsely: if only it is above the level, the rounding was found, not a departure.',
    text: (result) => pOf(testOf(result).pResolution?.pValue, result),
    note: ({ resolution, unit }) => `steps of ${resolution}${unit ? `\u00a0${unit}` : ''}`,
  },
];

/** The plot as figures. */
export const PLOT_FIGURES: readonly FigureOf<ProbabilityPlotResult>[] = [
  {
    key: 'correlation',
    name: 'correlation of the plot',
    meaning: 'How straight the plotted readings lie; 1 is a line. One far reading lowers it as much as a bend does.',
    formula: 'correlation of the readings in order with their scores',
    use: 'To say how straight, not whether normal: for that there is the test.',
    text: ({ correlation }) => correlation.toFixed(4),
  },
];
