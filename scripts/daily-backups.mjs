/** A backup a day beside the data, the last few kept. */
import { existsSync, mkdirSync, readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { writeBackup } from './backup-file.mjs';

const NAME = /^verdict-\d{4}-\d\d-\d\d\.sql\.gz$/;
const HOUR = 3_600_000;

/** Today’s backup, unless it is there; older ones than the last `kept` go once it is whole. */
export async function backupOfToday(url, dir, kept, { signal, today = new Date() } = {}) {
  const file = join(dir, `verdict-${today.toISOString().slice(0, 10)}.sql.gz`);
  mkdirSync(dir, { recursive: true, mode: 0o700 });
  // What a crash left of one that was never whole.
  for (const name of readdirSync(dir)) if (name.endsWith('.part')) rmSync(join(dir, name), { force: true });
  if (!existsSync(file)) await writeBackup(url, file, { signal });
  const names = readdirSync(dir)
    .filter((name) => NAME.test(name))
    .sort();
  for (const name of names.slice(0, -kept)) rmSync(join(dir, name), { force: true });
}

/** Looks every hour whether today has its backup. Returns what stops it, one that is being made included. */
export function keepBackups(url, dir, kept, onFailure) {
  const stop = new AbortController();
  let said = '';
  const failed = (error) => {
    // Every hour the same is said once.
    if (!stop.signal.aborted && error.message !== said) onFailure(error);
    said = error.message;
  };
  let last = Promise.resolve();
  const look = () => (last = last.then(() => backupOfToday(url, dir, kept, stop)).catch(failed));
  const timer = setInterval(look, HOUR).unref();
  void look();
  return async () => {
    clearInterval(timer);
    stop.abort();
    await last;
  };
}
