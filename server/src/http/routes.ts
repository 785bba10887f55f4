import {
  changeRequestSchema,
  idSchema,
  keepRequestSchema,
  newStudySchema,
  noteRequestSchema,
  reopenRequestSchema,
  ruleRequestSchema,
  stepRequestSchema,
  studyFileSchema,
} from '@verdict/contract';
import { Router } from 'express';
import { randomUUID } from 'node:crypto';
import { withImportBody, withoutFirst } from '../files/import-body.js';
import { rowsOfStream } from '../files/rows-of-stream.js';
import type { AnalysisPool } from '../jobs/analysis-pool.js';
import { recompute } from '../jobs/recompute.js';
import { makeChange, readRecord, stepBack } from '../store/changes.js';
import type { Database } from '../store/database.js';
import { keepEvidence, listEvidence, noteEvidence } from '../store/evidence.js';
import { importColumns } from '../store/imports.js';
import { binStudy, createStudy, listStudies, readStudy, readStudyCells } from '../store/studies.js';
import { openStudy, saveStudy } from '../store/study-file.js';
import { reopen, rule } from '../store/verdicts.js';
import type { StudyFeed } from './study-feed.js';

/** Every route: validate, call the store, answer. */
export function routes(db: Database, pool: AnalysisPool, feed: StudyFeed): Router {
  const router = Router();
  router.param('id', (_req, _res, next, id) => next(idSchema.safeParse(id).error));

  router.get('/studies', async (req, res) => res.json(await listStudies(db, req.query.bin === '1')));
  router.post('/studies', async (req, res) => {
    const { name } = newStudySchema.parse(req.body);
    res.status(201).json({ id: await createStudy(db, randomUUID(), name) });
  });
  router.post('/studies/saved', async (req, res) => {
    res.status(201).json({ id: await openStudy(db, studyFileSchema.parse(req.body)) });
  });
  router.get('/studies/:id/saved', async (req, res) => res.json(await saveStudy(db, req.params.id)));
  router.get('/studies/:id', async (req, res) => res.json(await readStudy(db, req.params.id)));
  router.get('/studies/:id/cells', async (req, res) => res.type('json').send(await readStudyCells(db, req.params.id)));
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
    const { done, announced } = await makeChange(db, req.params.id, changeRequestSchema.parse(req.body));
    feed.announce(req.params.id, announced);
    res.json(done);
  });
  router.post('/studies/:id/steps', async (req, res) => {
    const { done, announced } = await stepBack(db, req.params.id, stepRequestSchema.parse(req.body));
    feed.announce(req.params.id, announced);
    res.json(done);
  });
  router.post('/studies/:id/imports', async (req, res) => {
    const { done, announced } = await withImportBody(req, (head, file) => {
      const rows = withoutFirst(rowsOfStream(file, head.separator, head.encoding), head.skip);
      return importColumns(db, req.params.id, head, rows, () => req.socket.destroyed);
    });
    feed.announce(req.params.id, announced);
    res.json(done);
  });
  router.get('/studies/:id/events', async (req, res) => {
    const { revision } = await readStudy(db, req.params.id);
    feed.follow(req.params.id, revision, req, res);
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
    const request = ruleRequestSchema.parse(req.body);
    const done = await rule(db, req.params.id, request);
    feed.announce(req.params.id, { ...done, token: '', who: request.who, change: null });
    res.json(done);
  });
  router.post('/studies/:id/reopen', async (req, res) => {
    const request = reopenRequestSchema.parse(req.body);
    const done = await reopen(db, req.params.id, request);
    feed.announce(req.params.id, { ...done, token: '', who: request.who, change: null });
    res.json(done);
  });
  return router;
}
