import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** The quickest of several rounds: the rest is the machine's. */
export function quickest(work: () => unknown): number {
  const times = Array.from({ length: 15 }, () => {
    const from = performance.now();
    work();
    return performance.now() - from;
  });
  return Math.min(...times);
}

/** The times of the same in C, `bench/<name>.c`, one a line; null where there is no compiler. */
export function inC(name: string, sizes: readonly number[]): number[] | null {
  const dir = mkdtempSync(join(tmpdir(), 'verdict-bench-'));
  try {
    const program = join(dir, name);
    execFileSync('cc', ['-O3', '-march=native', '-o', program, join(process.cwd(), `bench/${name}.c`), '-lm']);
    return execFileSync(program, sizes.map(String), { encoding: 'utf8' }).trim().split('\n').map(Number);
  } catch {
    return null;
  } finally {
    rmSync(dir, { recursive: true });
  }
}
