import { serve } from '@verdict/server';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Writable } from 'node:stream';
import { startMariaDb } from '../scripts/mariadb.mjs';
import { fuzz } from './fuzz.js';

/** `npm run fuzz -- [tries] [seed]`: a server of its own on a database of its own. */
const [tries = 7_000, seed = Date.now() % 1_000_000] = process.argv.slice(2).map(Number);
const dir = mkdtempSync(join(tmpdir(), 'verdict-fuzz-'));
const database = await startMariaDb(dir, { lasting: false });
const log = new Writable({ write: (_chunk, _encoding, done) => done() });
const { url: databaseUrl, migrationUrl } = database;
const server = await serve({ databaseUrl, migrationUrl, ports: [0], page: null, demo: null, log });
console.log(`${tries} tries, seed ${seed} …`);
const started = Date.now();
try {
  const report = await fuzz(`${server.url}api`, { seed, tries });
  for (const fault of report.faults.slice(0, 20)) console.log(`FAULT ${fault}`);
  const answers = Object.entries(report.counts).map(([status, count]) => `${status}: ${count}`);
  console.log(`answers: ${answers.join(', ')}`);
  const seconds = Math.round((Date.now() - started) / 1000);
  console.log(
    `${report.tries} tries and ${report.looks} looks, ${report.accepted} changes accepted and taken back, ${report.opened} study files opened, ${report.faults.length} faults (${seconds} s)`,
  );
  process.exitCode = report.faults.length === 0 ? 0 : 1;
} finally {
  await server.close();
  await database.stop();
  rmSync(dir, { recursive: true, force: true });
}
