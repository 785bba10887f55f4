import type { Chart, ChartConfiguration } from 'chart.js';
import { hitAt, panelsChart } from './panels.js';
import { isSheet, type Drawn } from './picture.js';
import { cellAt, sheetChart } from './sheet.js';
import type { ChartColours } from './theme.js';

/** The configuration of a picture, of either sort. */
export const chartOf = (drawn: Drawn, colours: ChartColours, pointed: number | null): ChartConfiguration =>
  isSheet(drawn) ? sheetChart(drawn, colours, pointed) : panelsChart(drawn, colours, pointed);

/** The number of what lies at a place of the chart, in pixels. */
export const pointedAt = (drawn: Drawn, chart: Chart, x: number, y: number): number | null =>
  isSheet(drawn) ? cellAt(drawn, chart, x, y) : hitAt(drawn, chart, x, y);

/** What the number points at: its words, and the row or the bar behind it. */
export function pointedIn(drawn: Drawn, index: number): { words: string; row?: number; bar?: number } | null {
  if (!isSheet(drawn)) return drawn.hits[index] ?? null;
  const cell = drawn.cells[index];
  return cell ? { words: cell.words, bar: index } : null;
}

/** How many things can be pointed at. */
export const pointable = (drawn: Drawn): number => (isSheet(drawn) ? drawn.cells.length : drawn.hits.length);
