import { NOTHING_SAID, type Change } from '@verdict/contract';
import { parseBlock, recogniseLayout } from '@verdict/core/readings';
import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { makeChange } from './store/changes.js';
import type { Database } from './store/database.js';
import { countStudies, countSubject, createStudy } from './store/studies.js';

const WHO = 'Brackenfell laboratory';

interface DemoStudy {
  file: string;
  name: string;
  question: string;
  /** What is said about columns, by name. */
  facts: Record<string, Partial<Record<'lowerLimit' | 'target' | 'upperLimit' | 'claimedMean' | 'claimedSd', number>>>;
}

const STUDIES: DemoStudy[] = [
  {
    file: 'sorting-line.csv',
    name: 'Sorting line, week 46',
    question: 'Do the faults come alike in every shift, and do the two gauges of warpage agree?',
    facts: { 'warpage on the line': { upperLimit: 0.8 }, 'warpage at the bench': { upperLimit: 0.8 } },
  },
  {
    file: 'tile-strength.csv',
    name: 'Breaking force and water absorption, November',
    question: 'Which distribution do the breaking forces follow, and how many tiles break below 900 N?',
    facts: { 'breaking force': { lowerLimit: 900 }, 'water absorption': { upperLimit: 1 } },
  },
  {
    file: 'glaze-batches.csv',
    name: 'Glaze batches, October and November',
    question: 'Is the viscosity of the glaze the same from batch to batch, and which readings are slips of the pen?',
    facts: {
      viscosity: { lowerLimit: 1.6, target: 1.8, upperLimit: 2 },
      density: { claimedMean: 1.82, claimedSd: 0.012 },
    },
  },
  {
    file: 'tile-thickness.csv',
    name: 'Tile thickness, kiln release week 46',
    question:
      'May the thickness of this release be treated as normal, so that the share outside 7.5 to 8.5 mm can be worked out?',
    facts: { thickness: { lowerLimit: 7.5, target: 8, upperLimit: 8.5, claimedMean: 8, claimedSd: 0.1 } },
  },
];

/** Loads the demo studies into an empty store, by the same changes that an analyst would make. */
export async function loadDemo(db: Database, folder: URL): Promise<void> {
  if ((await countStudies(db)) > 0) return;
  for (const { file, name, question, facts } of STUDIES) {
    const text = await readFile(new URL(file, folder), 'utf8');
    const columns = parseBlock(text, recogniseLayout(text)).columns.map((column) => ({
      ...column,
      ...NOTHING_SAID,
      ...facts[column.name],
      id: randomUUID(),
      aside: [],
    }));
    const id = await createStudy(db, randomUUID(), name, true);
    const changes: Change[] = [
      { kind: 'add-columns', columns, note: `opened from ${file}` },
      { kind: 'change-study', question },
    ];
    for (const [revision, change] of changes.entries()) {
      await makeChange(db, id, { token: randomUUID(), revision, who: WHO, change });
    }
    await countSubject(db, id);
  }
}
