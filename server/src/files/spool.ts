import { STUDY_FILE_LIMIT } from '@verdict/contract';
import { randomUUID } from 'node:crypto';
import { read, writeSync } from 'node:fs';
import { open, unlink, type FileHandle } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { StoreError } from '../store/errors.js';

/** A file without a name: room outside the memory that is given back however the process ends. Its number can be used by every thread. */
export async function withSpool<T>(use: (file: FileHandle) => Promise<T>): Promise<T> {
  const path = join(tmpdir(), `verdict-${randomUUID()}`);
  const file = await open(path, 'wx+', 0o600);
  try {
    await unlink(path);
    return await use(file);
  } finally {
    await file.close();
  }
}

const readFrom = promisify(read);
const READ_AT_ONCE = 64 * 1024;

/** The bytes of an open file from its beginning; it stays open, whoever stops reading. */
export async function* bytesOf(file: number): AsyncGenerator<Uint8Array> {
  for (let at = 0; ;) {
    const { bytesRead, buffer } = await readFrom(file, Buffer.alloc(READ_AT_ONCE), 0, READ_AT_ONCE, at);
    if (bytesRead === 0) return;
    yield buffer.subarray(0, bytesRead);
    at += bytesRead;
  }
}

const LIMIT = `${STUDY_FILE_LIMIT / 1024 / 1024} MB`;
const TOO_LARGE = {
  saved: `The study would make a file of more than ${LIMIT}, which could not be opened again. A backup holds it: npm run backup.`,
  opened: `A study file may have at most ${LIMIT}. Nothing was stored.`,
};

/** Writes into an open file, and refuses more than the limit of a study file. */
function limited(file: number, words: string): (bytes: Uint8Array) => void {
  let at = 0;
  return (bytes) => {
    if (at + bytes.length > STUDY_FILE_LIMIT) throw new StoreError('too-large', words);
    for (let done = 0; done < bytes.length;) done += writeSync(file, bytes, done, bytes.length - done, at + done);
    at += bytes.length;
  };
}

/** Characters that are written at once. */
const WRITTEN_AT_ONCE = 256 * 1024;

/** Writes a study file as text, some at a time. */
export function textInto(file: number): { write: (text: string) => void; end: () => void } {
  const put = limited(file, TOO_LARGE.saved);
  let waiting = '';
  const end = () => {
    put(Buffer.from(waiting));
    waiting = '';
  };
  const write = (text: string) => {
    waiting += text;
    if (waiting.length > WRITTEN_AT_ONCE) end();
  };
  return { write, end };
}

/** Writes the bytes of a study file as they come. */
export async function bytesInto(file: number, bytes: AsyncIterable<Uint8Array>): Promise<void> {
  const put = limited(file, TOO_LARGE.opened);
  for await (const some of bytes) put(some);
}
