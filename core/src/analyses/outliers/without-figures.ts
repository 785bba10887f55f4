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
  { key: 'n', name: 'n', meaning: 'How many readings.', of: ({ n }) => n, as: 'count' },
  { key: 'mean', name: 'mean', meaning: 'The sum over n.', of: ({ mean }) => mean, as: 'location' },
  { key: 'sd', name: 'sd', meaning: 'With divisor n − 1.', of: ({ sd }) => sd, as: 'spread' },
  { key: 'median', name: 'median', meaning: 'The middle reading.', of: ({ median }) => median, as: 'location' },
  { key: 'skewness', name: 'skewness', meaning: 'The adjusted G1.', of: ({ skewness }) => skewness, as: 'statistic' },
];
/** The ends of the intervals, each with how it moves. */
const INTERVALS: readonly Line[] = (['from', 'to'] as const).flatMap((end, i): Line[] => [
  {
    ...{ key: `mean-${end}`, name: `mean ${end}`, meaning: 'An end of the t interval of the mean.', as: 'location' },
    of: ({ meanInterval }) => meanInterval?.[i] ?? null,
  },
  {
    ...{ key: `sd-${end}`, name: `sd ${end}`, meaning: 'An end of the chi-square interval of the sd.', as: 'spread' },
    of: ({ sdInterval }) => sdInterval?.[i] ?? null,
  },
]);
const SHARES: readonly Line[] = [
  {
    ...{ key: 'outside', name: 'outside limits', meaning: 'The share of readings outside the limits.', as: 'share' },
    of: ({ outside }) => outside?.counted ?? null,
  },
  {
    ...{ key: 'outside-normal', name: 'outside, normal', as: 'share' },
    meaning: 'The share outside the limits of a normal with this mean and sd.',
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
      ...{ ...bare, key: 'p', name: 'p of A²', meaning: 'Of the Anderson–Darling test against a normal.' },
      texts: [p(before), p(after), ''],
    },
    ...lines(INTERVALS),
    ...(before.outside ? lines(SHARES) : []),
  ];
}
