import sans400 from '@fontsource/ibm-plex-sans/files/ibm-plex-sans-latin-400-normal.woff2?url';
import sans600 from '@fontsource/ibm-plex-sans/files/ibm-plex-sans-latin-600-normal.woff2?url';
import greek400 from '@fontsource/ibm-plex-sans/files/ibm-plex-sans-greek-400-normal.woff2?url';
import serif400 from '@fontsource/ibm-plex-serif/files/ibm-plex-serif-latin-400-normal.woff2?url';
import serif500 from '@fontsource/ibm-plex-serif/files/ibm-plex-serif-latin-500-normal.woff2?url';
import { createApp } from 'vue';
import tokens from '../styles/tokens.css?raw';
import SheetDocument from './sheet-document.vue';
import { isoTime, type Sheet, type SheetPictures } from './sheet.js';
import style from './sheet.css?raw';

const FONTS = [
  { family: 'IBM Plex Sans', weight: 400, url: sans400, range: '' },
  { family: 'IBM Plex Sans', weight: 400, url: greek400, range: 'U+0370-03FF' },
  { family: 'IBM Plex Sans', weight: 600, url: sans600, range: '' },
  { family: 'IBM Plex Serif', weight: 400, url: serif400, range: '' },
  { family: 'IBM Plex Serif', weight: 500, url: serif500, range: '' },
] as const;

function base64(bytes: Uint8Array): string {
  let text = '';
  for (const byte of bytes) text += String.fromCharCode(byte);
  return btoa(text);
}

async function fontFace({ family, weight, url, range }: (typeof FONTS)[number]): Promise<string> {
  const bytes = new Uint8Array(await (await fetch(url)).arrayBuffer());
  const within = range ? ` unicode-range: ${range};` : '';
  return `@font-face { font-family: '${family}'; font-weight: ${weight};${within} src: url(data:font/woff2;base64,${base64(bytes)}) format('woff2'); }`;
}

const escaped = (text: string) =>
  text.replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign]!);

/** What a file of its own needs besides the sheet's rules: ground, margins, and the A4 page. */
const AROUND = `
*{box-sizing:border-box}
body{max-width:760px;margin:32px auto;padding:0 24px;background:#fff}
@media print{body{max-width:none;margin:0;padding:0}@page{size:A4;margin:16mm}}
`;

/** The sheet as one HTML file that needs nothing else: pictures as SVG, fonts and rules in it, no script. */
export async function sheetHtml(sheet: Sheet, pictures: SheetPictures): Promise<string> {
  const place = document.createElement('div');
  const app = createApp(SheetDocument, { sheet, pictures, time: isoTime, figures: (text: string) => text });
  app.mount(place);
  const body = place.innerHTML.replace(/<!--[\s\S]*?-->/g, '');
  app.unmount();
  const fonts = await Promise.all(FONTS.map(fontFace));
  // The light ground only: a file is read on paper.
  const light = tokens.slice(0, tokens.indexOf('html.dark {'));
  const head = `<meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${escaped(sheet.title)}</title>`;
  return `<!doctype html>\n<html lang="en"><head>${head}<style>${fonts.join('\n')}\n${light}\n${AROUND}\n${style}</style></head><body>${body}</body></html>\n`;
}
