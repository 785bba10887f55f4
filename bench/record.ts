/** Edits, which each add to the chain; the check of a long record; a backup of many studies. */
import { linkAfter, NOTHING_SAID, type StudyFile } from '@verdict/contract';
import { createConnection } from 'mysql2/promise';
import { createHash, randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeBackup } from '../scripts/backup-file.mjs';
import { startMariaDb, type PrivateMariaDb } from '../scripts/mariadb.mjs';
import { ask, scriptOf, timed } from './asking.js';
import { median, report } from './report.js';
import type * as serverProcess from '../scripts/server-process.mjs';

type ServerProcess = typeof serverProcess;

const EDITS = 400;
const CHANGES = 10_000;
const STUDIES = 2_000;
const ROWS = 1_000;

const COLUMN = { ...NOTHING_SAID, name: 'thickness', unit: 'mm', kind: 'measure', decimal: 'point', thousands: 'none' };

async function newStudy(url: string, rows: number): Promise<{ id: string; column: string }> {
  const { id } = await ask<{ id: string }>(url, '/studies', { name: 'bench' });
  const column = randomUUID() as string;
  const columns = [
    { ...COLUMN, id: column, cells: Array.from({ length: rows }, (_, i) => (8 + (i % 29) / 100).toFixed(2)) },
  ];
  const change = { kind: 'add-columns', columns };
  await ask(url, `/studies/${id}/changes`, { token: randomUUID(), revision: 0, who: 'bench', change });
  return { id, column };
}

/** One cell after the other, each stored before the next is sent. */
async function edits(url: string): Promise<number> {
  const { id, column } = await newStudy(url, ROWS);
  const times: number[] = [];
  for (let i = 0; i < EDITS; i++) {
    const change = { kind: 'edit-cells', runs: [{ column, row: (i % ROWS) + 1, texts: [`9.${i}`] }] };
    const body = { token: randomUUID(), revision: i + 1, who: 'bench', change };
    times.push(await timed(() => ask(url, `/studies/${id}/changes`, body)));
  }
  return median(times);
}

/** The least that an edit has to write: a block, a line of a record, the state of the study, in one transaction. */
async function plainEdits(migrationUrl: string): Promise<number> {
  const connection = await createConnection(migrationUrl);
  await connection.query('CREATE TABLE bench_block (id INT PRIMARY KEY, cells LONGTEXT)');
  await connection.query('CREATE TABLE bench_record (id INT AUTO_INCREMENT PRIMARY KEY, detail LONGTEXT)');
  const cells = Array.from({ length: ROWS }, (_, i) => (8 + (i % 29) / 100).toFixed(2));
  await connection.query('INSERT INTO bench_block VALUES (1, ?), (2, ?)', [JSON.stringify(cells), '0']);
  const times: number[] = [];
  for (let i = 0; i < EDITS; i++) {
    times.push(
      await timed(async () => {
        await connection.beginTransaction();
        await connection.query('SELECT * FROM bench_block WHERE id = 2 FOR UPDATE');
        const [[block]] = (await connection.query('SELECT cells FROM bench_block WHERE id = 1')) as unknown as [
          [{ cells: string }],
        ];
        const now = JSON.parse(block.cells) as string[];
        now[i % ROWS] = `9.${i}`;
        await connection.query('UPDATE bench_block SET cells = ? WHERE id = 1', [JSON.stringify(now)]);
        await connection.query('INSERT INTO bench_record (detail) VALUES (?)', [
          JSON.stringify({ i, before: block.cells[0] }),
        ]);
        await connection.query('UPDATE bench_block SET cells = ? WHERE id = 2', [String(i)]);
        await connection.commit();
      }),
    );
  }
  await connection.query('DROP TABLE bench_block, bench_record');
  await connection.end();
  return median(times);
}

/** A study of many edits, with its chain. */
function longRecord(): StudyFile {
  const at = new Date().toISOString();
  const nobody = { reason: null, who: 'bench', at, undoes: null, placeColumn: null, placeRow: null };
  let end = { entries: 0, head: null as string | null };
  const changes = Array.from({ length: CHANGES }, (_, i) => {
    const named = (name: string) => ({ kind: 'change-study', name });
    const row = { detail: named(`n${i}`), inverse: named(i === 0 ? '' : `n${i - 1}`), cells: null };
    const change = { ...nobody, ...row, revision: i + 1, token: randomUUID(), kind: 'change-study', text: `n${i}` };
    const linked = linkAfter(end, change);
    end = { entries: linked.entry, head: linked.hash };
    return linked;
  });
  return {
    ...{ format: 'verdict study', version: 2, app: '0.1.0', savedAt: at, columns: [], setAside: [], leftIn: [] },
    ...{ changes, log: [], evidence: [], verdicts: [], looks: [] },
    study: {
      ...{ id: randomUUID(), name: `n${CHANGES - 1}`, question: '', state: 'open', asks: null, tags: [], alpha: 0.05 },
      ...{ quantileType: 7, subject: null, revision: CHANGES, rowCount: 0 },
    },
  };
}

async function checkAndBackUp(url: string, database: PrivateMariaDb, dir: string): Promise<void> {
  const file = longRecord();
  const { id } = await ask<{ id: string }>(url, '/studies/saved?who=bench', file);
  const text = JSON.stringify(file);
  const plain = await timed(
    async () =>
      void createHash('sha256')
        .update(JSON.stringify(JSON.parse(text)))
        .digest('hex'),
  );
  const check = await timed(async () => {
    const { notVerified } = await ask<{ notVerified: string | null }>(url, `/studies/${id}/audit`);
    if (notVerified) throw new Error(notVerified);
  });
  report(`check of a record of ${CHANGES} changes beside reading, writing and hashing its file`, check, plain, null);
  console.log(
    `check of a record of ${CHANGES} changes: ${(check / 1e3).toFixed(2)} s, under 2 s ${check < 2_000 ? 'kept' : 'MISSED'}`,
  );
  for (let i = 0; i < STUDIES; i += 8) await Promise.all(Array.from({ length: 8 }, () => newStudy(url, 40)));
  const backup = await timed(() => writeBackup(database.migrationUrl, join(dir, 'backup.sql.gz')));
  console.log(
    `backup of ${STUDIES} studies: ${(backup / 1e3).toFixed(2)} s, under 30 s ${backup < 30_000 ? 'kept' : 'MISSED'}`,
  );
}

export async function benchRecord(): Promise<void> {
  const dir = mkdtempSync(join(tmpdir(), 'verdict-bench-'));
  const database = await startMariaDb(join(dir, 'db'));
  const { spawnServer } = (await scriptOf('server-process.mjs')) as ServerProcess;
  const server = await spawnServer(database);
  try {
    await edits(server.url);
    const [own, plain] = [await edits(server.url), await plainEdits(database.migrationUrl)];
    report('an edit over HTTP beside a plain transaction of the same writes', own, plain, null);
    await checkAndBackUp(server.url, database, dir);
  } finally {
    await server.kill();
    await database.stop();
    rmSync(dir, { recursive: true, force: true });
  }
}
