/** The built server as a process of its own: to be killed as a power cut would, or asked without taking its time. */
import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { ROOT } from './setup.mjs';

/** @param {{ url: string, migrationUrl: string }} database */
export async function spawnServer(database) {
  const code = `
    import { serve } from ${JSON.stringify(pathToFileURL(join(ROOT, 'server/dist/index.js')).href)};
    import { createWriteStream } from 'node:fs';
    const log = createWriteStream('/dev/null');
    const { DB: databaseUrl, DBM: migrationUrl, PAGE: page } = process.env;
    const running = await serve({ databaseUrl, migrationUrl, ports: [0], page, demo: null, log });
    console.log(running.url);`;
  const env = { ...process.env, DB: database.url, DBM: database.migrationUrl, PAGE: join(ROOT, 'web/dist') };
  const child = spawn('node', ['--input-type=module', '-e', code], { env, stdio: ['ignore', 'pipe', 'inherit'] });
  const url = await new Promise((resolve, reject) => {
    child.stdout.once('data', (text) => resolve(String(text).trim()));
    child.once('exit', () => reject(new Error('The server did not start.')));
  });
  const megabytes = (what) => {
    const status = readFileSync(`/proc/${child.pid}/status`, 'utf8');
    return Math.round(Number(new RegExp(`${what}:\\s+(\\d+)`).exec(status)[1]) / 1024);
  };
  async function kill() {
    if (child.exitCode !== null) throw new Error(`The server had ended by itself: ${child.exitCode}.`);
    const ended = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGKILL');
    await ended;
  }
  return { url, kill, memory: () => megabytes('VmRSS'), peak: () => megabytes('VmHWM') };
}
