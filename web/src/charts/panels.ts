import type { Scores } from '@verdict/core/analyses';
import { decimalsOf, formatValue } from '@verdict/core/format';
import { layouts, type Chart, type ChartConfiguration, type ChartData, type Plugin, type Tick } from 'chart.js';
import { drawMarks, drawWords, freeLine, groundOf, tracePoint } from './draw-marks.js';
import { drawHead, headHeight } from './head.js';
import { drawLegend, legendHeight } from './legend.js';
import type { Axis, Hit, Panels } from './picture.js';
import type { ChartColours } from './theme.js';
import { wordsBox } from './words-box.js';

const MOST_DECIMALS = 8;

/** A tick with as many decimals as tell it from its neighbours, the same for all: 7.8, 7.9, 8.0. */
export function tickWords(value: number, step: number): string {
  const size = Math.abs(value);
  if (size >= 1e6 || (size > 0 && size < 1e-4) || !(step > 1e-6)) return formatValue(Number(value.toPrecision(10)));
  return value.toFixed(Math.min(MOST_DECIMALS, decimalsOf(Number(step.toPrecision(6))))).replace('-', '\u2212');
}

/** Whole or half standard scores within an axis, so that no more than `most` stand on it. */
export function scoreTicks(
  { from, to }: Pick<Axis, 'from' | 'to'>,
  { mean, sd }: Scores,
  most = 11,
): { at: number; words: string }[] {
  const [low, high] = [(from - mean) / sd, (to - mean) / sd];
  const step = [0.5, 1, 2, 5, 10, 20, 50, 100].find((s) => (high - low) / s <= most) ?? (high - low) / 8;
  const ticks = [];
  // An end that rounding alone keeps off a tick has it.
  for (let k = Math.ceil(low / step - 1e-9); k * step <= high + 1e-9; k++) {
    ticks.push({ at: mean + k * step * sd, words: tickWords(k * step + 0, step) });
  }
  return ticks;
}

const short = (value: number) => formatValue(Number(value.toPrecision(5)));

/** Options of a scale; Chart.js checks them again where they are put together. */
type Scale = Record<string, unknown>;

function scaleOf(axis: Axis, colours: ChartColours, direction: 'x' | 'y', low = false): Scale {
  const { scores } = axis;
  const own = scores ? scoreTicks(axis, scores, low ? 4 : 11) : axis.ticks;
  const from = scores ? `, from mean ${short(scores.mean)} and SD ${short(scores.sd)} (${scores.divisor})` : '';
  const title = scores && axis.title ? `standard score${low ? '' : from}` : axis.title;
  return {
    type: 'linear',
    min: axis.from,
    max: axis.to,
    title: { display: title !== '', text: title, color: colours.ink, font: { size: 12 } },
    grid: { color: colours.gridLine, drawTicks: false },
    border: { display: false },
    ...(own
      ? {
          afterBuildTicks: (scale: { ticks: Tick[] }) =>
            void (scale.ticks = own.map(({ at }): Tick => ({ value: at }))),
        }
      : {}),
    ticks: {
      color: colours.soft,
      padding: 6,
      maxRotation: 0,
      includeBounds: false,
      autoSkip: !own || direction === 'x',
      ...(axis.whole ? { precision: 0 } : {}),
      callback: (value: number | string, _i: number, ticks: Tick[]) =>
        own
          ? (own.find(({ at }) => at === value)?.words ?? '')
          : tickWords(Number(value), ticks.length > 1 ? ticks[1]!.value - ticks[0]!.value : Number(value) || 1),
    },
  };
}

/** The values themselves on the other side of an axis of standard scores. */
function rawScale(axis: Axis, colours: ChartColours, side: 'top' | 'right', low = false): Scale {
  const plain = scaleOf({ ...axis, scores: null }, colours, side === 'top' ? 'x' : 'y', low);
  return { ...plain, position: side, grid: { display: false } };
}

const yAxisOf = (panel: number) => `y${panel}`;

/** Ring or frame around what is pointed at. */
function drawPointed(chart: Chart, { panel, x, y }: Hit, colours: ChartColours): void {
  const ground = groundOf(chart, yAxisOf(panel), colours);
  const { context } = ground;
  context.strokeStyle = colours.green;
  context.lineWidth = 2;
  if (x[0] === x[1]) {
    tracePoint(context, 'circle', ground.x(x[0]), ground.y(y[0]), 6.5);
    context.stroke();
    return;
  }
  const [left, right] = [ground.x(x[0]), ground.x(x[1])];
  const [bottom, top] = [ground.y(y[0]), ground.y(y[1])];
  context.strokeRect(left, top, right - left, Math.max(2, bottom - top));
}

function drawPanels(chart: Chart, picture: Panels, colours: ChartColours, pointed: number | null): void {
  const { ctx: context } = chart;
  picture.panels.forEach(({ name, marks }, i) => {
    const ground = groundOf(chart, yAxisOf(i), colours);
    const { left, right, top, bottom } = ground;
    context.save();
    context.beginPath();
    // A marker on the edge is drawn whole.
    context.rect(left - 6, top - 6, right - left + 12, bottom - top + 12);
    context.clip();
    drawMarks(ground, marks);
    if (name) {
      context.font = "600 12px 'IBM Plex Sans', sans-serif";
      drawWords(ground, name, left + 6, freeLine(ground, left + 6, context.measureText(name).width), colours.ink);
    }
    context.restore();
    if (i > 0) {
      context.fillStyle = colours.gridLine;
      context.fillRect(left, top - 1, right - left, 1);
    }
  });
  const hit = pointed === null ? undefined : picture.hits[pointed];
  if (hit) drawPointed(chart, hit, colours);
}

const TOP = 8;
const RIGHT = 12;

interface PanelsData extends ChartData {
  picture: Panels;
  colours: ChartColours;
  pointed: number | null;
}

/** Draws what the data hold, so that one chart serves picture after picture: panels, words above them, legend below. */
const panelsPlugin: Plugin = {
  id: 'panels',
  beforeInit(chart) {
    const { ctx: context } = chart;
    const now = () => chart.data as PanelsData;
    const head = wordsBox(
      chart,
      'top',
      (width) => headHeight(context, now().picture, width),
      (area) => {
        const place = (x: number) => chart.scales.x!.getPixelForValue(x);
        const { left, right } = chart.chartArea;
        drawHead(context, now().picture, area, { width: chart.width, place, left, right }, now().colours);
      },
    );
    const legend = wordsBox(
      chart,
      'bottom',
      (width) => legendHeight(context, now().picture.legend ?? [], width),
      (area) => drawLegend(context, now().picture.legend ?? [], area.top, chart.width, now().colours),
    );
    layouts.addBox(chart, head);
    layouts.addBox(chart, legend);
  },
  /** Equal scales: what a square of the height leaves free stays empty at the right. How high it is only a layout tells. */
  beforeLayout(chart) {
    const { layout } = chart.options;
    layout!.padding = { top: TOP, right: RIGHT };
    if (!(chart.data as PanelsData).picture.equal) return;
    layouts.update(chart, chart.width, chart.height);
    const { left, right, top, bottom } = chart.chartArea;
    layout!.padding = { top: TOP, right: RIGHT + Math.max(0, right - left - (bottom - top)) };
  },
  beforeDatasetsDraw(chart) {
    const { picture, colours, pointed } = chart.data as PanelsData;
    drawPanels(chart, picture, colours, pointed);
  },
};

/** The configuration of a picture of panels; `pointed` is an index into its hits. */
export function panelsChart(picture: Panels, colours: ChartColours, pointed: number | null): ChartConfiguration {
  const { x, y, panels } = picture;
  const several = panels.length > 1;
  const low = panels.length > 3;
  const yScales = panels.flatMap((_, i): [string, Scale][] => {
    // One title for all; the last axis of a stack stands at the top.
    const axis = several ? { ...y, title: i === 0 ? y.title : '' } : y;
    const place = { axis: 'y', stack: 'panels', weight: panels.length - i };
    const few = (scale: Scale) => (low ? { ...scale, ticks: { ...(scale.ticks as object), maxTicksLimit: 3 } } : scale);
    const own = { ...few(scaleOf(axis, colours, 'y', several)), ...place, position: 'left' };
    if (!y.scores) return [[yAxisOf(i), own]];
    const raw = { ...few(rawScale(axis, colours, 'right', several)), ...place, stack: 'raw' };
    return [
      [yAxisOf(i), own],
      [`raw${i}`, raw],
    ];
  });
  return {
    type: 'line',
    data: { datasets: [], picture, colours, pointed } as PanelsData,
    plugins: [panelsPlugin],
    options: {
      parsing: false,
      normalized: true,
      animation: false,
      layout: { padding: { top: TOP, right: RIGHT } },
      plugins: { legend: { display: false }, tooltip: { enabled: false } },
      scales: {
        x: scaleOf(x, colours, 'x'),
        ...(x.scores ? { rawX: { ...rawScale(x, colours, 'top'), axis: 'x' } } : {}),
        ...Object.fromEntries(yScales),
      } as NonNullable<NonNullable<ChartConfiguration['options']>['scales']>,
    },
  };
}

const NEAR = 14;

/** The hit at a place of the chart, in pixels: the nearest point within reach, else the area that holds it. */
export function hitAt({ hits }: Panels, chart: Chart, px: number, py: number): number | null {
  let best: number | null = null;
  let nearest = NEAR;
  hits.forEach(({ panel, x, y }, i) => {
    const [xs, ys] = [chart.scales.x!, chart.scales[yAxisOf(panel)]!];
    if (py < ys.top - 4 || py > ys.bottom + 4) return;
    const [left, right] = [xs.getPixelForValue(x[0]), xs.getPixelForValue(x[1])];
    if (x[0] === x[1]) {
      const distance = Math.hypot(px - left, py - ys.getPixelForValue(y[0]));
      if (distance < nearest) [nearest, best] = [distance, i];
    } else if (best === null && px >= left && px < right && py <= ys.getPixelForValue(Math.min(0, y[0])) + 2) best = i;
  });
  return best;
}
