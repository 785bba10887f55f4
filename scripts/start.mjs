/** `npm start`: everything from a fresh checkout to one address in the browser. */
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { keepBackups } from './daily-backups.mjs';
import { lockHolder, releaseLock, takeLock, tellAddress } from './lock.mjs';
import { openLog } from './log-file.mjs';
import { isFull, superviseMariaDb } from './mariadb.mjs';
import { ensureSecret, newAddress } from './secret.mjs';
import { build, ensureMariaDb, ensurePackages, giveUp, ROOT } from './setup.mjs';
import { Misunderstood, refuseUnreachable, surroundings } from './surroundings.mjs';

const USUAL_PORT = 4780;
const {
  home: HOME,
  port,
  backups,
  heads,
  open,
  databaseUrl,
  migrationUrl,
} = understood(() => surroundings(process.env, ROOT));

/** What `read` returns; ends the program with the sentence where the environment cannot be meant. */
function understood(read) {
  try {
    return read();
  } catch (error) {
    if (!(error instanceof Misunderstood)) throw error;
    giveUp(`Verdict could not start: ${error.message}`);
  }
}

/** A second start beside a running one would take its database away. */
async function refuseSecond({ pid, url }) {
  const at = url && (await newAddress(HOME, url));
  giveUp(`Verdict is already running${at ? ` at ${at}` : ''} (process ${pid}).`);
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
  releaseLock(HOME);
  process.exit(code);
}
try {
  mkdirSync(HOME, { recursive: true, mode: 0o700 });
  const holder = lockHolder(HOME);
  if (holder) await refuseSecond(holder);
  if (isFull(HOME))
    giveUp(
      `Verdict could not start: the disk of ${HOME} (VERDICT_HOME) is full. Free at least 16 MB; everything stored is kept.`,
    );
  const first = takeLock(HOME);
  if (first) await refuseSecond(first);
} catch (error) {
  giveUp(`Verdict could not start: it cannot work in ${HOME} (VERDICT_HOME): ${error.message}`);
}
ensurePackages();
if (!databaseUrl) ensureMariaDb();
build();

// Not before: until here there is nothing to end in order, and the system ends a program that does not listen at once.
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => (stop ? void end(0) : (asked = true)));

try {
  if (databaseUrl) {
    await refuseUnreachable(databaseUrl, 'DATABASE_URL');
    await refuseUnreachable(migrationUrl, migrationUrl === databaseUrl ? 'DATABASE_URL' : 'DATABASE_MIGRATION_URL');
  }
  const database = databaseUrl
    ? { url: databaseUrl, migrationUrl, stop: async () => {} }
    : await superviseMariaDb(join(HOME, 'mariadb'));
  stop = database.stop;
  if (asked) await end(0);
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
    ...{ log, heads, secret: open ? null : ensureSecret(HOME) },
  });
  const stopBackups =
    backups === 0
      ? async () => {}
      : keepBackups(database.migrationUrl, join(HOME, 'backups'), backups, (error) =>
          console.error(`The daily backup failed: ${error.message}`),
        );
  stop = async () => {
    await stopBackups();
    await server.close();
    await database.stop();
  };
  tellAddress(HOME, server.url);
  console.log(`Verdict is ready: ${server.newAddress()}`);
  if (!open)
    console.log(
      'The address gives access to the first browser that opens it. To get another one, run npm start again.',
    );
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
