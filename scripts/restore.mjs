/** `npm run restore -- FILE [--replace]`: the data of a backup in VERDICT_HOME, brought to the tables of this version. */
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { BackupRefused, loadBackup, readBackup } from './backup-file.mjs';
import { releaseLock, takeLock } from './lock.mjs';
import { startMariaDb, stopLeftOver } from './mariadb.mjs';
import { build, ensureMariaDb, ensurePackages, giveUp, ROOT } from './setup.mjs';
import { Misunderstood, surroundings } from './surroundings.mjs';

ensurePackages();
ensureMariaDb();
build();

/** When the last migration of this version was made. */
const ownSchema = () =>
  JSON.parse(readFileSync(join(ROOT, 'server/drizzle/meta/_journal.json'), 'utf8')).entries.at(-1).when;

/** Loads beside and moves into place when it is whole: whatever happens before, the data there were are the data there are. */
async function restore(file, home, { studies, made }) {
  const [dir, fresh] = [join(home, 'mariadb'), join(home, 'mariadb.restoring')];
  rmSync(fresh, { recursive: true, force: true });
  const database = await startMariaDb(fresh);
  try {
    await loadBackup(database.migrationUrl, file);
    const { migrateDatabase } = await import(pathToFileURL(join(ROOT, 'server/dist/store/database.js')).href);
    await migrateDatabase(database.migrationUrl);
  } finally {
    await database.stop();
  }
  const before = existsSync(dir) ? `${dir}.before-${new Date().toISOString().replace(/\D/g, '').slice(0, 14)}` : null;
  if (before) {
    // One that a crash left would go on in the directory that is moved away.
    await stopLeftOver(dir);
    renameSync(dir, before);
  }
  renameSync(fresh, dir);
  console.log(
    `Restored ${studies} ${studies === 1 ? 'study' : 'studies'} of ${made} to ${home}. Start with npm start.`,
  );
  if (before)
    console.log(`The data that were there are kept in ${before}. Delete that directory when it is no longer needed.`);
}

async function main() {
  const args = process.argv.slice(2);
  const [name, ...more] = args.filter((arg) => arg !== '--replace');
  if (!name || more.length > 0) throw new BackupRefused('Usage: npm run restore -- FILE [--replace].');
  const file = resolve(process.env.INIT_CWD ?? process.cwd(), name);
  const { home, databaseUrl } = surroundings(process.env, ROOT);
  if (databaseUrl)
    throw new BackupRefused(
      'DATABASE_URL names a database of your own: load the backup there with gunzip and the mariadb client.',
    );
  const head = await readBackup(file);
  if (head.schema > ownSchema())
    throw new BackupRefused(`${file} was made by a newer version of Verdict. Update Verdict first.`);
  mkdirSync(home, { recursive: true, mode: 0o700 });
  const holder = takeLock(home);
  if (holder)
    throw new BackupRefused(`Verdict runs on ${home} (process ${holder.pid}). Stop it with Ctrl+C, then restore.`);
  try {
    if (existsSync(join(home, 'mariadb')) && !args.includes('--replace'))
      throw new BackupRefused(
        `${home} holds data already. Add --replace to put the backup in their place; they are kept beside it.`,
      );
    await restore(file, home, head);
  } finally {
    releaseLock(home);
  }
}

await main().catch((error) => {
  giveUp(
    error instanceof BackupRefused || error instanceof Misunderstood
      ? error.message
      : `The restore failed: ${error.message}`,
  );
});
