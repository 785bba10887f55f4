import { describe } from '../../describe/describe.js';
import { countsWithin } from '../../describe/shares.js';
import { andersonDarling, andersonDarlingAsymptotic } from '../../goodness-of-fit/normality/anderson-darling.js';
import { LEAST_N } from '../../goodness-of-fit/normality/battery.js';
import { simulatedP } from '../../goodness-of-fit/simulated-p.js';
import { normalCumulative, normalSurvival } from '../../numeric/standard-normal.js';
import type { Sample } from '../../readings/sample.js';
import type { Answers } from '../../road/analysis.js';
import { chunkSizeFor } from '../../road/kernels.js';
import { anotherSeed, orderBook } from '../../road/order-book.js';
import type { Figures, OutliersResult } from './outliers-result.js';
import type { OutliersRequest as Request } from './outliers-settings.js';

type Limits = Pick<Request, 'lowerLimit' | 'upperLimit' | 'confidence' | 'quantileType'>;

function outsideOf(values: Float64Array, { lowerLimit, upperLimit }: Limits, mean: number, sd: number | null) {
  if (lowerLimit === undefined && upperLimit === undefined) return null;
  const { below, above } = countsWithin(values, lowerLimit ?? null, upperLimit ?? null);
  const z = (limit: number) => (limit - mean) / sd!;
  const lower = lowerLimit === undefined ? 0 : normalCumulative(z(lowerLimit));
  const upper = upperLimit === undefined ? 0 : normalSurvival(z(upperLimit));
  return { counted: (below + above) / values.length, expected: sd ? lower + upper : null };
}

/** What readings come to. */
export function figuresOf(values: Float64Array, resolution: number | null, limits: Limits): Figures {
  const { confidence, quantileType } = limits;
  const found = describe(values, resolution, { confidence, quantileType, percentiles: [] });
  const { n, mean, sd, median, skewness, meanInterval, sdInterval } = found;
  const tested = n >= LEAST_N['anderson-darling'] && sd !== null && sd > 0;
  const statistic = tested ? andersonDarling(values.slice().sort(), mean, sd) : null;
  const pValue = statistic === null ? null : andersonDarlingAsymptotic(statistic, n);
  return {
    ...{ n, mean, sd, median, skewness: skewness.adjusted, meanInterval, sdInterval, statistic, pValue },
    pMethod: pValue === null ? null : 'asymptotic',
    outside: outsideOf(values, limits, mean, sd),
  };
}

/** One by one as far as they are told. */
const MOST_APART = 10;

/** The figures with all readings, and without those that are named. */
export function withoutNamed(
  { values, rows, resolution }: Sample,
  named: readonly number[],
  limits: Limits,
): OutliersResult['without'] {
  const left = (gone: readonly number[]) => {
    const out = new Set(gone);
    return figuresOf(
      values.filter((_, i) => !out.has(rows[i]!)),
      resolution,
      limits,
    );
  };
  const each = named
    .slice(0, MOST_APART)
    .map((row) => ({ row, value: values[rows.indexOf(row)]!, after: left([row]) }));
  const before = figuresOf(values, resolution, limits);
  const all = named.length === 0 || named.length >= values.length ? null : left(named);
  return { before, each, all };
}

type Without = NonNullable<OutliersResult['without']>;
const all = ({ before, each, all: together }: Without): Figures[] => [
  before,
  ...each.map(({ after }) => after),
  ...(together ? [together] : []),
];
const isOpen = ({ statistic, pValue }: Figures) => statistic !== null && pValue === null;

/** Samples of each size for which the p of A² has no formula. */
export function normalityOrders({ seed, replicates }: Request, found: Without) {
  const sizes = [
    ...new Set(
      all(found)
        .filter(isOpen)
        .map(({ n }) => n),
    ),
  ];
  const book = orderBook(anotherSeed(seed, 2), chunkSizeFor(sizes[0] ?? 1));
  for (const n of sizes) {
    const input = { test: 'anderson-darling', n, population: 'normal', rounding: null } as const;
    book.add({ kernel: 'normality-replicates', input }, replicates!);
  }
  return { sizes, orders: book.orders };
}

/** The figures with every p. */
export function withNormality(found: Without, sizes: readonly number[], answers: Answers, seed: number): Without {
  const simulated = (figures: Figures): Figures => {
    if (!isOpen(figures)) return figures;
    const { pValue } = simulatedP(figures.statistic!, answers[sizes.indexOf(figures.n)]!, seed);
    return { ...figures, pValue, pMethod: 'simulated' };
  };
  return {
    before: simulated(found.before),
    each: found.each.map((one) => ({ ...one, after: simulated(one.after) })),
    all: found.all && simulated(found.all),
  };
}
