import { idSchema } from '@verdict/contract';
import { Router, type Request } from 'express';
import { pipeline } from 'node:stream/promises';
import { bytesInto, bytesOf, withSpool } from '../files/spool.js';
import { withStreamedBody } from '../files/streamed-body.js';
import type { StorePool } from '../jobs/store-pool.js';
import { StoreError } from '../store/errors.js';
import { refuseCharset, whoOf } from './json-body.js';

/** A study file comes as it is: it is not held in memory, and so not unpacked either. */
function refuseEncoded(req: Request): void {
  refuseCharset(req);
  if ((req.headers['content-encoding'] ?? 'identity') !== 'identity')
    throw new StoreError('encoding', 'A study file must not be compressed.');
}

/** Saving and opening whole studies: as streams, through a file outside the memory. Comes before the other bodies are read. */
export function studyFileRoutes({ store, idleMilliseconds }: { store: StorePool; idleMilliseconds: number }): Router {
  const router = Router();
  router.param('id', (_req, _res, next, id) => next(idSchema.safeParse(id).error));
  router.post('/studies/saved', (req, res) =>
    withSpool(async (file) => {
      const who = whoOf(req);
      refuseEncoded(req);
      await withStreamedBody(req, idleMilliseconds, (chunks) => bytesInto(file.fd, chunks));
      res.status(201).json(await store.openStudy(file.fd, who));
    }),
  );
  router.get('/studies/:id/saved', (req, res) =>
    withSpool(async (file) => {
      await store.saveStudy(req.params.id, file.fd);
      const { size } = await file.stat();
      res.type('json').setHeader('Content-Length', size);
      // Who goes away in the middle is not told anything.
      await pipeline(bytesOf(file.fd), res).catch(() => undefined);
    }),
  );
  return router;
}
