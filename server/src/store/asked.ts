import type { KeepRequest, PartsBy } from '@verdict/contract';
import { analysisById } from '@verdict/core/analyses';
import { fingerprintOf, NO_READINGS, type Sample } from '@verdict/core/readings';
import type { Database } from './database.js';
import { StoreError } from './errors.js';
import { readSample } from './studies.js';
import type { StudyRow } from './study-row.js';

/** The readings that are asked about: those of a column, or none. */
export async function sampleFor(
  db: Database,
  study: { id: string; revision: number },
  column: string | null,
  parts: PartsBy | null,
): Promise<{ sample: Sample; revision: number }> {
  return column === null ? { sample: NO_READINGS, revision: study.revision } : readSample(db, study.id, column, parts);
}

type Asked = Pick<KeepRequest, 'analysis' | 'version' | 'column' | 'parts' | 'request' | 'fingerprint'>;

/**
 * A request from a page, checked: by the analysis itself, in the server's version, and for the readings in the store. `nothing` says in a refusal
 * what was not done.
 */
export async function checkedRequest(db: Database, study: StudyRow, asked: Asked, nothing: string) {
  const analysis = analysisById(asked.analysis);
  if (analysis.version !== asked.version) {
    throw new StoreError('invalid', `The page works with version ${asked.version} of this analysis. Reload it.`, {
      field: 'version',
    });
  }
  if (asked.column === null && analysis.needsReadings !== false) {
    throw new StoreError('invalid', 'This analysis needs a column of readings.', { field: 'column' });
  }
  // A sentence that says "by kiln" is about parts, and about the whole otherwise.
  const { split, beside } = asked.request;
  if ((split !== undefined || beside !== undefined) !== (asked.parts !== null)) {
    throw new StoreError('invalid', 'The request asks for groups but the readings have none, or the other way round.', {
      field: 'parts',
    });
  }
  const { sample, revision } = await sampleFor(db, study, asked.column, asked.parts);
  if (fingerprintOf(sample) !== asked.fingerprint) {
    throw new StoreError('data-changed', `The readings have changed since this was calculated. ${nothing}`, {
      revision,
    });
  }
  const request = analysis.resolve(analysis.request.parse(asked.request), sample) as unknown as Record<string, unknown>;
  return { analysis, sample, revision, request };
}

/** A sample under the names that the request was kept with: renaming a column since does not make another result. */
export function underKeptNames(
  sample: Sample,
  { column, beside, split }: { column?: unknown; beside?: unknown; split?: unknown },
): Sample {
  const name = typeof column === 'string' ? column : sample.name;
  if (!sample.groups) return { ...sample, name };
  if (typeof split === 'string') return { ...sample, name, groups: { ...sample.groups, by: split } };
  if (!Array.isArray(beside)) return { ...sample, name };
  const names = [name, ...(beside as string[])];
  const samples = sample.groups.samples.map((part, i) => ({ ...part, name: names[i] ?? part.name }));
  return { ...sample, name, groups: { ...sample.groups, samples } };
}
