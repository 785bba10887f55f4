/** `npm start`: everything from a fresh checkout to one address in the browser. */
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { openLog } from './log-file.mjs';
import { isFull, superviseMariaDb } from './mariadb.mjs';
import { build, ensureMariaDb, ensurePackages, giveUp, ROOT } from './setup.mjs';
import { Misunderstood, refuseUnreachable, surroundings } from './surroundings.mjs';

const USUAL_PORT = 4780;
const { home: HOME, port, databaseUrl, migrationUrl } = understood(() => surroundings(process.env, ROOT));
const LOCK = join(HOME, 'running.json');

/** What `read` returns; ends the program with the sentence where the environment cannot be meant. */
function understood(read) {
  try {
    return read();
  } catch (error) {
    if (!(error instanceof Misunderstood)) throw error;
    giveUp(`Verdict could not start: ${error.message}`);
  }
}

/** Who runs on this directory, as far as the file can be read: one that is empty or cut off was left by a crash. */
function lockHolder() {
  try {
    const { pid, url } = JSON.parse(readFileSync(LOCK, 'utf8'));
    return Number.isInteger(pid) ? { pid, url } : null;
  } catch {
    return null;
  }
}

/** A second start beside a running one would take its database away. */
function refuseSecondStart() {
  const holder = lockHolder();
  if (!holder || holder.pid === process.pid) return;
  const { pid, url } = holder;
  const command = existsSync(`/proc/${pid}/cmdline`) ? readFileSync(`/proc/${pid}/cmdline`, 'utf8') : '';
  if (command.includes('start.mjs')) giveUp(`Verdict is already running${url ? ` at ${url}` : ''} (process ${pid}).`);
}

/** Written beside and moved into place: it is there as a whole or not at all. */
function writeLock(url) {
  writeFileSync(`${LOCK}.new`, JSON.stringify({ pid: process.pid, url }));
  renameSync(`${LOCK}.new`, LOCK);
}

// What is printed may go to a full disk or to a closed pipe: that is no reason to end.
for (const stream of [process.stdout, process.stderr]) stream.on('error', () => {});

let stop = null;
let asked = false;
async function end(code) {
  asked = true;
  if (!stop) return;
  const [running] = [stop];
  stop = null;
  await running();
  rmSync(LOCK, { force: true });
  process.exit(code);
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => (stop ? void end(0) : (asked = true)));

try {
  mkdirSync(HOME, { recursive: true, mode: 0o700 });
  refuseSecondStart();
  if (isFull(HOME))
    giveUp(
      `Verdict could not start: the disk of ${HOME} (VERDICT_HOME) is full. Free at least 16 MB; everything stored is kept.`,
    );
  writeLock(null);
} catch (error) {
  giveUp(`Verdict could not start: it cannot work in ${HOME} (VERDICT_HOME): ${error.message}`);
}
ensurePackages();
if (!databaseUrl) ensureMariaDb();
build();

try {
  if (databaseUrl) {
    await refuseUnreachable(databaseUrl, 'DATABASE_URL');
    await refuseUnreachable(migrationUrl, migrationUrl === databaseUrl ? 'DATABASE_URL' : 'DATABASE_MIGRATION_URL');
  }
  const database = databaseUrl
    ? { url: databaseUrl, migrationUrl, stop: async () => {} }
    : await superviseMariaDb(join(HOME, 'mariadb'));
  stop = database.stop;
  const { serve } = await import(pathToFileURL(join(ROOT, 'server/dist/index.js')).href);
  const log = openLog(join(HOME, 'server.log'), {
    onFailure: (error) => console.error(`The log cannot be written (${error.message}). Verdict goes on without it.`),
  });
  const server = await serve({
    databaseUrl: database.url,
    migrationUrl: database.migrationUrl,
    ports: port === null ? [USUAL_PORT, 0] : [port],
    page: join(ROOT, 'web/dist'),
    demo: pathToFileURL(join(ROOT, 'demo/')),
    log,
  });
  stop = async () => {
    await server.close();
    await database.stop();
  };
  writeLock(server.url);
  console.log(`Verdict is ready: ${server.url}`);
  console.log('Ctrl+C stops it. What was entered is kept.');
  if (asked) await end(0);
} catch (error) {
  const denied = [1044, 1142].includes(error.cause?.errno);
  const text = denied
    ? 'the account may not define tables. Name one that may in DATABASE_MIGRATION_URL.'
    : (error.message ?? error);
  console.error(`Verdict could not start: ${text}`);
  if (error.code === 'EADDRINUSE') console.error('The port is taken; choose another with PORT=….');
  await end(1);
  process.exit(1);
}
