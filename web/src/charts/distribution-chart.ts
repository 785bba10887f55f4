import { formatValue } from '@verdict/core/format';
import type { Chart, ChartConfiguration, ChartData, Plugin } from 'chart.js';
import { isShaded, type Picture } from './distribution-picture.js';
import type { ChartColours } from './theme.js';

interface PictureData extends ChartData<'line'> {
  picture: Picture;
  colours: ChartColours;
}

type Shape = { chart: Chart; context: CanvasRenderingContext2D; picture: Picture; colours: ChartColours };

const xOf = (chart: Chart, x: number) => chart.scales.x!.getPixelForValue(x);
const yOf = (chart: Chart, y: number) => chart.scales.y!.getPixelForValue(y);

/** The readings: outlined bars on the ground, behind everything. */
function drawReadings({ chart, context, picture, colours }: Shape): void {
  context.lineWidth = 1;
  context.strokeStyle = colours.soft;
  context.fillStyle = colours.gridLine;
  for (const { from, to, height } of picture.bars) {
    const left = Math.round(xOf(chart, from)) + 0.5;
    const right = Math.round(xOf(chart, to)) + 0.5;
    const top = yOf(chart, height);
    context.fillRect(left, top, right - left, yOf(chart, 0) - top);
    context.strokeRect(left, top, right - left, yOf(chart, 0) - top);
  }
}

/** The stretches of a picture that a region takes up, within its window. */
export function stretchesOf({ region, window }: Pick<Picture, 'region' | 'window'>): { from: number; to: number }[] {
  const clip = (from: number, to: number) => ({ from: Math.max(from, window.from), to: Math.min(to, window.to) });
  const all = region.outside
    ? [clip(-Infinity, region.lower), clip(region.upper, Infinity)]
    : [clip(region.lower, region.upper)];
  return all.filter(({ from, to }) => from < to);
}

/** The height of a curve between its points. */
export function heightAt({ x, y }: Picture['curve'], at: number): number {
  const i = x.findIndex((value) => value >= at);
  if (i <= 0) return i === 0 ? y[0]! : (y[y.length - 1] ?? 0);
  const share = (at - x[i - 1]!) / (x[i]! - x[i - 1]! || 1);
  return y[i - 1]! + share * (y[i]! - y[i - 1]!);
}

/** The shares that the region gains, as a strip from the axis to the cumulative curve. */
function drawStrips({ chart, context, picture, colours }: Shape): void {
  context.fillStyle = colours.green;
  context.globalAlpha = 0.22;
  const left = xOf(chart, picture.window.from);
  for (const { from, to, until } of picture.strips) {
    context.fillRect(left, yOf(chart, to), xOf(chart, until) - left, yOf(chart, from) - yOf(chart, to));
  }
  context.globalAlpha = 1;
}

/** The region under a density, filled. */
function drawRegion({ chart, context, picture, colours }: Shape): void {
  const { curve } = picture;
  context.fillStyle = colours.green;
  context.globalAlpha = 0.22;
  for (const { from, to } of stretchesOf(picture)) {
    context.beginPath();
    context.moveTo(xOf(chart, from), yOf(chart, 0));
    context.lineTo(xOf(chart, from), yOf(chart, heightAt(curve, from)));
    curve.x.forEach((x, i) => {
      if (x > from && x < to) context.lineTo(xOf(chart, x), yOf(chart, curve.y[i]!));
    });
    context.lineTo(xOf(chart, to), yOf(chart, heightAt(curve, to)));
    context.lineTo(xOf(chart, to), yOf(chart, 0));
    context.fill();
  }
  context.globalAlpha = 1;
}

/** One bar for each number: filled where it is asked for, open elsewhere. */
function drawBars({ chart, context, picture, colours }: Shape): void {
  const { curve, region } = picture;
  const step = Math.abs(xOf(chart, 1) - xOf(chart, 0));
  const half = Math.max(0.75, Math.min(13, step * 0.34));
  curve.x.forEach((k, i) => {
    const left = xOf(chart, k) - half;
    const top = yOf(chart, curve.y[i]!);
    const height = yOf(chart, 0) - top;
    const asked = isShaded(region, k);
    context.fillStyle = asked ? colours.green : colours.card;
    context.globalAlpha = asked ? 0.8 : 1;
    context.fillRect(left, top, 2 * half, height);
    context.globalAlpha = 1;
    if (half < 1.5) return;
    context.strokeStyle = asked ? colours.green : colours.soft;
    context.strokeRect(left, top, 2 * half, height);
  });
}

/** Probabilities of the family that is laid over, as open diamonds at their heights. */
function drawOverMarks({ chart, context, picture, colours }: Shape): void {
  if (!picture.over?.bars) return;
  context.strokeStyle = colours.ochre;
  context.lineWidth = 1.6;
  picture.over.x.forEach((k, i) => {
    const [x, y] = [xOf(chart, k), yOf(chart, picture.over!.y[i]!)];
    context.beginPath();
    context.moveTo(x, y - 4);
    context.lineTo(x + 4, y);
    context.lineTo(x, y + 4);
    context.lineTo(x - 4, y);
    context.closePath();
    context.stroke();
  });
}

/** The limits as lines over everything, each with its value at the top; an arrow where it lies beyond the picture. */
function drawLimits({ chart, context, picture, colours }: Shape): void {
  const { left, right, top, bottom } = chart.chartArea;
  context.font = "12px 'IBM Plex Sans', sans-serif";
  context.textBaseline = 'middle';
  const { lower, upper } = picture.region;
  for (const [value, isLower] of [
    [lower, true],
    [upper, false],
  ] as const) {
    if (!Number.isFinite(value)) continue;
    const pixel = xOf(chart, value);
    const beyond = pixel < left - 0.5 ? -1 : pixel > right + 0.5 ? 1 : 0;
    const x = Math.round(Math.min(right, Math.max(left, pixel)));
    context.globalAlpha = beyond ? 0.35 : 1;
    context.fillStyle = colours.green;
    context.fillRect(x - 1, top, 2, bottom - top);
    context.globalAlpha = 1;
    const text = `${beyond < 0 ? '← ' : ''}${formatValue(value)}${beyond > 0 ? ' →' : ''}`;
    const width = context.measureText(text).width;
    // On the outer side of its limit, unless that is off the picture.
    const before = beyond > 0 || (beyond === 0 && isLower && x - width - 10 > left);
    const at = before ? x - width - 9 : Math.min(x + 7, right - width);
    context.fillStyle = colours.card;
    context.fillRect(at - 3, top + 4, width + 6, 17);
    context.fillStyle = colours.ink;
    context.fillText(text, at, top + 13);
  }
}

/** The answer over the widest stretch of its region. */
function drawAnswer({ chart, context, picture, colours }: Shape): void {
  const { window } = picture;
  const [widest = window] = stretchesOf(picture).sort((a, b) => b.to - b.from - (a.to - a.from));
  const { left, right, top } = chart.chartArea;
  context.font = "500 17px 'IBM Plex Serif', serif";
  context.textBaseline = 'middle';
  context.fillStyle = colours.green;
  const half = context.measureText(picture.answer).width / 2;
  const centre = xOf(chart, (widest.from + widest.to) / 2);
  context.fillText(picture.answer, Math.min(right - 2 * half, Math.max(left, centre - half)), top - 13);
}

/** What stands behind and in the curve. It reads the picture from the data, so that one chart serves every question. */
const groundwork: Plugin<'line'> = {
  id: 'groundwork',
  beforeDatasetsDraw(chart) {
    const { picture, colours } = chart.data as PictureData;
    const shape: Shape = { chart: chart as unknown as Chart, context: chart.ctx, picture, colours };
    const { left, top, right, bottom } = chart.chartArea;
    chart.ctx.save();
    chart.ctx.beginPath();
    chart.ctx.rect(left, top, right - left, bottom - top);
    chart.ctx.clip();
    drawReadings(shape);
    if (picture.view === 'cumulative') drawStrips(shape);
    else if (picture.curve.bars) drawBars(shape);
    else drawRegion(shape);
    drawOverMarks(shape);
    chart.ctx.restore();
  },
  afterDatasetsDraw(chart) {
    const { picture, colours } = chart.data as PictureData;
    const shape: Shape = { chart: chart as unknown as Chart, context: chart.ctx, picture, colours };
    chart.ctx.save();
    drawLimits(shape);
    drawAnswer(shape);
    chart.ctx.restore();
  },
};

const tick = (value: number | string) => formatValue(Number(Number(value).toPrecision(10)));

/** The configuration of the picture of a distribution. */
export function distributionChart(picture: Picture, colours: ChartColours, axis: string): ChartConfiguration<'line'> {
  const line = (curve: Picture['curve'], colour: string, dash: number[]) => ({
    data: curve.bars ? [] : curve.x.map((x, i) => ({ x, y: curve.y[i]! })),
    ...{ borderColor: colour, borderWidth: 2, borderDash: dash, pointRadius: 0, hitRadius: 0 },
    stepped: curve.stepped ? ('before' as const) : false,
  });
  const data: PictureData = {
    datasets: [
      line(picture.curve, colours.green, []),
      ...(picture.over ? [line(picture.over, colours.ochre, [7, 4])] : []),
    ],
    picture,
    colours,
  };
  const heights = picture.view === 'cumulative' ? 'share at or below' : picture.discrete ? 'probability' : 'density';
  const scale = { border: { color: colours.soft }, grid: { color: colours.gridLine } };
  return {
    type: 'line',
    data,
    plugins: [groundwork],
    options: {
      ...{ parsing: false, normalized: true, animation: false, events: [] },
      layout: { padding: { top: 26, right: 14 } },
      plugins: { legend: { display: false }, tooltip: { enabled: false } },
      scales: {
        x: {
          ...scale,
          ...{ type: 'linear', min: picture.window.from, max: picture.window.to },
          title: { display: true, text: axis, color: colours.soft },
          ticks: {
            color: colours.soft,
            includeBounds: false,
            maxRotation: 0,
            callback: tick,
            ...(picture.discrete ? { precision: 0 } : {}),
          },
        },
        y: {
          ...scale,
          ...{ type: 'linear', min: 0, max: picture.top },
          title: { display: true, text: heights, color: colours.soft },
          ticks: {
            color: colours.soft,
            maxTicksLimit: 7,
            includeBounds: picture.view === 'cumulative',
            callback: tick,
          },
        },
      },
    },
  };
}
