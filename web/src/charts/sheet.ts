import { layouts, type Chart, type ChartConfiguration, type ChartData, type Plugin } from 'chart.js';
import { drawMarks, PICTURE_FONT } from './draw-marks.js';
import { drawLegend, legendHeight } from './legend.js';
import type { Ground } from './marks.js';
import type { Cell, Sheet } from './picture.js';
import type { ChartColours } from './theme.js';
import { wordsBox, type Area } from './words-box.js';

/** Between two cells, in pixels; and the room for the name above each. */
const GAP = 5;
const NAME = 17;
/** Below a cell with ticks. */
const TICKS = 15;

/** Cells in rows of equal length, as fractions of the sheet; from the height `from` on. */
export function inRows(count: number, columns: number, from = 0): Cell['box'][] {
  const rows = Math.ceil(count / columns);
  const height = (1 - from) / rows;
  return Array.from({ length: count }, (_, i) => ({
    left: (i % columns) / columns,
    top: from + Math.floor(i / columns) * height,
    width: 1 / columns,
    height,
  }));
}

/** Where a cell lies in pixels, its name above it. */
function frameOf({ left, top, right, bottom }: Area, { box, ticks }: Cell): Area {
  const [across, down] = [right - left, bottom - top];
  return {
    left: left + box.left * across + GAP,
    right: left + (box.left + box.width) * across - GAP,
    top: top + box.top * down + NAME,
    bottom: top + (box.top + box.height) * down - GAP - (ticks ? TICKS : 0),
  };
}

function groundIn(chart: Chart, frame: Area, { x, y }: Cell, colours: ChartColours): Ground {
  const { left, right, top, bottom } = frame;
  return {
    ...{ context: chart.ctx, colours, left, right, top, bottom, taken: [] },
    x: (value) => left + ((value - x[0]) / (x[1] - x[0])) * (right - left),
    y: (value) => bottom - ((value - y[0]) / (y[1] - y[0])) * (bottom - top),
  };
}

/** Words as long as there is room for them. */
function fitted(context: CanvasRenderingContext2D, words: string, room: number): string {
  if (context.measureText(words).width <= room) return words;
  let length = words.length;
  while (length > 1 && context.measureText(`${words.slice(0, length)}…`).width > room) length--;
  return `${words.slice(0, length)}…`;
}

/** Ticks below a cell; one whose words would run into those before it is left out. */
function drawTicks({ context, colours, x, left, right, bottom }: Ground, ticks: NonNullable<Cell['ticks']>): void {
  context.textAlign = 'center';
  context.fillStyle = colours.soft;
  context.strokeStyle = colours.soft;
  let free = left;
  for (const { at, words } of ticks) {
    const [place, half] = [x(at), context.measureText(words).width / 2];
    if (place - half < free || place + half > right) continue;
    context.beginPath();
    context.moveTo(place, bottom);
    context.lineTo(place, bottom + 3);
    context.stroke();
    context.fillText(words, place, bottom + 4 + TICKS / 2);
    free = place + half + GAP;
  }
}

function drawCell(chart: Chart, cell: Cell, colours: ChartColours, pointed: boolean): void {
  const { ctx: context } = chart;
  const frame = frameOf(chart.chartArea, cell);
  const { left, right, top, bottom } = frame;
  const ground = groundIn(chart, frame, cell, colours);
  context.save();
  context.beginPath();
  context.rect(left, top, right - left, bottom - top);
  context.fillStyle = cell.tinted ? colours.tint : colours.card;
  context.fill();
  context.clip();
  drawMarks(ground, cell.marks);
  context.restore();
  context.strokeStyle = cell.chosen || pointed ? colours.green : colours.gridLine;
  context.lineWidth = cell.chosen ? 3 : pointed ? 2 : 1;
  context.strokeRect(left, top, right - left, bottom - top);
  context.font = cell.chosen ? `600 ${PICTURE_FONT}` : PICTURE_FONT;
  context.textAlign = 'left';
  context.textBaseline = 'middle';
  context.fillStyle = colours.ink;
  context.fillText(fitted(context, cell.name, right - left), left, top - NAME / 2);
  context.font = PICTURE_FONT;
  context.lineWidth = 1;
  if (cell.ticks) drawTicks(ground, cell.ticks);
}

interface SheetData extends ChartData {
  sheet: Sheet;
  colours: ChartColours;
  pointed: number | null;
}

const sheetPlugin: Plugin = {
  id: 'sheet',
  beforeInit(chart) {
    const { ctx: context } = chart;
    const now = () => chart.data as SheetData;
    const legend = wordsBox(
      chart,
      'bottom',
      (width) => legendHeight(context, now().sheet.legend ?? [], width),
      (area) => drawLegend(context, now().sheet.legend ?? [], area.top, chart.width, now().colours),
    );
    layouts.addBox(chart, legend);
  },
  beforeDatasetsDraw(chart) {
    const { sheet, colours, pointed } = chart.data as SheetData;
    sheet.cells.forEach((cell, i) => drawCell(chart, cell, colours, i === pointed));
  },
};

/** The configuration of a sheet of small pictures; `pointed` is the number of a cell. */
export function sheetChart(sheet: Sheet, colours: ChartColours, pointed: number | null): ChartConfiguration {
  const none = { type: 'linear' as const, display: false, min: 0, max: 1 };
  return {
    type: 'line',
    data: { datasets: [], sheet, colours, pointed } as SheetData,
    plugins: [sheetPlugin],
    options: {
      animation: false,
      layout: { padding: 2 },
      plugins: { legend: { display: false }, tooltip: { enabled: false } },
      scales: { x: none, y: none },
    },
  };
}

/** The cell at a place of the chart, in pixels. */
export function cellAt({ cells }: Sheet, chart: Chart, px: number, py: number): number | null {
  const found = cells.findIndex((cell) => {
    const { left, right, top, bottom } = frameOf(chart.chartArea, cell);
    return px >= left && px <= right && py >= top - NAME && py <= bottom;
  });
  return found < 0 ? null : found;
}
