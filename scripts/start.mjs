/** `npm start`: everything from a fresh checkout to one address in the browser. */
import { createWriteStream, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { superviseMariaDb } from './mariadb.mjs';
import { build, ensureMariaDb, ensurePackages, giveUp, ROOT } from './setup.mjs';

const HOME = process.env.VERDICT_HOME ?? join(ROOT, '.verdict');
const LOCK = join(HOME, 'running.json');
const USUAL_PORT = 4780;

/** A second start beside a running one would take its database away. */
function refuseSecondStart() {
  if (!existsSync(LOCK)) return;
  const { pid, url } = JSON.parse(readFileSync(LOCK, 'utf8'));
  const command = existsSync(`/proc/${pid}/cmdline`) ? readFileSync(`/proc/${pid}/cmdline`, 'utf8') : '';
  if (pid !== process.pid && command.includes('start.mjs'))
    giveUp(`Verdict is already running${url ? ` at ${url}` : ''} (process ${pid}).`);
}

const writeLock = (url) => writeFileSync(LOCK, JSON.stringify({ pid: process.pid, url }));

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

mkdirSync(HOME, { recursive: true, mode: 0o700 });
refuseSecondStart();
writeLock(null);
ensurePackages();
const own = process.env.DATABASE_URL;
if (!own) ensureMariaDb();
build();

try {
  const database = own
    ? { url: own, migrationUrl: process.env.DATABASE_MIGRATION_URL ?? own, stop: async () => {} }
    : await superviseMariaDb(join(HOME, 'mariadb'));
  stop = database.stop;
  const { serve } = await import(pathToFileURL(join(ROOT, 'server/dist/index.js')).href);
  const log = createWriteStream(join(HOME, 'server.log'), { flags: 'a' });
  const port = process.env.PORT === undefined ? null : Number(process.env.PORT);
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
  console.error(`Verdict could not start: ${error.message ?? error}`);
  if (error.code === 'EADDRINUSE') console.error('The port is taken; choose another with PORT=….');
  await end(1);
  process.exit(1);
}
