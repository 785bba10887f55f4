/** `npm run backup -- FILE`: everything in one file, while Verdict runs or not. */
import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { BackupRefused, writeBackup } from './backup-file.mjs';
import { lockHolder } from './lock.mjs';
import { startMariaDb, urlOf } from './mariadb.mjs';
import { ensureBackups, ensurePackages, giveUp, ROOT } from './setup.mjs';
import { Misunderstood, surroundings } from './surroundings.mjs';

ensurePackages();
ensureBackups();

async function main() {
  const [name, ...more] = process.argv.slice(2);
  if (!name || more.length > 0) throw new BackupRefused('Usage: npm run backup -- FILE, such as verdict.sql.gz.');
  const file = resolve(process.env.INIT_CWD ?? process.cwd(), name);
  if (existsSync(file)) throw new BackupRefused(`${file} exists. Name another file: a backup overwrites none.`);
  const { home, migrationUrl } = surroundings(process.env, ROOT);
  const dir = join(home, 'mariadb');
  if (!migrationUrl && !existsSync(join(dir, 'data')))
    throw new BackupRefused(`There are no data in ${home} (VERDICT_HOME).`);
  // A database that runs already is asked; otherwise one is started for as long as it takes.
  const running = migrationUrl ?? (lockHolder(home) ? urlOf(dir) : null);
  const own = running ? null : await startMariaDb(dir);
  try {
    const { studies } = await writeBackup(running ?? own.migrationUrl, file);
    console.log(`Backed up ${studies} ${studies === 1 ? 'study' : 'studies'} to ${file}.`);
  } finally {
    await own?.stop();
  }
}

await main().catch((error) => {
  giveUp(
    error instanceof BackupRefused || error instanceof Misunderstood
      ? error.message
      : `The backup failed: ${error.message}`,
  );
});
