import {
  NOTHING_SAID,
  type ChangeInput,
  type Checked,
  type Problem,
  type StepRequest,
  type Study,
} from '@verdict/contract';
import { randomUUID } from 'node:crypto';
import { Writable } from 'node:stream';
import { inject } from 'vitest';
import { serve, type Running } from '../src/serve.js';

/** What was logged since the server started, for tests that look for what must not be there. */
export interface TestServer extends Running {
  logged: () => string;
  get<T>(path: string): Promise<T>;
  post<T>(path: string, body: unknown): Promise<{ status: number; body: T & Partial<Problem> }>;
  /** Ends at once, in the middle of work; `close` checks every study first. */
  stop(): Promise<void>;
  newStudy(): Promise<string>;
  /** A study that a test has altered beside the record: it is not checked at the end. */
  altered(id: string): void;
  study(id: string): Promise<Study>;
  cellsOf(id: string): Promise<Record<string, string[]>>;
  step(id: string, step: StepRequest['step'], target?: number): ReturnType<TestServer['change']>;
  change(
    id: string,
    change: ChangeInput,
    revision?: number,
  ): Promise<{ status: number; body: { revision: number } & Partial<Problem> }>;
}

interface Started {
  running: Running;
  logged: () => string;
}

async function serving(
  databaseUrl: string,
  migrationUrl: string,
  page: string | null,
  more: { idleMilliseconds?: number; storeEveryMilliseconds?: number; heads?: string; secret?: string },
): Promise<Started> {
  let logged = '';
  const log = new Writable({
    write(chunk, _encoding, done) {
      logged += String(chunk);
      done();
    },
  });
  const running = await serve({ databaseUrl, migrationUrl, ports: [0], page, demo: null, log, ...more });
  return { running, logged: () => logged };
}

/** A server of one's own. */
export const startServer = async (
  databaseUrl = inject('databaseUrl'),
  migrationUrl = inject('migrationUrl'),
  page: string | null = null,
  more: Parameters<typeof serving>[3] = {},
): Promise<TestServer> => asked(await serving(databaseUrl, migrationUrl, page, more));

let shared: Promise<Started> | null = null;
/** The server of all files that ask for nothing special: to start one takes seconds. It ends with the tests; `close` checks the studies of the file. */
export async function sharedServer(): Promise<TestServer> {
  shared ??= serving(inject('databaseUrl'), inject('migrationUrl'), null, { storeEveryMilliseconds: 50 });
  const { running, logged } = await shared;
  return asked({ running: { ...running, close: () => Promise.resolve() }, logged });
}

function asked({ running, logged }: Started): TestServer {
  const url = (path: string) => `${running.url}api${path}`;
  const post: TestServer['post'] = async (path, body) => {
    const headers = { 'Content-Type': 'application/json' };
    const response = await fetch(url(path), { method: 'POST', headers, body: JSON.stringify(body) });
    return { status: response.status, body: await response.json().catch(() => null) };
  };
  const get: TestServer['get'] = async (path) => (await fetch(url(path))).json();
  const study = (id: string) => get<Study>(`/studies/${id}`);
  const begun: string[] = [];
  /** Whatever a test has done to its studies, they agree with their records. */
  async function auditAll(): Promise<void> {
    const outcomes = await Promise.all(
      begun.map(async (id) => [id, (await get<Checked>(`/studies/${id}/audit`)).notVerified] as const),
    );
    const broken = outcomes.filter(([, fault]) => fault !== null && fault !== undefined);
    if (broken.length > 0) throw new Error(`Studies that do not agree with their records: ${JSON.stringify(broken)}`);
  }
  return {
    ...running,
    logged,
    get,
    post,
    study,
    cellsOf: async (id) => (await get<{ cells: Record<string, string[]> }>(`/studies/${id}/cells`)).cells,
    step: async (id, step, target) =>
      post(`/studies/${id}/steps`, {
        token: randomUUID(),
        revision: (await study(id)).revision,
        who: 'tester',
        step,
        ...(target === undefined ? {} : { target }),
      }),
    stop: () => running.close(),
    close: async () => {
      await auditAll().finally(() => running.close());
    },
    newStudy: async () => {
      const { id } = (await post<{ id: string }>('/studies', {})).body;
      begun.push(id);
      return id;
    },
    altered: (id) => begun.splice(begun.indexOf(id), 1),
    change: async (id, change, revision) =>
      post(`/studies/${id}/changes`, {
        token: randomUUID(),
        revision: revision ?? (await study(id)).revision,
        who: 'tester',
        change,
      }),
  };
}

/** A column of text as a change adds it. */
export function column(name: string, cells: string[], more: object = {}) {
  const format = { decimal: 'point', thousands: 'none' } as const;
  const base = { id: randomUUID() as string, name, unit: 'mm', kind: 'measure' as const, ...format };
  return { ...base, ...NOTHING_SAID, cells, ...more };
}
