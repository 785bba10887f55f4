import { clopperPearson } from '../../numeric/clopper-pearson.js';
import { normalQuantile } from '../../numeric/standard-normal.js';
import type { Sample } from '../../readings/sample.js';
import { TABLE_SAMPLES } from '../../simulation/null-table.js';
import { simulatedTest } from '../../simulation/simulated-tests/registry.js';
import { defineAnalysis, isUnavailable, type Answers, type Unavailable } from '../../road/analysis.js';
import { wholeSentence } from '../../road/method-sentence.js';
import { unavailable } from '../../road/cautions.js';
import { chunkSizeFor, resampledChunkSize } from '../../road/kernels.js';
import { anotherSeed, orderBook } from '../../road/order-book.js';
import { CURVES, curvesRequest, USUAL_POWER, USUAL_VALUES, type Along, type CurvesRequest } from './curves-settings.js';
import type { Curve, CurvePoint, CurvesResult } from './curves-result.js';
import { curvesFinding, curvesNotes } from './curves-words.js';
import { drawnAtOnce, effectWords, populationSource, type PopulationSource } from './simulated-source.js';
import { drawnFrom } from './simulated.js';
import type { Drawn } from './simulated-parts.js';
import { symmetryNotes } from './simulate-words.js';
import { tableOf } from './simulate.js';
import { testedAt, type TestedAt } from './tested.js';

/** The request with its value along the axis set. */
const placedAt = (asked: CurvesRequest, value: number): CurvesRequest => {
  const { along } = asked;
  const cleared =
    along === 'shift'
      ? { shiftInSd: undefined }
      : along === 'shiftInSd'
        ? { shift: undefined }
        : along === 'n'
          ? { secondN: undefined }
          : {};
  return { ...asked, ...cleared, [along]: value };
};

/** What is wrong with a value along the axis. */
function whyNotValue(along: Along, value: number): string | null {
  if (along === 'n' && !(Number.isInteger(value) && value >= 1 && value <= 100_000))
    return `A sample size must be a whole number from 1 to 100\u202f000, not ${value}.`;
  if (along === 'ratio' && !(value > 0))
    return `A ratio of standard deviations must be a number above 0, not ${value}.`;
  if (along === 'mixedShare' && !(value >= 0 && value <= 1))
    return `A proportion must lie between 0 and 1, not ${value}; 0.05 means 5 %.`;
  return null;
}

interface Place {
  value: number;
  drawn: Drawn;
  /** In the order of the tests; null where there are too few readings for one, or too many. */
  tested: (TestedAt | null)[];
}
const doneAt = ({ tested }: Place): TestedAt[] => tested.filter((one) => one !== null);

function placesOf(asked: CurvesRequest, sample: Sample): Place[] | Unavailable {
  const values = asked.values!;
  if (values.length === 0) return unavailable(sample, 'Enter the shifts, in the unit of the readings.');
  const places: Place[] = [];
  // Only a contamination makes another population; the others are moved, or drawn from more.
  let source: PopulationSource | undefined;
  for (const value of values) {
    const why = whyNotValue(asked.along, value);
    if (why) return unavailable(sample, why);
    const here = asRequest(placedAt(asked, value));
    const drawn = drawnFrom(here, sample, asked.along === 'mixedShare' ? undefined : source);
    if ('available' in drawn) return drawn;
    ({ source } = drawn);
    const tested: (TestedAt | null)[] = [];
    for (const id of asked.tests) {
      const { least, greatest = Infinity } = simulatedTest(id);
      if (drawn.groups.some(({ n }) => n < least || n > greatest)) {
        tested.push(null);
        continue;
      }
      const one = testedAt(id, here, sample, drawn);
      if (isUnavailable(one)) return one;
      tested.push(one);
    }
    places.push({ value, drawn, tested });
  }
  const never = asked.tests.find((_, t) => places.every(({ tested }) => tested[t] === null));
  if (never === undefined) return places;
  const { name, least, greatest } = simulatedTest(never);
  const range = greatest === undefined ? `at least ${least}` : `${least} to ${greatest}`;
  return unavailable(sample, `The ${name} takes ${range} readings; no sample size here qualifies.`);
}

/** The request as a simulation takes it: figures and confidence are nothing to a test. */
const asRequest = (asked: CurvesRequest) => ({
  ...asked,
  ...{ trim: '0.1' as const, quantileType: 7 as const, confidence: 0.95 },
});

const costOf = (place: Place): number =>
  drawnAtOnce(place.drawn.groups) * doneAt(place).reduce((sum, { made }) => sum + made.cost, 0);

/** The tables of tests without a formula, place by place. */
function tablesFor(asked: CurvesRequest, places: readonly Place[]) {
  const wanted = places.flatMap((place) =>
    doneAt(place).flatMap(({ made, test }) => {
      const { table } = simulatedTest(test.test);
      const { n } = made.groups[0]!;
      return table ? [{ key: `${test.test} ${n}`, work: table(n, asked.alternative), n }] : [];
    }),
  );
  const different = wanted.filter(({ key }, i) => wanted.findIndex((other) => other.key === key) === i);
  const orders = different.flatMap(({ work, n }) => {
    const book = orderBook(anotherSeed(asked.seed, 2), chunkSizeFor(n));
    book.add(work, TABLE_SAMPLES);
    return book.orders;
  });
  return { orders, keys: different.map(({ key }) => key) };
}

function curveOf(test: string, points: CurvePoint[], wanted: number, along: Along): Curve {
  const { name, short } = simulatedTest(test);
  return { test, name, short, points, crossing: crossingOf(points, wanted, along) };
}

/** Where the chance is first reached: between two points on a straight line of probits, over √n or over the value. A point at 0 or 1 has no probit and is taken half a sample inside. */
export function crossingOf(points: readonly CurvePoint[], wanted: number, along: Along): number | null {
  const scale = (value: number) => (along === 'n' ? Math.sqrt(value) : value);
  const back = (x: number) => (along === 'n' ? x * x : x);
  const probit = ({ exact, share, replicates }: CurvePoint) => {
    const found = exact ?? share!;
    const half = 0.5 / replicates;
    return normalQuantile(
      exact === null ? Math.min(1 - half, Math.max(half, found)) : Math.min(1 - 1e-15, Math.max(1e-300, found)),
    );
  };
  const target = normalQuantile(wanted);
  const known = points.filter(({ share, exact }) => share !== null || exact !== null);
  for (let i = 1; i < known.length; i++) {
    const [before, after] = [known[i - 1]!, known[i]!];
    const [low, high] = [probit(before), probit(after)];
    if (low < target && high >= target) {
      const part = (target - low) / (high - low);
      return back(scale(before.value) + part * (scale(after.value) - scale(before.value)));
    }
  }
  return null;
}

/** What is known of test t at a place: `tally` holds two numbers for each test that is done there. */
function pointOf(place: Place, t: number, tally: Float64Array | null, replicates: number): CurvePoint {
  const { value, drawn, tested } = place;
  const sizes = drawn.groups.map(({ n }) => n);
  const own = tested[t];
  const at = 2 * tested.slice(0, t).filter((one) => one !== null).length;
  const known = own !== null && tally !== null;
  const count = known ? tally[at]! : 0;
  const [lower, upper] = known ? clopperPearson(count, replicates) : [null, null];
  return {
    ...{ value, sizes, count, replicates: known ? replicates : 0, share: known ? count / replicates : null },
    ...{ lower, upper, undefined: known ? tally[at + 1]! : 0 },
    exact: own?.exact ? own.exact(sizes[0]!, sizes[1] ?? sizes[0]!) : null,
    holds: own === null || own!.made.holds === true,
  };
}

/** All points with what is known of them. */
function resultOf(
  asked: CurvesRequest,
  places: readonly Place[],
  sample: Sample,
  tallies: readonly (Float64Array | null)[],
): CurvesResult {
  const { power = USUAL_POWER, along, alpha, seed, replicates } = asked;
  const { source } = places[0]!.drawn;
  const curves = asked.tests.map((id, t) => {
    const points = places.map((place, i) => pointOf(place, t, tallies[i] ?? null, replicates));
    return curveOf(id, points, power, along);
  });
  const { law, words, sd, size, head } = source;
  return {
    ...{ available: true, missing: sample.missing, setAside: sample.setAside },
    ...{ unit: head.unit, resolution: head.resolution, notes: [...head.notes, ...symmetryNotes(asked.tests, law)] },
    population: { words, size, sd, mean: Number.isFinite(law.mean) ? law.mean : null, median: law.quantile(0.5) },
    ...{ along, curves, alpha, power, replicates, seed, effect: effectWords(asked, head.unit) },
  };
}

/** Chunks of a point, added up. */
function summed(chunks: readonly Float64Array[]): Float64Array | null {
  if (chunks.length === 0) return null;
  const all = new Float64Array(chunks[0]!.length);
  for (const chunk of chunks) for (let i = 0; i < all.length; i++) all[i]! += chunk[i]!;
  return all;
}

/** Power and error curves: how often tests have a p below the level, along n, a shift, a spread or a contamination. */
export const curvesAnalysis = defineAnalysis<CurvesRequest, CurvesResult>({
  id: 'power-curves',
  version: 2,
  name: 'Power curves',
  title: 'power and false-alarm rate of tests against sample size, shift, spread or contamination',
  needsReadings: false,
  request: curvesRequest,
  method: wholeSentence(CURVES),
  subject: ({ column }) => column ?? 'a distribution',
  resolve: (asked, sample) => ({
    ...asked,
    values: asked.values ?? usualValues(asked, sample),
    groups: simulatedTest(asked.tests[0]!).groups === 2 ? 'two' : 'one',
  }),
  *run(given, sample) {
    const asked = this.resolve(given, sample);
    const places = placesOf(asked, sample);
    if (!Array.isArray(places)) return places;
    const empty = resultOf(asked, places, sample, []);
    const { orders: tables, keys } = tablesFor(asked, places);
    const drawnTables: Answers = tables.length > 0 ? yield { partial: empty, orders: tables } : [];
    const found = new Map(keys.map((key, i) => [key, tableOf([drawnTables[i]!])]));
    // The same streams for every place: what is moved is then the only thing that differs.
    const cost = places.reduce((most, place) => Math.max(most, costOf(place)), 1);
    const book = orderBook(asked.seed, resampledChunkSize(cost));
    const at = places.map((place) => {
      const { groups } = place.drawn;
      const tests = doneAt(place).map(({ test }) => ({
        ...test,
        table: found.get(`${test.test} ${groups[0]!.n}`) ?? null,
      }));
      if (tests.length === 0) return null;
      const work = { kernel: 'rejection-tallies', input: { groups, alpha: asked.alpha, tests } } as const;
      return book.add(work, asked.replicates, book.orders.length > 0 ? 0 : undefined);
    });
    const answers = yield { partial: empty, orders: book.orders };
    const tallies = at.map((order) => (order === null ? null : summed(answers[order]!)));
    const result = resultOf(asked, places, sample, tallies);
    return { ...result, notes: [...result.notes, ...curvesNotes(result, asked)] };
  },
  finding: curvesFinding,
});

/** What is usually looked at; shifts in the unit by the sd. */
function usualValues(asked: CurvesRequest, sample: Sample): number[] {
  if (asked.along !== 'shift') return [...USUAL_VALUES[asked.along]];
  const source = populationSource(asked, sample);
  if ('available' in source || source.sd === null) return [];
  return USUAL_VALUES.shiftInSd.map((times) => Number((times * source.sd!).toPrecision(2)));
}
