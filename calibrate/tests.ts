import { spawnSync } from 'node:child_process';

/** The tests of levels and coverages in the core, each with its whole number of samples. */
export function calibrateTests(): boolean {
  const env = { ...process.env, VERDICT_THOROUGH: '1' };
  return spawnSync('npx', ['vitest', 'run', '--project', 'core'], { stdio: 'inherit', env }).status === 0;
}
