import type { Chart } from 'chart.js';
import { colourOf, type Ground, type Mark, type Marker } from './marks.js';
import type { ChartColours } from './theme.js';

/** A stroke is crisp between two pixels. */
const crisp = (pixel: number) => Math.round(pixel) + 0.5;
export const PICTURE_FONT = "12px 'IBM Plex Sans', sans-serif";

function drawBars(ground: Ground, { edges, heights, tone, chosen }: Extract<Mark, { kind: 'bars' }>): void {
  const { context, colours, x, y } = ground;
  const foot = crisp(y(0));
  context.lineWidth = 1;
  context.strokeStyle = colourOf(tone, colours);
  heights.forEach((height, i) => {
    const [left, right] = [crisp(x(edges[i]!)), crisp(x(edges[i + 1]!))];
    const top = height > 0 ? Math.min(crisp(y(height)), foot) : foot;
    context.fillStyle = colourOf(tone, colours);
    context.globalAlpha = chosen?.has(i) ? 0.75 : 0.24;
    context.fillRect(left, top, right - left, foot - top);
    context.globalAlpha = 1;
    if (height > 0 && right - left > 2) context.strokeRect(left, top, right - left, foot - top);
  });
  context.beginPath();
  context.moveTo(ground.left, foot);
  context.lineTo(ground.right, foot);
  context.strokeStyle = colours.ink;
  context.stroke();
}

function drawLine({ context, colours, x, y }: Ground, mark: Extract<Mark, { kind: 'line' }>): void {
  context.beginPath();
  mark.x.forEach((value, i) => {
    const [across, up] = [x(value), y(mark.y[i]!)];
    if (i === 0) context.moveTo(across, up);
    else {
      if (mark.stepped) context.lineTo(across, y(mark.y[i - 1]!));
      context.lineTo(across, up);
    }
  });
  context.strokeStyle = colourOf(mark.tone, colours);
  context.lineWidth = mark.width ?? 2;
  context.setLineDash([...(mark.dash ?? [])]);
  context.stroke();
  context.setLineDash([]);
}

/** One marker about a place, as a path. */
export function tracePoint(context: CanvasRenderingContext2D, marker: Marker, x: number, y: number, r: number): void {
  context.beginPath();
  if (marker === 'circle') context.arc(x, y, r, 0, 2 * Math.PI);
  else if (marker === 'square') context.rect(x - r * 0.88, y - r * 0.88, r * 1.76, r * 1.76);
  else {
    const corners =
      marker === 'triangle'
        ? [
            [0, -1.15],
            [1.05, 0.75],
            [-1.05, 0.75],
          ]
        : [
            [0, -1.25],
            [1.25, 0],
            [0, 1.25],
            [-1.25, 0],
          ];
    corners.forEach(([dx, dy], i) => {
      if (i === 0) context.moveTo(x + dx! * r, y + dy! * r);
      else context.lineTo(x + dx! * r, y + dy! * r);
    });
    context.closePath();
  }
}

/** Beyond this many points one path is drawn for all: a fill and a stroke for each would take most of a second. */
const MANY_POINTS = 2_000;

function drawPoints({ context, colours, x, y }: Ground, mark: Extract<Mark, { kind: 'points' }>): void {
  context.strokeStyle = colourOf(mark.tone, colours);
  context.fillStyle = mark.filled ? colourOf(mark.tone, colours) : colours.card;
  context.lineWidth = mark.x.length > 300 ? 1 : 1.4;
  if (mark.x.length > MANY_POINTS) {
    context.beginPath();
    mark.x.forEach((value, i) => {
      const [across, up] = [x(value), y(mark.y[i]!)];
      context.moveTo(across + mark.radius, up);
      context.arc(across, up, mark.radius, 0, 2 * Math.PI);
    });
    context.stroke();
    return;
  }
  mark.x.forEach((value, i) => {
    tracePoint(context, mark.marker, x(value), y(mark.y[i]!), mark.radius);
    context.fill();
    context.stroke();
  });
}

function drawRect({ context, colours, x, y }: Ground, mark: Extract<Mark, { kind: 'rect' }>): void {
  const [left, right] = [x(mark.x[0]), x(mark.x[1])].sort((a, b) => a - b).map(crisp) as [number, number];
  const [top, bottom] = [y(mark.y[0]), y(mark.y[1])].sort((a, b) => a - b).map(crisp) as [number, number];
  context.globalAlpha = 0.24;
  context.fillStyle = colourOf(mark.fill, colours);
  context.fillRect(left, top, right - left, bottom - top);
  context.globalAlpha = 1;
  context.strokeStyle = colourOf(mark.stroke, colours);
  context.lineWidth = mark.width ?? 1.4;
  context.strokeRect(left, top, right - left, bottom - top);
}

/** Words on the ground of the card, so that what lies behind does not run through them. */
export function drawWords(
  { context, colours }: Pick<Ground, 'context' | 'colours'>,
  words: string,
  x: number,
  y: number,
  tone: string,
): void {
  context.textAlign = 'left';
  const width = context.measureText(words).width;
  context.globalAlpha = 0.85;
  context.fillStyle = colours.card;
  context.fillRect(x - 3, y - 8, width + 6, 16);
  context.globalAlpha = 1;
  context.fillStyle = tone;
  context.fillText(words, x, y);
}

type Rule = Extract<Mark, { kind: 'rule' }>;

/** Where a rule stands in pixels, and on which side of the picture it lies beyond it. */
function placeOf({ x, y, left, right, top, bottom }: Ground, { across, at, stays }: Rule) {
  const [low, high] = across === 'x' ? [left, right] : [top, bottom];
  const pixel = across === 'x' ? x(at) : y(at);
  const beyond = !stays ? 0 : pixel < low - 0.5 ? -1 : pixel > high + 0.5 ? 1 : 0;
  return { pixel: crisp(stays ? Math.min(high, Math.max(low, pixel)) : pixel), beyond };
}

/** The words of a level rule, at its end; those of upright ones stand above the panels. */
function drawRuleWords(ground: Ground, { tone, words = '', wordsAt }: Rule, pixel: number): void {
  const { context, colours, left, right, top } = ground;
  const width = context.measureText(words).width;
  const ink = tone === 'ochre' ? colours.ochreText : colourOf(tone, colours);
  const from = wordsAt === 'start' ? left + 6 : right - width - 4;
  drawWords(ground, words, from, pixel - 10 < top + 8 ? pixel + 11 : pixel - 10, ink);
}

function drawRule(ground: Ground, mark: Rule): void {
  const { context, colours, left, right, top, bottom } = ground;
  const { pixel, beyond } = placeOf(ground, mark);
  const upright = mark.across === 'x';
  context.beginPath();
  context.moveTo(upright ? pixel : left, upright ? top : pixel);
  context.lineTo(upright ? pixel : right, upright ? bottom : pixel);
  context.strokeStyle = colourOf(mark.tone, colours);
  context.lineWidth = 1.5;
  context.globalAlpha = beyond ? 0.35 : 1;
  context.setLineDash([...(mark.dash ?? [])]);
  context.stroke();
  context.setLineDash([]);
  context.globalAlpha = 1;
  if (mark.words && !upright) drawRuleWords(ground, mark, pixel);
}

function drawArea(
  { context, colours, x, y }: Ground,
  { x: xs, y: ys, fill, alpha = 0.22 }: Extract<Mark, { kind: 'area' }>,
): void {
  context.beginPath();
  xs.forEach((value, i) => context.lineTo(x(value), y(ys[i]!)));
  context.closePath();
  context.fillStyle = colourOf(fill, colours);
  context.globalAlpha = alpha;
  context.fill();
  context.globalAlpha = 1;
}

function drawColumns({ context, colours, x, y }: Ground, mark: Extract<Mark, { kind: 'columns' }>): void {
  const half = Math.max(0.75, Math.min(13, Math.abs(x(mark.step ?? 1) - x(0)) * 0.34));
  const foot = y(0);
  context.lineWidth = 1;
  mark.x.forEach((number, i) => {
    const [left, top] = [x(number) - half, y(mark.y[i]!)];
    const filled = mark.filled[i]!;
    // Too narrow for an outline, it is filled as outlines are.
    const narrow = half < 1.5;
    context.fillStyle = filled ? colourOf(mark.tone, colours) : narrow ? colours.soft : colours.card;
    context.globalAlpha = filled ? 0.8 : 1;
    context.fillRect(left, top, 2 * half, foot - top);
    context.globalAlpha = 1;
    if (narrow) return;
    context.strokeStyle = filled ? colourOf(mark.tone, colours) : colours.soft;
    context.strokeRect(left, top, 2 * half, foot - top);
  });
}

const LINE = 18;

/** The height of the first line at the top that has room for words of this width, which is taken. */
export function freeLine({ taken, top }: Ground, from: number, width: number): number {
  const [left, right] = [from - 4, from + width + 4];
  let line = 0;
  while (taken.some((other) => other.line === line && other.from < right && other.to > left)) line++;
  taken.push({ line, from: left, to: right });
  return top + 10 + line * LINE;
}

/** Dots touch, whatever the axis: their number is what counts. They shrink until the tallest stack fits. */
function drawDots(ground: Ground, { at, counts, width, perDot, tone }: Extract<Mark, { kind: 'dots' }>): void {
  const { context, colours, x, y, top } = ground;
  const foot = y(0);
  const highest = counts.reduce((most, count) => Math.max(most, Math.ceil(count / perDot)), 1);
  const across = Math.abs(x(width) - x(0));
  const radius = Math.max(1, Math.min(6, across / 2 - 0.4, (foot - top - 22) / highest / 2 - 0.4));
  context.strokeStyle = colourOf(tone, colours);
  context.fillStyle = colours.card;
  context.lineWidth = radius > 2 ? 1.3 : 1;
  at.forEach((value, i) => {
    const dots = Math.ceil(counts[i]! / perDot);
    for (let k = 0; k < dots; k++) {
      tracePoint(context, 'circle', x(value), foot - (2 * k + 1) * (radius + 0.4) - 1, radius);
      context.fill();
      context.stroke();
    }
  });
  context.beginPath();
  context.moveTo(ground.left, crisp(foot));
  context.lineTo(ground.right, crisp(foot));
  context.strokeStyle = colours.ink;
  context.lineWidth = 1;
  context.stroke();
}

/** Draws marks in the order in which they are given. */
export function drawMarks(ground: Ground, marks: readonly Mark[]): void {
  ground.context.font = PICTURE_FONT;
  ground.context.textBaseline = 'middle';
  for (const mark of marks) {
    switch (mark.kind) {
      case 'bars':
        drawBars(ground, mark);
        break;
      case 'line':
        drawLine(ground, mark);
        break;
      case 'points':
        drawPoints(ground, mark);
        break;
      case 'rect':
        drawRect(ground, mark);
        break;
      case 'rule':
        drawRule(ground, mark);
        break;
      case 'dots':
        drawDots(ground, mark);
        break;
      case 'area':
        drawArea(ground, mark);
        break;
      case 'columns':
        drawColumns(ground, mark);
        break;
    }
  }
}

/** The ground of one panel of a chart. */
export function groundOf(chart: Chart, yAxis: string, colours: ChartColours): Ground {
  const { left, right } = chart.chartArea;
  const x = chart.scales.x!;
  const y = chart.scales[yAxis]!;
  return {
    ...{ context: chart.ctx, colours, left, right, top: y.top, bottom: y.bottom, taken: [] },
    x: (value) => x.getPixelForValue(value),
    y: (value) => y.getPixelForValue(value),
  };
}
