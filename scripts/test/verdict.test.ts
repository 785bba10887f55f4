import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, describe, expect, it } from 'vitest';

const BIN = fileURLToPath(new URL('../../cli/bin/verdict.mjs', import.meta.url));
const dir = mkdtempSync(join(tmpdir(), 'verdict-bin-'));
afterAll(() => rmSync(dir, { recursive: true }));

describe('the bundled command line', () => {
  it('reads a file relative to where it is typed, and says nothing beside the result', () => {
    writeFileSync(join(dir, 'own.csv'), 'mass\n1\n2\n4\n');
    const { stdout, stderr, status } = spawnSync('node', [BIN, 'describe', 'own.csv'], { cwd: dir, encoding: 'utf8' });
    expect(stderr).toBe('');
    expect(status).toBe(0);
    expect(JSON.parse(stdout)).toMatchObject({ analysis: 'describe', result: { n: 3, median: 2 } });
  });

  it('ends without an error where its output is closed early', async () => {
    // Far more output than a pipe holds.
    const rows = Array.from({ length: 50_000 }, (_, i) => String((i * 37) % 101));
    writeFileSync(join(dir, 'long.csv'), ['mass', ...rows].join('\n'));
    const child = spawn('node', [BIN, 'in-order', 'long.csv', '--column', 'mass'], { cwd: dir });
    let said = '';
    child.stderr.on('data', (text) => (said += String(text)));
    child.stdout.once('data', () => child.stdout.destroy());
    const [code, signal] = (await once(child, 'close')) as [number | null, string | null];
    expect([said, code, signal]).toEqual(['', 0, null]);
  });
});
