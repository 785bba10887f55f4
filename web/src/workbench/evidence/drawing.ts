import type { Bounds, Evidence } from '@verdict/contract';
import type { Analysis } from '@verdict/core/road';
import type { Drawing, KeptPicture } from '../frame/stage.js';

/** A kept result as its analysis gave it. */
export interface KeptResult<Result> {
  request: Evidence['request'];
  result: Result;
}

/** How the sheet draws the kept results of an analysis; null where a result has no picture. */
export const drawing = <Result>(
  { id }: Pick<Analysis<never, Result>, 'id' | 'finding'>,
  draw: (kept: KeptResult<Result>, bounds: Bounds | null) => KeptPicture | null,
): Drawing => ({
  analysis: id,
  // The one place where a stored result is taken for what its analysis returned: the server has read it by the same id.
  draw: ({ request, result }, bounds) => draw({ request, result: result as Result }, bounds),
});
