import { binsOf, countsIn } from './histogram.js';

/** Readings as dots piled up where they lie. */
export interface DotStacks {
  /** Where each stack stands, and how many readings it holds. */
  at: number[];
  counts: number[];
  /** The width of the stretch that a stack stands for; with a known resolution whole steps. */
  width: number;
  /** Readings that one dot stands for: the last dot of a stack may stand for fewer. */
  perDot: number;
}

/** As many stacks as are told apart on a picture, and as many dots as fit in one. */
const MOST_STACKS = 90;
export const HIGHEST_STACK = 28;

/** The stretches that dots are piled up in (dot plots: Wilkinson 1999, on a grid): the steps of the resolution themselves where these are few. */
export function stackEdges(values: Float64Array, resolution: number | null): { edges: Float64Array; width: number } {
  return binsOf(values, resolution, { rule: 'count', count: MOST_STACKS });
}

/** The stacks of some readings over given stretches. */
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
