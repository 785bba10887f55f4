import { createConnection, type Connection } from 'mysql2/promise';

/** What the server's account may do with each table; with every other one, read, add, change and remove rows. */
const APPEND_ONLY: Record<string, string> = {
  changes: 'SELECT, INSERT',
  study_log: 'SELECT, INSERT',
  // What may be said of evidence after it was kept, and how a recomputation came out. What was found never changes.
  evidence: 'SELECT, INSERT, UPDATE (note, place, left_out, leads, answers, recomputed_at, recomputed_same)',
  verdicts: 'SELECT, INSERT, UPDATE (reopen_at, reopen_reason, reopen_who)',
};

async function connected<T>(uri: string, use: (connection: Connection) => Promise<T>): Promise<T> {
  const connection = await createConnection({ uri, connectTimeout: 5_000 });
  try {
    return await use(connection);
  } finally {
    await connection.end();
  }
}

const rowsOf = async (connection: Connection, query: string): Promise<string[]> => {
  const [rows] = await connection.query(query);
  return (rows as Record<string, string>[]).map((row) => Object.values(row)[0]!);
};

/** A right to change or remove rows of every table. */
const TOO_WIDE = /^GRANT .*(ALL PRIVILEGES|UPDATE|DELETE).* ON (\*|`[^`]*`)\.\* TO /;

/**
 * Gives the server's account its rights, table by table: the record can be added to and not altered. Needs an account that owns the tables and may grant.
 * @returns whether the server's account can no longer alter the record: false in a database of somebody else that gives it wider rights
 */
export async function grantRights(migrationUrl: string, databaseUrl: string): Promise<boolean> {
  // The database knows from which host the account comes in.
  const [account = ''] = await connected(databaseUrl, (worker) => rowsOf(worker, 'SELECT CURRENT_USER()'));
  const [owner] = await connected(migrationUrl, (connection) => rowsOf(connection, 'SELECT CURRENT_USER()'));
  if (owner === account) return false;
  const at = account.lastIndexOf('@');
  try {
    await connected(migrationUrl, async (connection) => {
      const to = `${connection.escape(account.slice(0, at))}@${connection.escape(account.slice(at + 1))}`;
      for (const table of await rowsOf(connection, 'SHOW TABLES')) {
        if (table.startsWith('__')) continue;
        const rights = APPEND_ONLY[table] ?? 'SELECT, INSERT, UPDATE, DELETE';
        await connection.query(`GRANT ${rights} ON ${connection.escapeId(table)} TO ${to}`);
      }
    });
  } catch (error) {
    if (DENIED.has((error as { errno?: number }).errno ?? 0)) return false;
    throw error;
  }
  const grants = await connected(databaseUrl, (worker) => rowsOf(worker, 'SHOW GRANTS'));
  return !grants.some((grant) => TOO_WIDE.test(grant));
}

/** Access denied, to a database or to a table; no such account at this host. */
const DENIED = new Set([1044, 1045, 1142, 1133, 1410]);
