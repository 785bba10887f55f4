import { spawn } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { lockHolder, releaseLock, takeLock, tellAddress } from '../lock.mjs';

const home = mkdtempSync(join(tmpdir(), 'verdict-lock-'));
const file = join(home, 'running.json');
afterAll(() => rmSync(home, { recursive: true }));

describe('the lock of a start', () => {
  it.each(['', '{"pid":', 'null', '{"pid":1,"started":"of another life"}', `{"pid":${process.pid},"started":"1"}`])(
    'is taken over where a crash left %j',
    (left) => {
      writeFileSync(file, left);
      expect(takeLock(home)).toBeNull();
      tellAddress(home, 'http://127.0.0.1:1/');
      expect(lockHolder(home)).toEqual({ pid: process.pid, url: 'http://127.0.0.1:1/' });
      releaseLock(home);
      expect(readdirSync(home)).toEqual([]);
    },
  );

  it('is taken over where the process that was taking it over crashed too', () => {
    writeFileSync(file, '{"pid":999999999,"started":"1","url":null}');
    const { ino, mtimeNs } = statSync(file, { bigint: true });
    writeFileSync(`${file}.left.${ino}-${mtimeNs}`, '{"pid":999999998,"started":"1","url":null}');
    expect(takeLock(home)).toBeNull();
    releaseLock(home);
    expect(readdirSync(home)).toEqual([]);
  });

  it('is had by one of twenty that start at the same moment, a lock being left over', async () => {
    const script = `import { takeLock } from '${join(import.meta.dirname, '../lock.mjs')}';
      process.stdin.once('data', () => { process.stdout.write(takeLock('${home}') ? 'no' : 'yes'); });
      process.stdout.write('ready ');`;
    writeFileSync(file, '{"pid":999999999,"started":"1","url":null}');
    const children = Array.from({ length: 20 }, () => spawn('node', ['--input-type=module', '-e', script]));
    const said = children.map((child) => {
      let text = '';
      child.stdout.on('data', (part) => (text += String(part)));
      return () => text;
    });
    await expect.poll(() => said.filter((text) => text() === 'ready ').length).toBe(20);
    for (const child of children) child.stdin.write('go\n');
    await expect.poll(() => said.filter((text) => /yes|no/.test(text())).length).toBe(20);
    const owners = children.filter((_, i) => said[i]!().endsWith('yes'));
    expect(owners.map(({ pid }) => pid)).toEqual([JSON.parse(readFileSync(file, 'utf8')).pid]);
    for (const child of children) child.kill('SIGKILL');
  });
});
