import type { Evidence, Recomputed } from '@verdict/contract';
import { analysisById, UnknownAnalysis } from '@verdict/core/analyses';
import type { Sample } from '@verdict/core/readings';
import { differencesBetween, toWire, type Difference } from '@verdict/core/road';
import { ZodError } from 'zod';
import type { Database } from '../store/database.js';
import { markRecomputed } from '../store/evidence.js';
import type { AnalysisPool } from './analysis-pool.js';
import type { StorePool } from './store-pool.js';

/** The value at a path of a kept request. */
const at = (value: unknown, path: readonly PropertyKey[]): unknown =>
  path.reduce<unknown>((inner, key) => (inner as Record<PropertyKey, unknown> | null | undefined)?.[key], value);

/** Why this version cannot calculate a kept request, as the place where the request is invalid; null if it can. */
function unreadable({ analysis, version, request }: Evidence): Difference | null {
  try {
    analysisById(analysis).request.parse(request);
    return null;
  } catch (error) {
    if (error instanceof UnknownAnalysis) return { path: 'analysis', kept: analysis, now: 'not there' };
    if (!(error instanceof ZodError)) throw error;
    const [issue] = error.issues;
    const path = issue?.path ?? [];
    const now = `not readable by version ${analysisById(analysis).version} (it was kept by ${version}): ${issue?.message}`;
    return { path: ['request', ...path].map(String).join('.'), kept: JSON.stringify(at(request, path)), now };
  }
}

async function workOut(
  pool: AnalysisPool,
  kept: Evidence,
  sample: Sample,
  stopped?: () => boolean,
): Promise<Difference[]> {
  const hindrance = unreadable(kept);
  if (hindrance) return [hindrance];
  return differencesBetween(kept.result, toWire(await pool.run(kept.analysis, kept.request, sample, stopped)));
}

/**
 * Works a kept result out again from the readings the store holds now, and compares every bit.
 * @param stopped true once it takes longer than it may; `Stopped` is thrown then, and the result stays not yet recomputed
 */
export async function recompute(
  db: Database,
  store: StorePool,
  pool: AnalysisPool,
  evidenceId: string,
  stopped?: () => boolean,
): Promise<Recomputed> {
  const { kept, sample, revision, fingerprint } = await store.evidenceWithSample(evidenceId);
  const started = performance.now();
  const differences = await workOut(pool, kept, sample, stopped);
  const same = differences.length === 0;
  const sameData = fingerprint === kept.fingerprint;
  // From other data another result is only to be expected; it says nothing about the kept one.
  if (sameData) await markRecomputed(db, evidenceId, same);
  return {
    ...{ same, sameData, differences, fingerprint },
    keptRevision: kept.revision,
    nowRevision: revision,
    milliseconds: Math.round(performance.now() - started),
  };
}
