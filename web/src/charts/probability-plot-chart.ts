import { outsideBand, type ProbabilityPlotResult } from '@verdict/core/analyses';
import { normalQuantile } from '@verdict/core/distributions';
import { formatFigure } from '@verdict/core/format';
import type { ChartConfiguration, ChartDataset, Point } from 'chart.js';
import type { ChartColours } from './theme.js';

/** A mark on the plot; `index` points into the result's table. */
export interface PlotPoint extends Point {
  x: number;
  y: number;
  index: number;
}

const PERCENTS = [0.001, 0.01, 0.1, 0.5, 2, 10, 25, 50, 75, 90, 98, 99.5, 99.9, 99.99, 99.999];
const PIXELS = { width: 700, height: 480 };
/** Beyond this many readings, marks that would cover one another to the pixel are drawn once. */
const THIN_FROM = 2_000;

/** The standard scores that the plot spans: a little beyond the outermost positions. */
export function scoreRange(scores: readonly number[]): { min: number; max: number } {
  const reach = Math.max(Math.abs(scores[0] ?? 1), Math.abs(scores.at(-1) ?? 1)) + 0.35;
  return { min: -reach, max: reach };
}

/** The readings that the plot spans: all marks, the band, and a little air. */
export function readingRange(result: ProbabilityPlotResult, { min, max }: { min: number; max: number }) {
  const { mean, sd, readings, band } = result;
  const low = Math.min(readings[0]!, band?.lower[0] ?? Infinity, mean + 0.9 * min * sd);
  const high = Math.max(readings.at(-1)!, band?.upper.at(-1) ?? -Infinity, mean + 0.9 * max * sd);
  const air = (high - low) * 0.02;
  return { min: low - air, max: high + air };
}

/** Percentages that get a tick, with the score each stands at; fewer where they would collide. */
export function percentTicks(range: { min: number; max: number }): { percent: number; score: number }[] {
  const all = PERCENTS.map((percent) => ({ percent, score: normalQuantile(percent / 100) }));
  const inside = all.filter(({ score }) => score > range.min && score < range.max);
  const closest = (range.max - range.min) / 16;
  return inside.filter(({ score }, i) => {
    const before = inside[i - 1];
    return score > 0 || !before || score - before.score > closest * 0.6;
  });
}

/** One mark for each pixel that holds any, the row kept with it. Ends are always drawn: they are what one looks at. */
export function thinned(points: PlotPoint[], width = PIXELS.width, height = PIXELS.height): PlotPoint[] {
  if (points.length <= THIN_FROM) return points;
  const [first, last] = [points[0]!, points.at(-1)!];
  const taken = new Set<number>();
  return points.filter((point, i) => {
    if (i < 50 || i >= points.length - 50) return true;
    const column = Math.round(((point.x - first.x) / (last.x - first.x || 1)) * width);
    const row = Math.round(((point.y - first.y) / (last.y - first.y || 1)) * height);
    const cell = column * 10_000 + row;
    if (taken.has(cell)) return false;
    taken.add(cell);
    return true;
  });
}

export function plotPoints({ readings, scores }: ProbabilityPlotResult): PlotPoint[] {
  return thinned(readings.map((x, index) => ({ x, y: scores[index]!, index })));
}

/** What pointing at a mark says: the row, the reading, where it stands. */
export function pointWords(result: ProbabilityPlotResult, index: number): string[] {
  const { rows, readings, positions, unit, resolution } = result;
  const value = formatFigure(readings[index]!, 'reading', resolution);
  return [
    `row ${rows[index]}: ${value}${unit ? ` ${unit}` : ''}`,
    `${(positions[index]! * 100).toPrecision(3)} % at or below`,
  ];
}

function bandDatasets(result: ProbabilityPlotResult, colours: ChartColours): ChartDataset<'line', Point[]>[] {
  if (!result.band) return [];
  const { ranks, lower, upper } = result.band;
  const edge = (limits: number[]) => ranks.map((rank, j) => ({ x: limits[j]!, y: result.scores[rank]! }));
  const style = { type: 'line' as const, pointRadius: 0, borderWidth: 0, hitRadius: 0, backgroundColor: colours.tint };
  return [
    { ...style, label: 'band, lower end', data: edge(lower) },
    // Both edges as one closed shape: a fill between two lines is taken along x, where their points do not meet.
    { ...style, label: 'band', data: [...edge(lower), ...edge(upper).reverse()], fill: 'shape' },
  ].slice(1);
}

/** The normal probability plot: readings across, percent at or below on the normal scale upwards, fitted line, band behind. */
export function probabilityPlotChart(
  result: ProbabilityPlotResult,
  column: string,
  colours: ChartColours,
  pointed: number | null,
): ChartConfiguration {
  const { mean, sd, scores, unit, resolution, band } = result;
  const range = scoreRange(scores);
  const ticks = percentTicks(range);
  const outside = new Set(band ? outsideBand(result.readings, scores, band, sd) : []);
  const points = plotPoints(result);
  const many = points.length > 300;
  const colourOf = ({ index }: PlotPoint) => (outside.has(index) ? colours.ochre : colours.ink);
  const reach = [range.min, range.max].map((z) => ({ x: mean + sd * z, y: z }));
  const marks: ChartDataset<'line', PlotPoint[]> = {
    type: 'line',
    label: 'readings',
    data: points,
    showLine: false,
    pointRadius: points.map(({ index }) => (index === pointed ? 5.5 : many ? 2.5 : 4)),
    pointHitRadius: 6,
    pointBorderColor: points.map(colourOf),
    pointBackgroundColor: points.map(({ index }) => (index === pointed ? colours.green : colours.card)),
    pointBorderWidth: many ? 1 : 1.4,
  };
  const line: ChartDataset<'line', Point[]> = {
    type: 'line',
    label: 'fitted line',
    data: reach,
    pointRadius: 0,
    pointHitRadius: 0,
    borderColor: colours.green,
    borderWidth: 2,
  };
  const title = (text: string) => ({ display: true, text, color: colours.ink, font: { size: 12 } });
  return {
    type: 'line',
    data: { datasets: [marks, line, ...bandDatasets(result, colours)] },
    options: {
      parsing: false,
      normalized: false,
      interaction: { mode: 'nearest', intersect: true, axis: 'xy' },
      plugins: {
        legend: { display: false },
        tooltip: {
          filter: ({ datasetIndex }) => datasetIndex === 0,
          displayColors: false,
          callbacks: {
            title: () => '',
            label: ({ raw }) => pointWords(result, (raw as PlotPoint).index),
          },
        },
      },
      scales: {
        x: {
          type: 'linear',
          ...readingRange(result, range),
          title: title(unit ? `${column}, ${unit}` : column),
          grid: { color: colours.gridLine, drawTicks: false },
          border: { display: false },
          ticks: {
            color: colours.soft,
            padding: 6,
            maxTicksLimit: 9,
            maxRotation: 0,
            // The axis ends where the picture does, not at the next round number.
            includeBounds: false,
            callback: (value) => formatFigure(Number(value), 'reading', axisStep(resolution, sd)),
          },
        },
        y: {
          type: 'linear',
          ...range,
          title: title('readings at or below, %'),
          grid: { color: colours.gridLine, drawTicks: false },
          border: { display: false },
          afterBuildTicks: (axis) => {
            axis.ticks = ticks.map(({ score }) => ({ value: score }));
          },
          ticks: {
            color: colours.soft,
            padding: 6,
            autoSkip: false,
            callback: (value) => String(ticks.find(({ score }) => score === value)?.percent ?? ''),
          },
        },
      },
    },
  };
}

/** The axis needs no more decimals than tell its ticks apart: about a third of an sd. */
function axisStep(resolution: number | null, sd: number): number {
  const needed = 10 ** Math.floor(Math.log10(sd / 1.5));
  return Math.max(resolution ?? 0, Math.min(1, needed));
}
