import { fittedLaw } from '../../distributions/fit/fitted-law.js';
import { fitCost } from '../../distributions/fit/fit-cost.js';
import { isRefusal } from '../../distributions/family.js';
import { familyByName } from '../../distributions/registry.js';
import { noticedShare, sizeNeeded } from '../../goodness-of-fit/power.js';
import { simulatedCriticalValue } from '../../goodness-of-fit/simulated-p.js';
import type { Sample } from '../../readings/sample.js';
import type { Answers, Step, Unavailable } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { chunkSizeFor } from '../../road/kernels.js';
import { anotherSeed, orderBook } from '../../road/order-book.js';
import { fittingOf } from './family-settings.js';
import { rankedFamilies } from './ranked-families.js';
import { WANTED, type FamiliesPower } from './power-result.js';
import type { PowerRequest as Request } from './power-settings.js';
import { powerNotes } from './power-words.js';

/** How many other distributions are tried: the nearest to the readings. */
const NEAREST = 4;
/** At which multiples of n. */
const TIMES = [0.5, 1, 2, 4];
const LEAST_N = 5;
/** Samples of the distribution itself, for the critical value, to each of another. */
const NULLS = 5;

/** What a test of any family notices where the nearest other families hold, at this n and at multiples of it. */
export function* familiesPower(
  settings: Request,
  sample: Sample,
): Generator<Step<FamiliesPower>, FamiliesPower | Unavailable, Answers> {
  const sorted = Float64Array.from(sample.values).sort();
  const fitting = fittingOf(settings);
  const law = fittedLaw(sorted, fitting);
  if (isRefusal(law)) return unavailable(sample, law.refused);
  const found = rankedFamilies(sample);
  if (typeof found === 'string') return unavailable(sample, found);
  const others = found.families.filter(({ family }) => family !== law.family).slice(0, NEAREST);
  if (others.length === 0) return unavailable(sample, 'No other distribution can be fitted to these readings.');
  const { missing, setAside, unit, resolution, values } = sample;
  const n = values.length;
  const replicates = settings.replicates!;
  const { notes: lawNotes, ...told } = law;
  const base: FamiliesPower = {
    ...{ available: true, of: 'families', n, missing, setAside, unit, resolution, alpha: settings.alpha },
    ...{ test: settings.fitTest, replicates, law: told, curves: [], notes: lawNotes },
  };
  const partial = { ...base, notes: [...lawNotes, ...powerNotes(sample, base)] };
  const sizes = [...new Set(TIMES.map((times) => Math.max(LEAST_N, Math.round(n * times))))];
  const { times } = fitCost(fitting);
  const sources = [{ family: familyByName(law.family).family, parameters: law.parameters }, ...others];
  const books = sizes.map((size, k) => {
    const book = orderBook(anotherSeed(settings.seed, k), chunkSizeFor(size * times));
    sources.forEach(({ family, parameters }, i) => {
      const input = { n: size, test: settings.fitTest, fitting, from: { family, parameters }, cells: 0 };
      book.add({ kernel: 'fitted-statistics', input }, i === 0 ? NULLS * replicates : replicates);
    });
    return book;
  });
  const answers = yield { partial, orders: books.flatMap(({ orders }) => orders) };
  const critical = sizes.map((_, k) => simulatedCriticalValue(answers[k * sources.length]!, settings.alpha));
  const curves = others.map(({ family, parameters }, i) => {
    const points = sizes.map((size, k) => ({
      n: size,
      ...noticedShare(answers[k * sources.length + i + 1]!, critical[k]!),
    }));
    return { family, parameters, points, needed: sizeNeeded(points, WANTED) };
  });
  return { ...partial, curves };
}
