import type { Recomputed } from '@verdict/contract';
import { differencesBetween, fingerprintOf, toWire } from '@verdict/core';
import type { Database } from '../store/database.js';
import { evidenceWithSample } from '../store/evidence.js';
import type { AnalysisPool } from './analysis-pool.js';

/** Works a kept result out again from the readings the store holds now, and compares every bit. */
export async function recompute(db: Database, pool: AnalysisPool, evidenceId: string): Promise<Recomputed> {
  const { kept, sample, revision } = await evidenceWithSample(db, evidenceId);
  const started = performance.now();
  const now = toWire(await pool.run(kept.analysis, kept.request, sample));
  const fingerprint = fingerprintOf(sample);
  const differences = differencesBetween(kept.result, now);
  return {
    same: differences.length === 0,
    sameData: fingerprint === kept.fingerprint,
    keptRevision: kept.revision,
    nowRevision: revision,
    fingerprint,
    differences,
    milliseconds: Math.round(performance.now() - started),
  };
}
