import { importHeadSchema, type ImportHead } from '@verdict/contract';
import type { Readable } from 'node:stream';
import { StoreError } from '../store/errors.js';
import { withStreamedBody } from './streamed-body.js';

const LONGEST_HEAD = 512 * 1024;
const BREAK = 10;

async function readHead(chunks: Pick<AsyncIterator<Buffer>, 'next'>): Promise<{ head: ImportHead; rest: Buffer }> {
  let read = Buffer.alloc(0);
  while (!read.includes(BREAK)) {
    const { value, done } = await chunks.next();
    if (done || read.length > LONGEST_HEAD) {
      throw new StoreError('invalid', 'The import has no header.', { field: 'head' });
    }
    read = Buffer.concat([read, value]);
  }
  const end = read.indexOf(BREAK);
  try {
    const json: unknown = JSON.parse(read.subarray(0, end).toString('utf8'));
    return { head: importHeadSchema.parse(json), rest: read.subarray(end + 1) };
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    throw new StoreError('invalid', 'The header of the import is not JSON.', { field: 'head' });
  }
}

/** The body of an import: one line of JSON that says what follows, then the file itself, byte for byte. */
export const withImportBody = <T>(
  body: Readable,
  idleMilliseconds: number,
  use: (head: ImportHead, file: AsyncIterable<Uint8Array>) => Promise<T>,
): Promise<T> =>
  withStreamedBody(body, idleMilliseconds, async (chunks) => {
    const { head, rest } = await readHead(chunks);
    async function* file() {
      yield rest;
      yield* chunks;
    }
    return use(head, file());
  });

/** All rows but the first few. */
export async function* withoutFirst(rows: AsyncIterable<string[]>, count: number): AsyncGenerator<string[]> {
  let skipped = 0;
  for await (const row of rows) if (skipped++ >= count) yield row;
}
