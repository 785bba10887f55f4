import { pOfTails, tailOf, type Alternative } from '../../claims/alternative.js';
import type { Distribution } from '../../distributions/family.js';
import type { LawPicture } from './claim-result.js';

type Law = Pick<Distribution, 'density' | 'cumulative' | 'survival' | 'quantile' | 'survivalQuantile'>;

interface Shown {
  name: string;
  axis: string;
  statistic: number;
  alternative: Alternative;
  alpha: number;
}

const POINTS = 241;
/** The picture shows all but this much at either end, and the statistic, unless it is many times as far out. */
const END = 2e-4;
const FARTHEST = 1.6;
const AIR = 0.04;

/** The interval over which the distribution is drawn. */
function windowOf(law: Law, { statistic }: Pick<Shown, 'statistic'>): [number, number] {
  const [low, high] = [law.quantile(END), law.survivalQuantile(END)];
  const width = high - low || 1;
  const [from, to] = [Math.min(low, statistic), Math.max(high, statistic)];
  return [Math.max(from, low - FARTHEST * width) - AIR * width, Math.min(to, high + FARTHEST * width) + AIR * width];
}

/** The critical values of a continuous law. */
function criticalOf(law: Law, alternative: Alternative, alpha: number): number[] {
  const tail = tailOf(1 - alpha, alternative);
  return [
    ...(alternative === 'greater' ? [] : [law.quantile(tail)]),
    ...(alternative === 'less' ? [] : [law.survivalQuantile(tail)]),
  ];
}

/** The values counted into p: beyond the statistic, and for a two-sided test as much at the other end. */
function tailsOf(law: Law, { statistic, alternative }: Shown, [from, to]: [number, number]): [number, number][] {
  const [lower, upper] = [law.cumulative(statistic), law.survival(statistic)];
  const below: [number, number] = [from, Math.min(to, statistic)];
  const above: [number, number] = [Math.max(from, statistic), to];
  if (alternative === 'less') return [below];
  if (alternative === 'greater') return [above];
  if (pOfTails({ lower, upper }, alternative) >= 1) return [[from, to]];
  return lower < upper
    ? [below, [Math.min(to, law.survivalQuantile(lower)), to]]
    : [[from, Math.max(from, law.quantile(upper))], above];
}

/** The same as limits of the statistic. */
function beyondOf(law: Law, { statistic, alternative }: Shown): LawPicture['beyond'] {
  if (alternative === 'less') return { atMost: statistic, atLeast: null };
  if (alternative === 'greater') return { atMost: null, atLeast: statistic };
  const [lower, upper] = [law.cumulative(statistic), law.survival(statistic)];
  // So far out the other end is beyond what a double holds.
  const known = (limit: number) => (Number.isFinite(limit) ? limit : null);
  return lower < upper
    ? { atMost: statistic, atLeast: known(law.survivalQuantile(lower)) }
    : { atMost: known(law.quantile(upper)), atLeast: statistic };
}

/** Of counts: the last below and the first above that are counted. */
function countedEnds(x: readonly number[], counted: (k: number) => boolean, statistic: number): LawPicture['beyond'] {
  const open = x.filter((k) => !counted(k));
  // Where every count counts, so does any.
  if (open.length === 0) return { atMost: statistic, atLeast: statistic };
  const [first, last] = [open[0]!, open.at(-1)!];
  return { atMost: first > x[0]! ? first - 1 : null, atLeast: last < x.at(-1)! ? last + 1 : null };
}

/** A continuous law with its tails. */
export function curveOf(law: Law, shown: Shown): LawPicture {
  const window = windowOf(law, shown);
  const [from, to] = window;
  const x = Array.from({ length: POINTS }, (_, i) => from + ((to - from) * i) / (POINTS - 1));
  // A law may be infinite at its end: it is drawn from the next point on.
  const heights = x.map((at) => law.density(at));
  const top = heights.reduce((most, y) => (Number.isFinite(y) ? Math.max(most, y) : most), 0);
  return {
    ...{ name: shown.name, axis: shown.axis, discrete: false, statistic: shown.statistic },
    x,
    y: heights.map((y) => (Number.isFinite(y) ? y : top)),
    counted: [],
    tails: tailsOf(law, shown, window),
    beyond: beyondOf(law, shown),
    p: pOfTails({ lower: law.cumulative(shown.statistic), upper: law.survival(shown.statistic) }, shown.alternative),
    critical: criticalOf(law, shown.alternative, shown.alpha),
  };
}

const MOST_COLUMNS = 160;

/** A distribution of counts: a column for each count, with those counted into p filled; a curve if there are very many. */
export function columnsOf(
  law: Law,
  shown: Shown & { p: number; ends: [number, number]; counted: (k: number) => boolean; critical: number[] },
): LawPicture {
  const { ends, counted, critical, name, axis, statistic } = shown;
  const [low, high] = windowOf(law, shown);
  const from = Math.max(ends[0], Math.floor(low));
  const to = Math.min(ends[1], Math.ceil(high));
  const base = { name, axis, statistic, critical, p: shown.p };
  if (to - from < MOST_COLUMNS) {
    const x = Array.from({ length: to - from + 1 }, (_, i) => from + i);
    const beyond = countedEnds(x, counted, statistic);
    return { ...base, beyond, discrete: true, x, y: x.map((k) => law.density(k)), counted: x.map(counted), tails: [] };
  }
  const x = Array.from({ length: POINTS }, (_, i) => Math.round(from + ((to - from) * i) / (POINTS - 1)));
  const tails: [number, number][] = [];
  for (const [i, k] of x.entries()) {
    if (!counted(k)) continue;
    const last = tails.at(-1);
    if (last && i > 0 && last[1] === x[i - 1]) last[1] = k;
    else tails.push([k, k]);
  }
  const beyond = countedEnds(x, counted, statistic);
  return { ...base, beyond, discrete: false, x, y: x.map((k) => law.density(k)), counted: [], tails };
}
