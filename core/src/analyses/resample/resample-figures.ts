import { formatFigure, formatP, groupThousands } from '../../numeric/format.js';
import { INTERVAL_NAMES, type IntervalName } from '../../resampling/intervals.js';
import type { FoundFigure } from '../../road/figure.js';
import { toldDistance, toldOff, toldStatistic } from '../../road/told.js';
import type { BootstrapResult, ResampledHead } from './bootstrap-result.js';
import { INTERVAL_NAMED } from './bootstrap-words.js';
import type { PermutationResult } from './permutation-result.js';
import type { PlansResult } from './plans.js';
import type { ReplicateResult } from './replicate.js';

const MEANT: Readonly<Record<IntervalName, { meaning: string; formula: string; use: string }>> = {
  bca: {
    meaning: 'Percentiles of the replicates, moved for bias and for what is lopsided (Efron 1987).',
    formula: 'quantiles at Φ(z₀ + (z₀ ± z)/(1 − a(z₀ ± z)))',
    use: 'The first choice for spreads, shares and correlations from 20 readings on.',
  },
  studentised: {
    meaning: 'Every replicate is measured in its own standard error, and the readings in theirs.',
    formula: 'observed − t*·SE, t* of (replicate − observed)/its SE',
    use: 'The first choice for means and differences of means.',
  },
  percentile: {
    meaning: 'The middle of the replicates, as many left out at either end.',
    formula: 'quantiles at (1 ∓ confidence)/2',
    use: 'For medians and other values that are readings themselves.',
  },
  basic: {
    meaning: 'The percentiles turned over: how far replicates lie from the readings, the readings lie from the truth.',
    formula: '2·observed − the other quantile',
    use: 'Where the spread does not depend on the size.',
  },
  standard: {
    meaning: 'As many standard errors either way as a normal asks for.',
    formula: 'observed ± z·SE',
    use: 'Where the replicates look normal.',
  },
  twoErrors: {
    meaning: 'Two standard errors either way: a rule of thumb for 95 %.',
    formula: 'observed ± 2·SE',
    use: 'For a quick look.',
  },
};

export const INTERVAL_COLUMNS = ['from', 'to', 'ends ±'];

/** Every interval with how far another seed would move its ends, and that of the formula. */
export function intervalFigures(result: BootstrapResult): FoundFigure[] {
  const told = (value: number) => toldStatistic(value, result);
  const rows = INTERVAL_NAMES.flatMap((name): FoundFigure[] => {
    const found = result.intervals[name];
    if (!found) return [];
    const { lower, upper, lowerError, upperError } = found;
    const error =
      lowerError === null || upperError === null ? '–' : toldDistance(Math.max(lowerError, upperError), result);
    const note = name === result.main ? 'told' : '';
    return [{ key: name, name: INTERVAL_NAMED[name], ...MEANT[name], texts: [told(lower), told(upper), error], note }];
  });
  const { formula } = result;
  if (rows.length === 0 || !formula) return rows;
  const own: FoundFigure = {
    ...{ key: 'formula', name: `by formula, ${formula.name}`, formula: formula.name, note: '' },
    meaning: 'What a law gives, if the readings follow it: nothing is drawn.',
    texts: [told(formula.lower!), told(formula.upper!), ''],
  };
  return [...rows, own];
}

const row = (key: string, name: string, text: string, meaning: string, formula: string): FoundFigure => ({
  ...{ key, name, texts: [text], meaning, formula, note: '' },
});

export function bootstrapFigures(result: BootstrapResult): FoundFigure[] {
  const { observed, standardError, bias, groups, undefined: none } = result;
  const told = (value: number) => toldStatistic(value, result);
  const sizes = groups.map(({ name, n }) => (groups.length > 1 ? `${name} ${groupThousands(n)}` : groupThousands(n)));
  return [
    row('observed', 'of the readings', told(observed), 'The figure of the readings as they are.', ''),
    ...(standardError === null
      ? []
      : [
          row(
            'standardError',
            'standard error',
            toldDistance(standardError, result),
            'How much the figure varies from replicate to replicate.',
            'sd of the replicates, divisor B − 1',
          ),
        ]),
    ...(bias === null
      ? []
      : [
          row(
            'bias',
            'bias',
            toldOff(bias, result),
            'How far the replicates lie off the readings in the middle: the figure itself is about as far off.',
            'mean of the replicates − observed',
          ),
        ]),
    row('n', 'readings', sizes.join(', '), 'As many are drawn, with replacement, in every replicate.', ''),
    ...(none > 0
      ? [row('undefined', 'without a figure', groupThousands(none), 'Replicates whose readings were all alike.', '')]
      : []),
  ];
}

export function permutationFigures(result: PermutationResult): FoundFigure[] {
  const { observed, p, formula, arrangements, exact, drawn, oneSided, alpha } = result;
  const told = (value: number) => toldStatistic(value, result);
  const pOf = (value: number) => formatP(value, alpha);
  const counted = exact ?? drawn;
  const way = exact ? 'count/arrangements' : '(b + 1)/(B + 1)';
  return [
    row('observed', 'of the readings', told(observed), 'The figure of the readings as they are.', ''),
    ...(p && !oneSided
      ? [
          row('twoSided', 'p, either side', pOf(p.twoSided), 'At least as far from the centre as observed.', way),
          row('less', 'p, as low', pOf(p.less), 'At most as great as observed, ties counted in.', way),
          row('greater', 'p, as high', pOf(p.greater), 'At least as great as observed, ties counted in.', way),
          row('doubled', 'twice the smaller', pOf(p.doubled), 'Another convention for two sides.', '2·min(p)'),
        ]
      : []),
    ...(p && oneSided
      ? [row('greater', 'p', pOf(p.greater), 'At least as great as observed, ties counted in.', way)]
      : []),
    ...(counted
      ? [
          row(
            'counted',
            exact ? 'arrangements' : 'shuffles',
            groupThousands(counted.total),
            exact ? 'All there are: nothing is left to chance.' : 'Drawn by chance.',
            '',
          ),
        ]
      : []),
    ...(arrangements !== null && !exact
      ? [
          row(
            'arrangements',
            'arrangements',
            arrangements < 1e9 ? groupThousands(arrangements) : formatFigure(arrangements, 'statistic'),
            'As many there are, equal readings taken as different.',
            '',
          ),
        ]
      : []),
    ...(formula
      ? [row('formula', `p by formula`, pOf(formula.pValue), `${formula.name}, in the same direction.`, formula.name)]
      : []),
  ];
}

/** How the replicates are piled up, as a table. */
export function distributionTable({ distribution }: ResampledHead): (string | number)[][] {
  const { values, edges, counts, examples } = distribution;
  if (values) return [['value', 'replicates', 'one of them'], ...values.map((x, i) => [x, counts[i]!, examples[i]!])];
  return [
    ['from', 'to', 'replicates', 'one of them'],
    ...counts.map((count, i) => [edges[i]!, edges[i + 1]!, count, examples[i]! || '']),
  ];
}

export const replicateTable = ({ readings }: ReplicateResult): (string | number)[][] => [
  ['row', 'reading', 'group', 'in the replicate'],
  ...readings.map(({ row: at, value, group, now }) => [at, value, group, now]),
];

export const PLAN_COLUMNS = ['n', 'standard error', 'from', 'to'];

export const plansFigures = (result: PlansResult): FoundFigure[] =>
  result.plans.map(({ times, n, standardError, lower, upper }) => ({
    ...{ key: String(times), name: times === 1 ? 'as it is' : `${times}\u00a0times`, note: '', formula: '' },
    meaning: times === 1 ? 'As many readings as there are.' : `${times} times as many readings as there are.`,
    texts: [
      groupThousands(n),
      toldDistance(standardError, result),
      toldStatistic(lower, result),
      toldStatistic(upper, result),
    ],
  }));

export const plansTable = ({ plans }: PlansResult): (string | number)[][] => [
  ['times', 'n', 'standard error', 'lower', 'upper'],
  ...plans.map(({ times, n, standardError, lower, upper }) => [times, n, standardError, lower, upper]),
];
