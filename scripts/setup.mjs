/** What a fresh machine lacks: packages, MariaDB, Chromium. Plain Node, because it runs before anything is installed. */
import { spawnSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';
import { delimiter, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { SHELL, WHOLE } from './chromium.mjs';

export const ROOT = fileURLToPath(new URL('..', import.meta.url));

/** Ends the program with a sentence that says what to do. */
export function giveUp(message) {
  console.error(message);
  process.exit(1);
}

/** Runs a command to its end; its output is shown only when it fails. */
export function quietly(command, args, what) {
  const result = spawnSync(command, args, { cwd: ROOT, encoding: 'utf8', maxBuffer: 1 << 26 });
  if (result.status !== 0) {
    giveUp(
      `${what} failed (${command} ${args.join(' ')}):\n${result.error ?? ''}${result.stdout ?? ''}${result.stderr ?? ''}`,
    );
  }
  return result.stdout;
}

export function findProgram(name) {
  const places = [...(process.env.PATH ?? '').split(delimiter), '/usr/sbin', '/usr/bin', '/usr/local/bin'];
  return places.map((place) => join(place, name)).find((path) => existsSync(path)) ?? null;
}

export const modified = (path) => (existsSync(path) ? statSync(path).mtimeMs : 0);

export function ensurePackages() {
  const installed = join(ROOT, 'node_modules/.package-lock.json');
  if (modified(installed) >= modified(join(ROOT, 'package-lock.json')) && existsSync(installed)) return;
  console.log('Installing packages …');
  quietly('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], 'Installing the packages');
}

let listsUpdated = false;

function ensureProgram(program, packages, purpose) {
  if (findProgram(program)) return;
  const install = ['install', '-y', '--no-install-recommends', ...packages];
  if (process.getuid?.() !== 0 || !findProgram('apt-get')) {
    giveUp(`${purpose} is not installed. Run this once, then start again:\n  sudo apt-get ${install.join(' ')}`);
  }
  console.log(`Installing ${purpose} …`);
  process.env.DEBIAN_FRONTEND = 'noninteractive';
  if (!listsUpdated) quietly('apt-get', ['update', '-qq'], 'Updating the package lists');
  listsUpdated = true;
  quietly('apt-get', install, `Installing ${purpose}`);
}

export const ensureMariaDb = () => ensureProgram('mariadbd', ['mariadb-server-core', 'mariadb-client'], 'MariaDB');
/** For backups; `npm start` goes on without it and says so. */
export const ensureBackups = () => ensureProgram('mariadb-dump', ['mariadb-client'], 'The backup program of MariaDB');
/** The whole browser does too, where it stands already and nothing may be installed. */
export function ensureChromium() {
  if (findProgram(WHOLE) && process.getuid?.() !== 0) return;
  ensureProgram(SHELL, [SHELL], 'Chromium');
}

const npx = (tool) => join(ROOT, 'node_modules/.bin', tool);

/** When the newest file of these files and folders was written, in seconds. */
export function newest(paths) {
  const stdout = spawnSync('find', [...paths, '-type', 'f', '-printf', '%T@\n'], {
    cwd: ROOT,
    encoding: 'utf8',
  }).stdout;
  return Math.max(0, ...stdout.split('\n').map(Number));
}

/** Builds what has changed since the last build. */
export function build() {
  const sources = ['core', 'contract', 'server', 'cli', 'web'].flatMap((name) => [
    `${name}/src`,
    `${name}/package.json`,
  ]);
  const built = ['core/dist/index.js', 'server/dist/index.js', 'cli/dist/main.js', 'web/dist/index.html'];
  const oldest = Math.min(...built.map((path) => modified(join(ROOT, path)) / 1000));
  if (oldest > newest([...sources, 'web/index.html', 'web/vite.config.ts', 'package-lock.json'])) return;
  console.log('Building …');
  quietly(npx('tsc'), ['-b'], 'Compiling');
  quietly(npx('vite'), ['build', 'web', '--logLevel', 'warn'], 'Building the page');
  // tsc leaves unchanged files alone; the marker says that they are up to date all the same.
  for (const path of built) spawnSync('touch', [path], { cwd: ROOT });
}
