import {
  INTERVAL_NAMED,
  INTERVAL_NAMES,
  formatStatistic,
  type BootstrapResult,
  type PermutationResult,
  type PlansResult,
  type ReplicateResult,
  type ResampledHead,
} from '@verdict/core/analyses';
import { groupThousands } from '@verdict/core/format';
import type { LegendEntry } from '../legend.js';
import { markerOf, type Mark, type Tone } from '../marks.js';
import type { Hit, Panels } from '../picture.js';
import { AIR, countTicks, countWords, dotsPiled, NO_TAILS, piled, xAxis, type PiledUp, type Tails } from './piles.js';

const asPiled = (result: ResampledHead): PiledUp => ({ ...result, told: (value) => formatStatistic(value, result) });

const axisTitle = ({ what, unit, as }: Pick<ResampledHead, 'what' | 'unit' | 'as'>): string => {
  const inUnit = as === 'reading' && unit ? `, ${unit}` : as === 'share' ? ', as a proportion' : '';
  return `${what}${inUnit}`;
};

/** What the chosen replicate came to. */
export interface Chosen {
  number: number;
  statistic: number | null;
}

function chosenMark(chosen: Chosen | null): Mark[] {
  if (!chosen || chosen.statistic === null) return [];
  const words = `number ${groupThousands(chosen.number)}`;
  return [{ kind: 'rule', across: 'x', at: chosen.statistic, tone: 'green', dash: [2, 3], words }];
}

interface Rows {
  marks: Mark[];
  hits: Hit[];
  ticks: { at: number; words: string }[];
  ends: number[];
  /** Up to here they reach. */
  top: number;
}

/** Every interval one above the other over the piles, the one that is told green; beside a replicate only that one and the formula's. */
function intervalRows(result: BootstrapResult, foot: number, short: boolean): Rows {
  const told = (value: number) => formatStatistic(value, result);
  const { intervals, formula, main } = result;
  const rows = INTERVAL_NAMES.flatMap((key) => {
    const found = short && key !== main ? null : intervals[key];
    return found ? [{ name: INTERVAL_NAMED[key], lower: found.lower, upper: found.upper, main: key === main }] : [];
  });
  if (rows.length === 0) return { marks: [], hits: [], ticks: [], ends: [], top: foot * 1.12 };
  if (formula) rows.push({ name: formula.name, lower: formula.lower!, upper: formula.upper!, main: false });
  const pitch = foot * (short ? 0.16 : 0.085);
  const levelOf = (i: number) => foot * 1.1 + (rows.length - 1 - i) * pitch;
  return {
    marks: rows.flatMap(({ lower, upper, main: isMain }, i): Mark[] => {
      const [y, tone, width] = [levelOf(i), (isMain ? 'green' : 'ink') as Tone, isMain ? 3 : 1.6];
      const ends: [number, number] = [y - pitch * 0.28, y + pitch * 0.28];
      const cap = (x: number): Mark => ({ kind: 'line', x: [x, x], y: ends, tone, width: 1.6 });
      return [{ kind: 'line', x: [lower, upper], y: [y, y], tone, width }, cap(lower), cap(upper)];
    }),
    hits: rows.map(({ name, lower, upper }, i): Hit => {
      const [middle, y] = [(lower + upper) / 2, levelOf(i)];
      return { panel: 0, x: [middle, middle], y: [y, y], words: `${name}: ${told(lower)} to ${told(upper)}` };
    }),
    ticks: rows.map(({ name }, i) => ({ at: levelOf(i), words: name })),
    ends: rows.flatMap(({ lower, upper }) => [lower, upper]),
    top: levelOf(0) + pitch,
  };
}

/** Redrawn readings: the replicates, and above them every interval. */
export function bootstrapPanels(result: BootstrapResult, chosen: Chosen | null): Panels | null {
  if (!result.frame || result.replicates === 0) return null;
  const asDots = result.dots.length > 0;
  const found = asDots
    ? dotsPiled(asPiled(result), NO_TAILS, chosen?.number ?? null, 'replicate')
    : piled(asPiled(result), NO_TAILS, 'replicate');
  const rows = intervalRows(result, found.top, chosen !== null);
  const observed = `readings ${formatStatistic(result.observed, result)}`;
  const legend: LegendEntry[] = [
    ...(rows.hits.length > 0 ? [{ words: 'the reported interval', tone: 'green' as const }] : []),
    asDots
      ? { words: 'one replicate', tone: 'ink', sample: 'marker', marker: 'circle' }
      : { words: 'replicates', tone: 'soft', sample: 'bars' },
  ];
  return {
    x: xAxis(asPiled(result), found, rows.ends, axisTitle(result)),
    y: { from: 0, to: rows.top, title: 'replicates', ticks: [...countTicks(found.top), ...rows.ticks] },
    panels: [
      {
        name: '',
        marks: [
          ...found.marks,
          { kind: 'rule', across: 'x', at: result.observed, tone: 'ink', words: observed },
          ...chosenMark(chosen),
          ...rows.marks,
        ],
      },
    ],
    hits: [...rows.hits, ...found.hits],
    ...(chosen ? {} : { legend }),
  };
}

/** Where the tails of a permutation begin. */
function tailsOf({ alternative, observed, centre }: PermutationResult): Tails {
  if (alternative === 'less') return { atMost: observed, atLeast: Infinity };
  if (alternative === 'greater') return { atMost: -Infinity, atLeast: observed };
  const distance = Math.abs(observed - centre);
  return { atMost: centre - distance, atLeast: centre + distance };
}

/** Shuffled readings: the replicates, what was observed, and both tails shaded. */
export function permutationPanels(result: PermutationResult, chosen: Chosen | null): Panels | null {
  if (!result.frame || (result.replicates === 0 && !result.exact)) return null;
  const tails = tailsOf(result);
  const asDots = result.dots.length > 0;
  const what = 'permutation';
  const found = asDots
    ? dotsPiled(asPiled(result), tails, chosen?.number ?? null, what)
    : piled(asPiled(result), tails, what);
  const told = (value: number) => formatStatistic(value, result);
  const { observed, centre, alternative, exact, drawn } = result;
  const mirrored = 2 * centre - observed;
  const both = alternative === 'two-sided' && Math.abs(mirrored - observed) > result.frame.tie;
  const shown = result.replicates > 0 ? drawn! : exact!;
  const far = { less: shown.below, greater: shown.above, 'two-sided': shown.atLeastAsFar }[alternative];
  return {
    x: xAxis(asPiled(result), found, [observed, ...(both ? [mirrored] : [])], axisTitle(result)),
    y: { from: 0, to: found.top * 1.12, title: `${what}s`, ticks: countTicks(found.top) },
    panels: [
      {
        name: '',
        marks: [
          ...found.marks,
          { kind: 'rule', across: 'x', at: observed, tone: 'ink', words: `readings ${told(observed)}` },
          ...(both
            ? [
                {
                  kind: 'rule',
                  across: 'x',
                  at: mirrored,
                  tone: 'ink',
                  dash: [5, 4],
                  words: `equally extreme ${told(mirrored)}`,
                } as const,
              ]
            : []),
          ...chosenMark(chosen),
        ],
      },
    ],
    hits: found.hits,
    legend: [
      {
        words: `${groupThousands(far)} of ${countWords(shown.total, what)} at least as extreme`,
        tone: 'ochre',
        sample: asDots ? 'marker' : 'bars',
        ...(asDots ? { marker: 'circle' } : {}),
      },
    ],
  };
}

/** Readings as they are and as a replicate has them, one above the other; of pairs as a cloud. */
export function replicatePanels(result: ReplicateResult, inPairs: boolean, of: string): Panels {
  const { dots, number, by } = result;
  const called = `${by === 'redrawing' ? 'replicate' : 'permutation'} ${groupThousands(number)}`;
  const all = (inPairs ? dots.slice(0, 1) : dots).flatMap(({ original, replicate }) => [...original, ...replicate]);
  const [least, greatest] = [Math.min(...all), Math.max(...all)];
  const air = (greatest - least || Math.abs(least) || 1) * AIR;
  const x = { from: least - air, to: greatest + air, title: '' };
  const before = `${of}, observed`;
  const cell = (greatest - least || 1) / 110;
  if (inPairs) {
    const y = dots[1]!;
    const seen = [...y.original, ...y.replicate];
    const [low, high] = [Math.min(...seen), Math.max(...seen)];
    const room = (high - low || 1) * 0.08;
    const cloud = (key: 'original' | 'replicate', tone: Tone): Mark => ({
      ...{ kind: 'points', tone, marker: 'circle', radius: 2.6 },
      ...{ x: dots[0]![key], y: y[key] },
    });
    return {
      ...{ x, y: { from: low - room, to: high + room, title: '' }, hits: [] },
      panels: [
        { name: before, marks: [cloud('original', 'ink')] },
        { name: called, marks: [cloud('replicate', 'green')] },
      ],
    };
  }
  let top = 2;
  const stacked = (key: 'original' | 'replicate'): Mark[] => {
    const piles = new Map<number, number>();
    return dots.map((group, g): Mark => {
      const y = group[key].map((value) => {
        const pile = Math.round((value - least) / cell);
        const k = (piles.get(pile) ?? 0) + 1;
        piles.set(pile, k);
        top = Math.max(top, k);
        return k - 0.5;
      });
      const tone: Tone = dots.length > 1 ? { series: g } : key === 'original' ? 'ink' : 'green';
      return { kind: 'points', x: group[key], y, tone, marker: dots.length > 1 ? markerOf(g) : 'circle', radius: 3.2 };
    });
  };
  const marks = { original: stacked('original'), replicate: stacked('replicate') };
  return {
    x,
    y: { from: -0.3, to: top * 1.25 + 0.3, title: '', ticks: [] },
    panels: [
      { name: before, marks: marks.original },
      { name: called, marks: marks.replicate },
    ],
    hits: [],
    ...(dots.length > 1
      ? {
          legend: dots.map(({ name }, g) => ({
            ...{ words: name, tone: { series: g }, sample: 'marker' as const, marker: markerOf(g) },
          })),
        }
      : {}),
  };
}

/** What samples of other sizes would give: the middle of their replicates. */
export function plansPanels(result: PlansResult): Panels | null {
  const { plans, observed } = result;
  if (plans.length === 0) return null;
  const told = (value: number) => formatStatistic(value, result);
  const ends = plans.flatMap(({ lower, upper }) => [lower, upper]);
  const [least, greatest] = [Math.min(...ends), Math.max(...ends)];
  const air = (greatest - least || 1) * 0.08;
  const levelOf = (i: number) => plans.length - i;
  const rows = plans.flatMap(({ lower, upper, standardError }, i): Mark[] => {
    const y = levelOf(i);
    const cap = (x: number): Mark => ({ kind: 'line', x: [x, x], y: [y - 0.12, y + 0.12], tone: 'green', width: 2 });
    return [
      {
        ...{ kind: 'area', fill: 'green', alpha: 0.18 },
        x: [observed - standardError, observed + standardError, observed + standardError, observed - standardError],
        y: [y - 0.12, y - 0.12, y + 0.12, y + 0.12],
      },
      { kind: 'line', x: [lower, upper], y: [y, y], tone: 'green', width: 2.4 },
      cap(lower),
      cap(upper),
    ];
  });
  return {
    x: { from: least - air, to: greatest + air, title: axisTitle(result) },
    y: {
      ...{ from: 0.4, to: plans.length + 0.6, title: '' },
      ticks: plans.map(({ n }, i) => ({ at: levelOf(i), words: `n = ${groupThousands(n)}` })),
    },
    panels: [
      {
        name: '',
        marks: [...rows, { kind: 'rule', across: 'x', at: observed, tone: 'ink', words: `readings ${told(observed)}` }],
      },
    ],
    hits: plans.map(({ n, lower, upper, standardError }, i) => ({
      ...{ panel: 0, x: [least - air, greatest + air], y: [levelOf(i) - 0.5, levelOf(i) + 0.5] },
      words: `n = ${groupThousands(n)}: ${told(lower)} to ${told(upper)}, standard error ${formatStatistic(standardError, { ...result, kind: 'spread' })}`,
    })),
    legend: [
      { words: 'the middle of the replicates', tone: 'green' },
      { words: '± one standard error', tone: 'green', sample: 'area' },
    ],
  };
}
