import { formatPercent, groupThousands } from '../../numeric/format.js';
import { listed, plural } from '../../numeric/grammar.js';
import type { Sample } from '../../readings/sample.js';
import { oddCount } from '../../road/counted.js';
import { whyEmpty } from '../../road/cautions.js';
import { MOST_CELLS, type CountsRequest } from './counts-settings.js';

/** Counts by category, and the claimed proportion of each. */
export interface PlacedCounts {
  labels: string[];
  counts: number[];
  shares: number[];
}

/** Counted by level: labels one by one, or what a count column says by the levels of labels. */
function countedByLevel(sample: Sample): Map<string, number> | string {
  if (sample.levels) {
    const counts = new Float64Array(sample.levels.length);
    for (const place of sample.values) counts[place]!++;
    return new Map(sample.levels.map((level, i) => [level, counts[i]!]));
  }
  const parts = sample.groups?.by ? sample.groups.samples : null;
  if (!parts) return `${sample.name} holds numbers. Choose a label column, or split a count column by one.`;
  const fault = oddCount(sample.values, sample.rows, sample.name);
  if (fault) return fault;
  return new Map(parts.map(({ name, values }) => [name, values.reduce((a, b) => a + b, 0)]));
}

function typedCounts({ counts, total }: CountsRequest): Map<string, number> | string {
  const all = new Map(Object.entries(counts!));
  const sum = [...all.values()].reduce((a, b) => a + b, 0);
  if (total === undefined || total === sum) return all;
  const off = Math.abs(total - sum);
  return `The counts add up to ${groupThousands(sum)}, but the total is ${groupThousands(total)} (difference ${groupThousands(off)}). Check both.`;
}

/** Shares that are off by no more than rounding leaves add up. */
const ROUNDED = 5e-4;

/** The claimed proportion of each category, which add up to 1; or what does not match. */
function claimedShares(labels: readonly string[], { spread, shares = {} }: CountsRequest): number[] | string {
  if (spread === 'evenly') return labels.map(() => 1 / labels.length);
  const named = new Map(Object.entries(shares));
  const without = labels.filter((label) => !named.has(label));
  if (without.length > 0) return `Enter the claimed proportion of ${listed(without.slice(0, 5))}.`;
  const sum = [...named.values()].reduce((a, b) => a + b, 0);
  if (Math.abs(sum - 1) > ROUNDED) {
    const off = Number((100 * Math.abs(sum - 1)).toPrecision(4));
    return `The claimed proportions add up to ${formatPercent(sum)} instead of 100\u00a0% (${plural(off, 'percentage point')} too ${sum > 1 ? 'much' : 'little'}).`;
  }
  return labels.map((label) => named.get(label)! / sum);
}

/** The counts that are meant with their claimed shares; why there are none. */
export function placedCounts(sample: Sample, asked: CountsRequest): PlacedCounts | string {
  const { counts: typed, column, spread, shares = {} } = asked;
  if (!typed && column === undefined) return 'Choose a label column, or type the counts.';
  if (!typed && sample.values.length === 0) return whyEmpty(sample);
  const found = typed ? typedCounts(asked) : countedByLevel(sample);
  if (typeof found === 'string') return found;
  // A claimed category without any count takes part as well.
  const labels = [
    ...found.keys(),
    ...(spread === 'given' ? Object.keys(shares).filter((label) => !found.has(label)) : []),
  ];
  if (labels.length < 2) return 'There is only one category; at least 2 are needed.';
  if (labels.length > MOST_CELLS)
    return `There are ${groupThousands(labels.length)} categories; at most ${MOST_CELLS} are compared.`;
  const claimed = claimedShares(labels, asked);
  if (typeof claimed === 'string') return claimed;
  const counts = labels.map((label) => found.get(label) ?? 0);
  if (counts.every((count) => count === 0)) return 'All counts are 0.';
  return { labels, counts, shares: claimed };
}
