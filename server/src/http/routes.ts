import {
  changeRequestSchema,
  eventsQuerySchema,
  idSchema,
  JOBS,
  keepRequestSchema,
  looksRequestSchema,
  newStudySchema,
  orderRequestSchema,
  recordQuerySchema,
  reopenRequestSchema,
  ruleRequestSchema,
  sayRequestSchema,
  stepRequestSchema,
} from '@verdict/contract';
import { Router, type Request, type Response } from 'express';
import { randomUUID } from 'node:crypto';
import type { HeadsFile } from '../heads-file.js';
import { withImportBody, withoutFirst } from '../files/import-body.js';
import { rowsOfStream } from '../files/rows-of-stream.js';
import type { Jobs } from '../jobs/jobs.js';
import type { AnalysisPool } from '../jobs/analysis-pool.js';
import { recompute } from '../jobs/recompute.js';
import { recomputeUnasked } from '../jobs/recompute-unasked.js';
import type { StorePool } from '../jobs/store-pool.js';
import { makeChange, type Made } from '../store/changes.js';
import { readRecord } from '../store/history.js';
import type { Database } from '../store/database.js';
import { orderEvidence, sayOfEvidence } from '../store/arranged.js';
import { countEvidence, listEvidence } from '../store/evidence.js';
import { listLooks, noteLooks } from '../store/looks.js';
import { importColumns } from '../store/imports.js';
import { binStudy } from '../store/bin.js';
import { createStudy, readStudy, readStudyCells } from '../store/studies.js';
import { reopen, rule } from '../store/verdicts.js';
import { bodyOf, whoOf } from './json-body.js';
import { jobRoutes } from './job-routes.js';
import { studyList } from './study-list.js';
import type { StudyFeed } from './study-feed.js';
import { requireStudy } from '../store/study-row.js';

export interface Surroundings {
  db: Database;
  store: StorePool;
  pool: AnalysisPool;
  feed: StudyFeed;
  jobs: Jobs;
  heads: HeadsFile;
  /** A body of which nothing comes for so long is given up. */
  idleMilliseconds: number;
  /** Errors in background work. */
  failed: (error: unknown) => void;
}

/** Changes that read or write whole columns, however small their request is. */
const LONG_CHANGES = new Set<string>(['insert-rows', 'remove-rows', 'freeze-column']);

/** Every route: validate, call the store, answer. */
export function routes({ db, store, pool, feed, jobs, heads, idleMilliseconds, failed }: Surroundings): Router {
  const router = Router();
  const list = studyList(db, store, failed);
  const recomputeLater = recomputeUnasked(
    { db, store, pool },
    (id, outcome) => feed.tell(id, 'evidence', outcome),
    failed,
  );
  function change(req: Request<{ id: string }>): Promise<Made> {
    if (Buffer.isBuffer(req.body)) return store.makeChange(req.params.id, req.body);
    const request = changeRequestSchema.parse(req.body);
    return LONG_CHANGES.has(request.change.kind)
      ? store.makeChange(req.params.id, request)
      : makeChange(db, req.params.id, request);
  }
  router.param('id', (_req, _res, next, id) => next(idSchema.safeParse(id).error));

  router.get('/studies', (req, res) => list(req, res));
  router.post('/studies', async (req, res) => {
    res.status(201).json({ id: await createStudy(db, { id: randomUUID(), ...bodyOf(req, newStudySchema) }) });
  });
  router.get('/studies/:id', async (req, res) => res.json(await readStudy(db, req.params.id)));
  router.get('/studies/:id/cells', async (req, res) => {
    const gone = () => req.socket.destroyed;
    const cells = await readStudyCells(db, req.params.id, gone);
    if (!gone()) res.type('json').send(cells);
  });
  const bin = (inBin: boolean) => async (req: Request<{ id: string }>, res: Response) => {
    const who = whoOf(req);
    const done = await binStudy(db, req.params.id, inBin, who);
    feed.announce(req.params.id, done && { ...done, token: '', who, change: null });
    res.status(204).end();
  };
  router.delete('/studies/:id', bin(true));
  router.post('/studies/:id/restore', bin(false));

  router.get('/studies/:id/changes', async (req, res) => {
    const { before } = recordQuerySchema.parse(req.query);
    res.json(await readRecord(db, req.params.id, before));
  });
  router.get('/studies/:id/audit', async (req, res) => {
    const { audit, chain } = await store.auditStudy(req.params.id);
    res.json(await heads.checked(req.params.id, audit, chain));
  });
  router.post('/studies/:id/changes', async (req, res) => {
    const { done, announced } = await change(req);
    feed.announce(req.params.id, announced);
    res.json(done);
  });
  router.post('/studies/:id/steps', async (req, res) => {
    const { done, announced } = await store.stepBack(req.params.id, bodyOf(req, stepRequestSchema));
    feed.announce(req.params.id, announced);
    // With what was done, so that the page need not read every cell again.
    res.json({ ...done, change: announced?.change ?? null });
  });
  router.post('/studies/:id/imports', async (req, res) => {
    const { done, announced } = await withImportBody(req, idleMilliseconds, (head, file) => {
      const rows = withoutFirst(rowsOfStream(file, head.separator, head.encoding), head.skip);
      return importColumns(db, req.params.id, head, rows, () => req.socket.destroyed);
    });
    feed.announce(req.params.id, announced);
    res.json(done);
  });
  router.get('/events', (req, res) => {
    const { of } = eventsQuerySchema.parse(req.query);
    const standing = async (id: string) =>
      id === JOBS ? {} : { revision: (await requireStudy(db, id)).revision, kept: await countEvidence(db, id) };
    return feed.follow([...new Set(of)], standing, req, res);
  });

  router.get('/studies/:id/evidence', async (req, res) => {
    const kept = await listEvidence(db, req.params.id);
    res.json(kept);
    recomputeLater(req.params.id, kept);
  });
  router.post('/studies/:id/evidence', async (req, res) => {
    const kept = await store.keepEvidence(req.params.id, bodyOf(req, keepRequestSchema));
    feed.tell(req.params.id, 'kept', { id: kept.id });
    res.status(201).json(kept);
    recomputeLater(req.params.id, [kept]);
  });
  router.get('/studies/:id/evidence/stale', async (req, res) => res.json(await store.staleEvidence(req.params.id)));
  router.post('/studies/:id/evidence/order', async (req, res) => {
    const request = bodyOf(req, orderRequestSchema);
    await orderEvidence(db, req.params.id, request);
    feed.tell(req.params.id, 'kept', { id: request.order[0]! });
    res.status(204).end();
  });
  router.post('/evidence/:id', async (req, res) => {
    const { said, studyId } = await sayOfEvidence(db, req.params.id, bodyOf(req, sayRequestSchema));
    feed.tell(studyId, 'kept', { id: said.id });
    res.json(said);
  });
  router.get('/studies/:id/looks', async (req, res) => res.json(await listLooks(db, req.params.id)));
  router.post('/studies/:id/looks', async (req, res) => {
    await noteLooks(db, req.params.id, bodyOf(req, looksRequestSchema).looks);
    res.status(204).end();
  });
  router.post('/evidence/:id/recompute', async (req, res) => res.json(await recompute(db, store, pool, req.params.id)));

  router.use(jobRoutes({ db, store, jobs }));

  router.post('/studies/:id/verdict', async (req, res) => {
    const request = bodyOf(req, ruleRequestSchema);
    const { stale } = await store.staleEvidence(req.params.id);
    const done = await rule(db, req.params.id, request, stale);
    feed.announce(req.params.id, { ...done, token: '', who: request.who, change: null });
    res.json(done);
  });
  router.post('/studies/:id/reopen', async (req, res) => {
    const request = bodyOf(req, reopenRequestSchema);
    const done = await reopen(db, req.params.id, request);
    feed.announce(req.params.id, { ...done, token: '', who: request.who, change: null });
    res.json(done);
  });
  return router;
}
