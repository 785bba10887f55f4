import { binsOf, countsIn } from './histogram.js';

/** A dot plot: readings as stacked dots. */
export interface DotStacks {
  /** Where each stack stands, and how many readings it holds. */
  at: number[];
  counts: number[];
  /** The width of the interval that a stack stands for; with a known resolution a whole number of steps. */
  width: number;
  /** Readings that one dot stands for: the last dot of a stack may stand for fewer. */
  perDot: number;
}

/** The most stacks that can be distinguished in a picture, and the most dots in one stack. */
const MOST_STACKS = 90;
export const HIGHEST_STACK = 28;

/** The intervals of a dot plot (Wilkinson 1999, on a grid). Where there are few steps of the resolution, each step has its own stack. */
export function stackEdges(values: Float64Array, resolution: number | null): { edges: Float64Array; width: number } {
  return binsOf(values, resolution, { rule: 'count', count: MOST_STACKS });
}

/** The stacks of readings over given intervals. */
export function dotStacks(
  values: Float64Array,
  { edges, width }: { edges: Float64Array; width: number },
  perDot: number | null = null,
): DotStacks {
  const counts = countsIn(values, edges);
  const highest = counts.reduce((a, b) => Math.max(a, b), 0);
  const stacks = Array.from(counts.keys()).filter((i) => counts[i]! > 0);
  return {
    at: stacks.map((i) => edges[i]! / 2 + edges[i + 1]! / 2),
    counts: stacks.map((i) => counts[i]!),
    width,
    perDot: perDot ?? Math.max(1, Math.ceil(highest / HIGHEST_STACK)),
  };
}
