/**
 * From a changed setting to the picture on the screen, in Chromium: the time from the change of a word of the sentence to the frame after the canvas
 * was drawn anew. The peer is one frame of the same page that only draws: nothing of it can be saved.
 */
import { chromium } from '@playwright/test';
import { chromiumPath } from '../scripts/chromium.mjs';
import { createWriteStream, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { median } from './report.js';

const root = process.cwd();
const load = (path: string) => import(pathToFileURL(join(root, path)).href);

/** Runs in the page: sets a choice and waits until the picture has been drawn after it. */
async function untilDrawn([label, value]: [string, string]): Promise<number> {
  const select = document.querySelector(`select[aria-label="${label}"]`) as HTMLSelectElement;
  const canvas = document.querySelector('canvas')!;
  const context = canvas.getContext('2d')!;
  const drawn = new Promise<number>((resolve) => {
    // The picture clears its canvas first whenever it is drawn.
    const clear = context.clearRect.bind(context);
    context.clearRect = (...area) => {
      context.clearRect = clear;
      clear(...area);
      requestAnimationFrame(() => setTimeout(() => resolve(performance.now()), 0));
    };
  });
  const started = performance.now();
  select.value = value;
  select.dispatchEvent(new Event('change'));
  return (await drawn) - started;
}

const PICTURES: readonly [picture: string, label: string, values: readonly [string, string], most: string][] = [
  ['histogram', 'rule for the bins', ['scott', 'sturges'], 'bins'],
  ['histogram', 'curve', ['lognormal', 'gamma'], 'bins with a fitted curve'],
  ['box', 'whiskers', ['ends', 'fences'], 'box'],
  ['empirical', 'curve', ['none', 'normal'], 'steps'],
  ['in-order', 'axis', ['scores', 'readings'], 'readings in order'],
];

export async function benchShapeInBrowser(): Promise<void> {
  const { startMariaDb } = await load('scripts/mariadb.mjs');
  const { serve } = await load('server/dist/index.js');
  const dir = mkdtempSync(join(tmpdir(), 'verdict-bench-'));
  const database = await startMariaDb(join(dir, 'db'));
  const server = await serve({
    ...{ databaseUrl: database.url, migrationUrl: database.migrationUrl, ports: [0] },
    ...{ page: join(root, 'web/dist'), demo: null, log: createWriteStream(join(dir, 'log')) },
  });
  const browser = await chromium.launch({ executablePath: chromiumPath() });
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    await context.grantPermissions(['clipboard-read', 'clipboard-write']);
    const page = await context.newPage();
    for (const [n, most] of [
      [1_000, 100],
      [100_000, 400],
    ] as const) {
      await page.goto(server.url);
      await page.getByRole('button', { name: 'New study' }).click();
      await page.getByRole('heading', { name: 'Paste a column of readings.' }).waitFor();
      await page.evaluate(async (count) => {
        const reading = (i: number) => (8 + Math.sin(i * 12.9898) * 0.3).toFixed(3);
        await navigator.clipboard.writeText(['x', ...Array.from({ length: count }, (_, i) => reading(i))].join('\n'));
      }, n);
      await page.keyboard.press('Control+V');
      await page.getByRole('button', { name: /^Take / }).click();
      await page.getByText(/^stored, change/).waitFor();
      const shape = page.url().replace(/readings.*/, 'shape');
      for (const [picture, label, [one, other], what] of PICTURES) {
        await page.goto(`${shape}?picture=${picture}`);
        await page.getByRole('img', { name: /Arrow keys step/ }).waitFor();
        await page.getByRole('region', { name: 'Figures' }).waitFor();
        const times: number[] = [];
        for (let k = 0; k < 9; k++)
          times.push(await page.evaluate(untilDrawn, [label, k % 2 ? other : one] as [string, string]));
        const time = median(times);
        const kept = time < most ? 'kept' : 'MISSED';
        console.log(
          `${n} readings, ${what}, setting to picture: ${time.toFixed(0)} ms, under ${most} ms ${kept} (slowest ${Math.max(...times).toFixed(0)})`,
        );
      }
    }
  } finally {
    await browser.close();
    await server.close();
    await database.stop();
    rmSync(dir, { recursive: true, force: true });
  }
}
