import { BODY_LIMIT } from '@verdict/contract';
import express, { type Request, type RequestHandler } from 'express';
import type { ZodType } from 'zod';
import { StoreError } from '../store/errors.js';

/** Nesting beyond this is nobody's reading, result or study; reading it would only take the server's time. */
const DEEPEST = 64;

/** A body over this is left as bytes: who needs it reads it in a thread of its own. */
export const LARGE_BODY = 256 * 1024;

const QUOTE = 0x22;
const BACKSLASH = 0x5c;

/** How deep lists and objects nest in a JSON text, without reading it. UTF-8 only. */
export function depthOf(json: Uint8Array): number {
  let depth = 0;
  let deepest = 0;
  let quoted = false;
  for (let i = 0; i < json.length; i++) {
    const byte = json[i]!;
    if (quoted) {
      if (byte === BACKSLASH) i++;
      else if (byte === QUOTE) quoted = false;
    } else if (byte === QUOTE) quoted = true;
    else if (byte === 0x5b || byte === 0x7b) deepest = Math.max(deepest, ++depth);
    else if (byte === 0x5d || byte === 0x7d) depth--;
  }
  return deepest;
}

function read(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    throw new StoreError('not-json', 'The body is not JSON.');
  }
}

const parse: RequestHandler = (req, _res, next) => {
  const bytes: unknown = req.body;
  if (!Buffer.isBuffer(bytes)) return next();
  const charset = /charset\s*=\s*"?([^\s";]+)/i.exec(req.headers['content-type'] ?? '')?.[1] ?? 'utf-8';
  if (!/^utf-?8$/i.test(charset)) throw new StoreError('encoding', 'JSON is read as UTF-8 only.');
  if (depthOf(bytes) > DEEPEST) throw new StoreError('not-json', `The JSON nests deeper than ${DEEPEST} levels.`);
  if (bytes.length <= LARGE_BODY) req.body = bytes.length === 0 ? undefined : read(bytes);
  next();
};

/** Bodies of JSON: parsed, or left as bytes where they are large. */
export const jsonBody: RequestHandler[] = [express.raw({ type: 'application/json', limit: BODY_LIMIT }), parse];

/** The body as its schema has it, however large it is. */
export const bodyOf = <T>(req: Request, schema: ZodType<T>): T =>
  schema.parse(Buffer.isBuffer(req.body) ? read(req.body) : req.body);
