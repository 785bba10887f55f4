import {
  changeRequestSchema,
  idSchema,
  keepRequestSchema,
  newStudySchema,
  noteRequestSchema,
  reopenRequestSchema,
  ruleRequestSchema,
  stepRequestSchema,
} from '@verdict/contract';
import { Router } from 'express';
import { randomUUID } from 'node:crypto';
import type { AnalysisPool } from '../jobs/analysis-pool.js';
import { recompute } from '../jobs/recompute.js';
import { makeChange, readRecord, stepBack } from '../store/changes.js';
import type { Database } from '../store/database.js';
import { keepEvidence, listEvidence, noteEvidence } from '../store/evidence.js';
import { binStudy, createStudy, listStudies, readStudy, readStudyCells } from '../store/studies.js';
import { reopen, rule } from '../store/verdicts.js';

/** Every route: validate, call the store, answer. */
export function routes(db: Database, pool: AnalysisPool): Router {
  const router = Router();
  router.param('id', (_req, _res, next, id) => next(idSchema.safeParse(id).error));

  router.get('/studies', async (req, res) => res.json(await listStudies(db, req.query.bin === '1')));
  router.post('/studies', async (req, res) => {
    const { name } = newStudySchema.parse(req.body);
    res.status(201).json({ id: await createStudy(db, randomUUID(), name) });
  });
  router.get('/studies/:id', async (req, res) => res.json(await readStudy(db, req.params.id)));
  router.get('/studies/:id/cells', async (req, res) => res.json(await readStudyCells(db, req.params.id)));
  router.delete('/studies/:id', async (req, res) => {
    await binStudy(db, req.params.id, true);
    res.status(204).end();
  });
  router.post('/studies/:id/restore', async (req, res) => {
    await binStudy(db, req.params.id, false);
    res.status(204).end();
  });

  router.get('/studies/:id/changes', async (req, res) => res.json(await readRecord(db, req.params.id)));
  router.post('/studies/:id/changes', async (req, res) => {
    res.json(await makeChange(db, req.params.id, changeRequestSchema.parse(req.body)));
  });
  router.post('/studies/:id/steps', async (req, res) => {
    res.json(await stepBack(db, req.params.id, stepRequestSchema.parse(req.body)));
  });

  router.get('/studies/:id/evidence', async (req, res) => res.json(await listEvidence(db, req.params.id)));
  router.post('/studies/:id/evidence', async (req, res) => {
    res.status(201).json(await keepEvidence(db, req.params.id, keepRequestSchema.parse(req.body)));
  });
  router.post('/evidence/:id/note', async (req, res) => {
    res.json(await noteEvidence(db, req.params.id, noteRequestSchema.parse(req.body).note));
  });
  router.post('/evidence/:id/recompute', async (req, res) => res.json(await recompute(db, pool, req.params.id)));

  router.post('/studies/:id/verdict', async (req, res) => {
    res.json(await rule(db, req.params.id, ruleRequestSchema.parse(req.body)));
  });
  router.post('/studies/:id/reopen', async (req, res) => {
    res.json(await reopen(db, req.params.id, reopenRequestSchema.parse(req.body)));
  });
  return router;
}
