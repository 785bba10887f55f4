import { idSchema, jobRequestSchema } from '@verdict/contract';
import { Router } from 'express';
import type { Jobs } from '../jobs/jobs.js';
import type { StorePool } from '../jobs/store-pool.js';
import type { Database } from '../store/database.js';
import { jobResult, listJobs, removeJob } from '../store/jobs.js';
import { requireStudy } from '../store/study-row.js';
import { bodyOf } from './json-body.js';

interface Surroundings {
  db: Database;
  store: StorePool;
  jobs: Jobs;
}

/** Long work that pages hand over. */
export function jobRoutes({ db, store, jobs }: Surroundings): Router {
  const router = Router();
  router.param('id', (_req, _res, next, id) => next(idSchema.safeParse(id).error));

  router.get('/jobs', async (_req, res) => res.json(await listJobs(db)));
  router.get('/jobs/:id/result', async (req, res) => res.json({ result: await jobResult(db, req.params.id) }));
  router.post('/jobs/:id/stop', async (req, res) => res.json(await jobs.stop(req.params.id)));
  router.post('/jobs/:id/resume', async (req, res) => res.json(await jobs.resume(req.params.id)));
  router.delete('/jobs/:id', async (req, res) => {
    await removeJob(db, req.params.id);
    res.status(204).end();
  });

  router.get('/studies/:id/jobs', async (req, res) => {
    await requireStudy(db, req.params.id);
    res.json(await listJobs(db, { study: req.params.id }));
  });
  router.post('/studies/:id/jobs', async (req, res) => {
    const job = await store.createJob(req.params.id, bodyOf(req, jobRequestSchema));
    if (job.state === 'running') jobs.start(job.id);
    res.status(201).json(job);
  });
  return router;
}
