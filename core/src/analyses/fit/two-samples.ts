import { z } from 'zod';
import { describe } from '../../describe/describe.js';
import { quantileOfSorted } from '../../describe/quantiles.js';
import {
  pooled,
  twoSampleStatistics,
  type TwoSampleStatistics,
  type TwoSampleTallies,
} from '../../goodness-of-fit/two-samples.js';
import { pOfTally } from '../../goodness-of-fit/simulated-p.js';
import { drawnRanks } from '../../probability-plot/sheet-cell.js';
import type { Sample } from '../../readings/sample.js';
import { defineAnalysis, type Answers, type SentencePart } from '../../road/analysis.js';
import { whyCensored } from '../../road/beyond-limits.js';
import { leftOutNotes, outOfScale, unavailable } from '../../road/cautions.js';
import { chunkSizeFor } from '../../road/kernels.js';
import { orderBook } from '../../road/order-book.js';
import { choice, replicates as replicatesOf, seed as seedOf } from '../../road/setting.js';
import { partName, twoOf } from '../../road/two-of.js';
import { affordableReplicates, alphaSetting, columnSetting } from '../../road/settings.js';
import type { ComparedSample, TwoSamplesResult } from './two-samples-result.js';
import { twoSamplesFinding, twoSamplesNotes } from './two-samples-words.js';

const test = choice(
  'test',
  'test of two samples',
  [
    { value: 'anderson-darling', text: 'the Anderson–Darling test' },
    { value: 'kolmogorov-smirnov', text: 'the Kolmogorov–Smirnov test' },
  ],
  'anderson-darling',
);
const replicates = replicatesOf('number of permutations');
const seed = seedOf('seed of the permutations');
const request = z
  .strictObject({
    column: columnSetting,
    /** By a label column, two of whose levels are compared … */
    split: columnSetting.optional(),
    /** … or with another column. */
    beside: z.array(columnSetting).min(1).max(11, 'At most 12 columns can be compared.').optional(),
    /** Which two of the groups or columns; the first two that have readings. */
    first: partName,
    second: partName,
    test: test.schema,
    alpha: alphaSetting,
    replicates: replicates.schema,
    seed: seed.schema,
  })
  .refine(({ split, beside }) => (split === undefined) !== (beside === undefined), {
    message: 'Choose a label column to split by, or a second column.',
    path: ['split'],
  })
  .refine(({ first, second }) => first === undefined || first !== second, {
    message: 'Choose two different samples.',
    path: ['second'],
  });
type Request = z.infer<typeof request>;

const method: readonly SentencePart[] = [
  'Quantile–quantile plot of ',
  { subject: true },
  ', test of equal distributions by ',
  test.field,
  ', p from ',
  replicates.field,
  ' random permutations, seed ',
  seed.field,
  '.',
];

const MOST_MARKS = 1_000;
const ENDS = 100;

function figuresOf({ name: called, values, resolution }: Sample): ComparedSample {
  const { n, mean, sd, median, min, max } = describe(values, resolution);
  return { name: called, n, mean, sd, median, min, max };
}

/** Quantiles of both at the positions of the smaller: its own readings, and those of the other by interpolation (Hyndman & Fan’s type 5). */
function quantilesOf(a: Float64Array, b: Float64Array): TwoSamplesResult['quantiles'] {
  const n = Math.min(a.length, b.length);
  const shares = drawnRanks(n, MOST_MARKS, ENDS).map((i) => (i + 0.5) / n);
  const at = (sorted: Float64Array) => shares.map((share) => quantileOfSorted(sorted, share, 5));
  return { first: at(a), second: at(b), shares };
}

/** With what is to be said of the readings, and of the result as far as it is known. */
const withNotes = (result: TwoSamplesResult, two: [Sample, Sample]): TwoSamplesResult => ({
  ...result,
  notes: [...two.flatMap(leftOutNotes), ...twoSamplesNotes(result)],
});

function worked(settings: Request, sample: Sample, [a, b]: [Sample, Sample]) {
  const [first, second] = [a, b].map(({ values }) => values.slice().sort()) as [Float64Array, Float64Array];
  const together = pooled(first, second);
  const observed: TwoSampleStatistics = { andersonDarling: 0, kolmogorovSmirnov: 0 };
  twoSampleStatistics(together.ties, together.first, together.n, observed);
  const { missing, setAside } = [a, b].reduce(
    (sum, part) => ({ missing: sum.missing + part.missing, setAside: sum.setAside + part.setAside }),
    { missing: 0, setAside: 0 },
  );
  const same = a.resolution === b.resolution ? a.resolution : null;
  const result: TwoSamplesResult = {
    ...{ available: true, n: first.length + second.length, missing, setAside, resolution: same },
    ...{ unit: a.unit === b.unit ? a.unit : '', alpha: settings.alpha, by: sample.groups!.by },
    samples: [figuresOf(a), figuresOf(b)],
    names: sample.groups!.samples.filter(({ values }) => values.length > 0).map((part) => part.name),
    main: settings.test,
    tests: [
      { test: 'anderson-darling', statistic: observed.andersonDarling, alternative: 'greater', pSimulated: null },
      { test: 'kolmogorov-smirnov', statistic: observed.kolmogorovSmirnov, alternative: 'greater', pSimulated: null },
    ],
    quantiles: quantilesOf(first, second),
    notes: [],
  };
  const input: TwoSampleTallies = { ties: Array.from(together.ties), n: together.n, observed };
  return { result: withNotes(result, [a, b]), input };
}

function withP(
  partial: TwoSamplesResult,
  two: [Sample, Sample],
  { replicates: count, seed: from }: Request,
  answers: Answers,
): TwoSamplesResult {
  const tests = partial.tests.map((one, k) => {
    const far = (answers[0] ?? []).reduce((sum, chunk) => sum + chunk[k]!, 0);
    return { ...one, pSimulated: pOfTally(far, count!, from) };
  }) as TwoSamplesResult['tests'];
  return withNotes({ ...partial, tests }, two);
}

/** Do two groups or columns come from the same distribution: their quantiles, and permutation tests of all that may differ. */
export const twoSamplesAnalysis = defineAnalysis<Request, TwoSamplesResult>({
  id: 'two-samples',
  version: 1,
  name: 'Two samples',
  title:
    'do two groups or columns have the same distribution (Anderson–Darling or Kolmogorov–Smirnov by permutation; Q–Q plot)',
  request,
  method,
  resolve: (settings, sample) => {
    const found = twoOf(sample, settings);
    const names = typeof found === 'string' ? {} : { first: found[0].name, second: found[1].name };
    const n = sample.values.length;
    return { ...settings, ...names, replicates: settings.replicates ?? affordableReplicates(n, 10_000, 1_000) };
  },
  subject: ({ first, second, column, split }) =>
    `${first ?? column} and ${second ?? 'another'}${split === undefined ? '' : ` (${column} by ${split})`}`,
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    const two = twoOf(sample, settings);
    if (typeof two === 'string') return unavailable(sample, two);
    for (const part of two) {
      const reason = outOfScale(part) ?? whyCensored(part, 'the comparison');
      if (reason) return unavailable(sample, reason);
    }
    const { result, input } = worked(settings, sample, two);
    const book = orderBook(settings.seed, chunkSizeFor(result.n));
    book.add({ kernel: 'two-sample-tallies', input }, settings.replicates!);
    const answers = yield { partial: result, orders: book.orders };
    return withP(result, two, settings, answers);
  },
  finding: twoSamplesFinding,
});
