import {
  expectedReadings,
  plotPicture,
  readPlot,
  type PlotAxisRange,
  type PlotPicture,
  type ProbabilityPlotResult,
  type ReadOff,
} from '@verdict/core/analyses';
import { familyByName } from '@verdict/core/distributions';
import { censoredReadings } from '@verdict/core/readings';
import { beyondWords } from '@verdict/core/road';
import { decimalsOf, formatFigure, formatPercent, formatValue } from '@verdict/core/format';
import type { LegendEntry } from '../legend.js';
import type { Mark } from '../marks.js';
import type { Axis, Hit, Panels } from '../picture.js';

const PIXELS = { width: 700, height: 480 };
/** Beyond this many readings, marks that would cover one another to the pixel are drawn once. */
const THIN_FROM = 2_000;
const ENDS = 50;

/** Indices of one mark for each pixel that holds any. The ends are always drawn: they are what one looks at. */
export function visibleMarks(x: ArrayLike<number>, y: ArrayLike<number>): number[] {
  const last = x.length - 1;
  if (x.length <= THIN_FROM) return Array.from(x, (_, i) => i);
  const [across, up] = [x[last]! - x[0]! || 1, y[last]! - y[0]! || 1];
  const taken = new Set<number>();
  const shown: number[] = [];
  for (let i = 0; i <= last; i++) {
    const column = Math.round(((x[i]! - x[0]!) / across) * PIXELS.width);
    const cell = column * 10_000 + Math.round(((y[i]! - y[0]!) / up) * PIXELS.height);
    if (i >= ENDS && i <= last - ENDS && taken.has(cell)) continue;
    taken.add(cell);
    shown.push(i);
  }
  return shown;
}

const titleOf = (result: ProbabilityPlotResult) => familyByName(result.law.family).title;

/** What pointing at a mark says: the row, the reading, where it stands, what the line expects there. */
export function pointWords(
  { rows, readings, positions, unit, resolution }: ProbabilityPlotResult,
  i: number,
  expected: number,
) {
  const of = unit ? ` ${unit}` : '';
  const value = formatFigure(readings[i]!, 'reading', resolution);
  const there = formatFigure(expected, 'location', resolution);
  return `row ${rows[i]}: ${value}${of}, ${(positions[i]! * 100).toPrecision(3)} % at or below; expected ${there}${of}`;
}

export function bandWords(result: ProbabilityPlotResult): string {
  const { band, law } = result;
  const at = formatPercent(band!.confidence);
  const title = titleOf(result);
  const samples = law.estimated.length === 0 ? `samples of the claimed ${title}` : `${title} samples`;
  if (band!.kind === 'whole-plot') return `${at} of ${samples} lie entirely within the shaded band`;
  if (band!.kind === 'pointwise') return `each reading lies in the shaded band with probability ${at} of ${samples}`;
  return `${at} intervals of the ${title} quantiles`;
}

const LINES = {
  fit: 'fitted distribution',
  quartiles: 'through the quartiles',
  'least-squares': 'least squares',
} as const;

function legendOf(result: ProbabilityPlotResult, anyOutside: boolean): LegendEntry[] {
  const { band, line, censored } = result;
  const beyond: LegendEntry = { words: beyondWords(result), tone: 'soft', sample: 'marker', marker: 'triangle' };
  const own: LegendEntry[] = [
    ...(line.by === 'fit' ? [] : [{ words: LINES[line.by], tone: 'green' } as const]),
    ...(censored ? [beyond] : []),
  ];
  if (!band) return own;
  const outside: LegendEntry = {
    words: 'a reading outside the band',
    tone: 'ochre',
    sample: 'marker',
    marker: 'circle',
  };
  return [...own, { words: bandWords(result), tone: 'tint', sample: 'area' }, ...(anyOutside ? [outside] : [])];
}

/** An axis with its title; ticks that the core names are written as few digits as tell them apart. */
export function axisOf({ of, min, max, ticks }: PlotAxisRange, result: ProbabilityPlotResult, column: string): Axis {
  const { unit } = result;
  const inUnit = (words: string) => (unit ? `${words}, ${unit}` : words);
  const titles = {
    readings: inUnit(column),
    percent: 'readings at or below, %',
    score: `score of the ${titleOf(result)} distribution`,
    expected: inUnit(`expected under the ${result.line.by === 'fit' ? titleOf(result) : 'line'}`),
    difference: inUnit('observed − expected'),
  };
  const axis = { from: min, to: max, title: titles[of] };
  if (!ticks) return axis;
  const decimals = Math.max(0, ...ticks.map(({ value }) => decimalsOf(value)));
  const even = of === 'readings' && decimals <= 6;
  const words = (value: number) =>
    of === 'percent'
      ? String(value)
      : even && Math.abs(value) < 1e6
        ? value.toFixed(decimalsFor(ticks, decimals, value))
        : formatValue(value);
  return { ...axis, ticks: ticks.map(({ at, value }) => ({ at, words: words(value) })) };
}

/** As many decimals as the neighbours where the steps are even; its own where they grow. */
function decimalsFor(ticks: readonly { value: number }[], most: number, value: number): number {
  const [a, b, c] = ticks;
  const even = a && b && c ? Math.abs(c.value - b.value - (b.value - a.value)) < 1e-9 * Math.abs(c.value) : true;
  return even ? most : decimalsOf(value);
}

const LIMITS = [
  ['lower', 'lower limit'],
  ['target', 'target'],
  ['upper', 'upper limit'],
] as const;

/** Target and limits across the axis on which readings stand. */
export function limitMarks(
  { limits, resolution }: ProbabilityPlotResult,
  { placeOf, min, max }: PlotAxisRange,
  across: 'x' | 'y',
) {
  return LIMITS.flatMap(([key, name]): Mark[] => {
    const at = limits[key] === null || !placeOf ? NaN : placeOf(limits[key]);
    if (!(at >= min && at <= max)) return [];
    const words = `${name} ${formatFigure(limits[key]!, 'reading', resolution)}`;
    return [{ kind: 'rule', across, at, tone: key === 'target' ? 'green' : 'ochre', dash: [6, 4], words }];
  });
}

/** What pointing at a reading beyond a limit says; nothing where they are not drawn. */
export function beyondHits(result: ProbabilityPlotResult, { across, up }: PlotPicture['beyond']): Hit[] {
  const { resolution, unit } = result;
  const told = (limit: number) => `${formatFigure(limit, 'reading', resolution)}${unit ? ` ${unit}` : ''}`;
  return censoredReadings(result)
    .slice(0, across.length)
    .map(({ row, limit, side }, i): Hit => {
      const [x, y] = [across[i]!, up[i]!];
      return {
        panel: 0,
        x: [x, x],
        y: [y, y],
        words: `row ${row}: ${side < 0 ? 'below' : 'above'} ${told(limit)}`,
        row,
      };
    });
}

/** A picture of a probability plot, and what can be laid over it without drawing the plot anew. */
export interface PlotDrawing {
  panels: Panels;
  /** Which axis the readings stand along; null where none. */
  along: 'x' | 'y' | null;
  placeOf(reading: number): number;
  readingAt(place: number): number;
  /** Lines across the axes at what is read off. */
  readMarks(read: ReadOff): Mark[];
  /** Rings around marks that are spoken of. */
  ringMarks(some: readonly number[]): Mark[];
}

/** The probability plot: readings against percent, scores or what is expected, with its line, the band behind, and limits. */
export function plotDrawing(kept: ProbabilityPlotResult, column: string): PlotDrawing {
  const result = readPlot(kept);
  const { rows, readings } = result;
  const plot = plotPicture(result);
  const { across, up } = plot.points;
  const expected = expectedReadings(result);
  const shown = visibleMarks(readings, result.scores);
  const radius = shown.length > 300 ? 2.5 : 4;
  const points = (some: readonly number[], tone: 'ink' | 'ochre'): Mark => ({
    kind: 'points',
    x: some.map((i) => across[i]!),
    y: some.map((i) => up[i]!),
    tone,
    marker: 'circle',
    radius,
  });
  const marks: Mark[] = [
    ...(plot.band ? [{ kind: 'area', x: plot.band.across, y: plot.band.up, fill: 'tint', alpha: 1 } as const] : []),
    ...limitMarks(result, plot.across, 'x'),
    ...limitMarks(result, plot.up, 'y'),
    { kind: 'line', x: plot.line.across, y: plot.line.up, tone: 'green', width: 2 },
    points(
      shown.filter((i) => !plot.outside.has(i)),
      'ink',
    ),
    points(
      shown.filter((i) => plot.outside.has(i)),
      'ochre',
    ),
    { kind: 'points', x: plot.beyond.across, y: plot.beyond.up, tone: 'soft', marker: 'triangle', radius: 5 },
  ];
  const hits = shown.map((i): Hit => {
    const [x, y] = [across[i]!, up[i]!];
    return { panel: 0, x: [x, x], y: [y, y], words: pointWords(result, i, expected[i]!), row: rows[i]! };
  });
  hits.push(...beyondHits(result, plot.beyond));
  const panels = {
    x: axisOf(plot.across, result, column),
    y: axisOf(plot.up, result, column),
    panels: [{ name: '', marks }],
    hits,
    equal: plot.equal,
    legend: legendOf(result, plot.outside.size > 0),
  };
  const onAxis = { x: plot.across, y: plot.up };
  const ofReadings = (['x', 'y'] as const).find((side) => onAxis[side].placeOf) ?? null;
  const { placeOf, readingAt } = plot;
  const readMarks = (read: ReadOff): Mark[] =>
    (['x', 'y'] as const).flatMap((across): Mark[] => {
      const { of, min, max } = onAxis[across];
      const scored = of === 'percent' || of === 'score';
      const at = across === ofReadings ? placeOf(read.value) : scored ? (plot.scoreOf?.(read.share) ?? NaN) : NaN;
      return at >= min && at <= max ? [{ kind: 'rule', across, at, tone: 'green', dash: [2, 3] }] : [];
    });
  const ringMarks = (some: readonly number[]): Mark[] =>
    some.length === 0 ? [] : [{ ...points(some, 'ochre'), tone: 'green', radius: radius + 3 } as Mark];
  return { panels, along: ofReadings, placeOf, readingAt, readMarks, ringMarks };
}
