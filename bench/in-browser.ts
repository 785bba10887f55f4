import { chromium, type Page } from '@playwright/test';
import { chromiumPath } from '../scripts/chromium.mjs';
import { createWriteStream, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

const root = process.cwd();
const load = (path: string) => import(pathToFileURL(join(root, path)).href);

/** The built application with a page of Chromium before it; both end with the work. */
export async function inBrowser(work: (page: Page, url: string) => Promise<void>): Promise<void> {
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
    await work(await context.newPage(), server.url);
  } finally {
    await browser.close();
    await server.close();
    await database.stop();
    rmSync(dir, { recursive: true, force: true });
  }
}

/** A new study of what is pasted into it, on its readings. */
export async function pasted(page: Page, url: string, text: string): Promise<void> {
  await page.goto(url);
  await page.getByRole('button', { name: 'New study' }).click();
  await page.getByRole('heading', { name: 'Paste a column of readings.' }).waitFor();
  await page.evaluate((all) => navigator.clipboard.writeText(all), text);
  await page.keyboard.press('Control+V');
  await page.getByRole('button', { name: /^Import / }).click();
  await page.getByText(/^saved, change/).waitFor();
}
