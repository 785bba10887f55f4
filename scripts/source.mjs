/** Sets up what is missing, then runs a program of the project from its source: `node scripts/source.mjs fuzz/main.ts …`. */
import { spawnSync } from 'node:child_process';
import { build, ensureMariaDb, ensurePackages, ROOT } from './setup.mjs';

ensurePackages();
ensureMariaDb();
build();
const args = ['--import', 'tsx', '--conditions=source', ...process.argv.slice(2)];
process.exit(spawnSync('node', args, { cwd: ROOT, stdio: 'inherit' }).status ?? 1);
