import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { closeSync, existsSync, mkdtempSync, openSync, rmSync, writeFileSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openLog } from '../log-file.mjs';
import { ask, ended, killAll, start } from './starting.js';

/** A disk of 170 MB; only root can make one. */
const isRoot = process.getuid?.() === 0;
const disk = mkdtempSync(join(tmpdir(), 'verdict-disk-'));
const filler = join(disk, 'filler');
beforeAll(() => {
  if (isRoot) expect(spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=170m', 'tmpfs', disk]).status).toBe(0);
});
afterAll(() => {
  killAll(disk);
  spawnSync('umount', ['-l', disk]);
  rmSync(disk, { recursive: true, force: true });
});

function fill(): void {
  const file = openSync(filler, 'w');
  try {
    for (;;) writeSync(file, Buffer.alloc(65_536));
  } catch (error) {
    expect((error as NodeJS.ErrnoException).code).toBe('ENOSPC');
  }
  closeSync(file);
}

const asked = async (url: string, path: string, body?: object) => {
  const more = body && { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) };
  const answer = await ask(url, path, more);
  return { status: answer.status, body: (await answer.json()) as Record<string, unknown> };
};

/** A column of so many numbers, as a change. */
function large(rows: number) {
  const cells = Array.from({ length: rows }, (_, i) => String(8 + ((i * 7919) % 100_003) / 1e6));
  const nothing = { resolution: null, lowerLimit: null, target: null, upperLimit: null, claimedMean: null };
  const column = { ...nothing, claimedSd: null, levels: null, frequencies: null, derivation: null };
  const format = { kind: 'measure', unit: '', decimal: 'point', thousands: 'none' };
  return { kind: 'add-columns', columns: [{ ...column, ...format, id: randomUUID(), name: 'x', cells }] };
}

describe.runIf(isRoot)('a full disk', () => {
  it('ends nothing: changes wait, are stored once when there is room, and the next start finds what is left over', async () => {
    const home = join(disk, 'home');
    const first = await start(home);
    const id = (await asked(first.url, '/studies', { name: 'full' })).body.id as string;
    fill();
    const change = { token: randomUUID(), revision: 0, who: 'tester', change: large(50_000) };
    // The database says that its disk is full, or it has ended and is away until there is room: the page waits for either.
    const sent = () => asked(first.url, `/studies/${id}/changes`, change);
    for (let i = 0; i < 3; i++) {
      const { status, body } = await sent();
      expect([`507 disk-full`, `503 database-gone`]).toContain(`${status} ${String(body.code)}`);
      if (status === 507) expect(body.detail).toContain('The disk of this computer is full.');
    }
    expect((await fetch(first.url)).status).toBe(200);
    // A database that has ended by now has given back its temporary files.
    fill();
    await expect(start(join(disk, 'other'))).rejects.toThrow('is full. Free at least 16 MB');
    rmSync(filler);
    await expect.poll(async () => (await sent()).status).toBe(200);

    // Killed on a full disk, it leaves a database without a pid file behind.
    fill();
    first.child.kill('SIGKILL');
    await ended(first.child);
    rmSync(join(home, 'mariadb/mariadb.pid'), { force: true });
    rmSync(filler);
    const second = await start(home);
    expect((await asked(second.url, `/studies/${id}`)).body).toMatchObject({ revision: 1, rowCount: 50_000 });
    second.child.kill('SIGINT');
    expect(await ended(second.child)).toBe(0);
  });

  it('loses lines of a log, says how many, and ends nothing', () => {
    const file = join(disk, 'a.log');
    const failures: string[] = [];
    const log = openLog(file, { onFailure: ({ message }) => failures.push(message) });
    fill();
    log.write(`${'x'.repeat(100_000)}\n`);
    log.write(`${'y'.repeat(100_000)}\n`);
    expect(failures).toEqual([expect.stringContaining('ENOSPC')]);
    rmSync(filler);
    log.write('z\n');
    expect(existsSync(file)).toBe(true);
    expect(spawnSync('tail', ['-n', '2', file], { encoding: 'utf8' }).stdout).toMatch(/"lost":2,.*\nz\n$/);
  });
});

describe('a log', () => {
  it('is kept in three files of a size', () => {
    const dir = mkdtempSync(join(tmpdir(), 'verdict-log-'));
    const file = join(dir, 'server.log');
    writeFileSync(file, 'old\n');
    const log = openLog(file, { most: 1_000 });
    for (let i = 0; i < 400; i++) log.write(`line ${i}\n`);
    const names = spawnSync('ls', [dir], { encoding: 'utf8' }).stdout.trim().split('\n');
    expect(names).toEqual(['server.log', 'server.log.1', 'server.log.2']);
    const text = spawnSync('sh', ['-c', `cat ${file}.2 ${file}.1 ${file}`], { encoding: 'utf8' }).stdout;
    expect(text.trim().split('\n').at(-1)).toBe('line 399');
    expect(text.length).toBeLessThanOrEqual(3_000);
    rmSync(dir, { recursive: true });
  });
});
