import { groupThousands } from '@verdict/core/format';
import type { Piled as Replicated } from '@verdict/core/road';
import type { Mark, Tone } from '../marks.js';
import type { Hit } from '../picture.js';

/** Replicates, or results of samples, and how one of them is written. */
export interface PiledUp extends Replicated {
  told: (value: number) => string;
}

/** Which replicates count into p: those at most `atMost`, and those at least `atLeast`. */
export interface Tails {
  atMost: number;
  atLeast: number;
}
export const NO_TAILS: Tails = { atMost: -Infinity, atLeast: Infinity };
const inTail = (value: number, { atMost, atLeast }: Tails, tie: number) =>
  value <= atMost + tie || value >= atLeast - tie;

export const countWords = (count: number, what: string) =>
  `${groupThousands(count)} ${count === 1 ? what : `${what}s`}`;

export interface Piles {
  marks: Mark[];
  hits: Hit[];
  /** The highest pile, and where the outermost lie. */
  top: number;
  from: number;
  to: number;
}

/** Replicates as dots, each of which can be pointed at; the chosen one filled. */
export function dotsPiled(result: PiledUp, tails: Tails, chosen: number | null, what: string): Piles {
  const { dots, frame, distribution } = result;
  const { centre, width, tie } = frame!;
  // Where there are few values, and so dots that tie, they stand on them.
  const tied = distribution.values !== null && 2 * distribution.values.length <= dots.length;
  const piles = new Map<number, number>();
  const placed = dots.flatMap((value, i) => {
    // Without such a figure it has no place; the others keep their numbers.
    if (value === null) return [];
    const far = Math.floor((Math.abs(value - centre) + tie) / width);
    const bin = value < centre ? -1 - far : far;
    const x = tied ? value : centre + (bin + 0.5) * width;
    const key = tied ? Math.round((value - centre) / (4 * tie || 1)) : bin;
    const k = piles.get(key) ?? 0;
    piles.set(key, k + 1);
    return [{ x, y: k + 0.5, far: inTail(value, tails, tie), number: i + 1, value }];
  });
  const points = (some: typeof placed, tone: Tone, filled = false): Mark => ({
    ...{ kind: 'points', tone, marker: 'circle', radius: dots.length > 120 ? 3.2 : 4, filled },
    x: some.map(({ x }) => x),
    y: some.map(({ y }) => y),
  });
  return {
    marks: [
      points(
        placed.filter(({ far }) => !far),
        'ink',
      ),
      points(
        placed.filter(({ far }) => far),
        'ochre',
        true,
      ),
      points(
        placed.filter(({ number }) => number === chosen),
        'green',
        true,
      ),
    ],
    hits: placed.map(({ x, y, number, value }) => ({
      ...{ panel: 0, x: [x, x] as [number, number], y: [y, y] as [number, number], bar: number },
      words: `${what} ${groupThousands(number)}: ${result.told(value)}`,
    })),
    top: Math.max(8, ...piles.values()),
    from: placed.reduce((least, { x }) => Math.min(least, x), Infinity),
    to: placed.reduce((most, { x }) => Math.max(most, x), -Infinity),
  };
}

/** Columns at the values that there are, or bars over bins; those that count into p ochre. */
export function piled(result: PiledUp, tails: Tails, what: string): Piles {
  const { distribution, frame } = result;
  const { values, edges, counts, examples } = distribution;
  const { told } = result;
  const slack = frame!.tie + 1e-9 * frame!.width;
  const top = counts.reduce((a, b) => Math.max(a, b), 1);
  const example = (i: number) => (examples[i] ? `, for example number ${groupThousands(examples[i])}` : '');
  if (values) {
    const far = values.map((value) => inTail(value, tails, slack));
    const gap = values.reduce((least, value, i) => (i ? Math.min(least, value - values[i - 1]!) : least), Infinity);
    const half = (Number.isFinite(gap) ? gap : frame!.width) / 2;
    return {
      marks: [{ kind: 'columns', x: values, y: counts, filled: far, tone: 'ochre', step: 2 * half }],
      hits: values.map((value, i) => ({
        ...{
          panel: 0,
          x: [value - half, value + half],
          y: [0, counts[i]!],
          ...(examples[i] ? { bar: examples[i] } : {}),
        },
        words: `${told(value)}: ${countWords(counts[i]!, what)}${example(i)}`,
      })),
      ...{ top, from: values[0]!, to: values.at(-1)! },
    };
  }
  // Edges of bins are also where the tails begin.
  const far = counts.map((_, i) => edges[i + 1]! <= tails.atMost + slack || edges[i]! >= tails.atLeast - slack);
  const heights = (isFar: boolean) => counts.map((count, i) => (far[i] === isFar ? count : 0));
  return {
    marks: [
      { kind: 'bars', edges, heights: heights(false), tone: 'soft' },
      { kind: 'bars', edges, heights: heights(true), tone: 'ochre', chosen: new Set(counts.keys()) },
    ],
    hits: counts.map((count, i) => ({
      ...{ panel: 0, x: [edges[i]!, edges[i + 1]!], y: [0, count], ...(examples[i] ? { bar: examples[i] } : {}) },
      words: `${told(edges[i]!)} to ${told(edges[i + 1]!)}: ${countWords(count, what)}${example(i)}`,
    })),
    ...{ top, from: edges[0] ?? frame!.centre, to: edges.at(-1) ?? frame!.centre },
  };
}

const STEPS = [1, 2, 5];

/** Whole steps up to the highest pile, about four of them. */
export function countTicks(top: number): { at: number; words: string }[] {
  const rough = top / 4;
  const power = 10 ** Math.floor(Math.log10(Math.max(1, rough)));
  const step = Math.max(1, (STEPS.find((s) => s * power >= rough) ?? 10) * power);
  const ticks = [];
  for (let at = 0; at <= top; at += step) ticks.push({ at, words: groupThousands(at) });
  return ticks;
}

export const AIR = 0.04;
const MOST_VIEW = 30;

/** The axis of the statistic: all replicates, and what else is to be seen; of one that does not move while they come, the frame is widened. */
export function xAxis(result: PiledUp, { from, to }: Piles, also: readonly number[], title: string) {
  const { frame } = result;
  const reach = frame!.width * (MOST_VIEW / 2);
  const ends = [from, to, ...also, frame!.centre - reach, frame!.centre + reach].filter(Number.isFinite);
  const [least, greatest] = [Math.min(...ends), Math.max(...ends)];
  const air = (greatest - least) * AIR;
  return { from: least - air, to: greatest + air, title };
}
