import express, { type Express, type NextFunction, type Request, type Response } from 'express';
import type { Logger } from 'pino';
import type { AnalysisPool } from '../jobs/analysis-pool.js';
import type { HeadsFile } from '../heads-file.js';
import type { Jobs } from '../jobs/jobs.js';
import type { StorePool } from '../jobs/store-pool.js';
import type { Database } from '../store/database.js';
import type { Access } from './access.js';
import { headers, ownOriginOnly } from './guard.js';
import { jsonBody } from './json-body.js';
import { problemHandler, sendProblem } from './problems.js';
import { routes } from './routes.js';
import type { StudyFeed } from './study-feed.js';
import { studyFileRoutes } from './study-file-routes.js';

export interface Parts {
  db: Database;
  feed: StudyFeed;
  jobs: Jobs;
  heads: HeadsFile;
  access: Access;
  store: StorePool;
  pool: AnalysisPool;
  log: Logger;
  idleMilliseconds: number;
  /** The built page; without it only the API is served. */
  page: string | null;
}

export function createApp({ db, store, pool, feed, jobs, heads, access, log, idleMilliseconds, page }: Parts): Express {
  const app = express();
  app.disable('x-powered-by');
  // Answers of the API are never cached; a digest of each would only take time.
  app.disable('etag');
  app.use(ownOriginOnly, headers);
  app.use((req, res, next) => {
    const started = performance.now();
    res.on('finish', () => {
      const milliseconds = Math.round(performance.now() - started);
      // The path without its query: no reading, name or setting gets into the log.
      log.info({ method: req.method, path: req.path, status: res.statusCode, milliseconds }, 'request');
    });
    next();
  });
  app.use('/api', access.required, (_req: Request, res: Response, next: NextFunction) => {
    res.setHeader('Cache-Control', 'no-store');
    next();
  });
  // Names and places only: the message of a failed query holds its values.
  const failed = (error: unknown) => log.error({ name: (error as Error).name }, 'background work failed');
  app.use('/api', studyFileRoutes({ store, idleMilliseconds }), jsonBody);
  // For a second start, which prints an address of its own.
  app.post('/api/keys', (_req, res) => res.status(201).json({ address: access.newKey() }));
  app.use('/api', routes({ db, store, pool, feed, jobs, heads, idleMilliseconds, failed }));
  app.use('/api', (_req, res) =>
    sendProblem(res, {
      status: 404,
      title: 'Not found',
      detail: 'There is nothing at this address.',
      code: 'not-found',
    }),
  );
  if (page) {
    app.get('/{*splat}', access.byKey);
    // Built files carry a hash in their name and never change; the page itself must not outlive an update.
    const assets = { index: false, immutable: true, maxAge: '30d' } as const;
    app.use('/assets', express.static(`${page}/assets`, assets), (_req, res) =>
      sendProblem(res, { status: 404, title: 'Not found', detail: 'There is no such file.', code: 'not-found' }),
    );
    const fresh = { headers: { 'Cache-Control': 'no-cache' }, root: page };
    app.use(express.static(page, { index: false, maxAge: '1h' }));
    app.get('/{*splat}', (_req, res) => res.sendFile('index.html', fresh));
  }
  app.use(problemHandler(log));
  return app;
}
