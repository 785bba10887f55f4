import type { Announced } from './studies.js';

/** An error as it crosses the wire: problem details after RFC 9457, with the field at fault where there is one. */
export interface Problem {
  type: string;
  title: string;
  status: number;
  detail: string;
  code: string;
  field?: string | undefined;
  /** With 409: the revision the study has now. */
  revision?: number | undefined;
  changes?: string[] | undefined;
  /** With 409: the changes since, in order, if they are small enough to send. */
  between?: Announced[] | undefined;
}

/** The answer as a problem; null where something else answered than the server, a proxy on the way. No schema: the list of studies needs none besides. */
export function asProblem(answer: unknown): Problem | null {
  if (typeof answer !== 'object' || answer === null) return null;
  const { title, status, detail, code } = answer as Partial<Problem>;
  const texts = [title, detail, code].every((text) => typeof text === 'string');
  return texts && typeof status === 'number' ? (answer as Problem) : null;
}

/** The largest body of a request, in bytes, and the largest file that the page opens. */
export const BODY_LIMIT = 64 * 1024 * 1024;
export const FILE_LIMIT = 20 * 1024 * 1024;
/** Delimited text is streamed to the server and not sent in one body; it may be larger. */
export const TEXT_FILE_LIMIT = 60 * 1024 * 1024;
/** A study file, when it is saved and when it is opened. It goes through in pieces: only the disk has to hold it. */
export const STUDY_FILE_LIMIT = 1024 * 1024 * 1024;
