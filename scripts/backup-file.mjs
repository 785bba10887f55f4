/**
 * A backup is what mariadb-dump writes, compressed, between two comments: the first says what it is, the last has the SHA-256 of everything before it. It can be
 * read without Verdict: gunzip, then the mariadb client.
 */
import { spawn } from 'node:child_process';
import { createHash, randomUUID } from 'node:crypto';
import {
  createReadStream,
  createWriteStream,
  openSync,
  closeSync,
  fsyncSync,
  mkdtempSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import { findProgram } from './setup.mjs';

const HEAD = '-- Verdict backup ';
const FOOT = '\n-- Verdict backup ends, SHA-256 ';
const FOOT_LENGTH = FOOT.length + 64 + 1;

/** What is wrong with a file or with a program of MariaDB, in a sentence. */
export class BackupRefused extends Error {}

/** Runs `use` with a file of options for MariaDB's programs: a password on a command line could be read by others. */
async function withAccount(url, use) {
  const { hostname, port, username, password, pathname } = new URL(url);
  const dir = mkdtempSync(join(tmpdir(), 'verdict-account-'));
  const file = join(dir, 'account.cnf');
  const quoted = (text) => `"${decodeURIComponent(text).replace(/["\\]/g, '\\$&')}"`;
  const lines = ['[client]', `host=${hostname}`, `port=${port || 3306}`, 'protocol=tcp', `user=${quoted(username)}`];
  try {
    writeFileSync(file, [...lines, `password=${quoted(password)}`, ''].join('\n'), { mode: 0o600 });
    return await use(file, decodeURIComponent(pathname.slice(1)));
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
}

/** A program of MariaDB; its end is a promise that fails with what it said. */
function program(name, args, stdio, signal) {
  const path = findProgram(name);
  if (!path)
    throw new BackupRefused(
      `${name} is not installed. Run this once: sudo apt-get install -y --no-install-recommends mariadb-client`,
    );
  const child = spawn(path, args, { stdio, signal });
  let said = '';
  child.stderr.on('data', (text) => (said += text));
  const end = new Promise((resolve, reject) => {
    child.on('error', reject);
    child.on('close', (code) => (code === 0 ? resolve() : reject(new BackupRefused(`${name} failed: ${said.trim()}`))));
  });
  // Awaited after the streams; what fails first is said.
  end.catch(() => {});
  return { child, end };
}

async function askedOf(url, query) {
  const { createConnection } = await import('mysql2/promise');
  const connection = await createConnection({ uri: url, connectTimeout: 5_000, supportBigNumbers: true });
  try {
    const [[row]] = await connection.query(query);
    return row;
  } finally {
    await connection.end();
  }
}

/** The state of the tables: when the last migration was made. */
const schemaOf = async (url) =>
  Number((await askedOf(url, 'SELECT MAX(created_at) AS last FROM __drizzle_migrations')).last);

/** Every study, record, evidence, verdict and job of a database, as it stands at one moment; the file appears when it is whole. Returns what its first line says. */
export async function writeBackup(url, file, { signal } = {}) {
  const { studies } = await askedOf(url, 'SELECT COUNT(*) AS studies FROM studies');
  const head = { version: 1, schema: await schemaOf(url), made: new Date().toISOString(), studies: Number(studies) };
  const part = `${file}.${randomUUID().slice(0, 8)}.part`;
  try {
    await withAccount(url, async (account, database) => {
      const options = [
        '--single-transaction',
        '--quick',
        '--hex-blob',
        '--skip-add-locks',
        '--no-tablespaces',
        '--skip-comments',
      ];
      const more = ['--max-allowed-packet=256M', '--default-character-set=utf8mb4', database];
      const dump = program(
        'mariadb-dump',
        [`--defaults-extra-file=${account}`, ...options, ...more],
        ['ignore', 'pipe', 'pipe'],
        signal,
      );
      const hash = createHash('sha256');
      async function* framed() {
        const first = Buffer.from(`${HEAD}${JSON.stringify(head)}\n`);
        hash.update(first);
        yield first;
        for await (const block of dump.child.stdout) {
          hash.update(block);
          yield block;
        }
        await dump.end;
        yield Buffer.from(`${FOOT}${hash.digest('hex')}\n`);
      }
      await pipeline(framed, createGzip(), createWriteStream(part, { mode: 0o600 }), { signal });
    });
    const handle = openSync(part, 'r');
    fsyncSync(handle);
    closeSync(handle);
    renameSync(part, file);
    return head;
  } finally {
    rmSync(part, { force: true });
  }
}

/** Reads a backup to its end and compares its checksum. Returns what its first line says; refuses what is no backup, cut off or altered. */
export async function readBackup(file) {
  const hash = createHash('sha256');
  let head = null;
  let first = Buffer.alloc(0);
  let last = Buffer.alloc(0);
  const check = new Writable({
    write(block, _encoding, done) {
      if (head === null) {
        first = Buffer.concat([first, block]);
        const end = first.indexOf('\n');
        if (end >= 0) head = first.subarray(0, end).toString();
      }
      const both = Buffer.concat([last, block]);
      const known = Math.max(0, both.length - FOOT_LENGTH);
      hash.update(both.subarray(0, known));
      last = both.subarray(known);
      done();
    },
  });
  const cut = `${file} is not a whole backup: it breaks off or was altered. Nothing was changed; use another one.`;
  try {
    await pipeline(createReadStream(file), createGunzip(), check);
  } catch (error) {
    if (error.code === 'ENOENT') throw new BackupRefused(`There is no file ${file}.`);
    throw new BackupRefused(
      error.code === 'Z_DATA_ERROR' && head === null ? `${file} is not a backup of Verdict.` : cut,
    );
  }
  if (!head?.startsWith(HEAD)) throw new BackupRefused(`${file} is not a backup of Verdict.`);
  if (last.toString() !== `${FOOT}${hash.digest('hex')}\n`) throw new BackupRefused(cut);
  return JSON.parse(head.slice(HEAD.length));
}

/** Puts what a backup holds into an empty database. */
export async function loadBackup(url, file) {
  await withAccount(url, async (account, database) => {
    const options = ['--max-allowed-packet=256M', '--default-character-set=utf8mb4', database];
    const client = program('mariadb', [`--defaults-extra-file=${account}`, ...options], ['pipe', 'ignore', 'pipe']);
    await pipeline(createReadStream(file), createGunzip(), client.child.stdin).catch(async (error) => {
      await client.end;
      throw error;
    });
    await client.end;
  });
}
