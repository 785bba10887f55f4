import { Cells, STUDY_FILE, STUDY_FILE_VERSION, WITH_IDS, type CellBlocks, type FileHead } from '@verdict/contract';
import { asc, eq } from 'drizzle-orm';
import { originalIds } from './chain.js';
import type { Database, Queries } from './database.js';
import { APP_VERSION } from './evidence.js';
import { cellsUnder, changesOf, evidenceOf, headsOf, smallParts } from './recorded.js';
import { looks } from './schema.js';
import { requireStudy } from './study-row.js';

/** A list of JSON texts, as the text of a list. */
async function* listOf(name: string, items: AsyncIterable<unknown> | Iterable<unknown>): AsyncGenerator<string> {
  yield `,"${name}":[`;
  let before = '';
  for await (const item of items) {
    yield `${before}${JSON.stringify(item)}`;
    before = ',';
  }
  yield ']';
}

/** The columns of a study with their cells, as text. */
async function* columnsOf(
  q: Queries,
  columns: Awaited<ReturnType<typeof smallParts>>['columns'],
): AsyncGenerator<string> {
  const cells = await cellsUnder(q, columns);
  yield ',"columns":[';
  for (const [i, { facts }] of columns.entries()) {
    yield `${i > 0 ? ',' : ''}${JSON.stringify(facts).slice(0, -1)},"cells":[`;
    yield* cellTexts(cells(facts.id));
    yield ']}';
  }
  yield ']';
}

/** Cells as JSON texts with commas between them, without the empty ones at the end. */
async function* cellTexts(blocks: CellBlocks): AsyncGenerator<string> {
  let before = '';
  let empty = 0;
  for await (const texts of new Cells(blocks).all()) {
    const end = texts.findLastIndex((text) => text !== '') + 1;
    if (end > 0) {
      const filled = [...new Array<string>(empty).fill(''), ...texts.slice(0, end)];
      yield `${before}${JSON.stringify(filled).slice(1, -1)}`;
      before = ',';
      empty = 0;
    }
    empty += texts.length - end;
  }
}

/** A study file, a piece after the other. Its ids are those of its chain. */
async function* fileOf(q: Queries, studyId: string): AsyncGenerator<string> {
  const found = await requireStudy(q, studyId);
  const to = originalIds(found);
  const { study, columns, setAside, leftIn, log, verdicts } = await smallParts(q, found);
  const looked = await q.select().from(looks).where(eq(looks.studyId, studyId)).orderBy(asc(looks.at));
  const head: FileHead = {
    format: STUDY_FILE,
    version: STUDY_FILE_VERSION,
    app: APP_VERSION,
    savedAt: new Date().toISOString(),
    study,
  };
  yield JSON.stringify(head).slice(0, -1);
  yield* columnsOf(q, columns);
  yield* listOf('setAside', setAside);
  yield* listOf('leftIn', leftIn);
  yield* listOf('changes', changesOf(q, studyId, await headsOf(q, studyId), to));
  yield* listOf('log', log);
  yield* listOf('evidence', evidenceOf(q, studyId, to));
  yield* listOf('verdicts', verdicts);
  const looksOf = looked.map(({ studyId: _, at, ...look }) => WITH_IDS.looks({ ...look, at: at.toISOString() }, to));
  yield* listOf('looks', looksOf);
  yield '}';
}

/** Tells a study file a piece after the other, read in one consistent view. */
export const saveStudy = (db: Database, studyId: string, write: (text: string) => void): Promise<void> =>
  db.transaction(async (q) => {
    for await (const text of fileOf(q, studyId)) write(text);
  });
