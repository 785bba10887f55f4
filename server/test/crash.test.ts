import type { Study } from '@verdict/contract';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { startMariaDb } from '../../scripts/mariadb.mjs';
import { spawnServer } from '../../scripts/server-process.mjs';
import { column } from './running.js';

const ROWS = 12_000;
const TEXT = ['a,b', ...Array.from({ length: ROWS }, (_, i) => `${i}.5,x${i}`)].join('\n');

const get = async <T>(url: string): Promise<T> => (await fetch(url)).json() as Promise<T>;
const post = async (url: string, type: string, body: string) => {
  const answer = await fetch(url, { method: 'POST', headers: { 'Content-Type': type }, body });
  return { status: answer.status, body: (await answer.json()) as { id: string; revision: number } };
};
const change = (url: string, id: string, revision: number, what: object) =>
  post(
    `${url}api/studies/${id}/changes`,
    'application/json',
    JSON.stringify({ token: randomUUID(), revision, who: 'tester', change: what }),
  );

/** A study with two columns whose first cells hold the revision they were written at: a half change would show two numbers. */
async function newStudy(url: string) {
  const { id } = (await post(`${url}api/studies`, 'application/json', '{}')).body;
  const [a, b] = [column('first', ['1']), column('second', ['1'])];
  await change(url, id, 0, { kind: 'add-columns', columns: [a, b] });
  return { id, a, b };
}

/** An import and edits one after the other, until the power goes; what was confirmed last. */
async function work(url: string, { id, a, b }: Awaited<ReturnType<typeof newStudy>>): Promise<number> {
  let confirmed = 1;
  try {
    for (let round = 0; ; round++) {
      const revision = confirmed;
      const text = String(revision + 1);
      const columns = ['a', 'b'].map((name) => {
        const { cells: _, ...bare } = column(`${name} ${round}`, [], { kind: name === 'b' ? 'label' : 'measure' });
        return bare;
      });
      const rest = { token: randomUUID(), revision, who: 'tester', separator: 'comma', skip: 1, encoding: 'utf-8' };
      const answer =
        round % 2 === 1
          ? await change(url, id, revision, {
              kind: 'edit-cells',
              runs: [a, b].map((of) => ({ column: of.id, row: 1, texts: [text] })),
            })
          : await post(
              `${url}api/studies/${id}/imports`,
              'text/plain',
              `${JSON.stringify({ columns, ...rest })}\n${TEXT}`,
            );
      if (answer.status !== 200) return confirmed;
      confirmed = answer.body.revision;
    }
  } catch {
    return confirmed;
  }
}

/** Everything is there wholly or not at all, and nothing that was confirmed is missing. */
async function check(url: string, { id, a, b }: Awaited<ReturnType<typeof newStudy>>, confirmed: number) {
  const study = await get<Study>(`${url}api/studies/${id}`);
  const { cells } = await get<{ cells: Record<string, string[]> }>(`${url}api/studies/${id}/cells`);
  expect([confirmed, confirmed + 1]).toContain(study.revision);
  const imports = Math.ceil((study.revision - 1) / 2);
  const edits = study.revision - 1 - imports;
  expect(study.columns).toHaveLength(2 + 2 * imports);
  const written = edits === 0 ? '1' : String(1 + 2 * edits);
  expect([cells[a.id]![0], cells[b.id]![0]]).toEqual([written, written]);
  for (const { id: imported, name } of study.columns.slice(2)) {
    const last = name.startsWith('a') ? `${ROWS - 1}.5` : `x${ROWS - 1}`;
    expect([cells[imported]!.length, cells[imported]![ROWS - 1]]).toEqual([ROWS, last]);
  }
}

/** `KILLS=30 npx vitest run --project server crash` tries harder. */
const KILLS = Number(process.env.KILLS ?? 4);

describe('kill -9, at random instants of imports and edits', () => {
  it('of the server or the database leaves every change there wholly or not at all, and loses none that was confirmed', async () => {
    const dir = mkdtempSync(join(tmpdir(), 'verdict-crash-'));
    let database = await startMariaDb(dir);
    let server = await spawnServer(database);
    try {
      for (let round = 0; round < KILLS; round++) {
        const study = await newStudy(server.url);
        const working = work(server.url, study);
        await new Promise((resolve) => setTimeout(resolve, 30 + Math.random() * 500));
        if (round % 2 === 0) {
          await server.kill();
          const confirmed = await working;
          server = await spawnServer(database);
          await check(server.url, study, confirmed);
        } else {
          const { port } = database;
          await database.kill();
          const confirmed = await working;
          database = await startMariaDb(dir, { port });
          await check(server.url, study, confirmed);
        }
      }
    } finally {
      await server.kill();
      await database.stop();
      rmSync(dir, { recursive: true, force: true });
    }
  });
});
