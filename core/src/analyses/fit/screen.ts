import { akaikeWeights, plausibleCount } from '../../distributions/fit/akaike.js';
import { RANKED } from '../../distributions/measured.js';
import { roundingOf } from '../../goodness-of-fit/rounding.js';
import { z } from 'zod';
import { normal } from '../../distributions/families/normal.js';
import type { NormalityTestName } from '../../goodness-of-fit/normality/battery.js';
import { extremeness, LEAST_N, NORMALITY_TESTS, normalityStatistics } from '../../goodness-of-fit/normality/battery.js';
import { simulatedP } from '../../goodness-of-fit/simulated-p.js';
import { holmAdjusted } from '../../numeric/holm.js';
import { centralMoments } from '../../numeric/sums.js';
import { plottingPositions } from '../../probability-plot/positions.js';
import type { Sample } from '../../readings/sample.js';
import { defineAnalysis, type Answers, type SentencePart } from '../../road/analysis.js';
import { whyCensored } from '../../road/beyond-limits.js';
import { unavailable, whyEmpty, whyNot } from '../../road/cautions.js';
import { chunkSizeFor, type KernelOrder } from '../../road/kernels.js';
import { orderBook } from '../../road/order-book.js';
import { NOT_BOTH, notBoth, severalOf, severalSettings, severalWords } from '../../road/several.js';
import { choice, replicates as replicatesOf, seed as seedOf } from '../../road/setting.js';
import { affordableReplicates, alphaSetting } from '../../road/settings.js';
import { roundedWork } from './normality-tested.js';
import { testFacts } from './normality-tests.js';
import { smallPlot } from './ranked-families.js';
import type { ScreenedPart, ScreenResult } from './screen-result.js';
import { screenFinding, screenNotes } from './screen-words.js';

const test = choice(
  'test',
  'test of normality',
  NORMALITY_TESTS.map((value) => ({ value, text: testFacts(value, 0).name })),
  'anderson-darling',
);
const replicates = replicatesOf('number of simulated samples');
const seed = seedOf('seed of the simulation');

const request = z
  .strictObject({
    ...severalSettings,
    test: test.schema,
    alpha: alphaSetting,
    replicates: replicates.schema,
    seed: seed.schema,
  })
  .refine(notBoth, NOT_BOTH);
type Request = z.infer<typeof request>;

const method: readonly SentencePart[] = [
  'Test each of ',
  { subject: true },
  ' for normality by ',
  test.field,
  ', p from ',
  replicates.field,
  ' simulated samples, seed ',
  seed.field,
  ', adjusted for the number of tests (Holm).',
];

/** Enough for any to be compared. */
const LEAST_COMPARED = 5;

/** What is known of a part before anything is simulated. */
interface Looked {
  part: Sample;
  sorted: Float64Array;
  row: ScreenedPart;
}

function looked(part: Sample, name: NormalityTestName): Looked {
  const { values, missing, setAside, unit } = part;
  const n = values.length;
  const sorted = values.slice().sort();
  const reason = whyNot(part, LEAST_N[name], 'the test') ?? whyCensored(part, 'a test of normality');
  const row: ScreenedPart = {
    ...{ name: part.name, n, missing, setAside, unit, reason, statistic: null, pSimulated: null, pResolution: null },
    ...{ p: null, pHolm: null, ruling: reason === null ? 'open' : null, best: null, together: [], small: null },
  };
  if (reason !== null) return { part, sorted, row };
  const { mean, s2 } = centralMoments(sorted);
  const sd = Math.sqrt(s2 / (n - 1));
  const statistic = normalityStatistics(sorted, mean, sd)[NORMALITY_TESTS.indexOf(name)]!;
  const small = smallPlot(normal, { parameters: { mean, sd } }, sorted, plottingPositions(n, 'midpoint'));
  return { part, sorted, row: { ...row, statistic, small } };
}

/** The samples with nothing to find, once for each n, and the criteria of the families, once for each part. */
function firstOrders({ seed: from, replicates: count, test: name }: Request, all: readonly Looked[]) {
  const orders: KernelOrder[] = [];
  const nulls = new Map<number, number>();
  for (const { sorted } of all) {
    const n = sorted.length;
    if (nulls.has(n)) continue;
    const book = orderBook(from, chunkSizeFor(n));
    const input = { test: name, n, population: 'normal', rounding: null } as const;
    book.add({ kernel: 'normality-replicates', input }, affordableReplicates(n, count!, Math.min(count!, 1_000)));
    nulls.set(n, orders.push(...book.orders) - 1);
  }
  const criteria = all.map(({ part, sorted }) => {
    if (sorted.length < LEAST_COMPARED) return null;
    const book = orderBook(from, 1);
    const input = { values: Array.from(sorted), resolution: part.resolution, families: RANKED };
    book.add({ kernel: 'family-criteria', input }, 1);
    return orders.push(...book.orders) - 1;
  });
  return { orders, nulls, criteria };
}

/** The family that ranks first by AICc, and those that are plausible beside it: together their weights sum to 0.95. */
function bestOf(aicc: Float64Array | undefined): Pick<ScreenedPart, 'best' | 'together'> {
  const found = RANKED.map((family, i) => ({ family, aicc: aicc?.[i] ?? Infinity }))
    .filter((one) => Number.isFinite(one.aicc))
    .sort((a, b) => a.aicc - b.aicc);
  const [best, ...others] = found.slice(0, plausibleCount(akaikeWeights(found.map((one) => one.aicc))));
  return best ? { best: best.family, together: others.map(({ family }) => family) } : { best: null, together: [] };
}

/** For those that depart as they are written: whether rounding alone could do that. */
function roundedOrders({ seed: from, replicates: count, test: name, alpha }: Request, all: readonly Looked[]) {
  const orders: KernelOrder[] = [];
  const places = all.map(({ part, sorted, row }) => {
    if (row.p === null || row.p >= alpha) return null;
    const { s2 } = centralMoments(sorted);
    const n = sorted.length;
    const rounding = roundingOf(part.values, part.resolution, Math.sqrt(s2 / (n - 1)));
    if (!rounding) return null;
    const book = orderBook(from, chunkSizeFor(n));
    book.add(roundedWork(name, n, rounding), affordableReplicates(n, count!, Math.min(count!, 1_000)));
    const coarse = rounding.by === 'counted-steps' && name === 'anderson-darling' ? rounding.statistic : null;
    return { at: orders.push(...book.orders) - 1, observed: coarse ?? extremeness(name, row.statistic!) };
  });
  return { orders, places };
}

/** All parts with their rulings: the level shared among those that could be tested. */
function ruled(result: ScreenResult): ScreenResult {
  const { alpha } = result;
  const known = result.parts.filter(({ p }) => p !== null);
  const adjusted = holmAdjusted(known.map(({ p }) => p!));
  const parts = result.parts.map((row): ScreenedPart => {
    const at = known.indexOf(row);
    if (at < 0) return row;
    const pHolm = adjusted[at]!;
    const rounding = row.pResolution && row.pSimulated!.pValue < alpha && row.pResolution.pValue >= alpha;
    return { ...row, pHolm, ruling: rounding ? 'rounding' : pHolm < alpha ? 'departs' : 'no-evidence' };
  });
  return { ...result, parts };
}

const chunksOf = (answers: Answers, at: number) => answers[at] ?? [];

/** With the p of each against a normal, and the family that describes it best. */
function withPlainP(
  { test: name, seed: from }: Request,
  all: readonly Looked[],
  { nulls, criteria }: ReturnType<typeof firstOrders>,
  answers: Answers,
): Looked[] {
  return all.map((one, i): Looked => {
    const { row, sorted } = one;
    const far = extremeness(name, row.statistic!);
    const p = simulatedP(far, chunksOf(answers, nulls.get(sorted.length)!), from);
    const at = criteria[i];
    const best = bestOf(typeof at === 'number' ? chunksOf(answers, at)[0] : undefined);
    return { ...one, row: { ...row, ...best, pSimulated: p, p: p.pValue } };
  });
}

/** With the p of those that rounding alone may explain. */
function withRoundedP(
  { alpha, seed: from }: Request,
  all: readonly Looked[],
  { places }: ReturnType<typeof roundedOrders>,
  answers: Answers,
): Looked[] {
  return all.map((one, i): Looked => {
    const place = places[i];
    if (!place) return one;
    const pResolution = simulatedP(place.observed, chunksOf(answers, place.at), from);
    const p = pResolution.pValue >= alpha ? pResolution.pValue : one.row.p;
    return { ...one, row: { ...one.row, pResolution, p } };
  });
}

/** Many columns or groups at once: which depart from normal, the level shared among them, and which family ranks first for each. */
export const screenAnalysis = defineAnalysis<Request, ScreenResult>({
  id: 'screen',
  version: 2,
  name: 'Many columns',
  title: 'which of many columns or groups depart from a normal distribution, and which distributions are plausible',
  request,
  method,
  resolve: (settings) => ({ ...settings, replicates: settings.replicates ?? 10_000 }),
  subject: severalWords,
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    const { parts, cut } = severalOf(sample);
    if (parts.length === 0) return unavailable(sample, whyEmpty(sample));
    const all = parts.map((part) => looked(part, settings.test));
    const { missing, setAside, values } = sample;
    const base: ScreenResult = {
      ...{ available: true, n: values.length, missing, setAside, alpha: settings.alpha, test: settings.test },
      ...{
        by: sample.groups?.by ?? null,
        replicates: settings.replicates!,
        parts: all.map(({ row }) => row),
        notes: cut,
      },
    };
    const withNotes = (result: ScreenResult) => ({ ...result, notes: [...cut, ...screenNotes(result)] });
    const open = all.filter(({ row }) => row.reason === null);
    const first = firstOrders(settings, open);
    const answers = yield { partial: withNotes(base), orders: first.orders };
    const plain = withPlainP(settings, open, first, answers);
    const assembled = (some: readonly Looked[]): ScreenResult => {
      const rows = new Map(open.map(({ row }, i) => [row, some[i]!.row]));
      return ruled({ ...base, parts: base.parts.map((row) => rows.get(row) ?? row) });
    };
    const rounded = roundedOrders(settings, plain);
    if (rounded.orders.length === 0) return withNotes(assembled(plain));
    const more = yield { partial: withNotes(assembled(plain)), orders: rounded.orders };
    return withNotes(assembled(withRoundedP(settings, plain, rounded, more)));
  },
  finding: screenFinding,
});
