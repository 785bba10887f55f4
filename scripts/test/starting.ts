import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('../..', import.meta.url));
const running: ChildProcess[] = [];

/** `npm start` without npm: resolves with the address it prints, or rejects with what it said instead. */
export function start(home: string, more: NodeJS.ProcessEnv = {}): Promise<{ child: ChildProcess; url: string }> {
  const child = spawn('node', ['scripts/start.mjs'], {
    cwd: ROOT,
    env: { ...process.env, VERDICT_HOME: home, PORT: '0', ...more },
  });
  running.push(child);
  return new Promise((resolve, reject) => {
    let said = '';
    const listen = (text: Buffer) => {
      said += String(text);
      const url = /http:\/\/\S+/.exec(said)?.[0];
      if (url && said.includes('is ready')) resolve({ child, url });
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
