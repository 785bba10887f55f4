import { leastReadings } from '../../claims/noticing.js';
import { clopperPearson } from '../../numeric/clopper-pearson.js';
import { normalQuantile } from '../../numeric/standard-normal.js';
import type { Sample } from '../../readings/sample.js';
import { TABLE_SAMPLES } from '../../simulation/null-table.js';
import { simulatedTest } from '../../simulation/simulated-tests/registry.js';
import { defineAnalysis, isUnavailable, type Answers, type Step, type Unavailable } from '../../road/analysis.js';
import { wholeSentence } from '../../road/method-sentence.js';
import { levelNote, unavailable } from '../../road/cautions.js';
import { chunkSizeFor, resampledChunkSize } from '../../road/kernels.js';
import { anotherSeed, orderBook } from '../../road/order-book.js';
import { USUAL_POWER } from './curves-settings.js';
import type { PlanResult, Tried } from './plan-result.js';
import { PLAN, planRequest, type PlanRequest } from './plan-settings.js';
import { planFinding } from './plan-words.js';
import { drawnAtOnce, effectWords, populationSource, type PopulationSource } from './simulated-source.js';
import { tableOf } from './simulate.js';
import { drawnFrom } from './simulated.js';
import { symmetryNotes } from './simulate-words.js';
import { testedAt, type TestedAt } from './tested.js';

/** Beyond so many nothing is simulated; of a test whose table is drawn for every size, not even that many. */
const MOST_SIMULATED = 20_000;
const MOST_WITH_TABLE = 2_000;
/** Readings drawn for one size, over all its samples: longer samples are fewer. */
const MOST_DRAWN = 40_000_000;
const LEAST_SAMPLES = 500;
/** Readings drawn for all sizes together; then the search ends with what is known. */
const MOST_IN_ALL = 300_000_000;

const asRequest = (asked: PlanRequest, n: number) => ({
  ...asked,
  ...{ n, trim: '0.1' as const, quantileType: 7 as const, confidence: 0.95 },
});

interface Planning {
  asked: PlanRequest;
  sample: Sample;
  source: PopulationSource;
  least: number;
  most: number;
}

function testedOf({ asked, sample, source }: Planning, n: number): TestedAt | Unavailable {
  const here = asRequest(asked, n);
  const drawn = drawnFrom(here, sample, source);
  return 'available' in drawn ? drawn : testedAt(asked.test, here, sample, drawn);
}

function emptyOf({ asked, source, sample }: Planning, { made }: TestedAt): PlanResult {
  const { law, words, size, sd } = source;
  return {
    ...{ available: true, missing: sample.missing, setAside: sample.setAside },
    population: { words, size, sd, mean: Number.isFinite(law.mean) ? law.mean : null, median: law.quantile(0.5) },
    ...{ test: asked.test, name: simulatedTest(asked.test).name, claim: made.claim, alpha: asked.alpha },
    effect: effectWords(asked, source.head.unit),
    ...{ n: null, power: null, wanted: asked.power ?? USUAL_POWER, exact: false },
    ...{ groups: simulatedTest(asked.test).groups, atLeast: null, atMost: null, tried: [], most: null },
    ...{
      seed: asked.seed,
      notes: [...source.head.notes, ...levelNote(asked.alpha), ...symmetryNotes([asked.test], law)],
    },
  };
}

function exactly(planning: Planning, empty: PlanResult, exact: NonNullable<TestedAt['exact']>): PlanResult {
  const { wanted } = empty;
  const n = leastReadings((size) => exact(size, size), planning.least, wanted);
  if (n === null || n > planning.most) return { ...empty, exact: true, most: n === null ? 1_000_000 : planning.most };
  const sizes = [...new Set([Math.max(planning.least, Math.floor(n / 2)), n - 1, n, Math.ceil(1.5 * n), 2 * n])];
  const tried = sizes
    .filter((size) => size >= planning.least && size <= planning.most)
    .map((size) => ({ n: size, power: exact(size, size), lower: null, upper: null, replicates: 0 }));
  return { ...empty, exact: true, n, power: exact(n, n), tried };
}

/** One size tried: how often the test notices. */
function* tryOut(
  planning: Planning,
  partial: PlanResult,
  n: number,
): Generator<Step<PlanResult>, Tried | Unavailable, Answers> {
  const { asked } = planning;
  const tested = testedOf(planning, n);
  if (isUnavailable(tested)) return tested;
  const { made, test } = tested as TestedAt;
  const drawn = drawnAtOnce(made.groups);
  let table: Float64Array | null = null;
  const { table: tableFor } = simulatedTest(test.test);
  if (tableFor) {
    const book = orderBook(anotherSeed(asked.seed, 2), chunkSizeFor(n));
    book.add(tableFor(n, asked.alternative), TABLE_SAMPLES);
    table = tableOf(yield { partial, orders: book.orders });
  }
  const replicates = Math.max(LEAST_SAMPLES, Math.min(asked.replicates, Math.floor(MOST_DRAWN / drawn)));
  const book = orderBook(asked.seed, resampledChunkSize(drawn * made.cost));
  const input = { groups: made.groups, alpha: asked.alpha, tests: [{ ...test, table }] };
  book.add({ kernel: 'rejection-tallies', input } as const, replicates);
  const [chunks] = yield { partial, orders: book.orders };
  const count = chunks!.reduce((sum, tallies) => sum + tallies[0]!, 0);
  const [lower, upper] = clopperPearson(count, replicates);
  return { n, power: count / replicates, lower, upper, replicates };
}

/** Where to begin: as many as t would need for such a shift, about. */
function guessOf({ asked, source, least, most }: Planning): number {
  const { shift, shiftInSd, alpha, power = USUAL_POWER } = asked;
  const off = Math.abs(shift !== undefined && source.sd ? shift / source.sd : (shiftInSd ?? 0.5));
  const z = normalQuantile(1 - alpha / 2) + normalQuantile(power);
  const guess = off > 0 ? Math.ceil((z / off) ** 2) : 20;
  return Math.min(most, Math.max(least, Number.isFinite(guess) ? Math.min(guess, 2_000) : 20));
}

/** So near two sizes are as good as one: simulation does not tell them apart. */
const near = (low: number, high: number) => high - low <= Math.max(1, Math.floor(0.01 * high));

const together = (partial: PlanResult, tried: readonly Tried[]): PlanResult => {
  const { wanted } = partial;
  const sorted = [...tried].sort((a, b) => a.n - b.n);
  const enough = sorted.filter(({ power }) => power >= wanted);
  const found = enough[0] ?? null;
  const tooFew = sorted.filter(({ upper }) => upper! < wanted).at(-1);
  const certain = sorted.find(({ lower }) => lower! >= wanted);
  return {
    ...partial,
    tried: sorted,
    ...{ n: found?.n ?? null, power: found?.power ?? null },
    ...{ atLeast: tooFew ? tooFew.n + 1 : null, atMost: certain?.n ?? null },
  };
};

/** Steps in which what the simulation leaves open is looked for, as a part of n. */
const MARGIN = 0.03;

/** By doubling and halving until two sizes next to each other are on either side. */
function* bySimulation(
  planning: Planning,
  empty: PlanResult,
): Generator<Step<PlanResult>, PlanResult | Unavailable, Answers> {
  const { least, most } = planning;
  const tried: Tried[] = [];
  let spent = 0;
  const at = function* (n: number) {
    const found = yield* tryOut(planning, together(empty, tried), n);
    if (isUnavailable(found)) return found;
    tried.push(found as Tried);
    spent += n * (found as Tried).replicates * (planning.asked.groups === 'two' ? 2 : 1);
    return (found as Tried).power >= empty.wanted;
  };
  let [low, high] = [least - 1, 0];
  let n = guessOf(planning);
  while (high === 0 || low < least - 1) {
    const enough: boolean | Unavailable = yield* at(n);
    if (typeof enough !== 'boolean') return enough;
    if (enough) {
      high = n;
      if (n <= least || low >= least) break;
      n = Math.max(least, n >> 1);
      continue;
    }
    low = Math.max(low, n);
    if (high > 0) break;
    if (n >= most) return { ...together(empty, tried), n: null, power: null, most };
    n = Math.min(most, 2 * n);
  }
  while (!near(low, high) && spent < MOST_IN_ALL) {
    const middle = (low + high) >> 1;
    const enough: boolean | Unavailable = yield* at(middle);
    if (typeof enough !== 'boolean') return enough;
    if (enough) high = middle;
    else low = middle;
  }
  // Until it is certain that fewer are too few, and how many are enough.
  for (const [sign, known] of [
    [-1, ({ upper }: Tried) => upper! < empty.wanted],
    [1, ({ lower }: Tried) => lower! >= empty.wanted],
  ] as const) {
    const step = Math.max(1, Math.round(MARGIN * high));
    for (let size = high + sign * step; size >= least && size <= most && !tried.some(known); size += sign * step) {
      if (spent >= MOST_IN_ALL) break;
      const found: boolean | Unavailable = yield* at(size);
      if (typeof found !== 'boolean') return found;
    }
  }
  const cut = spent >= MOST_IN_ALL ? { drawn: spent } : {};
  return { ...together(empty, tried), ...cut, n: high, power: tried.find((one) => one.n === high)!.power };
}

/** How many readings a test needs to notice something with a chance: by formula where that is exact, else by simulation. */
export const planAnalysis = defineAnalysis<PlanRequest, PlanResult>({
  id: 'plan',
  version: 2,
  name: 'Sample size',
  title: 'sample size that a test needs for a given power',
  needsReadings: false,
  request: planRequest,
  method: wholeSentence(PLAN),
  subject: ({ column }) => column ?? 'a distribution',
  resolve: (asked) => ({ ...asked, groups: simulatedTest(asked.test).groups === 2 ? 'two' : 'one' }),
  *run(given, sample) {
    const asked = this.resolve(given, sample);
    const source = populationSource(asked, sample);
    if ('available' in source) return source;
    const { least, greatest = MOST_SIMULATED, table } = simulatedTest(asked.test);
    const base = source.population.base;
    const finite = 'values' in base && !base.replacement ? base.values.length : Infinity;
    const planning = {
      asked,
      sample,
      source,
      least,
      most: Math.min(greatest, finite, table ? MOST_WITH_TABLE : MOST_SIMULATED),
    };
    if (planning.most < least)
      return unavailable(
        sample,
        `The ${simulatedTest(asked.test).name} needs at least ${least} readings, but the population has fewer.`,
      );
    const first = testedOf(planning, least);
    if (isUnavailable(first)) return first;
    const tested = first as TestedAt;
    if (tested.made.holds)
      return unavailable(
        sample,
        `The claim of the test (${tested.made.claim}) is true, so there is nothing to detect. Enter a shift or a ratio of the standard deviations.`,
      );
    const empty = emptyOf(planning, tested);
    if (tested.exact) return exactly({ ...planning, most: Math.min(greatest, finite) }, empty, tested.exact);
    return yield* bySimulation(planning, empty);
  },
  finding: planFinding,
});
