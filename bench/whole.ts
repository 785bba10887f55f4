/** The home with 2 000 studies, the sheet with 20 pieces of evidence, and what the first page weighs. */
import type { Page } from '@playwright/test';
import { gzipSync } from 'node:zlib';
import { inBrowser, pasted } from './in-browser.js';
import { median } from './report.js';

const STUDIES = 2_000;
const PIECES = 20;

const kept = (holds: boolean) => (holds ? 'kept' : 'MISSED');

async function ask<T>(page: Page, path: string, data: object): Promise<T> {
  const answer = await page.request.post(path, { data });
  if (!answer.ok()) throw new Error(`${path}: ${answer.status()} ${await answer.text()}`);
  return answer.status() === 204 ? (undefined as T) : ((await answer.json()) as T);
}

const NAMES = ['thickness', 'breaking force', 'viscosity', 'density', 'residue', 'warpage', 'acidity', 'mass'];
const change = (revision: number, what: object) => ({
  ...{ token: crypto.randomUUID(), revision, who: 'bench' },
  change: what,
});

/** A study of eight columns and 40 rows, named and tagged. */
async function fill(page: Page, url: string, k: number): Promise<void> {
  const { id } = await ask<{ id: string }>(page, `${url}api/studies`, { asks: k % 2 ? 'normal' : null });
  const said = { unit: 'mm', kind: 'measure', decimal: 'point', thousands: 'none', resolution: 0.01 };
  const columns = NAMES.map((name, j) => ({
    ...said,
    ...{ id: crypto.randomUUID(), name: `${name} ${k % 40}` },
    cells: Array.from({ length: 40 }, (_, i) => (8 + (((i * 37 + j * 11 + k) % 29) - 14) / 100).toFixed(2)),
  }));
  await ask(
    page,
    `${url}api/studies/${id}/changes`,
    change(0, { kind: 'add-columns', columns: columns.map((one) => ({ ...one, ...NOTHING })) }),
  );
  const named = {
    kind: 'change-study',
    name: `Release ${k}, kiln ${k % 7}`,
    question: `Is line ${k % 13} as it was?`,
    tags: [`week ${k % 52}`],
  };
  await ask(page, `${url}api/studies/${id}/changes`, change(1, named));
}
const NOTHING = { lowerLimit: null, target: null, upperLimit: null, levels: null, frequencies: null };

/** Notes when the first rows of the list are drawn, in the page itself. */
function watchRows(): void {
  new MutationObserver((_, observer) => {
    if (document.querySelectorAll('tbody tr').length === 0) return;
    observer.disconnect();
    requestAnimationFrame(() =>
      setTimeout(() => ((window as unknown as { rowsAt: number }).rowsAt = performance.now())),
    );
  }).observe(document, { childList: true, subtree: true });
}

/** From asking for the page to the first rows of the list, drawn. */
async function firstRows(page: Page, url: string): Promise<number> {
  await page.goto('about:blank');
  await page.goto(url);
  return (
    await page.waitForFunction(() => (window as unknown as { rowsAt?: number }).rowsAt)
  ).jsonValue() as Promise<number>;
}

/** From a letter to the list of what holds it. */
const untilFound = (text: string) => `(async () => {
  const field = document.querySelector('[aria-label="Search the studies"]');
  const count = () => document.querySelector('.search [role=status]').textContent;
  const before = count();
  const started = performance.now();
  field.focus();
  Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(field, ${JSON.stringify(text)});
  field.dispatchEvent(new Event('input', { bubbles: true }));
  while (count() === before) await new Promise((resolve) => requestAnimationFrame(resolve));
  return performance.now() - started;
})()`;

async function home(page: Page, url: string): Promise<void> {
  for (let k = 0; k < STUDIES; k += 20) await Promise.all(Array.from({ length: 20 }, (_, i) => fill(page, url, k + i)));
  await page.addInitScript(watchRows);
  // The list counts what it has not counted yet, once.
  await page.goto(url);
  await page.getByRole('row').nth(1).waitFor();
  const plain = () =>
    page.evaluate(async () => {
      const started = performance.now();
      const studies = (await (await fetch('/api/studies')).json()) as { counting: boolean }[];
      return { time: performance.now() - started, counting: studies.some(({ counting }) => counting) };
    });
  while ((await plain()).counting) await page.waitForTimeout(500);
  const rows: number[] = [];
  const bare: number[] = [];
  for (let i = 0; i < 7; i++) {
    rows.push(await firstRows(page, url));
    bare.push((await plain()).time);
  }
  const [first, list] = [median(rows), median(bare)];
  console.log(
    `home with ${STUDIES} studies, first rows: ${first.toFixed(0)} ms, under 300 ms ${kept(first < 300)}; ${(first / list).toFixed(1)} × fetching and reading the list alone (${list.toFixed(0)} ms)`,
  );
  const times: number[] = [];
  for (const text of ['viscosity 17', 'kiln 3', 'week 51', 'release 19']) {
    times.push(await page.evaluate(untilFound(text)));
    await page.evaluate(untilFound(''));
  }
  const search = Math.max(...times);
  console.log(`search among them, the slowest of four: ${search.toFixed(0)} ms, under 100 ms ${kept(search < 100)}`);
}

/** A study with 20 pieces, half of them with a picture. */
async function sheet(page: Page, url: string): Promise<void> {
  const rows = Array.from({ length: 60 }, (_, i) => (8 + (((i * 37) % 29) - 14) / 100).toFixed(2));
  await pasted(page, url, ['thickness (mm)', ...rows].join('\n'));
  const study = page.url().replace(/readings.*/, '');
  for (let i = 0; i < PIECES / 2; i++) {
    await page.goto(`${study}shape?histogram.rule=count&histogram.count=${5 + i}&describe.confidence=${0.9 + i / 200}`);
    await page.getByRole('button', { name: /^Keep as evidence/ }).click();
    await page.getByText('Kept: histogram and description.').waitFor();
  }
  await page.goto(`${study}verdict`);
  await page
    .getByRole('article')
    .nth(PIECES - 1)
    .waitFor();
  const link = page.getByRole('link', { name: 'Open the report' });
  const times: number[] = [];
  for (let i = 0; i < 5; i++) {
    const started = performance.now();
    await link.click();
    await page.getByText(/^about \d+ pages$/).waitFor();
    times.push(performance.now() - started);
    await page.getByRole('link', { name: 'Back to the verdict' }).click();
    await page
      .getByRole('article')
      .nth(PIECES - 1)
      .waitFor();
  }
  const ready = Math.max(...times);
  console.log(
    `sheet with ${PIECES} pieces, click to ready to print: ${ready.toFixed(0)} ms (slowest of five), under 2 s ${kept(ready < 2_000)}`,
  );
}

async function weight(page: Page, url: string): Promise<void> {
  const sizes: Promise<number>[] = [];
  page.on('response', (response) => {
    if (new URL(response.url()).pathname.startsWith('/api')) return;
    const wasZipped = /woff2$/.test(response.url());
    sizes.push(response.body().then((body) => (wasZipped ? body.length : gzipSync(body).length)));
  });
  await page.goto(url);
  await page.getByRole('heading', { name: 'Studies' }).waitFor();
  await page.waitForLoadState('networkidle');
  const kilobytes = (await Promise.all(sizes)).reduce((sum, size) => sum + size, 0) / 1024;
  console.log(`first page, cold, fonts and all: ${kilobytes.toFixed(0)} kB, under 600 kB ${kept(kilobytes < 600)}`);
}

const STAGES = ['shape', 'fit', 'outliers', 'claims', 'resample', 'simulate'];
const MOST_OF_A_WORKER = 120;

/** What a stage weighs when it is opened first, zipped: the page, and the worker that runs its analyses. */
async function stages(page: Page, url: string): Promise<void> {
  await pasted(page, url, ['thickness (mm)', '8.01', '7.98', '8.11', '8.03', '7.95', '8.07', '8.02'].join('\n'));
  const study = page.url().replace(/readings.*/, '');
  for (const stage of STAGES) {
    const fresh = await page.context().browser()!.newContext();
    const opened = await fresh.newPage();
    const found = { page: [] as Promise<number>[], worker: [] as Promise<number>[] };
    const seen = new Set<string>();
    opened.on('response', (response) => {
      const { pathname } = new URL(response.url());
      if (!pathname.endsWith('.js')) return;
      // Each of its workers asks for them, and weighs nothing more for it.
      if (seen.has(pathname)) return;
      seen.add(pathname);
      const ofWorker = pathname.startsWith('/assets/worker/');
      found[ofWorker ? 'worker' : 'page'].push(response.body().then((body) => gzipSync(body).length));
    });
    await opened.goto(`${study}${stage}`);
    await opened.waitForLoadState('networkidle');
    const sum = async (sizes: Promise<number>[]) => (await Promise.all(sizes)).reduce((a, b) => a + b, 0) / 1024;
    const [own, worker] = [await sum(found.page), await sum(found.worker)];
    const promise = stage === 'shape' ? `, at most ${MOST_OF_A_WORKER} kB ${kept(worker <= MOST_OF_A_WORKER)}` : '';
    console.log(
      `${stage}: page ${own.toFixed(0)} kB in ${found.page.length} files, worker ${worker.toFixed(0)} kB in ${found.worker.length}${promise}`,
    );
    await fresh.close();
  }
}

export async function benchWhole(): Promise<void> {
  await inBrowser(weight);
  await inBrowser(stages);
  await inBrowser(sheet);
  await inBrowser(home);
}
