import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino, type DestinationStream } from 'pino';
import { loadDemo } from './demo.js';
import { HeadsFile } from './heads-file.js';
import { Access } from './http/access.js';
import { createApp } from './http/app.js';
import { createAnalysisPool } from './jobs/analysis-pool.js';
import { JOBS } from '@verdict/contract';
import { StudyFeed } from './http/study-feed.js';
import { Jobs } from './jobs/jobs.js';
import { createStorePool } from './jobs/store-pool.js';
import { beginChains } from './store/begin-chains.js';
import { migrateDatabase, openDatabase } from './store/database.js';
import { grantRights } from './store/grants.js';
import { discardLeftOver } from './store/imports.js';

export interface Settings {
  /** The account the server works with: reads and writes rows, defines nothing. */
  databaseUrl: string;
  /** The account that may define tables; used for migrations at start only. */
  migrationUrl: string;
  /** Ports to try in turn; 0 takes any free one. */
  ports: number[];
  page: string | null;
  demo: URL | null;
  log: DestinationStream;
  /** How long an import may send nothing before it is given up; 15 seconds unless said. */
  idleMilliseconds?: number;
  /** A file outside the database that the ends of all chains are added to. */
  heads?: string | null;
  /** The secret of those who are let in; none lets everybody on this machine in. */
  secret?: string | null;
  /** How often the work of jobs is stored; every second unless said. */
  storeEveryMilliseconds?: number;
}

export interface Running {
  url: string;
  /** An address that lets in the browser that opens it first. */
  newAddress(): string;
  close(): Promise<void>;
}

function listen(server: Server, ports: number[]): Promise<number> {
  const [port = 0, ...others] = ports;
  return new Promise((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      if (error.code === 'EADDRINUSE' && others.length > 0) resolve(listen(server, others));
      else reject(error);
    });
    server.listen(port, '127.0.0.1', () => {
      server.removeAllListeners('error');
      resolve((server.address() as AddressInfo).port);
    });
  });
}

/** Migrates, loads the demo once, and serves on loopback. */
export async function serve(settings: Settings): Promise<Running> {
  const log = pino({ level: 'info', base: null }, settings.log);
  await migrateDatabase(settings.migrationUrl);
  if (!(await grantRights(settings.migrationUrl, settings.databaseUrl)))
    log.warn('the account of the server may alter the record; see docs/reliability.md');
  const { db, close } = openDatabase(settings.databaseUrl);
  await discardLeftOver(db);
  await beginChains(db);
  if (settings.demo) await loadDemo(db, settings.demo);
  const pool = createAnalysisPool();
  const store = createStorePool(settings.databaseUrl);
  const { page, idleMilliseconds = 15_000, storeEveryMilliseconds = 1_000 } = settings;
  const failed = (error: unknown) => log.error({ name: (error as Error).name }, 'background work failed');
  const heads = new HeadsFile(db, settings.heads ?? null, failed);
  const access = new Access(settings.secret ?? null);
  const feed = new StudyFeed((channel) => heads.note(channel));
  const jobs = new Jobs({
    ...{ db, store, pool, storeEveryMilliseconds },
    tell: (job) => [job.study.id, JOBS].forEach((channel) => feed.tell(channel, 'job', job)),
    failed: (error) => log.error({ name: (error as Error).name }, 'a job failed'),
  });
  const server = createServer(createApp({ db, store, pool, feed, jobs, heads, access, log, idleMilliseconds, page }));
  // Longer than clients keep a connection: none is closed while a request is on its way to it.
  server.keepAliveTimeout = 75_000;
  const port = await listen(server, settings.ports);
  await jobs.goOn();
  log.info({ port }, 'ready');
  const url = `http://127.0.0.1:${port}/`;
  return {
    url,
    newAddress: () => `${url}${access.newKey()}`,
    close: async () => {
      server.closeAllConnections();
      await new Promise((done) => server.close(done));
      await jobs.close();
      await Promise.all([pool.close(), store.close(), close()]);
      log.info('stopped');
    },
  };
}
