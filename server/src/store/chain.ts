import {
  changeRowWithIds,
  linkAfter,
  logRowWithIds,
  type ChainEnd,
  type Link,
  type LogDetail,
  type NewId,
  type StudyFile,
} from '@verdict/contract';
import { eq } from 'drizzle-orm';
import type { Queries } from './database.js';
import { studies, studyLog } from './schema.js';
import type { StudyRow } from './study-row.js';

type ChangeRow = StudyFile['changes'][number];
type LogRow = StudyFile['log'][number];

/** Where the chain of a study ends. */
export async function chainEnd(q: Queries, studyId: string): Promise<ChainEnd> {
  const { entries, head } = studies;
  const [found] = await q.select({ entries, head }).from(studies).where(eq(studies.id, studyId));
  return found ?? { entries: 0, head: null };
}

/** The ids of a study as its chain has them: one that was opened from a file has ids of its own here. */
export const originalIds = ({ origins }: Pick<StudyRow, 'origins'>): NewId =>
  origins === null ? (id) => id : (id) => origins[id] ?? id;

/** The place of a change in the chain of a locked study, which moves on. */
export function linkChange(study: StudyRow, row: Omit<ChangeRow, 'entry' | 'hash'>): Link {
  return moveOn(study, linkAfter(study, study.origins === null ? row : changeRowWithIds(row, originalIds(study))));
}

function moveOn(study: StudyRow, { entry, hash }: Link): Link {
  Object.assign(study, { entries: entry, head: hash });
  return { entry, hash };
}

export interface LogEntry<Kind extends LogRow['kind']> {
  kind: Kind;
  evidence?: string | null;
  detail: LogDetail[Kind];
  who: string;
  at: Date;
}

/** Writes an entry of the log of a locked study, and the end of its chain. */
export async function appendLog<Kind extends LogRow['kind']>(
  q: Queries,
  study: StudyRow,
  { kind, evidence = null, detail, who, at }: LogEntry<Kind>,
): Promise<void> {
  const row = { kind, evidence, detail: { ...detail } as Record<string, unknown>, who, at: at.toISOString() };
  const link = moveOn(study, linkAfter(study, logRowWithIds(row, originalIds(study))));
  await q
    .insert(studyLog)
    .values({ studyId: study.id, ...link, kind, evidenceId: evidence, detail: row.detail, who, at });
  await q.update(studies).set({ entries: study.entries, head: study.head }).where(eq(studies.id, study.id));
}
