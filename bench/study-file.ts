/** Saving, opening and checking the largest study that is permitted: time, and the memory that it takes of the server. */
import { MOST_ROWS, MOST_STUDY_CELLS, NOTHING_SAID } from '@verdict/contract';
import { randomUUID } from 'node:crypto';
import { createWriteStream, mkdtempSync, openAsBlob, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { startMariaDb, type PrivateMariaDb } from '../scripts/mariadb.mjs';
import { ask, scriptOf, timed } from './asking.js';
import { report } from './report.js';
import type * as serverProcess from '../scripts/server-process.mjs';

type ServerProcess = typeof serverProcess;

/** What is promised, in megabytes of the server above what it takes at rest. */
const MOST_MEMORY = 300;
const COLUMN = { ...NOTHING_SAID, unit: 'mm', kind: 'measure', decimal: 'point', thousands: 'none' };

/** Every row of a column of readings in three decimals. */
function* lines(head: object): Generator<Uint8Array> {
  yield Buffer.from(`${JSON.stringify(head)}\n`);
  for (let row = 0; row < MOST_ROWS; row += 10_000)
    yield Buffer.from(
      Array.from({ length: 10_000 }, (_, i) => `${(((row + i) * 7919) % 100_000) / 1000 + 100}\n`).join(''),
    );
}

async function largestStudy(url: string): Promise<string> {
  const { id } = await ask<{ id: string }>(url, '/studies', { name: 'largest' });
  for (let k = 0; k * MOST_ROWS < MOST_STUDY_CELLS; k++) {
    const columns = [{ ...COLUMN, id: randomUUID(), name: `column ${k}` }];
    const head = {
      token: randomUUID(),
      revision: k,
      who: 'bench',
      columns,
      separator: 'none',
      skip: 0,
      encoding: 'utf-8',
    };
    const body = Readable.toWeb(Readable.from(lines(head))) as BodyInit;
    const answer = await fetch(`${url}api/studies/${id}/imports`, {
      method: 'POST',
      body,
      duplex: 'half',
    } as RequestInit);
    if (!answer.ok) throw new Error(await answer.text());
  }
  return id;
}

/** One use of a server of its own: how long it took and how much memory it took at most. */
async function measured(
  database: PrivateMariaDb,
  what: string,
  use: (url: string) => Promise<unknown>,
): Promise<number> {
  const { spawnServer } = (await scriptOf('server-process.mjs')) as ServerProcess;
  const server = await spawnServer(database);
  try {
    await ask(server.url, '/studies');
    const rest = server.memory();
    const time = await timed(() => use(server.url));
    const more = server.peak() - rest;
    console.log(
      `${what}: ${(time / 1e3).toFixed(1)} s, ${more} MB more than at rest (${rest} MB), under ${MOST_MEMORY} MB ${more < MOST_MEMORY ? 'kept' : 'MISSED'}`,
    );
    return time;
  } finally {
    await server.kill();
  }
}

export async function benchStudyFile(): Promise<void> {
  const dir = mkdtempSync(join(tmpdir(), 'verdict-bench-'));
  const database = await startMariaDb(join(dir, 'db'));
  const path = join(dir, 'study.json');
  try {
    let id = '';
    await measured(database, `import of ${MOST_STUDY_CELLS} cells`, async (url) => (id = await largestStudy(url)));
    const save = await measured(database, 'saving', async (url) => {
      const answer = await fetch(`${url}api/studies/${id}/saved`);
      await pipeline(Readable.fromWeb(answer.body as never), createWriteStream(path));
    });
    const open = await measured(database, `opening ${Math.round(statSync(path).size / 1e6)} MB`, async (url) => {
      const headers = { 'Content-Type': 'application/json' };
      const body = await openAsBlob(path);
      const answer = await fetch(`${url}api/studies/saved?who=bench`, { method: 'POST', body, headers });
      if (answer.status !== 201) throw new Error(await answer.text());
    });
    await measured(database, 'check of its record', (url) => ask(url, `/studies/${id}/audit`));
    const plain = await timed(async () => void JSON.stringify(JSON.parse(readFileSync(path, 'utf8'))));
    report('saving beside reading and writing the file in memory', save, plain, null);
    report('opening beside the same', open, plain, null);
  } finally {
    await database.stop();
    rmSync(dir, { recursive: true, force: true });
  }
}
