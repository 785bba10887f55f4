import type { Evidence } from '@verdict/contract';
import { chartToPng, chartToSvg } from '../charts/export-chart.js';
import { chartOf } from '../charts/drawn.js';
import { heightOf } from '../charts/height-of.js';
import { readColours } from '../charts/theme.js';
import type { KeptPicture } from '../workbench/frame/stage.js';
import type { SheetPicture } from './sheet.js';

/** As wide as the text of an A4 page, in pixels. */
const WIDTH = 660;
const HEIGHT = 236;

/** An SVG whose own names differ from those of the others on the page: clips go by name. */
const underOwnNames = (svg: string, prefix: string) => svg.replace(/(\bid="|url\(#)/g, (lead) => `${lead}${prefix}`);

const capital = (text: string) => text.replace(/^./, (first) => first.toUpperCase());

/** The colours for paper: those of the light theme. */
function onPaper(draw: () => KeptPicture, paper: Element) {
  const colours = readColours(paper);
  const { title, panels } = draw();
  const size = { width: WIDTH, height: heightOf(panels, HEIGHT) };
  const dress = { title: '', ground: colours.card, ink: colours.ink };
  return { title: capital(title), size, dress, config: () => chartOf(panels, colours, null) };
}

/** The picture of a piece as SVG; null where it cannot be drawn. */
export function sheetPicture(item: Evidence, draw: () => KeptPicture, paper: Element): SheetPicture | null {
  try {
    const { title, size, dress, config } = onPaper(draw, paper);
    return { title, ...size, svg: underOwnNames(chartToSvg(config(), size, dress), `p${item.id.slice(0, 8)}-`) };
  } catch {
    // A result that came with a file and cannot be drawn: the sheet says so in its place, and goes on.
    return null;
  }
}

/** The same as a PNG, for a form that takes no SVG. */
export async function sheetPng(
  draw: () => KeptPicture,
  paper: Element,
): Promise<{ bytes: Uint8Array; width: number; height: number }> {
  const { size, dress, config } = onPaper(draw, paper);
  const png = await chartToPng(config(), size, dress);
  return { bytes: new Uint8Array(await png.arrayBuffer()), ...size };
}
