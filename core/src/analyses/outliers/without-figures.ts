import { formatFigure, formatP, formatPercentOf } from '../../numeric/format.js';
import type { FoundFigure } from '../../road/figure.js';
import type { Figures, OutliersResult } from './outliers-result.js';

/** The heads of before and after. */
export const WITHOUT_COLUMNS = ['all', 'without', 'change'] as const;

/** A figure with its change. */
interface Line {
  key: string;
  name: string;
  meaning: string;
  of: (figures: Figures) => number | null;
  as: 'count' | 'location' | 'spread' | 'statistic' | 'share';
}

const LINES: readonly Line[] = [
  { key: 'n', name: 'n', meaning: 'The number of readings.', of: ({ n }) => n, as: 'count' },
  { key: 'mean', name: 'mean', meaning: 'The arithmetic mean.', of: ({ mean }) => mean, as: 'location' },
  { key: 'sd', name: 'SD', meaning: 'The standard deviation, divisor n − 1.', of: ({ sd }) => sd, as: 'spread' },
  {
    key: 'median',
    name: 'median',
    meaning: 'Half of the readings lie at or below it.',
    of: ({ median }) => median,
    as: 'location',
  },
  {
    key: 'skewness',
    name: 'skewness',
    meaning: 'The adjusted skewness G₁.',
    of: ({ skewness }) => skewness,
    as: 'statistic',
  },
];
/** The ends of the intervals, each with how it moves. */
const INTERVALS: readonly Line[] = (['from', 'to'] as const).flatMap((end, i): Line[] => [
  {
    ...{
      key: `mean-${end}`,
      name: `mean, ${end === 'from' ? 'lower' : 'upper'} confidence limit`,
      meaning: 'From the t interval of the mean.',
      as: 'location',
    },
    of: ({ meanInterval }) => meanInterval?.[i] ?? null,
  },
  {
    ...{
      key: `sd-${end}`,
      name: `SD, ${end === 'from' ? 'lower' : 'upper'} confidence limit`,
      meaning: 'From the χ² interval of the standard deviation.',
      as: 'spread',
    },
    of: ({ sdInterval }) => sdInterval?.[i] ?? null,
  },
]);
const SHARES: readonly Line[] = [
  {
    ...{
      key: 'outside',
      name: 'outside limits',
      meaning: 'The proportion of readings outside the limits.',
      as: 'share',
    },
    of: ({ outside }) => outside?.counted ?? null,
  },
  {
    ...{ key: 'outside-normal', name: 'outside, normal', as: 'share' },
    meaning: 'The proportion outside the limits for a normal distribution with this mean and SD.',
    of: ({ outside }) => outside?.expected ?? null,
  },
];

const told = (x: number, as: Line['as'], resolution: number | null) =>
  as === 'share' ? formatPercentOf(x, undefined, 2) : formatFigure(x, as, resolution);

function lineOf({ of, as, ...named }: Line, resolution: number | null, before: Figures, after: Figures): FoundFigure {
  const [a, b] = [of(before), of(after)];
  const text = (x: number | null) => (x === null ? '–' : told(x, as, resolution));
  const change = a === null || b === null || as === 'share' ? '' : `${b > a ? '+' : ''}${text(b - a)}`;
  return { ...named, note: '', formula: '', texts: [text(a), text(b), change] };
}

/** Before and after some readings are left out. */
export function withoutFigures({ resolution, alpha }: OutliersResult, before: Figures, after: Figures): FoundFigure[] {
  const lines = (some: readonly Line[]) => some.map((line) => lineOf(line, resolution, before, after));
  const p = ({ pValue, statistic }: Figures) =>
    statistic === null ? '–' : pValue === null ? '…' : formatP(pValue, alpha);
  const bare = { note: '', formula: '' };
  return [
    ...lines(LINES),
    {
      ...{ ...bare, key: 'p', name: 'p of A²', meaning: 'From the Anderson–Darling test of normality.' },
      texts: [p(before), p(after), ''],
    },
    ...lines(INTERVALS),
    ...(before.outside ? lines(SHARES) : []),
  ];
}
