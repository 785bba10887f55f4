import { drizzle, type MySql2Database } from 'drizzle-orm/mysql2';
import { migrate } from 'drizzle-orm/mysql2/migrator';
import { createPool, type Pool } from 'mysql2/promise';
import { fileURLToPath } from 'node:url';
import * as schema from './schema.js';

export type Database = MySql2Database<typeof schema>;
/** What a query runs on: the database, or the transaction of one change. */
export type Queries = Pick<Database, 'select' | 'selectDistinct' | 'insert' | 'update' | 'delete'>;

const MIGRATIONS = fileURLToPath(new URL('../../drizzle', import.meta.url));

export interface OpenDatabase {
  db: Database;
  close(): Promise<void>;
}

function open(url: string, connectionLimit: number): { db: Database; pool: Pool } {
  const pool = createPool({ uri: url, connectionLimit, timezone: 'Z', connectTimeout: 5_000, supportBigNumbers: true });
  return { db: drizzle(pool, { schema, mode: 'planetscale' }), pool };
}

export function openDatabase(url: string, connections = 8): OpenDatabase {
  const { db, pool } = open(url, connections);
  return { db, close: () => pool.end() };
}

/** Brings the tables up to date by the migration files; needs an account that may define tables. */
export async function migrateDatabase(url: string): Promise<void> {
  const { db, pool } = open(url, 1);
  try {
    await migrate(db, { migrationsFolder: MIGRATIONS });
  } finally {
    await pool.end();
  }
}

/** Another transaction holds what this one needs; nothing was done, and it may be tried again. */
export function isBusy(error: unknown): boolean {
  for (let e: unknown = error; e instanceof Error; e = e.cause) {
    if (BUSY.has((e as { errno?: unknown }).errno)) return true;
  }
  return false;
}

/** True where a row with this id was written at the same moment. */
export function isDuplicate(error: unknown): boolean {
  for (let e: unknown = error; e instanceof Error; e = e.cause)
    if ((e as { errno?: unknown }).errno === DUPLICATE) return true;
  return false;
}
const DUPLICATE = 1062;

/** Lock wait timeout, deadlock. */
const BUSY = new Set<unknown>([1205, 1213]);

/** No space: while writing, as a temporary file, as a table that cannot grow. */
const FULL_NUMBERS = new Set<unknown>([20, 1021, 1114]);
const FULL_WORDS = /No space left on device|[Ee]rr(?:no|code): 28\b|error 28\b/;

/** True where a query failed because the disk is full; nothing of it was stored. */
export function isDiskFull(error: unknown): boolean {
  for (let e: unknown = error; e instanceof Error; e = e.cause) {
    const { code, errno } = e as { code?: unknown; errno?: unknown };
    if (code === 'ENOSPC' || FULL_NUMBERS.has(errno) || FULL_WORDS.test(e.message)) return true;
  }
  return false;
}

const GONE = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ENOENT',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
  'ER_SERVER_SHUTDOWN',
]);

/** What a thread of the store says when its database cannot be reached. */
export class DatabaseGone extends Error {}

/** True where a query failed because the database cannot be reached, not because of what was asked. */
export function isDatabaseGone(error: unknown): boolean {
  if (error instanceof DatabaseGone) return true;
  for (let e: unknown = error; e instanceof Error; e = e.cause) {
    const { code, syscall } = e as { code?: unknown; syscall?: unknown };
    // A missing file is no missing database, though a missing socket is.
    if (code === 'ENOENT' && syscall !== 'connect') continue;
    if (typeof code === 'string' && GONE.has(code)) return true;
    if (/Can't add new command when connection is in closed state/.test(e.message)) return true;
  }
  return false;
}
