import { SvgContext } from './svg-context.js';
import type { Dress } from './export-chart.js';

const LINE = 20;
const MARGIN = 24;
const MONO = "13px 'IBM Plex Mono', monospace";

type Pen = Pick<CanvasRenderingContext2D, 'fillText' | 'fillRect' | 'fillStyle' | 'font' | 'textBaseline'>;

function write(pen: Pen, lines: readonly string[], { title, ink }: Dress): void {
  pen.textBaseline = 'alphabetic';
  pen.fillStyle = ink;
  pen.font = "600 15px 'IBM Plex Sans', sans-serif";
  pen.fillText(title, MARGIN, MARGIN + 8);
  pen.font = MONO;
  lines.forEach((line, i) => pen.fillText(line, MARGIN, MARGIN + 40 + i * LINE));
}

function sizeOf(lines: readonly string[], ruler: CanvasRenderingContext2D): { width: number; height: number } {
  ruler.font = MONO;
  const width = lines.reduce((most, line) => Math.max(most, ruler.measureText(line).width), 320);
  return { width: Math.ceil(width + 2 * MARGIN), height: MARGIN * 2 + 40 + lines.length * LINE };
}

/** Lines of text as a picture, for what is text on the page: PNG at twice its size. */
export function textToPng(lines: readonly string[], dress: Dress): Promise<Blob> {
  const canvas = document.createElement('canvas');
  const context = canvas.getContext('2d')!;
  const { width, height } = sizeOf(lines, context);
  canvas.width = width * 2;
  canvas.height = height * 2;
  context.fillStyle = dress.ground;
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.scale(2, 2);
  write(context, lines, dress);
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error('The picture could not be created.'))),
      'image/png',
    ),
  );
}

/** The same as SVG: blanks are kept, so that columns stay under one another. */
export function textToSvg(lines: readonly string[], dress: Dress): string {
  const ruler = document.createElement('canvas').getContext('2d')!;
  const context = new SvgContext(sizeOf(lines, ruler), ruler);
  // A blank that SVG does not swallow.
  write(
    context as unknown as Pen,
    lines.map((line) => line.replaceAll(' ', '\u00a0')),
    dress,
  );
  return context.toSvg(dress.ground);
}
