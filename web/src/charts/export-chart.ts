import { BasicPlatform, Chart, LinearScale, Title, type ChartConfiguration, type ChartOptions } from 'chart.js';
import { SvgContext } from './svg-context.js';

// Axes and layout are Chart.js’s; the marks are our own.
Chart.register(LinearScale, Title);

export interface Size {
  width: number;
  height: number;
}
export interface Dress {
  /** The title above the picture, since the text beside it is not exported. */
  title: string;
  ground: string;
  ink: string;
}

/** The configuration of a picture that leaves the page: of fixed size, with its title, and drawn at once. */
function leaving(config: ChartConfiguration, ratio: number, { title, ink }: Dress): ChartConfiguration {
  const own = config.options ?? {};
  const font = { family: "'IBM Plex Sans', sans-serif", size: 15, weight: 600 as const };
  const options: ChartOptions = {
    ...own,
    responsive: false,
    maintainAspectRatio: false,
    animation: false,
    events: [],
    devicePixelRatio: ratio,
    layout: { padding: { ...((own.layout?.padding as object | undefined) ?? {}), left: 10, bottom: 6 } },
    plugins: {
      ...own.plugins,
      title: { display: title !== '', text: title, align: 'start', color: ink, font, padding: { top: 8, bottom: 10 } },
    },
  };
  return { ...config, options };
}

/** The picture as a PNG at twice its size. */
export async function chartToPng(config: ChartConfiguration, { width, height }: Size, dress: Dress): Promise<Blob> {
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  const chart = new Chart(canvas, leaving(config, 2, dress));
  const copy = document.createElement('canvas');
  copy.width = canvas.width;
  copy.height = canvas.height;
  const context = copy.getContext('2d')!;
  context.fillStyle = dress.ground;
  context.fillRect(0, 0, copy.width, copy.height);
  context.drawImage(canvas, 0, 0);
  chart.destroy();
  return new Promise((resolve, reject) =>
    copy.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('The picture could not be created.'))), 'image/png'),
  );
}

/** The picture as SVG, drawn by the same code into a context that writes it down. */
export function chartToSvg(config: ChartConfiguration, size: Size, dress: Dress): string {
  const ruler = document.createElement('canvas').getContext('2d')!;
  const canvas = { ...size, getContext: (): unknown => context, style: {} };
  const context = new SvgContext(canvas, ruler);
  const chart = new Chart(
    canvas as unknown as HTMLCanvasElement,
    {
      ...leaving(config, 1, dress),
      platform: BasicPlatform,
    } as ChartConfiguration,
  );
  const svg = context.toSvg(dress.ground);
  chart.destroy();
  return svg;
}
