import { parseBlock, recogniseLayout } from '@verdict/core';
import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { makeChange } from './store/changes.js';
import type { Database } from './store/database.js';
import { countStudies, createStudy } from './store/studies.js';

const WHO = 'Brackenfell laboratory';

/** Loads the demo study into an empty store, by the same changes that an analyst would make. */
export async function loadDemo(db: Database, file: URL): Promise<void> {
  if ((await countStudies(db)) > 0) return;
  const text = await readFile(file, 'utf8');
  const columns = parseBlock(text, recogniseLayout(text)).columns.map((column) => {
    const limits =
      column.name === 'thickness' ? { lowerLimit: 7.5, upperLimit: 8.5 } : { lowerLimit: null, upperLimit: null };
    return { ...column, ...limits, id: randomUUID(), resolution: null };
  });
  const id = await createStudy(db, randomUUID(), 'Tile thickness, kiln release week 46');
  await makeChange(db, id, { token: randomUUID(), revision: 0, who: WHO, change: { kind: 'add-columns', columns } });
  const question =
    'May the thickness of this release be treated as normal, so that the share outside 7.5 to 8.5 mm can be worked out?';
  await makeChange(db, id, { token: randomUUID(), revision: 1, who: WHO, change: { kind: 'change-study', question } });
}
