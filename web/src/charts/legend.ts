import { PICTURE_FONT, tracePoint } from './draw-marks.js';
import { colourOf, type Marker, type Tone } from './marks.js';
import type { ChartColours } from './theme.js';

/** Words with a sample of what they explain. */
export interface LegendEntry {
  words: string;
  tone: Tone;
  /** A line by default, with a marker on it where one is named. */
  sample?: 'line' | 'area' | 'bars' | 'marker';
  marker?: Marker;
  dash?: readonly number[];
}

const LINE = 18;
const SAMPLE = 24;
const GAP = 20;
const SIDE = 10;
/** Room between the axis and the first line. */
const LEAD = 8;

type Placed = LegendEntry & { left: number; row: number; lines: string[] };

/** Words on as many lines as a width asks for. */
function broken(context: CanvasRenderingContext2D, words: string, width: number): string[] {
  const lines: string[] = [];
  for (const word of words.split(' ')) {
    const longer = lines.length ? `${lines.at(-1)!} ${word}` : word;
    if (lines.length && context.measureText(longer).width <= width) lines[lines.length - 1] = longer;
    else lines.push(word);
  }
  return lines;
}

/** The entries one after the other, on as many lines as the width asks for. */
function placed(context: CanvasRenderingContext2D, entries: readonly LegendEntry[], width: number): Placed[] {
  context.font = PICTURE_FONT;
  const room = width - 2 * SIDE - SAMPLE - 8;
  let [left, row] = [SIDE, 0];
  return entries.map((entry) => {
    const lines = broken(context, entry.words, room);
    const wide = SAMPLE + 8 + Math.max(...lines.map((line) => context.measureText(line).width));
    if (left > SIDE && left + wide > width - SIDE) [left, row] = [SIDE, row + 1];
    const own = { ...entry, left, row, lines };
    if (lines.length > 1) [left, row] = [SIDE, row + lines.length];
    else left += wide + GAP;
    return own;
  });
}

/** The height that a legend needs below a picture of this width. */
export function legendHeight(
  context: CanvasRenderingContext2D,
  entries: readonly LegendEntry[],
  width: number,
): number {
  const last = placed(context, entries, width).at(-1);
  return last ? LEAD + (last.row + last.lines.length) * LINE : 0;
}

function drawSample(context: CanvasRenderingContext2D, entry: Placed, y: number, colours: ChartColours): void {
  const { tone, sample = 'line', marker, dash, left } = entry;
  context.strokeStyle = context.fillStyle = colourOf(tone, colours);
  if (sample === 'area' || sample === 'bars') {
    context.globalAlpha = sample === 'bars' ? 0.24 : 1;
    context.fillRect(left, y - 5, SAMPLE, 10);
    context.globalAlpha = 1;
    if (sample === 'area') context.strokeStyle = colours.gridLine;
    context.lineWidth = 1;
    context.strokeRect(left + 0.5, Math.round(y - 5) + 0.5, SAMPLE - 1, 9);
    return;
  }
  context.lineWidth = 2;
  if (sample === 'line') {
    context.setLineDash([...(dash ?? [])]);
    context.beginPath();
    context.moveTo(left, y);
    context.lineTo(left + SAMPLE, y);
    context.stroke();
    context.setLineDash([]);
  }
  if (!marker) return;
  context.fillStyle = colours.card;
  context.lineWidth = 1.4;
  tracePoint(context, marker, left + SAMPLE / 2, y, 4);
  context.fill();
  context.stroke();
}

/** Draws the legend below the panels, where it covers nothing. */
export function drawLegend(
  context: CanvasRenderingContext2D,
  entries: readonly LegendEntry[],
  top: number,
  width: number,
  colours: ChartColours,
): void {
  context.textBaseline = 'middle';
  context.textAlign = 'left';
  for (const entry of placed(context, entries, width)) {
    const y = top + LEAD + entry.row * LINE + LINE / 2;
    drawSample(context, entry, y, colours);
    context.fillStyle = colours.soft;
    entry.lines.forEach((line, i) => context.fillText(line, entry.left + SAMPLE + 8, y + i * LINE));
  }
}
