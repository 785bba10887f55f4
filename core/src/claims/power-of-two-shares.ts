import { binomial } from '../distributions/families/binomial.js';
import type { Alternative } from './alternative.js';
import { isTie } from '../numeric/ties.js';

/** For every total of successes, the counts of the first group that Fisher's exact test rejects: at most `low[t]`, or at least `high[t]`. */
interface Regions {
  low: Int32Array;
  high: Int32Array;
}

/** Hypergeometric probabilities of all counts of one total, by the ratio of neighbours from the summit outwards. */
function chancesOf(total: number, [n, m]: readonly [number, number], least: number, greatest: number): Float64Array {
  const shares = new Float64Array(greatest - least + 1);
  const summit = Math.min(greatest, Math.max(least, Math.floor(((total + 1) * (n + 1)) / (n + m + 2))));
  shares[summit - least] = 1;
  let sum = 1;
  for (let x = summit; x < greatest; x++)
    sum += shares[x + 1 - least] = (shares[x - least]! * (n - x) * (total - x)) / ((x + 1) * (m - total + x + 1));
  for (let x = summit; x > least; x--)
    sum += shares[x - 1 - least] = (shares[x - least]! * x * (m - total + x)) / ((n - x + 1) * (total - x + 1));
  return shares.map((share) => share / sum);
}

/** The rejected counts of one total: outcomes are taken from both ends inwards, the least likely first, as long as their p stays below the level. */
function regionOf(total: number, sizes: readonly [number, number], alpha: number, alternative: Alternative) {
  const [least, greatest] = [Math.max(0, total - sizes[1]), Math.min(sizes[0], total)];
  const shares = chancesOf(total, sizes, least, greatest);
  let [low, high, sum] = [0, shares.length - 1, 0];
  while (low <= high) {
    const [below, above] = [shares[low]!, shares[high]!];
    const equal = low < high && isTie(below, above);
    const takesLow = alternative === 'less' || (alternative === 'two-sided' && (equal || below < above));
    const takesHigh = alternative === 'greater' || (alternative === 'two-sided' && (equal || above <= below));
    sum += (takesLow ? below : 0) + (takesHigh ? above : 0);
    if (!(sum < alpha)) break;
    if (takesLow) low++;
    if (takesHigh) high--;
  }
  return [least + low - 1, least + high + 1] as const;
}

function regionsOf(sizes: readonly [number, number], alpha: number, alternative: Alternative): Regions {
  const totals = sizes[0] + sizes[1] + 1;
  const regions = { low: new Int32Array(totals), high: new Int32Array(totals) };
  for (let t = 0; t < totals; t++) [regions.low[t], regions.high[t]] = regionOf(t, sizes, alpha, alternative);
  return regions;
}

/** Up to this group size the sum over all tables is computed. */
export const MOST_SUMMED = 500;

/**
 * The probability that Fisher's exact test rejects where the proportions are p and q: the sum over all pairs of counts whose table it rejects. The regions of a design are found
 * once.
 */
export function exactPowerOfTwoShares(alpha: number, alternative: Alternative) {
  const known = new Map<string, Regions>();
  return (sizes: readonly [number, number], [p, q]: readonly [number, number]): number => {
    const [n, m] = sizes;
    const key = `${n} ${m}`;
    const { low, high } = known.get(key) ?? regionsOf(sizes, alpha, alternative);
    if (!known.has(key)) known.set(key, { low, high });
    const chances = (trials: number, probability: number) => {
      const at = (x: number) => (probability === 0 ? Number(x === 0) : Number(x === trials));
      const law = probability > 0 && probability < 1 ? binomial.of({ trials, probability }) : null;
      return Float64Array.from({ length: trials + 1 }, (_, x) => (law ? law.density(x) : at(x)));
    };
    const [first, second] = [chances(n, p), chances(m, q)];
    let power = 0;
    for (let x = 0; x <= n; x++)
      for (let y = 0; y <= m; y++) {
        const total = x + y;
        if (x <= low[total]! || x >= high[total]!) power += first[x]! * second[y]!;
      }
    return power;
  };
}
