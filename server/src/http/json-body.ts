import { BODY_LIMIT, DEEPEST, Nesting, whoSchema } from '@verdict/contract';
import express, { type Request, type RequestHandler } from 'express';
import type { ZodType } from 'zod';
import { StoreError } from '../store/errors.js';

/** A body over this is left as bytes: who needs it reads it in a thread of its own. */
export const LARGE_BODY = 256 * 1024;

/** How deep lists and objects nest in a JSON text. */
export function depthOf(json: Uint8Array): number {
  const nesting = new Nesting();
  nesting.add(json);
  return nesting.deepest;
}

function read(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    throw new StoreError('not-json', 'The body is not JSON.');
  }
}

/** JSON is UTF-8. */
export function refuseCharset(req: Request): void {
  const charset = /charset\s*=\s*"?([^\s";]+)/i.exec(req.headers['content-type'] ?? '')?.[1] ?? 'utf-8';
  if (!/^utf-?8$/i.test(charset)) throw new StoreError('encoding', 'JSON must be encoded as UTF-8.');
}

const parse: RequestHandler = (req, _res, next) => {
  const bytes: unknown = req.body;
  if (!Buffer.isBuffer(bytes)) return next();
  refuseCharset(req);
  if (depthOf(bytes) > DEEPEST)
    throw new StoreError('not-json', `The JSON is nested more than ${DEEPEST} levels deep.`);
  if (bytes.length <= LARGE_BODY) req.body = bytes.length === 0 ? undefined : read(bytes);
  next();
};

/** Bodies of JSON: parsed, or left as bytes where they are large. */
export const jsonBody: RequestHandler[] = [express.raw({ type: 'application/json', limit: BODY_LIMIT }), parse];

/** The body as its schema has it, however large it is. */
export const bodyOf = <T>(req: Request, schema: ZodType<T>): T =>
  schema.parse(Buffer.isBuffer(req.body) ? read(req.body) : req.body);

/** Who asks, for the record, where the request has no body to say it in. */
export const whoOf = ({ query }: Request): string => whoSchema.parse(query.who);
