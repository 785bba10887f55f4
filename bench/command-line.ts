/** How long the bundled command line takes to start, beside Node with nothing to do. */
import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { median } from './report.js';

/** The benchmarks run from bench/dist. */
const ROOT = fileURLToPath(new URL('../..', import.meta.url));
const TIMES = 9;

function seconds(args: string[]): number {
  const started = performance.now();
  const { status, stderr } = spawnSync('node', args, { cwd: ROOT, encoding: 'utf8' });
  if (status !== 0) throw new Error(stderr);
  return (performance.now() - started) / 1000;
}

export function benchCommandLine(): void {
  const file = ['demo/tile-thickness.csv', '--column', 'thickness'];
  const uses = { help: ['--help'], describe: ['describe', ...file] };
  // The first one may make the bundle.
  seconds(['cli/bin/verdict.mjs', '--help']);
  for (const [name, args] of Object.entries(uses)) {
    const pairs = Array.from({ length: TIMES }, () => [
      seconds(['cli/bin/verdict.mjs', ...args]),
      seconds(['--eval', '0']),
    ]);
    const own = median(pairs.map(([one]) => one!));
    const empty = median(pairs.map(([, one]) => one!));
    // What is promised is the start; the rest is the analysis itself.
    const promise = name === 'help' ? ` (under 0.5 s: ${own < 0.5 ? 'kept' : 'MISSED'})` : '';
    console.log(
      `command-line ${name.padEnd(10)} ${own.toFixed(2)} s, ${(own / empty).toFixed(1)} x an empty Node${promise}`,
    );
  }
}
