import type { Request, Response } from 'express';
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import { OneByOne } from '../jobs/one-by-one.js';
import type { StorePool } from '../jobs/store-pool.js';
import type { Database } from '../store/database.js';
import { listDigest, listStudies } from '../store/studies.js';

const zipped = promisify(gzip);

interface Listing {
  /** What the list is of. */
  digest: string;
  plain: Buffer;
  zipped: Buffer;
  /** The studies whose readings have yet to be counted. */
  counting: string[];
}

/**
 * Work that many ask for at once and that is the same for all of them. Who asks while it is being done waits for the next time, for
 * something may have changed since it began; all who wait share that one.
 */
function shared<T>(work: () => Promise<T>): () => Promise<T> {
  let running: Promise<unknown> | null = null;
  let next: Promise<T> | null = null;
  return () => {
    next ??= (running ?? Promise.resolve())
      .catch(() => undefined)
      .then(() => {
        running = next;
        next = null;
        return work();
      });
    return next;
  };
}

/** Answers with the list of studies. Counts that it needs are updated afterwards, one study at a time, in a thread of its own. */
export function studyList(db: Database, store: StorePool, failed: (error: unknown) => void) {
  const counts = new OneByOne<string>((id) => store.countSubject(id), failed);
  async function made(digest: string, bin: boolean): Promise<Listing> {
    const studies = await listStudies(db, bin);
    const counting = studies.filter((study) => study.counting).map(({ id }) => id);
    const plain = Buffer.from(JSON.stringify(studies));
    return { digest, counting, plain, zipped: await zipped(plain) };
  }
  const listing = (bin: boolean) => {
    let last: Listing | null = null;
    return shared(async (): Promise<Listing> => {
      const digest = await listDigest(db);
      if (last?.digest !== digest) last = await made(digest, bin);
      for (const id of last.counting) counts.want(id, id);
      return last;
    });
  };
  const [inUse, binned] = [listing(false), listing(true)];
  return async (req: Request, res: Response): Promise<void> => {
    const found = await (req.query.bin === '1' ? binned : inUse)();
    if (req.socket.destroyed) return;
    res.type('json').vary('Accept-Encoding');
    if (!req.acceptsEncodings('gzip')) return void res.send(found.plain);
    res.set('Content-Encoding', 'gzip').send(found.zipped);
  };
}
