import { NOTHING_SAID, type AskedKind, type Change } from '@verdict/contract';
import { parseBlock, recogniseLayout } from '@verdict/core/readings';
import type { Derivation } from '@verdict/core/table';
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
  asks: AskedKind;
  tags: string[];
  /** What is said about columns, by name. */
  facts: Record<string, Facts>;
  /** A simulated population beside the opened readings. */
  population?: { name: string; unit: string; derivation: Derivation; facts: Facts };
}
type Facts = Partial<Record<'lowerLimit' | 'target' | 'upperLimit' | 'claimedMean' | 'claimedSd', number>>;

const STUDIES: DemoStudy[] = [
  {
    file: 'filling-balance.csv',
    name: 'Filling balance, glaze sacks week 46',
    question:
      'How many sacks have to be weighed to detect a deviation of 1 g in the filling, with a balance resolution of 0.5 g?',
    asks: 'how-many',
    tags: ['glaze', 'filling'],
    facts: { 'filled mass': { lowerLimit: 4995, target: 5000, claimedMean: 5000 } },
    population: {
      name: 'all fillings',
      unit: 'g',
      derivation: {
        ...{ kind: 'made-up', family: 'normal', parameters: { mean: 5003, sd: 2.6 } },
        ...{ count: 100_000, step: 0.5, seed: 2024 },
      },
      facts: { lowerLimit: 4995, target: 5000 },
    },
  },
  {
    file: 'sorting-line.csv',
    name: 'Sorting line, week 46',
    question: 'Are the faults distributed equally over the shifts, and do the two warpage gauges agree?',
    asks: 'differ',
    tags: ['tiles', 'release'],
    facts: { 'warpage on the line': { upperLimit: 0.8 }, 'warpage at the bench': { upperLimit: 0.8 } },
  },
  {
    file: 'tile-strength.csv',
    name: 'Breaking force and water absorption, November',
    question: 'Which distribution do the breaking forces follow, and how many tiles break below 900 N?',
    asks: 'family',
    tags: ['tiles'],
    facts: { 'breaking force': { lowerLimit: 900 }, 'water absorption': { upperLimit: 1 } },
  },
  {
    file: 'glaze-batches.csv',
    name: 'Glaze batches, October and November',
    question: 'Is the viscosity of the glaze the same in all batches, and which readings are typing errors?',
    asks: 'outlier',
    tags: ['glaze'],
    facts: {
      viscosity: { lowerLimit: 1.6, target: 1.8, upperLimit: 2 },
      density: { claimedMean: 1.82, claimedSd: 0.012 },
    },
  },
  {
    file: 'tile-thickness.csv',
    name: 'Tile thickness, kiln release week 46',
    question:
      'May the thickness of this release be treated as normal, so that the proportion outside 7.5 to 8.5 mm can be calculated?',
    asks: 'normal',
    tags: ['tiles', 'release'],
    facts: { thickness: { lowerLimit: 7.5, target: 8, upperLimit: 8.5, claimedMean: 8, claimedSd: 0.1 } },
  },
];

/** A column of made-up readings, as an analyst adds one. */
function madeUp({ name, unit, derivation, facts }: NonNullable<DemoStudy['population']>): Change {
  const column = { ...NOTHING_SAID, ...facts, decimal: 'point', thousands: 'none', kind: 'measure' } as const;
  return {
    kind: 'add-columns',
    columns: [{ ...column, id: randomUUID(), name, unit, derivation, cells: [], aside: [] }],
  };
}

/** Loads the demo studies into an empty store, by the same changes that an analyst would make. */
export async function loadDemo(db: Database, folder: URL): Promise<void> {
  if ((await countStudies(db)) > 0) return;
  for (const { file, name, question, asks, tags, facts, population } of STUDIES) {
    const text = await readFile(new URL(file, folder), 'utf8');
    const columns = parseBlock(text, recogniseLayout(text)).columns.map((column) => ({
      ...column,
      ...NOTHING_SAID,
      ...facts[column.name],
      id: randomUUID(),
      aside: [],
    }));
    const id = await createStudy(db, { id: randomUUID(), name, example: true });
    const changes: Change[] = [
      { kind: 'add-columns', columns, note: `opened from ${file}` },
      ...(population ? [madeUp(population)] : []),
      { kind: 'change-study', question, asks, tags },
    ];
    for (const [revision, change] of changes.entries()) {
      await makeChange(db, id, { token: randomUUID(), revision, who: WHO, change });
    }
    await countSubject(db, id);
  }
}
