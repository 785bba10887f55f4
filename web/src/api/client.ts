import type {
  Announced,
  AskedKind,
  Checked,
  Evidence,
  Job,
  JobRequest,
  KeepInput,
  Look,
  Problem,
  Recomputed,
  RecordEntry,
  SayRequest,
  Study,
  StudyCells,
  StudySummary,
} from '@verdict/contract';
import { asProblem, JOBS } from '@verdict/contract';
import { followChannel } from './shared-feed.js';

/** An answer that is no success, as the problem the server described; `away` when there was no server, no database or no room on its disk: it may be sent again. */
export class ApiError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
  get away(): boolean {
    return [0, 503, 507].includes(this.problem.status);
  }
}

const UNREACHABLE: Problem = {
  type: 'about:blank',
  title: 'No answer',
  status: 0,
  code: 'unreachable',
  detail: 'Verdict does not respond. It may have been stopped. Start it again with npm start.',
};

/** The answer of the server, where it is one of success. A file goes up as it is. */
async function answered(method: string, path: string, body?: unknown): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      headers: body === undefined ? {} : { 'Content-Type': 'application/json' },
      body: body === undefined ? null : body instanceof Blob ? body : JSON.stringify(body),
    });
  } catch {
    throw new ApiError(UNREACHABLE);
  }
  if (response.ok) return response;
  const problem = asProblem(await response.json().catch(() => null));
  const detail = `The server answered ${response.status}.`;
  throw new ApiError(problem ?? { ...UNREACHABLE, status: response.status, code: 'unexpected', detail });
}

async function send<T>(method: string, path: string, body?: unknown): Promise<T> {
  const response = await answered(method, path, body);
  return response.status === 204 ? (undefined as T) : ((await response.json().catch(() => null)) as T);
}

/** Who asks, where it stands in the address. */
const by = (who: string) => `?who=${encodeURIComponent(who)}`;
const study = (id: string) => `/studies/${encodeURIComponent(id)}`;

/** A body that goes up as a stream of bytes, with its progress; `stop` breaks it off, unless it has arrived already. */
export interface Upload<T> {
  done: Promise<T>;
  stop(): void;
}

function upload<T>(path: string, body: Blob, progress: (share: number) => void): Upload<T> {
  const request = new XMLHttpRequest();
  const done = new Promise<T>((resolve, reject) => {
    request.open('POST', `/api${path}`);
    request.setRequestHeader('Content-Type', 'text/plain');
    request.responseType = 'json';
    request.upload.onprogress = ({ loaded, total }) => progress(total > 0 ? loaded / total : 0);
    request.onerror = () => reject(new ApiError(UNREACHABLE));
    request.onabort = () =>
      reject(new ApiError({ ...UNREACHABLE, code: 'stopped', detail: 'Stopped. Nothing was stored.' }));
    request.onload = () => {
      if (request.status === 200) return resolve(request.response as T);
      reject(
        new ApiError(asProblem(request.response) ?? { ...UNREACHABLE, status: request.status, code: 'unexpected' }),
      );
    };
    request.send(body);
  });
  return { done, stop: () => request.abort() };
}

/** Events of a study. */
interface Heard {
  /** Where it stands as the stream is connected, and how much evidence is kept of it. */
  standing(revision: number, kept: number): void;
  change(change: Announced): void;
  recomputed(evidence: Pick<Evidence, 'id' | 'recomputed'>): void;
  /** A piece of evidence was kept, or noted on. */
  kept(id: string): void;
  /** How far a job of the study is. */
  job(job: Job): void;
}

/** Follows the changes of a study as they are made, in whichever window; returns how to stop following. */
const follow = (id: string, hear: Heard): (() => void) =>
  followChannel(id, (event, told) => {
    if (event === 'standing') {
      const { revision, kept } = told as { revision: number; kept: number };
      hear.standing(revision, kept);
    } else if (event === 'change') hear.change(told as Announced);
    else if (event === 'evidence') hear.recomputed(told as Evidence);
    else if (event === 'kept') hear.kept((told as { id: string }).id);
    else if (event === 'job') hear.job(told as Job);
  });

/** Follows all jobs; returns a function that stops. `again` is called once the stream is connected: earlier events were missed. */
const followJobs = (hear: (job: Job) => void, again: () => void): (() => void) =>
  followChannel(JOBS, (event, told) => {
    if (event === 'standing') again();
    else if (event === 'job') hear(told as Job);
  });

const piece = (id: string) => `/evidence/${encodeURIComponent(id)}`;
const job = (id: string) => `/jobs/${encodeURIComponent(id)}`;

export interface Changed {
  revision: number;
  text: string;
}

/** Every call the page makes, one function each. */
export const api = {
  listStudies: (bin: boolean) => send<StudySummary[]>('GET', `/studies${bin ? '?bin=1' : ''}`),
  createStudy: (begun: { name?: string; asks?: AskedKind | null } = {}) =>
    send<{ id: string }>('POST', '/studies', begun),
  openSaved: (file: Blob, who: string) => send<{ id: string }>('POST', `/studies/saved${by(who)}`, file),
  saveStudy: async (id: string) => (await answered('GET', `${study(id)}/saved`)).blob(),
  binStudy: (id: string, who: string) => send<undefined>('DELETE', `${study(id)}${by(who)}`),
  restoreStudy: (id: string, who: string) => send<undefined>('POST', `${study(id)}/restore${by(who)}`, {}),
  readStudy: (id: string) => send<Study>('GET', study(id)),
  readCells: (id: string) => send<{ revision: number; cells: StudyCells }>('GET', `${study(id)}/cells`),
  change: (id: string, body: unknown) => send<Changed>('POST', `${study(id)}/changes`, body),
  step: (id: string, body: unknown) => send<Changed & Pick<Announced, 'change'>>('POST', `${study(id)}/steps`, body),
  importRows: (id: string, body: Blob, progress: (share: number) => void) =>
    upload<Changed>(`${study(id)}/imports`, body, progress),
  follow,
  readRecord: (id: string, before?: number) =>
    send<RecordEntry[]>('GET', `${study(id)}/changes${before === undefined ? '' : `?before=${before}`}`),
  auditStudy: (id: string) => send<Checked>('GET', `${study(id)}/audit`),
  listEvidence: (id: string) => send<Evidence[]>('GET', `${study(id)}/evidence`),
  keep: (id: string, body: KeepInput) => send<Evidence>('POST', `${study(id)}/evidence`, body),
  say: (evidenceId: string, body: SayRequest) => send<Evidence>('POST', piece(evidenceId), body),
  orderEvidence: (id: string, order: readonly string[], who: string) =>
    send<undefined>('POST', `${study(id)}/evidence/order`, { order, who }),
  staleEvidence: (id: string) => send<{ revision: number; stale: string[] }>('GET', `${study(id)}/evidence/stale`),
  listLooks: (id: string) => send<Look[]>('GET', `${study(id)}/looks`),
  noteLooks: (id: string, looks: readonly Look[]) => send<undefined>('POST', `${study(id)}/looks`, { looks }),
  recompute: (evidenceId: string) => send<Recomputed>('POST', `${piece(evidenceId)}/recompute`, {}),
  listJobs: (id?: string) => send<Job[]>('GET', id === undefined ? '/jobs' : `${study(id)}/jobs`),
  handOver: (id: string, body: JobRequest) => send<Job>('POST', `${study(id)}/jobs`, body),
  jobResult: (id: string) => send<{ result: unknown }>('GET', `${job(id)}/result`),
  stopJob: (id: string) => send<Job>('POST', `${job(id)}/stop`, {}),
  resumeJob: (id: string) => send<Job>('POST', `${job(id)}/resume`, {}),
  removeJob: (id: string) => send<undefined>('DELETE', job(id)),
  followJobs,
  rule: (id: string, body: unknown) => send<Changed>('POST', `${study(id)}/verdict`, body),
  reopen: (id: string, body: unknown) => send<Changed>('POST', `${study(id)}/reopen`, body),
};
