import { importHeadSchema, type ImportHead } from '@verdict/contract';
import type { Readable } from 'node:stream';
import { StoreError } from '../store/errors.js';

const LONGEST_HEAD = 512 * 1024;
const BREAK = 10;

/** The body of an import: one line of JSON that says what follows, then the file itself, byte for byte. */
export async function readImportBody(body: Readable): Promise<{ head: ImportHead; file: AsyncIterable<Uint8Array> }> {
  const chunks = body[Symbol.asyncIterator]() as AsyncIterator<Buffer>;
  let read = Buffer.alloc(0);
  while (!read.includes(BREAK)) {
    const { value, done } = await chunks.next();
    if (done || read.length > LONGEST_HEAD) {
      throw new StoreError('invalid', 'The import has no head.', { field: 'head' });
    }
    read = Buffer.concat([read, value]);
  }
  const end = read.indexOf(BREAK);
  let json: unknown;
  try {
    json = JSON.parse(read.subarray(0, end).toString('utf8'));
  } catch {
    throw new StoreError('invalid', 'The head of the import is not JSON.', { field: 'head' });
  }
  async function* file() {
    yield read.subarray(end + 1);
    for (let next = await chunks.next(); !next.done; next = await chunks.next()) yield next.value;
  }
  return { head: importHeadSchema.parse(json), file: file() };
}

/** All rows but the first few. */
export async function* withoutFirst(rows: AsyncIterable<string[]>, count: number): AsyncGenerator<string[]> {
  let skipped = 0;
  for await (const row of rows) if (skipped++ >= count) yield row;
}
