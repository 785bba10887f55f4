import { READABLE, readable, statistic, STATISTIC_REST } from '../../road/statistic-settings.js';
import { wholeSentence, type NamedParts } from '../../road/method-sentence.js';
import { z } from 'zod';
import { groupThousands } from '../../numeric/format.js';
import { sentenceCase } from '../../numeric/grammar.js';
import { intervalsOf, spreadOf } from '../../resampling/intervals.js';
import { isOfPairs, tieOf } from '../../resampling/statistic.js';
import { statisticsOf } from '../../resampling/distribution.js';
import { defineAnalysis, type Answers, type Note, type Piece } from '../../road/analysis.js';
import { resampledChunkSize } from '../../road/kernels.js';
import { anotherSeed, orderBook } from '../../road/order-book.js';
import { whole } from '../../road/setting.js';
import { affordableReplicates } from '../../road/settings.js';
import { formatDistance, formatStatistic } from '../../road/formatted.js';
import {
  bootstrapAnalysis,
  bootstrapSettings,
  bootstrapSource,
  drawnAtOnce,
  MOST_AT_ONCE,
  drawsOf,
  type BootstrapRequest,
} from './bootstrap.js';
import type { ResampledHead } from './bootstrap-result.js';
import { confidence, ONE_SOURCE, oneSource, resampleSubject, seedOf } from './resample-settings.js';

/** The sizes that are compared, as multiples of what there is. */
export const PLANNED = [1, 2, 5, 10] as const;
const USUAL = 2_000;
const replicates = whole(
  'replicates',
  'replicates per sample size',
  { min: 199, max: 100_000 },
  USUAL,
  'The number of replicates per sample size',
);

const { replicates: _, times: __, interval: ___, ...basis } = bootstrapSettings;
const request = z
  .strictObject({ ...basis, replicates: replicates.schema.unwrap().optional() })
  .refine(oneSource, ONE_SOURCE)
  .refine(readable, READABLE);
type Request = z.infer<typeof request>;

export const PLANS = {
  lead: ['Bootstrap of ', { subject: true }, ' at larger sample sizes, statistic: '],
  statistic: [statistic.field],
  rest: [...STATISTIC_REST, '. '],
  how: [
    '',
    replicates.field,
    ' replicates per sample size, seed ',
    seedOf.field,
    '; report the middle ',
    confidence.field,
    ' of them.',
  ],
} as const satisfies NamedParts;

/** What a sample of another size would give. */
export interface Plan {
  times: number;
  n: number;
  standardError: number;
  lower: number;
  upper: number;
}

export interface PlansResult extends Pick<
  ResampledHead,
  'typed' | 'n' | 'missing' | 'setAside' | 'unit' | 'resolution' | 'as' | 'kind' | 'what' | 'observed'
> {
  available: true;
  confidence: number;
  replicates: number;
  seed: number;
  plans: Plan[];
  notes: Note[];
}

const asBootstrap = (settings: Request, times: number): BootstrapRequest => ({
  ...settings,
  ...{ times, interval: 'percentile', replicates: settings.replicates },
});

export function plansFinding({ plans, what, observed, ...result }: PlansResult): Piece[] {
  const lead = `${sentenceCase(what)}: `;
  const figure: Piece = { text: formatStatistic(observed, result), strong: true, code: 'figure' };
  const [now, ...others] = plans;
  if (!now) return [{ text: lead }, figure, { text: '.' }];
  const told = (plan: Plan) => formatDistance(plan.standardError, result);
  const rest = others.map((plan) => `${told(plan)} for n = ${groupThousands(plan.n)}`);
  return [
    { text: lead },
    figure,
    { text: ', standard error ' },
    { text: told(now), strong: true, code: 'figure' },
    { text: `. Expected standard error: ${rest.join(', ')}.` },
  ];
}

/** How precise larger samples would be: the same readings resampled at other sizes. */
export const plansAnalysis = defineAnalysis<Request, PlansResult>({
  id: 'bootstrap-plans',
  version: 1,
  name: 'Larger samples',
  title: 'how precise larger samples would be, by bootstrap at larger sample sizes',
  needsReadings: false,
  takesLabels: true,
  request,
  method: wholeSentence(PLANS),
  subject: resampleSubject,
  resolve: (settings, sample) => {
    const { first, second } = bootstrapAnalysis.resolve(asBootstrap(settings, 1), sample);
    const count = settings.replicates ?? affordableReplicates(10 * Math.max(1, sample.values.length), USUAL, 199);
    return { ...settings, ...(first === undefined ? {} : { first, second }), replicates: Math.max(199, count) };
  },
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    const source = bootstrapSource(sample, asBootstrap(settings, 1));
    if ('available' in source) return source;
    const { head, scale, kind, what, observed, groups, statistic } = source;
    const n = isOfPairs(statistic) ? groups[0]!.length : head.n;
    const { confidence: level, seed, replicates: count } = settings;
    const empty: PlansResult = {
      ...{ available: true, ...head, as: scale.as, kind, what, observed, confidence: level, seed, replicates: count! },
      plans: [],
    };
    // Each size has chunks of its own, and so a seed of its own.
    const planned = PLANNED.filter((times) => drawnAtOnce(source, times) <= MOST_AT_ONCE);
    const orders = planned.flatMap((times, k) => {
      const book = orderBook(anotherSeed(seed, k), resampledChunkSize(drawnAtOnce(source, times)));
      const draws = { ...drawsOf(source, asBootstrap(settings, times)), studentised: false };
      book.add({ kernel: 'bootstrap-replicates', input: draws }, count!);
      return book.orders;
    });
    const answers: Answers = yield { partial: empty, orders };
    const tie = tieOf(statistic, observed, groups);
    const plans = planned.map((times, k): Plan => {
      const statistics = statisticsOf({ chunks: answers[k]!, stride: 1 });
      const made = { observed, statistics, confidence: level, tie, acceleration: null };
      const { percentile } = intervalsOf({ ...made, studentised: null, standardError: null });
      return {
        ...{ times, n: n * times, standardError: spreadOf(statistics).sd },
        ...{ lower: percentile!.lower, upper: percentile!.upper },
      };
    });
    const notes: Note[] = [
      ...head.notes,
      {
        code: 'planned',
        text: 'Larger samples may contain values that these readings do not; the bootstrap cannot show them.',
        quiet: true,
      },
    ];
    return { ...empty, plans, notes };
  },
  finding: plansFinding,
});
