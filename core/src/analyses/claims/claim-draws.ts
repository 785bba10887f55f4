import { z } from 'zod';
import type { ClaimDraws } from '../../claims/draws.js';
import { groupThousands } from '../../numeric/format.js';
import type { Note } from '../../readings/note.js';
import { defineAnalysis, type Piece, type SentencePart } from '../../road/analysis.js';
import { chunkSizeFor } from '../../road/kernels.js';
import { orderBook } from '../../road/order-book.js';
import { seed, whole } from '../../road/setting.js';
import { columnSetting } from '../../road/settings.js';
import { greatestTie, leastTie, scaleOfSum } from '../../numeric/ties.js';

const MOST_DRAWS = 2_000;
const draws = whole(
  'draws',
  'number of simulated samples',
  { min: 20, max: MOST_DRAWS },
  100,
  'The number of simulated samples',
);
const ofDraws = seed('seed of the simulated samples');

const SIZE = 'A sample size must be a whole number from 1 to 1 000 000.';
const size = z.int(SIZE).min(1, SIZE).max(1_000_000, SIZE);
const NUMBER = 'A value of the claim must be a number.';
const sizes = z.array(size).min(2, 'At least 2 groups are needed.').max(200, 'At most 200 groups are allowed.');
const sds = z
  .array(z.number(NUMBER).min(0, NUMBER))
  .min(2, 'At least 2 groups are needed.')
  .max(200, 'At most 200 groups are allowed.');
const ranks = z
  .array(z.int('A doubled rank must be a whole number.'))
  .min(1, 'At least 1 rank is needed.')
  .max(2_000, 'At most 2 000 ranks are allowed.');
const SHARE = 'A proportion must lie between 0 and 1.';
const share = z.number(SHARE).gt(0, SHARE).lt(1, SHARE);

/** How to simulate under the claim, as passed on by its result. */
const model: z.ZodType<ClaimDraws> = z.discriminatedUnion(
  'of',
  [
    z.strictObject({
      of: z.literal('mean'),
      n: size,
      known: z.boolean('State whether the standard deviation is known.'),
    }),
    z.strictObject({ of: z.literal('spread'), n: size }),
    z.strictObject({ of: z.literal('two-means'), sizes, sds, method: z.enum(['welch', 'pooled']) }),
    z.strictObject({ of: z.literal('several-means'), sizes, sds, method: z.enum(['welch', 'one-way']) }),
    z.strictObject({ of: z.literal('spreads'), sizes, method: z.enum(['f', 'brown-forsythe']) }),
    z.strictObject({ of: z.literal('count'), n: z.int(SIZE).min(1, SIZE).max(1e12, SIZE), share }),
    z.strictObject({ of: z.literal('events'), mean: z.number(NUMBER).positive(NUMBER).max(1e12, NUMBER) }),
    z.strictObject({
      of: z.literal('counts'),
      n: z.int(SIZE).min(1, SIZE).max(1e14, SIZE),
      shares: z.array(share).min(2).max(200),
    }),
    z.strictObject({ of: z.literal('signs'), ranks }),
    z.strictObject({ of: z.literal('ranks'), ranks, first: size }),
  ],
  'The model must be one of the claims.',
);
const limit = z.number(NUMBER).nullable();

const request = z.strictObject({
  /** Of which the claim is; what is drawn does not depend on it. */
  column: columnSetting.optional(),
  model,
  beyond: z.strictObject({ atMost: limit, atLeast: limit }),
  draws: draws.schema,
  seed: ofDraws.schema,
});
type Request = z.infer<typeof request>;

export const DRAWS_METHOD: readonly SentencePart[] = [
  'Simulate ',
  draws.field,
  ' samples for which the claim is true, seed ',
  ofDraws.field,
  '.',
];

export interface ClaimDrawsResult {
  available: true;
  statistics: number[];
  /** The number of samples at least as far from the claim. */
  beyond: number;
  notes: Note[];
}

function isBeyond(statistic: number, { atMost, atLeast }: Request['beyond']): boolean {
  const scale = scaleOfSum(statistic);
  return (
    (atMost !== null && statistic <= greatestTie(atMost, scale)) ||
    (atLeast !== null && statistic >= leastTie(atLeast, scale))
  );
}

const workOf = (drawn: ClaimDraws): number =>
  'sizes' in drawn
    ? drawn.sizes.reduce((a, b) => a + b, 0)
    : 'ranks' in drawn
      ? drawn.ranks.length
      : drawn.of === 'mean' || drawn.of === 'spread'
        ? drawn.n
        : 40;

function drawsFinding({ statistics, beyond }: ClaimDrawsResult): Piece[] {
  const n = groupThousands(statistics.length);
  return [
    { text: `Of ${n} samples drawn as if the claim were true, ` },
    { text: groupThousands(beyond), strong: true, code: 'figure' },
    { text: ' lie at least as far from it.' },
  ];
}

/** Samples drawn under the claim: the variation of its statistic by chance alone. */
export const claimDrawsAnalysis = defineAnalysis<Request, ClaimDrawsResult>({
  id: 'claim-draws',
  version: 1,
  name: 'Simulated null distribution',
  title: 'samples simulated under a claim, and how many are at least as extreme as the data',
  needsReadings: false,
  takesLabels: true,
  request,
  method: DRAWS_METHOD,
  resolve: (settings) => settings,
  *run({ model: drawn, beyond, draws: count, seed: from }) {
    const book = orderBook(from, chunkSizeFor(workOf(drawn)));
    book.add({ kernel: 'claim-draws', input: drawn }, count);
    const partial: ClaimDrawsResult = { available: true, statistics: [], beyond: 0, notes: [] };
    const [chunks] = yield { partial, orders: book.orders };
    return drawnOf(chunks!, beyond);
  },
  glimpse: ({ beyond }, _, [chunks]) => drawnOf(chunks!, beyond),
  finding: drawsFinding,
});

function drawnOf(chunks: readonly Float64Array[], beyond: Request['beyond']): ClaimDrawsResult {
  const statistics = chunks.flatMap((chunk) => Array.from(chunk)).filter(Number.isFinite);
  const count = statistics.filter((statistic) => isBeyond(statistic, beyond)).length;
  return { available: true, statistics, beyond: count, notes: [] };
}
