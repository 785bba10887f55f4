/** `npm run dev`: the compiler, the server and the page, each starting again when its source changes. */
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { build, ensureMariaDb, ensurePackages, ROOT } from './setup.mjs';
import { startMariaDb } from './mariadb.mjs';

const API_PORT = 4790;
const PAGE_PORT = 5190;

ensurePackages();
ensureMariaDb();
build();
const database = await startMariaDb(join(ROOT, '.verdict/dev/mariadb'));
const children = [];
const run = (tool, args, env = {}) => {
  const child = spawn(join(ROOT, 'node_modules/.bin', tool), args, {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, ...env },
  });
  children.push(child);
  return child;
};

// Worker threads run the build, so the compiler keeps it current; the server itself runs from its source.
run('tsc', ['-b', '--watch', '--preserveWatchOutput']);
run('tsx', ['watch', '--conditions=source', 'server/src/dev.ts'], {
  VERDICT_PORT: String(API_PORT),
  VERDICT_DATABASE: JSON.stringify({ url: database.url, migrationUrl: database.migrationUrl }),
});
run('vite', ['web', '--port', String(PAGE_PORT), '--strictPort', '--host', '127.0.0.1'], {
  VERDICT_API: `http://127.0.0.1:${API_PORT}`,
});
console.log(`The page, reloading: http://127.0.0.1:${PAGE_PORT}/`);

let ending = false;
async function end() {
  if (ending) return;
  ending = true;
  for (const child of children) child.kill('SIGTERM');
  await database.stop();
  process.exit(0);
}
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => void end());
