import { plotPicture, type ProbabilityPlotResult } from '@verdict/core/analyses';
import { formatFigure, formatPercent } from '@verdict/core/format';
import type { LegendEntry } from '../legend.js';
import type { Mark } from '../marks.js';
import type { Hit, Panels } from '../picture.js';

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

/** What pointing at a mark says: the row, the reading, where it stands. */
function pointWords({ rows, readings, positions, unit, resolution }: ProbabilityPlotResult, i: number): string {
  const value = formatFigure(readings[i]!, 'reading', resolution);
  return `row ${rows[i]}: ${value}${unit ? ` ${unit}` : ''}, ${(positions[i]! * 100).toPrecision(3)} % at or below`;
}

function legendOf({ band }: ProbabilityPlotResult, anyOutside: boolean): LegendEntry[] {
  if (!band) return [];
  const words = `${formatPercent(band.confidence)} of normal samples stay wholly inside the shaded band`;
  const outside: LegendEntry = { words: 'a reading outside it', tone: 'ochre', sample: 'marker', marker: 'circle' };
  return [{ words, tone: 'tint', sample: 'area' }, ...(anyOutside ? [outside] : [])];
}

/** The normal probability plot: readings across, percent at or below on the normal scale upwards, fitted line, band behind. */
export function probabilityPlotPicture(result: ProbabilityPlotResult, column: string): Panels {
  const { readings, scores, rows, unit } = result;
  const plot = plotPicture(result);
  const shown = visibleMarks(readings, scores);
  const radius = shown.length > 300 ? 2.5 : 4;
  const points = (some: readonly number[], tone: 'ink' | 'ochre'): Mark => ({
    kind: 'points',
    x: some.map((i) => readings[i]!),
    y: some.map((i) => scores[i]!),
    tone,
    marker: 'circle',
    radius,
  });
  const marks: Mark[] = [
    { kind: 'line', x: plot.line.readings, y: plot.line.scores, tone: 'green', width: 2 },
    points(
      shown.filter((i) => !plot.outside.has(i)),
      'ink',
    ),
    points(
      shown.filter((i) => plot.outside.has(i)),
      'ochre',
    ),
  ];
  if (plot.band) marks.unshift({ kind: 'area', x: plot.band.readings, y: plot.band.scores, fill: 'tint', alpha: 1 });
  const hits = shown.map((i): Hit => {
    const [x, y] = [readings[i]!, scores[i]!];
    return { panel: 0, x: [x, x], y: [y, y], words: pointWords(result, i), row: rows[i]! };
  });
  return {
    x: { from: plot.readings.min, to: plot.readings.max, title: unit ? `${column}, ${unit}` : column },
    y: {
      from: plot.scores.min,
      to: plot.scores.max,
      title: 'readings at or below, %',
      ticks: plot.ticks.map(({ percent, score }) => ({ at: score, words: String(percent) })),
    },
    panels: [{ name: '', marks }],
    hits,
    legend: legendOf(result, plot.outside.size > 0),
  };
}
