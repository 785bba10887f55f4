import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { readSecret } from '../secret.mjs';

const ROOT = fileURLToPath(new URL('../..', import.meta.url));
const running: ChildProcess[] = [];
const secrets = new Map<string, string>();

/** Asks a Verdict that was started here, as a program that knows its secret. */
export const ask = (url: string, path: string, init: RequestInit = {}): Promise<Response> =>
  fetch(`${url}api${path}`, {
    ...init,
    headers: { ...(init.headers as Record<string, string>), Authorization: `Bearer ${secrets.get(url)}` },
  });

/** `npm start` without npm: resolves with the address it prints, or rejects with what it said instead. */
export function start(
  home: string,
  more: NodeJS.ProcessEnv = {},
): Promise<{ child: ChildProcess; url: string; address: string }> {
  const child = spawn('node', ['scripts/start.mjs'], {
    cwd: ROOT,
    env: { ...process.env, VERDICT_HOME: home, PORT: '0', ...more },
  });
  running.push(child);
  return new Promise((resolve, reject) => {
    let said = '';
    const listen = (text: Buffer) => {
      said += String(text);
      const address = /is ready: (http:\/\/\S+)\n/.exec(said)?.[1];
      if (!address) return;
      const url = new URL('/', address).href;
      const secret = readSecret(home);
      if (secret) secrets.set(url, secret);
      resolve({ child, url, address });
    };
    child.stdout.on('data', listen);
    child.stderr.on('data', listen);
    child.on('exit', () => reject(new Error(said)));
  });
}

export const ended = (child: ChildProcess) =>
  new Promise<number | null>((resolve) => child.on('exit', (code) => resolve(code)));

/** Everything that was started, and the databases of a directory. */
export function killAll(home: string): void {
  for (const child of running) child.kill('SIGKILL');
  spawnSync('pkill', ['-9', '-f', home]);
}
