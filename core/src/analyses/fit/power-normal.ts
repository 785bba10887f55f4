import { COARSE, roundingOf, type Rounding } from '../../goodness-of-fit/rounding.js';
import { centralMoments } from '../../numeric/sums.js';
import { workOf } from './normality-tested.js';
import type { Population } from '../../goodness-of-fit/normality/anderson-darling-simulation.js';
import { LEAST_N } from '../../goodness-of-fit/normality/battery.js';
import { noticedShare, sizeNeeded } from '../../goodness-of-fit/power.js';
import { simulatedCriticalValue } from '../../goodness-of-fit/simulated-p.js';
import type { Sample } from '../../readings/sample.js';
import type { Answers, Step } from '../../road/analysis.js';
import { chunkSizeFor } from '../../road/kernels.js';
import { anotherSeed, orderBook, type OrderBook } from '../../road/order-book.js';
import { DEPARTURES, departureOf } from './power-departures.js';
import { GREATEST_SIZE, WANTED, type NormalPower } from './power-result.js';
import type { PowerRequest as Request } from './power-settings.js';
import { powerNotes } from './power-words.js';

/** Samples with nothing to find, for the critical value: a level of 0.05 is then known to 0.002. */
const NULLS = 10_000;
const NULLS_OF_OTHERS = 5_000;
const REPLICATES_OF_OTHERS = 2_000;
/** At which n the departure asked about is tried, close enough that power is straight between two of them: the larger ones only where they are needed. */
const SIZES = [
  [8, 12, 18, 27, 40, 60, 90],
  [135, 200, 300],
  [450, 700, 1_000],
  [1_500, GREATEST_SIZE],
];
/** What is asked, and how samples are rounded where the steps of the readings are coarse. */
type Asked = Request & { rounding: Rounding | null };

/** The statistics of one test for samples of n from each of some populations, in a book of their own. */
function orderAll(
  { test, rounding }: Asked,
  n: number,
  populations: readonly Population[],
  counts: number[],
  book: OrderBook,
) {
  return populations.map((population, i) => book.add(workOf(test, n, population, rounding), counts[i]!));
}

/** The curves at this n. */
function* curvesAt(settings: Asked, base: NormalPower): Generator<Step<NormalPower>, NormalPower, Answers> {
  const { n } = base;
  const replicates = settings.replicates!;
  const book = orderBook(settings.seed, chunkSizeFor(n));
  const scales = DEPARTURES.map(({ kind, values, of }) => {
    const tried = kind === base.asked.kind ? withValue(values, base.asked.value) : values;
    return { kind, values: tried, populations: tried.map(of) };
  });
  const all = scales.flatMap(({ populations }) => populations);
  const counts = [Math.max(NULLS, replicates), ...all.map(() => replicates)];
  const places = orderAll(settings, n, ['normal', ...all], counts, book);
  const answers = yield { partial: base, orders: book.orders };
  const critical = simulatedCriticalValue(answers[places[0]!]!, settings.alpha);
  const shares = places.slice(1).map((place) => noticedShare(answers[place]!, critical));
  let next = 0;
  const curves = scales.map(({ kind, values }) => ({
    kind,
    points: values.map((value) => ({ value, ...shares[next++]! })),
  }));
  const { kind, value } = base.asked;
  const { value: _, ...at } = curves.find((curve) => curve.kind === kind)!.points.find((p) => p.value === value)!;
  return { ...base, curves, asked: { ...base.asked, at } };
}

/** The values of a scale with one more among them, in their order. */
function withValue(values: readonly number[], value: number): number[] {
  const falling = values[0]! > values.at(-1)!;
  return [...new Set([...values, value])].sort((a, b) => (falling ? b - a : a - b));
}

/** The departure asked about at other n, and the n that would notice it. */
function* sizesFor(settings: Asked, known: NormalPower): Generator<Step<NormalPower>, NormalPower, Answers> {
  const population = departureOf(known.asked.kind).of(known.asked.value);
  let found = known;
  let tried = 0;
  for (const some of SIZES) {
    const sizes = some.filter((n) => n >= LEAST_N[settings.test]);
    const books = sizes.map((n) => {
      const book = orderBook(anotherSeed(settings.seed, ++tried), chunkSizeFor(n));
      orderAll(settings, n, ['normal', population], [NULLS_OF_OTHERS, REPLICATES_OF_OTHERS], book);
      return book;
    });
    const answers = yield { partial: found, orders: books.flatMap(({ orders }) => orders) };
    const more = sizes.map((n, k) => {
      const critical = simulatedCriticalValue(answers[2 * k]!, settings.alpha);
      return { n, ...noticedShare(answers[2 * k + 1]!, critical) };
    });
    const over = [...found.asked.over, ...more];
    found = { ...found, asked: { ...found.asked, over, needed: sizeNeeded(over, WANTED) } };
    if (found.asked.needed !== null) break;
  }
  return found;
}

/** What a test of normality notices at this n, by simulation: five ways to depart, and one of them at other n. */
export function* normalPower(settings: Request, sample: Sample): Generator<Step<NormalPower>, NormalPower, Answers> {
  const { missing, setAside, unit, resolution, values } = sample;
  const { against: kind } = settings;
  const value = settings[departureOf(kind).setting];
  const base: NormalPower = {
    ...{ available: true, of: 'normal', n: values.length, missing, setAside, unit, resolution },
    ...{ alpha: settings.alpha, test: settings.test, replicates: settings.replicates!, curves: [] },
    asked: { kind, value, at: null, over: [], needed: null },
    notes: [],
  };
  const withNotes = { ...base, notes: powerNotes(sample, base) };
  const { s2 } = centralMoments(values);
  const sd = values.length > 1 ? Math.sqrt(s2 / (values.length - 1)) : 0;
  const coarse = resolution !== null && sd > 0 && sd < COARSE * resolution;
  const own: Asked = { ...settings, rounding: coarse ? roundingOf(values, resolution, sd) : null };
  const known = yield* curvesAt(own, withNotes);
  return yield* sizesFor(own, known);
}
