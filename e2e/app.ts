import type Axe from 'axe-core';
import { expect, test as base, type FileChooser, type Locator, type Page } from '@playwright/test';
import { NOTHING_SAID, type ChangeInput } from '@verdict/contract';
import { parseBlock, recogniseLayout } from '@verdict/core/readings';
import { randomUUID } from 'node:crypto';
import { createWriteStream, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { startMariaDb, type PrivateMariaDb } from '../scripts/mariadb.mjs';
import { main } from '../cli/dist/main.js';
import { serve } from '../server/dist/index.js';

export { expect };

/** Prints what the command line prints, read as JSON. */
export async function commandLine(...args: string[]): Promise<{ fingerprint: string; result: unknown }> {
  const printed: string[] = [];
  const said: string[] = [];
  const code = await main(args, { out: (text) => printed.push(text), error: (text) => said.push(text) });
  expect(said.join('')).toBe('');
  expect(code).toBe(0);
  return JSON.parse(printed.join(''));
}

export interface App {
  url: string;
  database: PrivateMariaDb;
  /** Ends the database as a power cut would, and brings it back on the same port. */
  loseDatabase(): Promise<() => Promise<void>>;
}

/** The built application on a private database and a free port, one for each worker of the test run. */
export const test = base.extend<object, { app: App }>({
  app: [
    // Playwright reads the fixtures a function wants from its first parameter: it has to be written so.
    // eslint-disable-next-line no-empty-pattern
    async ({}, use) => {
      const dir = mkdtempSync(join(tmpdir(), 'verdict-e2e-'));
      let database = await startMariaDb(join(dir, 'db'), { lasting: false });
      const server = await serve({
        databaseUrl: database.url,
        migrationUrl: database.migrationUrl,
        ports: [0],
        page: fileURLToPath(new URL('../web/dist', import.meta.url)),
        demo: new URL('../demo/', import.meta.url),
        log: createWriteStream(join(dir, 'server.log')),
      });
      const loseDatabase = async () => {
        const { port } = database;
        await database.kill();
        return async () => {
          database = await startMariaDb(join(dir, 'db'), { port, lasting: false });
        };
      };
      await use({ url: server.url, database, loseDatabase });
      await server.close();
      await database.stop();
      rmSync(dir, { recursive: true, force: true });
    },
    { scope: 'worker', timeout: 60_000 },
  ],
  baseURL: async ({ app }, use) => use(app.url),
});

/** Puts a text on the clipboard and presses Ctrl + V, as an analyst does. */
export async function paste(page: Page, text: string): Promise<void> {
  await page.evaluate((value) => navigator.clipboard.writeText(value), text);
  await page.keyboard.press('Control+V');
}

/** A new study, open at its readings. */
export async function newStudy(page: Page): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: 'New study' }).click();
  await expect(page.getByRole('heading', { name: 'Paste a column of readings.' })).toBeVisible();
}

/** A new study that holds this block, as it is recognised: stored by request, since how a block is taken on the page has tests of its own. */
export async function studyOf(page: Page, text: string): Promise<void> {
  const ask = async <T>(path: string, data: object): Promise<T> => {
    const answer = await page.request.post(`/api/studies${path}`, { data });
    expect(answer.ok(), await answer.text()).toBe(true);
    return answer.json() as Promise<T>;
  };
  const { id } = await ask<{ id: string }>('', {});
  const columns = parseBlock(text, recogniseLayout(text)).columns.map((column) => ({
    ...NOTHING_SAID,
    ...column,
    id: randomUUID(),
  }));
  const change: ChangeInput = { kind: 'add-columns', columns };
  await ask(`/${id}/changes`, { token: randomUUID(), revision: 0, who: 'bench 1', change });
  await page.goto(`/studies/${id}/readings`);
  await expect(page.getByRole('grid')).toBeVisible();
}

/** Everything that was done on the page has reached the database. */
export async function stored(page: Page): Promise<void> {
  await expect(page.getByRole('status').filter({ hasText: /^saved, change \d+/ })).toBeVisible();
}

export async function openStage(
  page: Page,
  name: 'Readings' | 'Shape' | 'Fit' | 'Outliers' | 'Claims' | 'Resample' | 'Simulate' | 'Verdict',
): Promise<void> {
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name }).click();
}

/** The simulations of the stage have ended. */
export async function settled(page: Page): Promise<void> {
  await expect(page.getByRole('region', { name: 'Method' })).toContainText(/\d (ms|s) · \d+ workers?/);
}

/** Twelve readings that nobody would call far from normal. */
export const TWELVE = [
  'thickness (mm)',
  ...'7.80 7.92 7.94 7.97 8.19 8.10 7.96 8.17 8.00 7.95 8.16 8.07'.split(' '),
].join('\n');

export const gridCell = (page: Page, row: number, column: number) => page.locator(`[id="cell-${row}-${column}"]`);

/** The field itself: its list goes by the same name. */
export const comboboxOf = (field: Locator) => field.and(field.page().getByRole('combobox'));

/** Chooses in a field that opens a list: by value, or by the words of the list. */
export async function pick(field: Locator, wanted: string | { label: string }): Promise<void> {
  const box = comboboxOf(field);
  const page = field.page();
  // A sentence may break its lines anew just as it is pressed: then it is pressed once more, as anyone would.
  await expect(async () => {
    if ((await box.getAttribute('aria-expanded')) !== 'true')
      await box.locator('xpath=ancestor::*[@data-chosen][1]').click();
    await expect(box).toHaveAttribute('aria-expanded', 'true', { timeout: 1_000 });
  }).toPass();
  const option =
    typeof wanted === 'string'
      ? page.getByRole('option').and(page.locator(`[data-value="${wanted}"]`))
      : page.getByRole('option', { name: wanted.label, exact: true });
  await option.click();
}

/** A field that opens a list holds this value. */
export async function holds(field: Locator, value: string | RegExp): Promise<void> {
  const whole = comboboxOf(field).locator('xpath=ancestor::*[@data-chosen][1]');
  await expect(whole).toHaveAttribute('data-chosen', value);
}

/** Chooses a file in the dialog that a button opens. */
export async function openFile(
  page: Page,
  button: string | RegExp,
  file: Parameters<FileChooser['setFiles']>[0],
): Promise<void> {
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: button }).click(),
  ]);
  await chooser.setFiles(file);
}

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** What a screen reader would stumble over: WCAG 2.2 A and AA, and good practice. The checker is put into the page itself, once a page. @param only these rules; all by default */
export async function violations(page: Page, only?: string[]): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(AXE);
  return page.evaluate(async (rules) => {
    const { axe } = window as unknown as { axe: typeof Axe };
    // What passes need not be gathered.
    // The head of a dialog is a header in the component library, beside that of the page.
    const overlaid = document.querySelector('.el-overlay:not([style*="display: none"]) header') !== null;
    const banner = { enabled: !overlaid };
    const landmarks = { 'landmark-no-duplicate-banner': banner, 'landmark-unique': banner };
    const runOnly = rules && { runOnly: { type: 'rule' as const, values: rules } };
    const { violations: found } = await axe.run(document, {
      resultTypes: ['violations'],
      rules: landmarks,
      ...runOnly,
    });
    return found.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`);
  }, only);
}
