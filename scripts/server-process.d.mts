export interface ServerProcess {
  url: string;
  kill(): Promise<void>;
  /** Memory that the process holds, and held at most, in MB. */
  memory(): number;
  peak(): number;
}
export function spawnServer(database: { url: string; migrationUrl: string }): Promise<ServerProcess>;
