import type { Readable } from 'node:stream';
import { StoreError } from '../store/errors.js';

/** The chunks of a body; one that stays away for too long ends them with a refusal. `leave` lets the rest run through unread. */
function chunksOf(body: Readable, idleMilliseconds: number) {
  const chunks = body.iterator({ destroyOnReturn: false }) as AsyncIterator<Buffer>;
  let silent = false;
  async function next(): Promise<IteratorResult<Buffer>> {
    let timer: NodeJS.Timeout | undefined;
    const idle = new Promise<never>((_, reject) => {
      const said = `No data arrived for ${idleMilliseconds / 1000} seconds, so the upload was stopped. Nothing was stored.`;
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

/** A body as its bytes come. What `use` leaves of a refused one is read to its end, so that the connection can carry the answer and the next request. */
export async function withStreamedBody<T>(
  body: Readable,
  idleMilliseconds: number,
  use: (chunks: AsyncIterableIterator<Buffer>) => Promise<T>,
): Promise<T> {
  const { next, leave } = chunksOf(body, idleMilliseconds);
  const chunks: AsyncIterableIterator<Buffer> = { next, [Symbol.asyncIterator]: () => chunks };
  try {
    return await use(chunks);
  } finally {
    await leave();
  }
}
