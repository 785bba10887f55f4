import type { Evidence } from '@verdict/contract';
import type { Database } from '../store/database.js';
import type { AnalysisPool } from './analysis-pool.js';
import { OneByOne } from './one-by-one.js';
import { recompute } from './recompute.js';
import type { StorePool } from './store-pool.js';

/** The time limit in milliseconds of a recalculation in the background. “Recompute” on the page has none. */
const LONGEST = 120_000;

/** The message after a kept result was recalculated. */
export type Outcome = Pick<Evidence, 'id' | 'recomputed'>;

/**
 * Recalculates kept results in the background, one after the other, and reports the outcome: a result that was sent counts as confirmed once the
 * server has calculated it too. Each piece is tried once while the server runs.
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
