import { ordered } from '../../numeric/ordered.js';
import { holmAdjusted } from '../../numeric/holm.js';
import { centreAndSpread, farthest, type Side } from '../../outliers/grubbs.js';
import { hasLevel } from '../../outliers/rules.js';
import type { Sample } from '../../readings/sample.js';
import type { Answers } from '../../road/analysis.js';
import { whyCensored } from '../../road/beyond-limits.js';
import { whyNot } from '../../road/cautions.js';
import { chunkSizeFor, type KernelOrder } from '../../road/kernels.js';
import { orderBook } from '../../road/order-book.js';
import { affordableReplicates } from '../../road/settings.js';
import { cleanSamples, cleanWork, judgedByFormula, type Judged } from './outlier-judging.js';
import { scaleOf } from './outlier-scale.js';
import { judgedBySamples } from './outlier-simulated.js';
import { OUTLIERS_LEAST_N, type OutlierTest } from './outliers-result.js';
import { stepsAtMost, usualMost, type OutliersRequest } from './outliers-settings.js';
import { RULE_FACTS } from './rule-facts.js';

/** What the rule of the study says of one of many columns or groups. */
export interface PartOutliers {
  name: string;
  n: number;
  missing: number;
  setAside: number;
  unit: string;
  resolution: number | null;
  /** Why it says nothing, or null. */
  reason: string | null;
  test: OutlierTest | null;
  /** The farthest reading, by its z. */
  farthest: { row: number; value: number; z: number } | null;
  /** p after Holm’s steps over all that could be judged; null for a rule of thumb, and while it is not known. */
  pHolm: number | null;
  /** What it names, with the level shared among all; null while that is not known. */
  rows: number[] | null;
}

export type PartsSettings = Pick<
  OutliersRequest,
  'rule' | 'side' | 'most' | 'family' | 'alpha' | 'quantileType' | 'seed' | 'replicates'
>;

/** A part, and how it is judged; null where it cannot be. */
export interface LookedPart {
  part: PartOutliers;
  judged: Judged | null;
  most: number;
}

function farthestOf({ values, rows }: Sample, sorted: Float64Array, side: Side): PartOutliers['farthest'] {
  const { mean, sd } = centreAndSpread(sorted);
  const value = sorted[farthest(sorted, mean, sd, side).at]!;
  return { row: rows[values.indexOf(value)]!, value, z: (value - mean) / sd };
}

/** A part as far as formulas go. */
export function lookedPart(sample: Sample, settings: PartsSettings): LookedPart {
  const { values, missing, setAside, unit, resolution, name } = sample;
  const n = values.length;
  const most = stepsAtMost(settings.most ?? usualMost(n), n);
  const part: PartOutliers = {
    ...{ name, n, missing, setAside, unit, resolution, test: null, farthest: null, pHolm: null, rows: null },
    reason: whyNot(sample, OUTLIERS_LEAST_N, 'an outlier test') ?? whyCensored(sample, 'an outlier test'),
  };
  if (part.reason !== null) return { part, judged: null, most };
  const { sorted } = ordered(values);
  const scale = scaleOf(settings.family, sorted);
  if (typeof scale === 'string') return { part: { ...part, reason: scale }, judged: null, most };
  const judged = { sample, sorted, scale, clean: cleanSamples(sample, scale) };
  const test = judgedByFormula(judged, { ...settings, most }, [settings.rule])[0]!;
  const own = { ...part, farthest: farthestOf(sample, sorted, settings.side) };
  if (test.reason !== null) return { part: { ...own, reason: test.reason }, judged: null, most };
  return { part: { ...own, test }, judged, most };
}

/** Clean samples for the parts, once for those that are alike. */
export function partOrders(settings: PartsSettings, looked: readonly LookedPart[]) {
  const orders: KernelOrder[] = [];
  const known = new Map<string, number>();
  const places = looked.map(({ judged, most }) => {
    if (!judged) return null;
    const n = judged.sorted.length;
    const work = cleanWork(judged.clean, { ...settings, most }, [RULE_FACTS[settings.rule].statistic]);
    const key = JSON.stringify(work);
    const at = known.get(key);
    if (at !== undefined) return at;
    const book = orderBook(settings.seed, chunkSizeFor(n));
    const wanted = settings.replicates!;
    book.add(work, affordableReplicates(n, wanted, Math.min(wanted, 1_000)));
    known.set(key, orders.length);
    return orders.push(...book.orders) - 1;
  });
  return { orders, places };
}

/** The parts with what clean samples say of them, the level shared among those that could be judged. */
export function judgedParts(
  settings: PartsSettings,
  looked: readonly LookedPart[],
  places: readonly (number | null)[],
  answers: Answers,
): PartOutliers[] {
  const which = [RULE_FACTS[settings.rule].statistic];
  const told = looked.map(({ part, judged, most }, i) => {
    const place = places[i] ?? null;
    if (!judged || place === null) return part;
    const [test] = judgedBySamples(judged, { ...settings, most }, [part.test!], which, answers[place]!);
    return { ...part, test: test! };
  });
  const known = told.filter(({ test }) => test !== null);
  if (!hasLevel(settings.rule)) return told.map((part) => ({ ...part, rows: part.test?.rows ?? null }));
  const adjusted = holmAdjusted(known.map(({ test }) => test!.pValue!));
  return told.map((part) => {
    const at = known.indexOf(part);
    if (at < 0) return part;
    const pHolm = adjusted[at]!;
    return { ...part, pHolm, rows: pHolm < settings.alpha ? part.test!.rows : [] };
  });
}
