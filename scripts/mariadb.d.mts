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
  options?: { port?: number; onUnexpectedEnd?: () => void },
): Promise<PrivateMariaDb>;
