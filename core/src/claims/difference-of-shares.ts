import { atan } from '../numeric/trigonometry.js';
import type { Alternative } from './alternative.js';
import { fisherP, newcombe } from './shares.js';
import { TIE, greatestTie, isTie, leastTie } from '../numeric/ties.js';

interface Counted {
  count: number;
  n: number;
}

/** Up to this product of sizes all tables are summed; above, Newcombe's interval is used. */
const MOST_TABLES = 4_000;
/** Common proportions at which a difference is tried, differences tried on each side, and halvings of the last step. */
const NUISANCE = 48;
const TRIED = 20;
const HALVINGS = 14;

/** acos by the arctangent; the argument is held within −1 … 1, which rounding may leave. */
function acos(x: number): number {
  if (x >= 1) return 0;
  if (x <= -1) return Math.PI;
  return Math.PI / 2 - atan(x / Math.sqrt(1 - x * x));
}

/** cos w for w from π/3 to 2π/3, by the series of the sine about π/2. */
function cosInTheMiddle(w: number): number {
  const t = Math.PI / 2 - w;
  let [term, sum] = [t, t];
  for (let k = 2; k <= 18; k += 2) sum += term *= (-t * t) / (k * (k + 1));
  return sum;
}

/** The maximum-likelihood estimate of the first proportion for a given difference (Farrington & Manning 1990, appendix). */
function restricted(p: number, q: number, n: number, m: number, difference: number): number {
  const theta = m / n;
  const a = 1 + theta;
  const b = -(1 + theta + p + theta * q + difference * (theta + 2));
  const c = difference * difference + difference * (2 * p + theta + 1) + p + theta * q;
  const d = -p * difference * (1 + difference);
  const v = (b / a / 3) ** 3 - (b * c) / (6 * a * a) + d / (2 * a);
  const root = Math.sqrt(Math.max(0, (b / (3 * a)) ** 2 - c / (3 * a)));
  const u = v < 0 ? -root : root;
  const cubed = u ** 3;
  const w = (Math.PI + acos(cubed === 0 ? 0 : v / cubed)) / 3;
  return Math.min(1, Math.max(0, difference, 2 * u * cosInTheMiddle(w) - b / (3 * a)));
}

/**
 * The score statistic: the distance of a table from a difference in its standard errors under that difference (Miettinen & Nurminen 1985, without
 * their factor).
 */
function score(x: number, y: number, n: number, m: number, difference: number): number {
  const [p, q] = [x / n, y / m];
  const off = p - q - difference;
  if (isTie(off, 0, 1)) return 0;
  const own = restricted(p, q, n, m, difference);
  const other = Math.min(1, Math.max(0, own - difference));
  const variance = (own * (1 - own)) / n + (other * (1 - other)) / m;
  return variance > TIE ** 2 ? off / Math.sqrt(variance) : off > 0 ? Infinity : -Infinity;
}

/** The greatest probability, over all pairs of proportions with a difference, of a table at least as far from it as the observed one. */
function unconditionalP(
  { count: x, n }: Counted,
  { count: y, n: m }: Counted,
  difference: number,
  alternative: Alternative,
) {
  const own = score(x, y, n, m, difference);
  const [low, high, far] = [leastTie(own, 1), greatestTie(own, 1), leastTie(Math.abs(own), 1)];
  const counts = (z: number) =>
    alternative === 'greater' ? z >= low : alternative === 'less' ? z <= high : Math.abs(z) >= far;
  const flagged = new Uint8Array((n + 1) * (m + 1));
  for (let i = 0, at = 0; i <= n; i++)
    for (let j = 0; j <= m; j++) flagged[at++] = Number(counts(score(i, j, n, m, difference)));
  let greatest = 0;
  for (let k = 0; k <= NUISANCE; k++) {
    const [low, high] = [Math.max(0, -difference), Math.min(1, 1 - difference)];
    const q = Math.min(1, Math.max(0, low + ((high - low) * k) / NUISANCE));
    const p = Math.min(1, Math.max(0, q + difference));
    const [first, second] = [chancesOf(n, p), chancesOf(m, q)];
    let sum = 0;
    for (let i = 0, at = 0; i <= n; i++) {
      let row = 0;
      for (let j = 0; j <= m; j++, at++) if (flagged[at]) row += second[j]!;
      sum += row * first[i]!;
    }
    if (sum > greatest) greatest = sum;
  }
  return greatest;
}

/** Binomial probabilities of all counts, by the ratio of neighbours from the summit outwards. */
function chancesOf(trials: number, probability: number): Float64Array {
  const chances = new Float64Array(trials + 1);
  const odds = probability / (1 - probability);
  const summit = probability >= 1 ? trials : Math.min(trials, Math.floor((trials + 1) * probability));
  let sum = (chances[summit] = 1);
  for (let x = summit; x < trials && odds > 0; x++)
    sum += chances[x + 1] = (chances[x]! * odds * (trials - x)) / (x + 1);
  for (let x = summit; x > 0 && odds < Infinity; x--)
    sum += chances[x - 1] = (chances[x]! * x) / (odds * (trials - x + 1));
  for (let x = 0; x <= trials; x++) chances[x]! /= sum;
  return chances;
}

/** The outermost difference towards an end that is not rejected. */
function endOf(isRejected: (difference: number) => boolean, from: number, to: number): number {
  const at = (k: number) => from + ((to - from) * k) / TRIED;
  let k = TRIED;
  while (k > 0 && isRejected(at(k))) k--;
  if (k === TRIED) return to;
  let [inside, outside] = [at(k), at(k + 1)];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (inside + outside) / 2;
    if (isRejected(middle)) outside = middle;
    else inside = middle;
  }
  return inside;
}

/**
 * Makes the interval contain 0 exactly if Fisher's exact test, which is reported, does not reject it: an end on the wrong side of 0 is moved to 0.
 */
function agreeing([low, high]: readonly [number, number], estimate: number, rejects: boolean): [number, number] {
  if (!rejects) return [Math.min(low, 0), Math.max(high, 0)];
  const least = Number.EPSILON;
  return estimate > 0 ? [Math.max(low, least), high] : [low, Math.min(high, -least)];
}

/**
 * The interval of the difference of two proportions that corresponds to the exact test: the differences that the exact unconditional score test does
 * not reject (Agresti & Min 2001), with 0 itself judged by Fisher's exact test. For larger samples Newcombe's interval, adjusted to agree with the
 * test. `inverted` says which.
 */
export function differenceByTest(
  a: Counted,
  b: Counted,
  confidence: number,
  alternative: Alternative,
): { interval: [number, number]; inverted: boolean } {
  const alpha = 1 - confidence;
  const table = [
    [a.count, a.n - a.count],
    [b.count, b.n - b.count],
  ] as const;
  const rejects = fisherP(table, alternative) < alpha;
  const estimate = a.count / a.n - b.count / b.n;
  if (a.n * b.n > MOST_TABLES) {
    const both = alternative === 'two-sided' ? confidence : 1 - 2 * alpha;
    return { interval: agreeing(newcombe(a, b, both), estimate, rejects), inverted: false };
  }
  const isRejected = (difference: number) => unconditionalP(a, b, difference, alternative) < alpha;
  const low = alternative === 'less' ? -1 : endOf(isRejected, estimate, -1);
  const high = alternative === 'greater' ? 1 : endOf(isRejected, estimate, 1);
  return { interval: agreeing([low, high], estimate, rejects), inverted: true };
}
