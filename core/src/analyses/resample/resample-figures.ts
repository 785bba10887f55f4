import { formatFigure, formatP, groupThousands } from '../../numeric/format.js';
import { INTERVAL_NAMES, type IntervalName } from '../../resampling/intervals.js';
import type { FoundFigure } from '../../road/figure.js';
import { formatDistance, formatOffset, formatStatistic } from '../../road/formatted.js';
import type { BootstrapResult, ResampledHead } from './bootstrap-result.js';
import { INTERVAL_NAMED } from './bootstrap-words.js';
import type { PermutationResult } from './permutation-result.js';
import type { PlansResult } from './plans.js';

const MEANT: Readonly<Record<IntervalName, { meaning: string; formula: string; use: string }>> = {
  bca: {
    meaning: 'Percentiles of the replicates, corrected for bias and skewness (Efron 1987).',
    formula: 'quantiles at Φ(z₀ + (z₀ ± z)/(1 − a(z₀ ± z)))',
    use: 'The first choice for standard deviations, proportions and correlations, from 20 readings on.',
  },
  studentised: {
    meaning: 'Each replicate is standardised by its own standard error (bootstrap t).',
    formula: 'observed − t*·SE, t* of (replicate − observed)/its SE',
    use: 'The first choice for means and differences of means.',
  },
  percentile: {
    meaning: 'The central part of the replicates, with equal tails.',
    formula: 'quantiles at (1 ∓ confidence)/2',
    use: 'The first choice for medians and other quantiles.',
  },
  basic: {
    meaning: 'The percentiles reflected about the estimate.',
    formula: '2·observed − the other quantile',
    use: 'Use it if the spread does not depend on the size of the statistic.',
  },
  standard: {
    meaning: 'The estimate ± z standard errors.',
    formula: 'observed ± z·SE',
    use: 'Use it if the replicates look normal.',
  },
  twoErrors: {
    meaning: 'The estimate ± 2 standard errors, a rule of thumb for 95 %.',
    formula: 'observed ± 2·SE',
    use: 'For a quick check.',
  },
};

export const INTERVAL_COLUMNS = ['lower', 'upper', 'uncertainty of the limits'];

/** Every interval with how far another seed would move its ends, and that of the formula. */
export function intervalFigures(result: BootstrapResult): FoundFigure[] {
  const told = (value: number) => formatStatistic(value, result);
  const rows = INTERVAL_NAMES.flatMap((name): FoundFigure[] => {
    const found = result.intervals[name];
    if (!found) return [];
    const { lower, upper, lowerError, upperError } = found;
    const error =
      lowerError === null || upperError === null ? '–' : formatDistance(Math.max(lowerError, upperError), result);
    const note = name === result.main ? 'reported' : '';
    return [{ key: name, name: INTERVAL_NAMED[name], ...MEANT[name], texts: [told(lower), told(upper), error], note }];
  });
  const { formula } = result;
  if (rows.length === 0 || !formula) return rows;
  const own: FoundFigure = {
    ...{ key: 'formula', name: `formula, ${formula.name}`, formula: formula.name, note: '' },
    meaning: 'From a formula that assumes a distribution; nothing is simulated.',
    texts: [told(formula.lower!), told(formula.upper!), ''],
  };
  return [...rows, own];
}

const row = (key: string, name: string, text: string, meaning: string, formula: string): FoundFigure => ({
  ...{ key, name, texts: [text], meaning, formula, note: '' },
});

export function bootstrapFigures(result: BootstrapResult): FoundFigure[] {
  const { observed, standardError, bias, groups, undefined: none } = result;
  const told = (value: number) => formatStatistic(value, result);
  const sizes = groups.map(({ name, n }) => (groups.length > 1 ? `${name} ${groupThousands(n)}` : groupThousands(n)));
  return [
    row('observed', 'estimate', told(observed), 'The statistic of the readings.', ''),
    ...(standardError === null
      ? []
      : [
          row(
            'standardError',
            'standard error',
            formatDistance(standardError, result),
            'The standard deviation of the replicates.',
            'divisor B − 1',
          ),
        ]),
    ...(bias === null
      ? []
      : [
          row(
            'bias',
            'bias',
            formatOffset(bias, result),
            'The mean of the replicates minus the estimate.',
            'mean of the replicates − observed',
          ),
        ]),
    row('n', 'readings', sizes.join(', '), 'The number of readings in every replicate.', ''),
    ...(none > 0
      ? [row('undefined', 'not calculated', groupThousands(none), 'Replicates whose readings were all equal.', '')]
      : []),
  ];
}

/** p by each convention; of a statistic that cannot be negative there is one only. */
function pRows({ p, oneSided, alpha }: PermutationResult, way: string): FoundFigure[] {
  if (!p) return [];
  const pRow = (key: string, name: string, value: number, which: string, formula = way) =>
    row(key, name, formatP(value, alpha), which, formula);
  const atLeast = 'Permutations at least as large as observed, ties included.';
  if (oneSided) return [pRow('greater', 'p', p.greater, atLeast)];
  return [
    pRow('twoSided', 'p (two-sided)', p.twoSided, 'Permutations at least as far from the centre as observed.'),
    pRow('less', 'p (lower tail)', p.less, 'Permutations at most as large as observed, ties included.'),
    pRow('greater', 'p (upper tail)', p.greater, atLeast),
    pRow('doubled', 'twice the smaller tail', p.doubled, 'Another convention for a two-sided p.', '2·min(p)'),
  ];
}

export function permutationFigures(result: PermutationResult): FoundFigure[] {
  const { observed, formula, arrangements, exact, drawn, alpha } = result;
  const told = (value: number) => formatStatistic(value, result);
  const counted = exact ?? drawn;
  const way = exact ? 'count/arrangements' : '(b + 1)/(B + 1)';
  return [
    row('observed', 'estimate', told(observed), 'The statistic of the readings.', ''),
    ...pRows(result, way),
    ...(counted
      ? [
          row(
            'counted',
            exact ? 'all permutations' : 'permutations',
            groupThousands(counted.total),
            exact ? 'All possible permutations: p is exact.' : 'Drawn at random.',
            '',
          ),
        ]
      : []),
    ...(arrangements !== null && !exact
      ? [
          row(
            'arrangements',
            'possible permutations',
            arrangements < 1e9 ? groupThousands(arrangements) : formatFigure(arrangements, 'statistic'),
            'The number of possible permutations; equal readings count as different.',
            '',
          ),
        ]
      : []),
    ...(formula
      ? [
          row(
            'formula',
            `p from the formula`,
            formatP(formula.pValue, alpha),
            `${formula.name}, for the same alternative.`,
            formula.name,
          ),
        ]
      : []),
  ];
}

/** How the replicates are piled up, as a table. */
export function distributionTable({ distribution }: ResampledHead): (string | number)[][] {
  const { values, edges, counts, examples } = distribution;
  if (values) return [['value', 'replicates', 'example'], ...values.map((x, i) => [x, counts[i]!, examples[i]!])];
  return [
    ['from', 'to', 'replicates', 'example'],
    ...counts.map((count, i) => [edges[i]!, edges[i + 1]!, count, examples[i]! || '']),
  ];
}

export const PLAN_COLUMNS = ['n', 'standard error', 'lower', 'upper'];

export const plansFigures = (result: PlansResult): FoundFigure[] =>
  result.plans.map(({ times, n, standardError, lower, upper }) => ({
    ...{
      key: String(times),
      name: times === 1 ? 'this sample size' : `${times}\u00a0times as large`,
      note: '',
      formula: '',
    },
    meaning: times === 1 ? 'The present number of readings.' : `${times} times the present number of readings.`,
    texts: [
      groupThousands(n),
      formatDistance(standardError, result),
      formatStatistic(lower, result),
      formatStatistic(upper, result),
    ],
  }));

export const plansTable = ({ plans }: PlansResult): (string | number)[][] => [
  ['times', 'n', 'standard error', 'lower', 'upper'],
  ...plans.map(({ times, n, standardError, lower, upper }) => [times, n, standardError, lower, upper]),
];
