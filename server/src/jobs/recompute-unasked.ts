import type { Evidence } from '@verdict/contract';
import type { Database } from '../store/database.js';
import type { AnalysisPool } from './analysis-pool.js';
import { OneByOne } from './one-by-one.js';
import { recompute } from './recompute.js';
import type { StorePool } from './store-pool.js';

/** Given up after so many milliseconds: nobody has asked for it. Recompute on the page does it to the end. */
const LONGEST = 120_000;

/** What there is to tell once a kept result has been worked out again. */
export type Outcome = Pick<Evidence, 'id' | 'recomputed'>;

/**
 * Works out by itself what is kept, one piece after the other, and tells what came of it: a result that somebody sent is believed once the
 * server has come to it too. Each piece is tried once in the server's life.
 */
export function recomputeUnasked(
  parts: { db: Database; store: StorePool; pool: AnalysisPool },
  tell: (studyId: string, outcome: Outcome) => void,
  failed: (error: unknown) => void,
): (studyId: string, kept: readonly Evidence[]) => void {
  const { db, store, pool } = parts;
  const tried = new Set<string>();
  const waiting = new OneByOne<{ id: string; studyId: string }>(async ({ id, studyId }) => {
    const until = performance.now() + LONGEST;
    const { same, sameData } = await recompute(db, store, pool, id, () => performance.now() > until);
    if (sameData) tell(studyId, { id, recomputed: { same, at: new Date().toISOString() } });
  }, failed);
  return (studyId, kept) => {
    for (const { id, recomputed } of kept) {
      if (recomputed !== null || tried.has(id)) continue;
      tried.add(id);
      waiting.want(id, { id, studyId });
    }
  };
}
