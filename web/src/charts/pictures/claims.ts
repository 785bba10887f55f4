import {
  formatExpected,
  formatQuantity,
  formatInterval,
  type ClaimCell,
  type ClaimDrawsResult,
  type ClaimGroup,
  type ClaimResult,
  type LawPicture,
  type ToleranceResult,
} from '@verdict/core/analyses';
import { equalsP, formatFigure, formatValue, groupThousands } from '@verdict/core/format';
import type { LegendEntry } from '../legend.js';
import type { Mark } from '../marks.js';
import type { Axis, Hit, Panels } from '../picture.js';

const AIR = 1.08;
const statisticText = (value: number) =>
  Number.isInteger(value) ? groupThousands(value) : formatFigure(value, 'statistic');

/** The law of the statistic if the claim is true: what counts into p shaded, the statistic, the critical values. */
export function lawPanels({ law, symbol, alpha, pValue }: ClaimResult): Panels | null {
  if (!law) return null;
  const { x, y, discrete, counted, tails, statistic, critical, axis, name } = law;
  const [from, to] = [x[0]!, x.at(-1)!];
  const top = y.reduce((most, height) => Math.max(most, height), 0) * AIR;
  const half = discrete ? 0.5 : 0;
  const shades = tails.map(([low, high]): Mark => {
    const inside = [...x.keys()].filter((i) => x[i]! >= low && x[i]! <= high);
    const xs = inside.map((i) => x[i]!);
    const ys = inside.map((i) => y[i]!);
    const ends: [number, number] = [Math.max(low, from), Math.min(high, to)];
    const heightAt = (at: number) => y[x.findIndex((one) => one >= at)] ?? 0;
    return {
      kind: 'area',
      x: [ends[0], ends[0], ...xs, ends[1], ends[1]],
      y: [0, heightAt(ends[0]), ...ys, heightAt(ends[1]), 0],
      fill: 'ochre',
      alpha: 0.45,
    };
  });
  const curve: Mark = discrete
    ? { kind: 'columns', x, y, filled: counted, tone: 'ochre' }
    : { kind: 'line', x, y, tone: 'green', width: 2 };
  const limits = critical.map((at): Mark => ({ kind: 'rule', across: 'x', at, tone: 'soft', dash: [3, 4] }));
  const found: Mark = {
    ...{ kind: 'rule', across: 'x', at: statistic, tone: 'ink', stays: true },
    words: `${symbol} = ${statisticText(statistic)}`,
  };
  const own = equalsP(law.p, alpha);
  // Counted out or simulated, p is not just the area of the curve.
  const shaded = pValue === null || equalsP(pValue, alpha) === own ? own : `${own} off this curve`;
  const legend: LegendEntry[] = [
    {
      words: `${name}, if the claim is true`,
      tone: discrete ? 'soft' : 'green',
      ...(discrete ? { sample: 'bars' } : {}),
    },
    { words: shaded, tone: 'ochre', sample: 'area' },
    ...(critical.length ? [{ words: `critical values at level ${alpha}`, tone: 'soft' as const, dash: [3, 4] }] : []),
  ];
  return {
    x: { from: from - half, to: to + half, title: axis, whole: discrete },
    y: { from: 0, to: top, title: discrete ? 'probability' : 'density' },
    panels: [{ name: '', marks: [...shades, curve, ...limits, found] }],
    hits: discrete
      ? x.map((at, i): Hit => ({
          panel: 0,
          x: [at - 0.5, at + 0.5],
          y: [0, y[i]!],
          words: `${formatValue(at)}: probability ${formatFigure(y[i]!, 'statistic')}${counted[i] ? ', included in p' : ''}`,
        }))
      : [],
    legend,
  };
}

const BINS = 48;

/** The statistics of samples drawn as if the claim were true, stacked over their law: a dot is a sample, those that count into p ochre. */
export function drawnPanels(result: ClaimResult, { statistics }: ClaimDrawsResult): Panels | null {
  const base = lawPanels(result);
  if (!base || !result.law) return null;
  const { law } = result;
  const [from, to] = [law.x[0]!, law.x.at(-1)!];
  const width = law.discrete ? 1 : (to - from) / BINS;
  // As high as its part of the law: the stacks grow into the curve.
  const height = 1 / (width * statistics.length);
  const stacks = new Map<number, number>();
  const dots = statistics.flatMap((statistic) => {
    const bin = law.discrete ? statistic : Math.floor((statistic - from) / width);
    const k = stacks.get(bin) ?? 0;
    stacks.set(bin, k + 1);
    const x = law.discrete ? statistic : from + (bin + 0.5) * width;
    return x < from - 0.5 * width || x > to + 0.5 * width
      ? []
      : [{ x, y: (k + 0.5) * height, far: isFar(statistic, law.beyond) }];
  });
  const points = (far: boolean): Mark => {
    const some = dots.filter((dot) => dot.far === far);
    const tone = far ? 'ochre' : 'ink';
    return {
      kind: 'points',
      x: some.map(({ x }) => x),
      y: some.map(({ y }) => y),
      tone,
      marker: 'circle',
      radius: 3,
      filled: far,
    };
  };
  const top = Math.max(base.y.to, ([...stacks.values()].reduce((a, b) => Math.max(a, b), 0) + 1) * height);
  const [panel] = base.panels;
  // The shade would hide the dots it counts.
  const marks = panel!.marks.filter(({ kind }) => kind !== 'area' && kind !== 'columns');
  return {
    ...base,
    y: { ...base.y, to: top },
    panels: [{ ...panel!, marks: [...marks, points(false), points(true)] }],
    hits: [],
    legend: [
      { words: 'a sample simulated under the claim', tone: 'ink', sample: 'marker', marker: 'circle' },
      { words: 'at least as far from the claim as the data', tone: 'ochre', sample: 'marker', marker: 'circle' },
      ...(law.discrete ? [] : [base.legend![0]!]),
    ],
  };
}

const TIE = 1e-9;
const isFar = (statistic: number, { atMost, atLeast }: LawPicture['beyond']): boolean => {
  const slack = TIE * Math.max(1, Math.abs(statistic));
  return (atMost !== null && statistic <= atMost + slack) || (atLeast !== null && statistic >= atLeast - slack);
};

/** The same scatter each time: the golden part of every next dot. */
const scatter = (i: number) => (((i * 0.6180339887498949) % 1) - 0.5) * 0.44;
const DOTS_BELOW = 0.06;

interface Shown {
  groups: readonly ClaimGroup[];
  title: string;
  claimed: number | null;
  /** On both sides of what is claimed. */
  margin: number | null;
  told: (value: number) => string;
  interval: (group: ClaimGroup) => string;
  intervalWords: string;
  centreWords: string;
  limits?: readonly { at: number; words: string }[];
}

function groupMarks({ groups }: Shown): Mark[] {
  return groups.flatMap(({ dots, centre, interval }, i): Mark[] => {
    const at = groups.length - i;
    const line = (x: [number, number]): Mark => ({ kind: 'line', x, y: [at, at], tone: 'green', width: 3 });
    const cap = (x: number): Mark => ({ kind: 'line', x: [x, x], y: [at - 0.1, at + 0.1], tone: 'green', width: 2 });
    const ends = interval ? [interval.lower, interval.upper] : [];
    const known = ends.filter((end): end is number => end !== null);
    return [
      {
        kind: 'points',
        x: dots,
        y: dots.map((_, k) => at + scatter(k) + DOTS_BELOW),
        tone: 'ink',
        marker: 'circle',
        radius: 2.6,
      },
      ...(known.length > 0 ? [line([ends[0] ?? centre, ends[1] ?? centre]), ...known.map(cap)] : []),
      { kind: 'points', x: [centre], y: [at], tone: 'green', marker: 'diamond', radius: 5.5, filled: true },
    ];
  });
}

function groupLegend(shown: Shown): LegendEntry[] {
  const { groups } = shown;
  return [
    ...(groups.some(({ dots }) => dots.length)
      ? [{ words: 'readings', tone: 'ink', sample: 'marker', marker: 'circle' } as const]
      : []),
    {
      words: `${shown.centreWords}${groups.some(({ interval }) => interval) ? ` with ${shown.intervalWords}` : ''}`,
      tone: 'green',
      marker: 'diamond',
    },
    ...(shown.margin !== null ? [{ words: 'equivalence margin', tone: 'green', sample: 'area' } as const] : []),
  ];
}

const MOST_NAMED = 16;
const EDGE = 0.06;

/** Groups one below the other on a common axis: readings, centre and interval, and what is claimed. */
function groupPanels(shown: Shown): Panels {
  const { groups, title, claimed, margin, told, limits = [] } = shown;
  const ends = groups.flatMap(({ centre, interval, dots }) => [
    ...[centre, interval?.lower, interval?.upper].filter((x): x is number => x !== null && x !== undefined),
    ...(dots.length ? [dots[0]!, dots.at(-1)!] : []),
  ]);
  const all = [...ends, ...(claimed === null ? [] : [claimed]), ...limits.map(({ at }) => at)];
  const [least, greatest] = [Math.min(...all), Math.max(...all)];
  const air = (greatest - least || Math.abs(least) || 1) * EDGE;
  const every = Math.ceil(groups.length / MOST_NAMED);
  const band: Mark[] =
    margin === null || claimed === null
      ? []
      : [
          {
            kind: 'area',
            x: [claimed - margin, claimed + margin, claimed + margin, claimed - margin],
            y: [0, 0, groups.length + 1, groups.length + 1],
            fill: 'green',
            alpha: 0.12,
          },
        ];
  const rules: Mark[] = [
    ...(claimed === null
      ? []
      : [
          {
            kind: 'rule',
            across: 'x',
            at: claimed,
            tone: 'ochre',
            dash: [6, 4],
            words: `claimed ${told(claimed)}`,
          } as const,
        ]),
    ...limits.map(({ at, words }): Mark => ({ kind: 'rule', across: 'x', at, tone: 'soft', dash: [3, 4], words })),
  ];
  const hits = groups.map((group, i): Hit => {
    const at = groups.length - i;
    const words = `${group.name}, n = ${groupThousands(group.n)}: ${shown.centreWords} ${told(group.centre)}${group.interval ? `, ${shown.interval(group)}` : ''}`;
    return { panel: 0, x: [least - air, greatest + air], y: [at - 0.5, at + 0.5], words };
  });
  return {
    x: { from: least - air, to: greatest + air, title },
    y: {
      ...{ from: 0.35, to: groups.length + 0.65, title: '' },
      ticks: groups.flatMap(({ name }, i) => (i % every === 0 ? [{ at: groups.length - i, words: name }] : [])),
    },
    panels: [{ name: '', marks: [...band, ...groupMarks(shown), ...rules] }],
    hits,
    legend: groupLegend(shown),
  };
}

/** What a centre is, by what the claim is about. */
const centreOf = (result: ClaimResult): string =>
  result.as === 'share'
    ? 'share'
    : result.as === 'rate'
      ? 'rate'
      : /standard deviation|absolute deviations/.test(result.intervalOf + result.null)
        ? 'sd'
        : /median|shift|centre/.test(result.intervalOf) || result.null.startsWith('the median')
          ? 'median'
          : 'mean';

const axisTitle = (result: ClaimResult, name: string, centre: string) => {
  if (result.as === 'share') return 'share';
  if (result.as === 'rate') return 'rate';
  const what = centre === 'sd' ? `SD of ${name}` : name;
  return result.unit ? `${what}, ${result.unit}` : what;
};

/** Groups, or one sample, beside what is claimed. */
function foundGroups(result: ClaimResult, name: string): Panels {
  const centre = centreOf(result);
  // A ratio of sds is drawn by the sds themselves.
  const scale = { ...result, as: result.as === 'ratio' ? ('reading' as const) : result.as };
  const one = result.groups.length === 1;
  return groupPanels({
    ...{ groups: result.groups, title: axisTitle(result, name, centre), centreWords: centre },
    claimed: one ? result.claimed : null,
    margin: one ? (result.closeness?.margin ?? null) : null,
    told: (value) => formatQuantity(value, scale, centre === 'sd' ? 'spread' : 'location'),
    interval: (group) => formatInterval(group.interval!, scale, centre === 'sd' ? 'spread' : 'location'),
    intervalWords: `its interval at ${Number((100 * result.confidence).toPrecision(6))} %`,
  });
}

const WIDTH = 0.36;
/** A place is far from what is expected beyond so many sd. */
const FAR = 2;
const MOST_PLACES = 24;

/** Observed counts as bars, with a line across each for the expected count. */
function foundCells({ cells }: ClaimResult): Panels {
  const top = cells.reduce((most, { observed, expected }) => Math.max(most, observed, expected), 0) * AIR || 1;
  const total = cells.reduce((sum, { contribution }) => sum + contribution, 0);
  const bars = cells.map(({ observed, standardised }, i): Mark => {
    const tone = Math.abs(standardised) > FAR ? 'ochre' : 'green';
    return { kind: 'rect', x: [i + 1 - WIDTH, i + 1 + WIDTH], y: [0, observed], fill: tone, stroke: tone };
  });
  const lines = cells.map(({ expected }, i): Mark => ({
    ...{ kind: 'line', x: [i + 0.52, i + 1.48], y: [expected, expected], tone: 'ink', width: 2.4 },
  }));
  const hits = cells.map((cell, i): Hit => ({
    ...{ panel: 0, x: [i + 0.5, i + 1.5], y: [0, top], words: `${cell.label}: ${cellWords(cell, total)}` },
  }));
  return {
    x: placesAxis(cells.map(({ label }) => label)),
    y: { from: 0, to: top, title: 'observed' },
    panels: [{ name: '', marks: [...bars, ...lines] }],
    hits,
    legend: [
      { words: 'observed', tone: 'green', sample: 'area' },
      ...(cells.some(({ standardised }) => Math.abs(standardised) > FAR)
        ? [{ words: `observed, more than ${FAR} SD from expected`, tone: 'ochre', sample: 'area' } as const]
        : []),
      { words: 'expected', tone: 'ink' },
    ],
  };
}

/** A table: every column a place on the axis, in which the rows stand side by side. */
function foundTable({ cells }: ClaimResult): Panels {
  const groups = [...new Set(cells.map(({ group }) => group!))];
  const places = [...new Set(cells.map(({ place }) => place!))];
  const top = cells.reduce((most, { observed, expected }) => Math.max(most, observed, expected), 0) * AIR || 1;
  const total = cells.reduce((sum, { contribution }) => sum + contribution, 0);
  const width = 0.84 / groups.length;
  const from = (cell: ClaimCell) => places.indexOf(cell.place!) + 0.58 + groups.indexOf(cell.group!) * width;
  const isFar = ({ standardised }: ClaimCell) => Math.abs(standardised) > FAR;
  const bars = cells.map((cell): Mark => {
    const tone = { series: groups.indexOf(cell.group!) };
    const x: [number, number] = [from(cell) + width * 0.08, from(cell) + width * 0.92];
    const edge = isFar(cell) ? ({ stroke: 'ochre', width: 3 } as const) : { stroke: tone };
    return { kind: 'rect', x, y: [0, cell.observed], fill: tone, ...edge };
  });
  const lines = cells.map((cell): Mark => ({
    ...{
      kind: 'line',
      x: [from(cell), from(cell) + width],
      y: [cell.expected, cell.expected],
      tone: 'ink',
      width: 2.4,
    },
  }));
  const hits = cells.map((cell): Hit => ({
    ...{ panel: 0, x: [from(cell), from(cell) + width], y: [0, top] },
    words: `${cell.group}, ${cell.place}: ${cellWords(cell, total)}`,
  }));
  const named = groups.length <= MOST_SERIES ? groups : [];
  return {
    x: placesAxis(places),
    y: { from: 0, to: top, title: 'observed' },
    panels: [{ name: '', marks: [...bars, ...lines] }],
    hits,
    legend: [
      ...named.map((words, series): LegendEntry => ({ words, tone: { series }, sample: 'area' })),
      { words: 'expected', tone: 'ink' },
      ...(cells.some(isFar) ? [{ words: `more than ${FAR} SD from expected`, tone: 'ochre' } as const] : []),
    ],
  };
}

/** Colours that can be told apart. */
const MOST_SERIES = 4;

function placesAxis(places: readonly string[]): Axis {
  const every = Math.ceil(places.length / MOST_PLACES);
  const ticks = places.flatMap((words, i) => (i % every === 0 ? [{ at: i + 1, words }] : []));
  return { from: 0.4, to: places.length + 0.6, title: '', ticks };
}

function cellWords({ observed, expected, contribution }: ClaimCell, total: number): string {
  const share = total > 0 ? `, ${Math.round((100 * contribution) / total)} % of χ²` : '';
  return `${groupThousands(observed)} observed, ${formatExpected(expected)} expected${share}`;
}

/** The data, beside the claim. */
export const foundPanels = (result: ClaimResult, name: string): Panels | null =>
  result.cells.length > 0
    ? (result.cells[0]!.group === undefined ? foundCells : foundTable)(result)
    : result.groups.length > 0
      ? foundGroups(result, name)
      : null;

/** Readings with the limits that hold nearly all of what they are a sample of. */
export function tolerancePanels(result: ToleranceResult): Panels {
  const scale = { ...result, as: 'reading' } as const;
  const told = (value: number) => formatQuantity(value, scale);
  const { lower, upper } = result.allowed;
  return groupPanels({
    groups: result.groups,
    title: result.unit ? `${result.name}, ${result.unit}` : result.name,
    ...{ claimed: null, margin: null, told, centreWords: 'mean' },
    interval: ({ interval }) => `limits ${formatInterval(interval!, scale)}`,
    intervalWords: 'the tolerance limits',
    limits: [
      ...(lower === null ? [] : [{ at: lower, words: `lower specification limit ${formatValue(lower)}` }]),
      ...(upper === null ? [] : [{ at: upper, words: `upper specification limit ${formatValue(upper)}` }]),
    ],
  });
}
