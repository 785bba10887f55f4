import { PICTURE_FONT, tracePoint } from './draw-marks.js';
import { colourOf, type Marker, type Tone } from './marks.js';
import type { ChartColours } from './theme.js';

/** Words with a sample of what they explain. */
export interface LegendEntry {
  words: string;
  tone: Tone;
  /** A line by default, with a marker on it where one is named. */
  sample?: 'line' | 'area' | 'marker';
  marker?: Marker;
  dash?: readonly number[];
}

const LINE = 18;
const SAMPLE = 24;
const GAP = 20;
const SIDE = 10;
/** Room between the axis and the first line. */
const LEAD = 8;

type Placed = LegendEntry & { left: number; row: number };

/** The entries one after the other, on as many lines as the width asks for. */
function placed(context: CanvasRenderingContext2D, entries: readonly LegendEntry[], width: number): Placed[] {
  context.font = PICTURE_FONT;
  let [left, row] = [SIDE, 0];
  return entries.map((entry) => {
    const wide = SAMPLE + 8 + context.measureText(entry.words).width;
    if (left > SIDE && left + wide > width - SIDE) [left, row] = [SIDE, row + 1];
    const own = { ...entry, left, row };
    left += wide + GAP;
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
  return last ? LEAD + (last.row + 1) * LINE : 0;
}

function drawSample(context: CanvasRenderingContext2D, entry: Placed, y: number, colours: ChartColours): void {
  const { tone, sample = 'line', marker, dash, left } = entry;
  context.strokeStyle = context.fillStyle = colourOf(tone, colours);
  if (sample === 'area') {
    context.fillRect(left, y - 5, SAMPLE, 10);
    context.strokeStyle = colours.gridLine;
    context.lineWidth = 1;
    context.strokeRect(left, y - 5, SAMPLE, 10);
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

/** Draws the legend at the foot of a picture, where it covers nothing. */
export function drawLegend(
  context: CanvasRenderingContext2D,
  entries: readonly LegendEntry[],
  { width, height }: { width: number; height: number },
  colours: ChartColours,
): void {
  const top = height - legendHeight(context, entries, width) + LEAD;
  context.textBaseline = 'middle';
  context.textAlign = 'left';
  for (const entry of placed(context, entries, width)) {
    const y = top + entry.row * LINE + LINE / 2;
    drawSample(context, entry, y, colours);
    context.fillStyle = colours.soft;
    context.fillText(entry.words, entry.left + SAMPLE + 8, y);
  }
}
