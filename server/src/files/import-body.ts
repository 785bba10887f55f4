import { importHeadSchema, type ImportHead } from '@verdict/contract';
import type { Readable } from 'node:stream';
import { StoreError } from '../store/errors.js';

const LONGEST_HEAD = 512 * 1024;
const BREAK = 10;

async function readHead(chunks: Pick<AsyncIterator<Buffer>, 'next'>): Promise<{ head: ImportHead; rest: Buffer }> {
  let read = Buffer.alloc(0);
  while (!read.includes(BREAK)) {
    const { value, done } = await chunks.next();
    if (done || read.length > LONGEST_HEAD) {
      throw new StoreError('invalid', 'The import has no head.', { field: 'head' });
    }
    read = Buffer.concat([read, value]);
  }
  const end = read.indexOf(BREAK);
  try {
    const json: unknown = JSON.parse(read.subarray(0, end).toString('utf8'));
    return { head: importHeadSchema.parse(json), rest: read.subarray(end + 1) };
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    throw new StoreError('invalid', 'The head of the import is not JSON.', { field: 'head' });
  }
}

/** The chunks of a body; one that stays away for too long ends them with a refusal. `leave` lets the rest run through unread. */
function chunksOf(body: Readable, idleMilliseconds: number) {
  const chunks = body.iterator({ destroyOnReturn: false }) as AsyncIterator<Buffer>;
  let silent = false;
  async function next(): Promise<IteratorResult<Buffer>> {
    let timer: NodeJS.Timeout | undefined;
    const idle = new Promise<never>((_, reject) => {
      const said = `Nothing came for ${idleMilliseconds / 1000} seconds, so the import was given up. Nothing was stored.`;
      timer = setTimeout(() => {
        silent = true;
        reject(new StoreError('idle', said));
      }, idleMilliseconds);
    });
    try {
      return await Promise.race([chunks.next(), idle]);
    } finally {
      clearTimeout(timer);
    }
  }
  async function leave(): Promise<void> {
    const left = chunks.return?.();
    // A body that stays away holds the iterator for as long: only one that comes can be waited for.
    if (!silent) await left;
    body.resume();
  }
  return { next, leave };
}

/**
 * The body of an import: one line of JSON that says what follows, then the file itself, byte for byte. What `use` leaves of a refused
 * body is read to its end, so that the connection can carry the answer and the next request.
 */
export async function withImportBody<T>(
  body: Readable,
  idleMilliseconds: number,
  use: (head: ImportHead, file: AsyncIterable<Uint8Array>) => Promise<T>,
): Promise<T> {
  const chunks = chunksOf(body, idleMilliseconds);
  async function* file(first: Buffer) {
    yield first;
    for (let next = await chunks.next(); !next.done; next = await chunks.next()) yield next.value;
  }
  try {
    const { head, rest } = await readHead(chunks);
    return await use(head, file(rest));
  } finally {
    await chunks.leave();
  }
}

/** All rows but the first few. */
export async function* withoutFirst(rows: AsyncIterable<string[]>, count: number): AsyncGenerator<string[]> {
  let skipped = 0;
  for await (const row of rows) if (skipped++ >= count) yield row;
}
