/** `npm run bench`: every benchmark with the same work done by a plain loop or a peer beside it. */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { build, ensureChromium, ensureMariaDb, ensurePackages, ROOT } from './setup.mjs';

ensurePackages();
ensureMariaDb();
ensureChromium();
build();
// Bundled, so that the loops are measured as they are shipped and not through a loader.
const { buildSync } = await import('esbuild');
const outfile = join(ROOT, 'bench/dist/main.mjs');
buildSync({
  entryPoints: [join(ROOT, 'bench/main.ts')],
  outfile,
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  external: ['workerpool', '@playwright/test', 'mysql2', 'papaparse', 'csv-parse'],
  logLevel: 'warning',
});
process.exit(spawnSync('node', [outfile, ...process.argv.slice(2)], { cwd: ROOT, stdio: 'inherit' }).status ?? 1);
