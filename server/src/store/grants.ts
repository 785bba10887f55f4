import { createConnection } from 'mysql2/promise';

/** What the server's account may do with each table; with every other one, read, add, change and remove rows. */
const APPEND_ONLY: Record<string, string> = {
  changes: 'SELECT, INSERT',
  study_log: 'SELECT, INSERT',
  // What may be said of evidence after it was kept, and how a recomputation came out. What was found never changes.
  evidence: 'SELECT, INSERT, UPDATE (note, place, left_out, leads, answers, recomputed_at, recomputed_same)',
  verdicts: 'SELECT, INSERT, UPDATE (reopen_at, reopen_reason, reopen_who)',
};

/**
 * Gives the server's account its rights, table by table: the record can be added to and not altered. Needs an account that owns the tables and may grant.
 * @returns false where it may not, as in a database of somebody else: there the rights are theirs to give
 */
export async function grantRights(migrationUrl: string, databaseUrl: string): Promise<boolean> {
  const [owner, worker] = [new URL(migrationUrl), new URL(databaseUrl)];
  if (owner.username === worker.username) return false;
  const connection = await createConnection({ uri: migrationUrl, connectTimeout: 5_000 });
  try {
    const account = `${connection.escape(decodeURIComponent(worker.username))}@'127.0.0.1'`;
    const [rows] = await connection.query('SHOW TABLES');
    for (const row of rows as Record<string, string>[]) {
      const table = Object.values(row)[0]!;
      if (table.startsWith('__')) continue;
      const rights = APPEND_ONLY[table] ?? 'SELECT, INSERT, UPDATE, DELETE';
      await connection.query(`GRANT ${rights} ON ${connection.escapeId(table)} TO ${account}`);
    }
    return true;
  } catch (error) {
    if (DENIED.has((error as { errno?: number }).errno ?? 0)) return false;
    throw error;
  } finally {
    await connection.end();
  }
}

/** Access denied, to a database or to a table; no such account at this host. */
const DENIED = new Set([1044, 1045, 1142, 1133, 1410]);
