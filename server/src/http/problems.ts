import { BODY_LIMIT, type Problem } from '@verdict/contract';
import { UnknownAnalysis } from '@verdict/core/analyses';
import type { ErrorRequestHandler, Response } from 'express';
import type { Logger } from 'pino';
import { ZodError } from 'zod';
import { isBusy, isDatabaseGone, isDiskFull } from '../store/database.js';
import { BUSY, DISK_FULL, StoreError } from '../store/errors.js';

const STATUS: Record<StoreError['code'], [number, string]> = {
  'not-found': [404, 'Not found'],
  stale: [409, 'The study has changed'],
  ruled: [409, 'The study is decided'],
  'not-ruled': [409, 'The study is not decided'],
  binned: [409, 'The study is in the bin'],
  'under-way': [409, 'Already in progress'],
  idle: [408, 'No data arrived'],
  'too-large': [413, 'Too large'],
  busy: [503, 'Busy'],
  'disk-full': [507, 'The disk is full'],
  'not-json': [400, 'Not JSON'],
  encoding: [415, 'Unknown encoding'],
  'data-changed': [409, 'The readings have changed'],
  'nothing-to-undo': [409, 'Nothing to undo'],
  'built-on': [409, 'A later change depends on this one'],
  invalid: [422, 'This cannot be done'],
};

type Said = Omit<Problem, 'type'>;

export function sendProblem(res: Response, problem: Said): void {
  res
    .status(problem.status)
    .type('application/problem+json')
    .send(JSON.stringify({ type: 'about:blank', ...problem } satisfies Problem));
}

const megabytes = (bytes: number) => `${bytes / 1024 / 1024} MB`;

/** An error as the problem that the page shows; null for an unexpected one. */
function problemOf(error: unknown): Said | null {
  if (error instanceof StoreError) {
    const [status, title] = STATUS[error.code];
    return { status, title, detail: error.message, code: error.code, ...error.extra };
  }
  if (error instanceof ZodError) {
    const [issue] = error.issues;
    const field = issue?.path.join('.') ?? '';
    return { status: 422, title: 'This cannot be read', detail: issue?.message ?? '', code: 'invalid', field };
  }
  if (error instanceof UnknownAnalysis) {
    return { status: 422, title: 'Unknown analysis', detail: error.message, code: 'invalid', field: 'analysis' };
  }
  if (isDatabaseGone(error)) {
    const detail = 'The database cannot be reached. Nothing that was stored is lost. Try again when it is back.';
    return { status: 503, title: 'The database is not available', detail, code: 'database-gone' };
  }
  if (isDiskFull(error)) return { status: 507, title: 'The disk is full', detail: DISK_FULL, code: 'disk-full' };
  if (isBusy(error)) return { status: 503, title: 'Busy', detail: BUSY, code: 'busy' };
  const { type } = error as { type?: string };
  if (type === 'entity.too.large') {
    const detail = `A request may have at most ${megabytes(BODY_LIMIT)}. Nothing was stored.`;
    return { status: 413, title: 'Too large', detail, code: 'too-large' };
  }
  return foreseen(error as { status?: unknown; type?: string });
}

/** What the HTTP layer refuses by itself: an address or an encoding that cannot be read, a body that breaks off. */
function foreseen({ status, type }: { status?: unknown; type?: string }): Said | null {
  if (typeof status !== 'number' || status < 400 || status > 499) return null;
  const detail = /encoding|charset/.test(type ?? '')
    ? 'The encoding of the request is not supported. Send JSON as UTF-8.'
    : 'The request cannot be read. Nothing was stored.';
  return { status, title: status === 415 ? 'Unknown encoding' : 'This cannot be read', detail, code: 'invalid' };
}

export function problemHandler(log: Logger): ErrorRequestHandler {
  return (error: unknown, req, res, _next) => {
    const problem = problemOf(error);
    if (problem) return sendProblem(res, problem);
    // The message of a failed query holds its values, readings among them: only names and places are logged.
    const { name, stack } = error as Error;
    const places = stack?.split('\n').filter((line) => line.trimStart().startsWith('at '));
    log.error({ method: req.method, path: req.route?.path ?? req.path, name, places }, 'request failed');
    const detail = 'Something went wrong on the server. Nothing that was stored is lost.';
    sendProblem(res, { status: 500, title: 'Unexpected error', detail, code: 'unexpected' });
  };
}
