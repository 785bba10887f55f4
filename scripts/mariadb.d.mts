export interface PrivateMariaDb {
  port: number;
  pid: number;
  url: string;
  migrationUrl: string;
  stop(): Promise<void>;
  kill(): Promise<void>;
}
export function startMariaDb(
  dir: string,
  options?: { port?: number; lasting?: boolean; onUnexpectedEnd?: () => void },
): Promise<PrivateMariaDb>;
/** System tables to be copied by the databases of a check (VERDICT_DATABASE_TEMPLATE). Returns their directory. */
export function makeTemplate(dir: string): string;
/** Started again whenever it ends by itself; `within`: milliseconds in which six ends are too many. */
export function superviseMariaDb(
  dir: string,
  options?: { within?: number },
): Promise<{ url: string; migrationUrl: string; pid(): number; stop(): Promise<void> }>;
/** The address of the database that runs on this directory, with the account that owns the tables. */
export function urlOf(dir: string): string;
/** Stops a database that an earlier program left on this directory. */
export function stopLeftOver(dir: string): Promise<void>;
/** True where the disk of a directory has no room for a database to work. */
export function isFull(dir: string): boolean;
