import { spawn, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { PrivateMariaDb } from '../scripts/mariadb.mjs';

const BUILT = fileURLToPath(new URL('../server/dist/index.js', import.meta.url));

export interface ServerProcess {
  url: string;
  child: ChildProcess;
  /** Memory that the process holds, in MB. */
  memory(): number;
}

/** The built server as a process of its own: what asks it must not take its time. */
export async function spawnServer(database: PrivateMariaDb): Promise<ServerProcess> {
  const code = `
    import { serve } from ${JSON.stringify(BUILT)};
    import { createWriteStream } from 'node:fs';
    const log = createWriteStream('/dev/null');
    const { DB: databaseUrl, DBM: migrationUrl } = process.env;
    const running = await serve({ databaseUrl, migrationUrl, ports: [0], page: null, demo: null, log });
    console.log(running.url);`;
  const env = { ...process.env, DB: database.url, DBM: database.migrationUrl };
  const child = spawn('node', ['--input-type=module', '-e', code], { env, stdio: ['ignore', 'pipe', 'inherit'] });
  const url = await new Promise<string>((resolve, reject) => {
    child.stdout!.once('data', (text) => resolve(String(text).trim()));
    child.once('exit', () => reject(new Error('The server did not start.')));
  });
  const memory = () => {
    const [, kilobytes] = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8')) ?? [];
    return Math.round(Number(kilobytes) / 1024);
  };
  return { url, child, memory };
}
