import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { startMariaDb } from '../../scripts/mariadb.mjs';

declare module 'vitest' {
  interface ProvidedContext {
    databaseUrl: string;
    migrationUrl: string;
  }
}

/** A private MariaDB for all server tests, on a free port and a directory of its own. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const dir = mkdtempSync(join(tmpdir(), 'verdict-db-'));
  const database = await startMariaDb(dir, { lasting: false });
  project.provide('databaseUrl', database.url);
  project.provide('migrationUrl', database.migrationUrl);
  return async () => {
    await database.stop();
    rmSync(dir, { recursive: true, force: true });
  };
}
