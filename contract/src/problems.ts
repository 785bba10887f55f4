import type { Announced } from './studies.js';
import { z } from 'zod';

/** An error as it crosses the wire: problem details after RFC 9457, with the field at fault where there is one. */
export const problemSchema = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number(),
  detail: z.string(),
  code: z.string(),
  field: z.string().optional(),
  /** With 409: the revision the study has now. */
  revision: z.number().optional(),
  changes: z.array(z.string()).optional(),
  /** With 409: what came in between, in order, where it is small enough to send. */
  between: z.array(z.custom<Announced>()).optional(),
});
export type Problem = z.infer<typeof problemSchema>;

/** The largest body of a request, in bytes, and the largest file that the page opens. */
export const BODY_LIMIT = 64 * 1024 * 1024;
export const FILE_LIMIT = 20 * 1024 * 1024;
/** Delimited text is streamed to the server and not sent in one body; it may be larger. */
export const TEXT_FILE_LIMIT = 60 * 1024 * 1024;
