import { NOTHING_SAID } from '@verdict/contract';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { Agent } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startMariaDb } from '../scripts/mariadb.mjs';
import { spawnServer } from '../scripts/server-process.mjs';
import { flood, timed, watchStalls } from './ask.js';

/**
 * `npm run load`: what the server does while much is asked of it, on loopback, bounded in count and time. The list of 2 000 studies, five
 * of them of 1 000 000 readings that have just changed, over 200 connections for 10 seconds; then an import of a million cells beside
 * 20 readers; then what works through whole columns. All the while something trivial is asked, and its longest wait is told.
 */
const STUDIES = 2_000;
const LARGE = 5;
const MILLION = 1_000_000;

const agent = new Agent({ keepAlive: true, maxSockets: 16 });
const dir = mkdtempSync(join(tmpdir(), 'verdict-load-'));
const database = await startMariaDb(dir);
const server = await spawnServer(database);
const api = `${server.url}api`;
const post = async <T>(path: string, body: unknown): Promise<T> => {
  const answer = await timed(api + path, agent, { method: 'POST', body: JSON.stringify(body) });
  if (answer.status >= 300) throw new Error(`${path} answered ${answer.status}: ${answer.body}`);
  return JSON.parse(answer.body) as T;
};
const change = (id: string, revision: number, what: object) =>
  post(`/studies/${id}/changes`, { token: randomUUID(), revision, who: 'load', change: what });

const columnOf = (name: string, more: object = {}) => ({
  ...{ id: randomUUID(), name, unit: 'mm', kind: 'measure', decimal: 'point', thousands: 'none' },
  ...NOTHING_SAID,
  ...more,
});

async function importInto(id: string, columns: object[], text: string): Promise<void> {
  const head = {
    token: randomUUID(),
    revision: 0,
    who: 'load',
    columns,
    separator: 'comma',
    skip: 0,
    encoding: 'utf-8',
  };
  const body = `${JSON.stringify(head)}\n${text}`;
  const answer = await timed(`${api}/studies/${id}/imports`, agent, { method: 'POST', type: 'text/plain', body });
  if (answer.status !== 200) throw new Error(`The import answered ${answer.status}: ${answer.body}`);
}

const newStudy = async () => (await post<{ id: string }>('/studies', { name: 'load' })).id;
const readings = (n: number) => Array.from({ length: n }, (_, i) => (8 + (i % 997) / 1_000).toFixed(3)).join('\n');

async function watched(what: string, work: () => Promise<unknown>): Promise<void> {
  const before = server.memory();
  const stop = watchStalls(`${api}/none`);
  const started = performance.now();
  await work();
  const seconds = ((performance.now() - started) / 1_000).toFixed(1);
  const { longest, median } = await stop();
  console.log(
    `${what}: ${seconds} s; trivial GET median ${median.toFixed(1)} ms, longest ${longest.toFixed(0)} ms; memory ${before} → ${server.memory()} MB`,
  );
}

async function theList(large: readonly string[]): Promise<void> {
  for (const id of large) await change(id, 1, { kind: 'change-study', name: 'changed' });
  const { count, errors, median, late } = await flood(`${api}/studies`, 200, 10_000);
  console.log(
    `list: ${count} answers, ${errors} errors, median ${median.toFixed(0)} ms, 99 % within ${late.toFixed(0)} ms`,
  );
}

async function importAmongReaders(id: string): Promise<void> {
  const rows = Array.from({ length: MILLION / 10 }, (_, i) =>
    new Array(10).fill((8 + (i % 997) / 1_000).toFixed(3)).join(','),
  );
  const target = await newStudy();
  let over = false;
  const reader = async () => {
    while (!over) await timed(`${api}/studies/${id}`, agent);
  };
  const readers = Array.from({ length: 20 }, reader);
  await importInto(
    target,
    Array.from({ length: 10 }, (_, j) => columnOf(`c${j}`)),
    rows.join('\n'),
  );
  over = true;
  await Promise.all(readers);
}

async function wholeColumns(): Promise<void> {
  const id = await newStudy();
  const a = columnOf('a');
  await importInto(id, [a], readings(300_000));
  const readingsAside = (from: number) =>
    Array.from({ length: 9_000 }, (_, i) => ({ column: a.id, row: from + i * 10, reason: 'chipped' }));
  await change(id, 1, { kind: 'set-aside', readings: readingsAside(1_000) });
  await watched('insert above 9 000 set-aside readings in 300 000 rows', () =>
    change(id, 2, { kind: 'insert-rows', rows: [1] }),
  );
  const made = {
    kind: 'made-up',
    family: 'normal',
    parameters: { mean: 8, sd: 1 },
    count: MILLION,
    step: 0.01,
    seed: 5,
  };
  const madeUp = columnOf('simulated', { derivation: made, cells: [] });
  const other = await newStudy();
  await watched('simulated 1 000 000', () => change(other, 0, { kind: 'add-columns', columns: [madeUp] }));
  await watched('freeze 1 000 000', () => change(other, 1, { kind: 'freeze-column', column: madeUp.id }));
  await watched('undo it', () =>
    post(`/studies/${other}/steps`, { token: randomUUID(), revision: 2, who: 'load', step: 'undo' }),
  );
  await watched('save a study of 300 000', () => timed(`${api}/studies/${id}/saved`, agent));
}

try {
  for (let made = LARGE; made < STUDIES; made += 16)
    await Promise.all(Array.from({ length: Math.min(16, STUDIES - made) }, newStudy));
  const text = readings(MILLION);
  const large: string[] = [];
  await watched('five imports of 1 000 000 readings', async () => {
    for (let i = 0; i < LARGE; i++) {
      const id = await newStudy();
      await importInto(id, [columnOf('thickness')], text);
      large.push(id);
    }
  });
  await watched('the list while five large studies are counted', () => theList(large));
  await watched('the same again', () => theList([]));
  await watched('import of 1 000 000 cells beside 20 readers', () => importAmongReaders(large[0]!));
  await wholeColumns();
} finally {
  agent.destroy();
  await server.kill();
  await database.stop();
  rmSync(dir, { recursive: true, force: true });
}
