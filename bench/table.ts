/**
 * The table at its largest: a million cells of CSV recognised and parsed beside the CSV library's bare parse, the same file imported into
 * a running server with rows a second and the server's peak memory, a study of 100 000 × 6 opened in the browser, and one edit there.
 */
import { chromium } from '@playwright/test';
import { chromiumPath } from '../scripts/chromium.mjs';
import { parseBlock, recogniseLayout, splitRows } from '@verdict/core/readings';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parse } from 'csv-parse/sync';
import Papa from 'papaparse';
import { pathToFileURL } from 'node:url';
import { median, report } from './report.js';

// Not bundled: they find their place by their own address.
const load = (path: string) => import(pathToFileURL(join(process.cwd(), path)).href);

function csvOf(rows: number, columns: number): string {
  const names = Array.from({ length: columns }, (_, j) => `gauge ${j + 1} (mm)`).join(',');
  const line = (i: number) =>
    Array.from({ length: columns }, (_, j) => (8 + Math.sin((i * columns + j) * 12.9898) * 0.3).toFixed(3)).join(',');
  return `${names}\n${Array.from({ length: rows }, (_, i) => line(i)).join('\n')}\n`;
}

/** The cutter alone beside two libraries: one that does not cut mixed line breaks, and one that does. */
function benchCutter(text: string): void {
  const timed = (work: () => unknown): number => {
    const times = Array.from({ length: 3 }, () => {
      const started = performance.now();
      work();
      return performance.now() - started;
    });
    return median(times);
  };
  const own = timed(() => splitRows(text, 'comma'));
  const bare = timed(() => Papa.parse(text, { delimiter: ',' }));
  const mixed = { record_delimiter: ['\r\n', '\n', '\r'], relax_quotes: true, relax_column_count: true };
  report('1 000 000 cells of CSV: cut into rows ÷ a library that knows one line break', own, bare, 1.5);
  report(
    '1 000 000 cells of CSV: cut into rows ÷ a library that knows any',
    own,
    timed(() => parse(text, mixed)),
    0.5,
  );
}

function benchParse(text: string): void {
  const [own, bare]: [number[], number[]] = [[], []];
  for (let round = 0; round < 5; round++) {
    let started = performance.now();
    Papa.parse(text, { delimiter: ',' });
    bare.push(performance.now() - started);
    started = performance.now();
    const block = parseBlock(text, recogniseLayout(text));
    own.push(performance.now() - started);
    if (block.rows !== 100_000 || block.problemCount !== 0) throw new Error('The block was not read as it is.');
  }
  report('1 000 000 cells of CSV: recognise, parse, look for problems ÷ bare parse', median(own), median(bare), 2);
}

const columnOf = (name: string) => ({
  ...{ id: randomUUID(), name, unit: 'mm', kind: 'measure', decimal: 'point', thousands: 'none', resolution: null },
});
const json = async <T>(url: string, body: unknown): Promise<T> =>
  (
    await fetch(url, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) })
  ).json() as Promise<T>;

async function importInto(
  url: string,
  text: string,
  columns: number,
): Promise<{ id: string; columns: { id: string }[] }> {
  const { id } = await json<{ id: string }>(`${url}api/studies`, {});
  const added = Array.from({ length: columns }, (_, j) => columnOf(`gauge ${j + 1}`));
  const rest = { token: randomUUID(), revision: 0, who: 'bench', separator: 'comma', skip: 1, encoding: 'utf-8' };
  const body = new Blob([JSON.stringify({ ...rest, columns: added }), '\n', text]);
  const answer = await fetch(`${url}api/studies/${id}/imports`, {
    method: 'POST',
    headers: { 'Content-Type': 'text/plain' },
    body,
  });
  if (!answer.ok) throw new Error(await answer.text());
  return { id, columns: added };
}

async function benchOpening(url: string, id: string): Promise<void> {
  const browser = await chromium.launch({ executablePath: chromiumPath() });
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const times: number[] = [];
  for (let round = 0; round < 3; round++) {
    await page.goto(url);
    await page.waitForLoadState('networkidle');
    const started = performance.now();
    await page.goto(`${url}studies/${id}/readings`);
    await page.locator('[id="cell-1-0"]').waitFor();
    times.push(performance.now() - started);
  }
  report('100 000 × 6 opened: address to first rows on screen ÷ one second', median(times), 1000, 1);
  // One screen of rows a frame, from top to bottom: a frame is blank when no cell is drawn in the middle of it.
  const blank = await page.getByRole('grid').evaluate(async (rows) => {
    const grid = rows.closest('.scroller')!;
    let longest = 0;
    let since = 0;
    for (let step = 0; step < 200; step++) {
      grid.scrollTop += grid.clientHeight * 3;
      const now = await new Promise<number>((resolve) => requestAnimationFrame(resolve));
      const { left, top, height } = grid.getBoundingClientRect();
      const seen = document.elementFromPoint(left + 150, top + height / 2)?.getAttribute('role') === 'gridcell';
      if (seen) since = 0;
      else if (since === 0) since = now;
      else longest = Math.max(longest, now - since);
    }
    return longest;
  });
  report('100 000 × 6 scrolled: longest stretch of blank frames ÷ 100 ms', blank, 100, 1);
  await browser.close();
}

async function benchEdits(url: string, id: string, column: string): Promise<void> {
  const times: number[] = [];
  for (let i = 0; i < 25; i++) {
    const change = { kind: 'edit-cells', runs: [{ column, row: 50_000 + i, texts: [`9.${i}`] }] };
    const started = performance.now();
    await json(`${url}api/studies/${id}/changes`, { token: randomUUID(), revision: 1 + i, who: 'bench', change });
    times.push(performance.now() - started);
  }
  report('100 000 × 6: one edit, sent to answered ÷ 50 ms', median(times), 50, 1);
}

export async function benchTable(): Promise<void> {
  const text = csvOf(100_000, 10);
  benchCutter(text);
  benchParse(text);
  const { startMariaDb } = await load('scripts/mariadb.mjs');
  const { spawnServer } = await load('scripts/server-process.mjs');
  const dir = mkdtempSync(join(tmpdir(), 'verdict-bench-'));
  const database = await startMariaDb(dir);
  const server = await spawnServer(database);
  try {
    const before = server.peak();
    const started = performance.now();
    await importInto(server.url, text, 10);
    const seconds = (performance.now() - started) / 1000;
    console.log(
      `1 000 000 cells imported end to end: ${seconds.toFixed(1)} s, ${Math.round(100_000 / seconds)} rows/s`,
    );
    report(
      'server’s memory at its peak during the import (' + before.toFixed(0) + ' MB before) ÷ 400 MB',
      server.peak(),
      400,
      1,
      'MB',
    );
    const six = await importInto(server.url, csvOf(100_000, 6), 6);
    await benchEdits(server.url, six.id, six.columns[0]!.id);
    await benchOpening(server.url, six.id);
  } finally {
    await server.kill();
    await database.stop();
    rmSync(dir, { recursive: true, force: true });
  }
}
