import { spawn, spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { copyFileSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { gunzipSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readBackup, writeBackup } from '../backup-file.mjs';
import { backupOfToday } from '../daily-backups.mjs';
import { urlOf } from '../mariadb.mjs';
import { ask, ended, killAll, start } from './starting.js';

const ROOT = fileURLToPath(new URL('../..', import.meta.url));
const dir = mkdtempSync(join(tmpdir(), 'verdict-backup-'));
const home = join(dir, 'home');
const file = join(dir, 'all.sql.gz');
let first: Awaited<ReturnType<typeof start>>;
beforeAll(async () => {
  first = await start(home);
});
afterAll(() => {
  killAll(dir);
  rmSync(dir, { recursive: true, force: true });
});

/** A command of the project on a home: its exit code and what it said. */
function run(script: string, at: string, ...args: string[]): Promise<{ code: number | null; said: string }> {
  const child = spawn('node', [`scripts/${script}.mjs`, ...args], {
    cwd: ROOT,
    env: { ...process.env, VERDICT_HOME: at },
  });
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => (said += String(text)));
  return new Promise((resolve) => child.on('close', (code) => resolve({ code, said })));
}
const get = async (url: string, path: string) => (await ask(url, path)).json();
const post = (url: string, path: string) => ask(url, path, { method: 'POST' });

/** Everything that the server tells of its studies. */
async function everything(url: string) {
  const studies: { id: string; name: string }[] = await get(url, '/studies');
  const parts = ['', '/cells', '/record', '/evidence'];
  const told = await Promise.all(
    studies.map(({ id }) => Promise.all(parts.map((part) => get(url, `/studies/${id}${part}`)))),
  );
  return { studies, told };
}

/** Keeps the figures of the first demo study, as the command line has them. */
async function keepFigures(url: string): Promise<void> {
  const [study] = await get(url, '/studies').then((all: { id: string; name: string }[]) =>
    all.filter(({ name }) => name.startsWith('Tile thickness')),
  );
  const { columns } = await get(url, `/studies/${study!.id}`);
  const column = columns.find(({ name }: { name: string }) => name === 'thickness').id;
  const printed = spawnSync(
    'node',
    ['cli/bin/verdict.mjs', 'describe', 'demo/tile-thickness.csv', '--column', 'thickness'],
    {
      cwd: ROOT,
      encoding: 'utf8',
    },
  );
  const { analysis, version, request, fingerprint, result } = JSON.parse(printed.stdout);
  const about = { id: randomUUID(), who: 'tester', column, parts: null, note: '' };
  const body = JSON.stringify({ ...about, analysis, version, request, fingerprint, result });
  const headers = { 'Content-Type': 'application/json' };
  const answer = await ask(url, `/studies/${study!.id}/evidence`, { method: 'POST', headers, body });
  expect(answer.status, await answer.text()).toBe(201);
  // The server recomputes it by itself, and says so on it.
  await expect.poll(() => get(url, `/studies/${study!.id}/evidence`)).toMatchObject([{ recomputed: { same: true } }]);
}

describe('a backup', () => {
  it('made while the server runs is restored to another home, on another port, with evidence that recomputes', async () => {
    await keepFigures(first.url);
    const made = await run('backup', home, file);
    expect(made).toMatchObject({ code: 0, said: expect.stringContaining('Backed up 5 studies to ') });
    expect(await readBackup(file)).toMatchObject({ version: 1, studies: 5 });
    expect((await run('backup', home, file)).said).toContain('exists. Name another file');

    const other = join(dir, 'other');
    const restored = await run('restore', other, file);
    expect(restored).toMatchObject({ code: 0, said: expect.stringContaining('Restored 5 studies') });
    const second = await start(other);
    expect(await everything(second.url)).toEqual(await everything(first.url));
    const evidence = (await everything(second.url)).told.flatMap(([, , , kept]) => kept as { id: string }[]);
    expect(evidence).toHaveLength(1);
    for (const { id } of evidence)
      expect(await (await post(second.url, `/evidence/${id}/recompute`)).json()).toMatchObject({ same: true });
    expect((await run('restore', other, file, '--replace')).said).toContain('Stop it with Ctrl+C');
    second.child.kill('SIGINT');
    await ended(second.child);

    // What is there is replaced only when that is asked for, and kept even then.
    expect(await run('restore', other, file)).toMatchObject({
      code: 1,
      said: expect.stringContaining('Add --replace'),
    });
    expect((await run('restore', other, file, '--replace')).code).toBe(0);
    expect(readdirSync(other).filter((name) => name.startsWith('mariadb.before-'))).toHaveLength(1);
  });

  it('that breaks off, was altered, is newer or is none is refused, and nothing is changed', async () => {
    const whole = readFileSync(file);
    const text = gunzipSync(whole).toString();
    const bad = join(dir, 'bad.sql.gz');
    const told = async (content: Buffer) => {
      writeFileSync(bad, content);
      return readBackup(bad).then(
        () => 'read',
        (error: Error) => error.message,
      );
    };
    for (const share of [0.1, 0.5, 0.99])
      expect(await told(whole.subarray(0, whole.length * share))).toContain('breaks off');
    expect(await told(gzipSync(text.slice(0, -100)))).toContain('breaks off or was altered');
    expect(await told(gzipSync(text.replace('Tile thickness', 'Tile Thickness')))).toContain('was altered');
    expect(await told(Buffer.from('a text'))).toContain('is not a backup of Verdict');
    expect(await told(gzipSync('a text'))).toContain('is not a backup of Verdict');
    await expect(readBackup(join(dir, 'none'))).rejects.toThrow('There is no file');
    const empty = join(dir, 'empty');
    writeFileSync(bad, whole.subarray(0, whole.length >> 1));
    expect((await run('restore', empty, bad)).code).toBe(1);
    expect(existsSync(join(empty, 'mariadb'))).toBe(false);
  });

  it('is made every day, and the last few are kept', async () => {
    const backups = join(home, 'backups');
    await expect
      .poll(() => (existsSync(backups) ? readdirSync(backups) : []))
      .toContainEqual(expect.stringMatching(/^verdict-.*\.gz$/));
    const own = join(dir, 'daily');
    const url = urlOf(join(home, 'mariadb'));
    for (const day of ['01', '02', '03', '04'])
      await backupOfToday(url, own, 2, { today: new Date(`2026-11-${day}T08:00:00Z`) });
    expect(readdirSync(own)).toEqual(['verdict-2026-11-03.sql.gz', 'verdict-2026-11-04.sql.gz']);
    copyFileSync(join(own, 'verdict-2026-11-03.sql.gz'), join(own, 'mine.sql.gz'));
    await backupOfToday(url, own, 2, { today: new Date('2026-11-04T09:00:00Z') });
    expect(readdirSync(own)).toHaveLength(3);
    // A backup that fails leaves nothing half behind.
    await expect(writeBackup(url.replace(/:[^:@]+@/, ':wrong@'), join(own, 'x'))).rejects.toThrow();
    expect(readdirSync(own)).toHaveLength(3);
    expect(spawnSync('ls', [tmpdir()], { encoding: 'utf8' }).stdout).not.toContain('verdict-account-');
  });
});
