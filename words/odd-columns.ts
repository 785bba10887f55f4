import { readFileSync } from 'node:fs';
import { parseBlock, recogniseLayout, toSample, type Sample } from '../core/src/readings/index.js';
import { samplesBeside } from '../core/src/table/split.js';

const format = { decimal: 'point', thousands: 'none' } as const;
/** Whole numbers that look irregular and are the same everywhere. */
const shaken = (i: number) => (i * 7919 + 104729) % 1009;
const between = (i: number) => shaken(i) / 1009;
/** Roughly normal: the sum of six. */
const bell = (i: number) => [0, 1, 2, 3, 4, 5].reduce((sum, k) => sum + between(6 * i + k), -3);
const range = <T>(n: number, of: (i: number) => T): T[] => Array.from({ length: n }, (_, i) => of(i));

function columnOf(
  name: string,
  cells: readonly (string | number)[],
  unit = 'mm',
  resolution: number | null = null,
): Sample {
  return toSample({ name, unit, resolution, ...format }, cells.map(String), new Set());
}
const bells = (n: number, decimals = 2, sd = 0.1) => range(n, (i) => Number((8 + sd * bell(i)).toFixed(decimals)));

/** Columns that sentences have to fit: few, equal, tied, huge, tiny, skewed, with outliers, with limits, counts. */
export const ODD_COLUMNS: Readonly<Record<string, Sample>> = {
  'no readings': columnOf('thickness', []),
  'one reading': columnOf('thickness', [8.01]),
  'two readings': columnOf('thickness', [8.01, 8.03]),
  'two equal readings': columnOf('thickness', [8, 8]),
  'three readings': columnOf('thickness', [8.01, 8.03, 8.1]),
  'seven readings': columnOf('thickness', bells(7)),
  'eight readings': columnOf('thickness', bells(8)),
  'twelve readings': columnOf('thickness', bells(12)),
  'twenty readings': columnOf('thickness', bells(20)),
  '48 readings': columnOf('thickness', bells(48), 'mm', 0.01),
  '200 readings': columnOf('thickness', bells(200)),
  '1 000 readings': columnOf('thickness', bells(1_000)),
  'all equal': columnOf(
    'thickness',
    range(20, () => 8),
  ),
  'all but one equal': columnOf('thickness', [...range(19, () => 8), 9]),
  'two values': columnOf(
    'thickness',
    range(30, (i) => 8 + (i % 2)),
  ),
  'steps of one SD': columnOf('thickness', bells(40, 1), 'mm', 0.1),
  'whole numbers': columnOf(
    'length',
    range(40, (i) => Math.round(100 + 5 * bell(i))),
  ),
  'one outlier': columnOf('thickness', [...bells(30), 9.2]),
  'two outliers on one side': columnOf('thickness', [...bells(30), 8.95, 8.96]),
  'an outlier on each side': columnOf('thickness', [...bells(30), 7.05, 8.95]),
  'a shifted decimal point': columnOf('thickness', [...bells(20), 80.1]),
  'skewed to the right': columnOf(
    'viscosity',
    range(60, (i) => Number(Math.exp(0.7 * bell(i)).toFixed(3))),
    'Pa·s',
  ),
  'skewed to the left': columnOf(
    'residue',
    range(60, (i) => Number((9 - Math.exp(0.7 * bell(i))).toFixed(3))),
    '%',
  ),
  'heavy tails': columnOf(
    'error',
    range(60, (i) => Number((bell(i) ** 3).toFixed(3))),
    'µm',
  ),
  uniform: columnOf('phase', range(60, between), ''),
  'two groups': columnOf(
    'thickness',
    range(40, (i) => Number((8 + (i % 2) + 0.1 * bell(i)).toFixed(2))),
  ),
  'a drift': columnOf(
    'temperature',
    range(40, (i) => Number((20 + 0.1 * i + 0.2 * bell(i)).toFixed(1))),
    '°C',
  ),
  negative: columnOf(
    'deviation',
    range(30, (i) => Number((-5 + bell(i)).toFixed(2))),
  ),
  'about zero': columnOf(
    'deviation',
    range(30, (i) => Number(bell(i).toFixed(2))),
  ),
  'without a unit': columnOf('ratio', bells(30), ''),
  'far from zero': columnOf(
    'pressure',
    range(20, (i) => 1e9 + 0.1 + i / 10),
    'Pa',
  ),
  huge: columnOf(
    'energy',
    range(20, (i) => (1 + between(i)) * 1e300),
    'J',
  ),
  tiny: columnOf(
    'charge',
    range(20, (i) => (1 + between(i)) * 1e-300),
    'C',
  ),
  'below a detection limit': columnOf(
    'nickel',
    [...range(20, (i) => (0.1 + between(i)).toFixed(2)), '<0.05', '<0.05', '<0.05'],
    'mg/l',
  ),
  'mostly below a detection limit': columnOf('nickel', [...range(12, () => '<0.05'), '0.06', '0.07', '0.09'], 'mg/l'),
  'above a limit': columnOf('life', [...range(15, (i) => String(100 + shaken(i))), '>1500', '>1500'], 'h'),
  'cells that are not numbers': columnOf('thickness', [...bells(12), 'broken', 'n/a?']),
  'missing cells': columnOf('thickness', [...bells(12), '', '']),
  counts: columnOf(
    'faults',
    range(40, (i) => shaken(i) % 5),
    '',
  ),
  'counts with many zeros': columnOf(
    'faults',
    range(60, (i) => (i % 3 === 0 ? shaken(i) % 6 : 0)),
    '',
  ),
  'all counts 0': columnOf(
    'faults',
    range(12, () => 0),
    '',
  ),
  'one count': columnOf('faults', [3], ''),
};

export const MANY_READINGS = columnOf('thickness', bells(100_000));

/** Columns or groups beside one another. */
export const ODD_GROUPS: Readonly<Record<string, Sample>> = {
  'two columns alike': samplesBeside([columnOf('gauge A', bells(20)), columnOf('gauge B', bells(20))]),
  'two columns apart': samplesBeside([
    columnOf('gauge A', bells(20)),
    columnOf(
      'gauge B',
      bells(20).map((x) => x + 0.3),
    ),
  ]),
  'other units': samplesBeside([columnOf('thickness', bells(20)), columnOf('mass', bells(20), 'g')]),
  'two per column': samplesBeside([columnOf('gauge A', [8, 8.1]), columnOf('gauge B', [8.2, 8.4])]),
  'three columns': samplesBeside([
    columnOf('north', bells(15)),
    columnOf(
      'south',
      bells(12).map((x) => x + 0.2),
    ),
    columnOf(
      'west',
      range(10, (i) => Number((8 + 0.4 * bell(i)).toFixed(2))),
    ),
  ]),
  'one of them equal': samplesBeside([
    columnOf(
      'north',
      range(8, () => 8),
    ),
    columnOf('south', bells(8)),
  ]),
};

/** A column of labels: its levels, and the level of every row. */
function labels(levels: readonly string[], of: (i: number) => number, n = 40): Sample {
  const sample = columnOf(
    'fault',
    range(n, (i) => i),
    '',
  );
  return { ...sample, resolution: null, levels: [...levels], values: sample.values.map((_, i) => of(i)) };
}
export const ODD_LABELS: Readonly<Record<string, Sample>> = {
  'three labels': labels(['chipped', 'pinholed', 'crazed'], (i) => shaken(i) % 3),
  'one label': labels(['chipped'], () => 0),
  'a rare label': labels(['off shade', 'chipped', 'crazed'], (i) => (i === 0 ? 0 : 1 + (i % 2))),
};

const DEMOS = ['tile-thickness', 'tile-strength', 'glaze-batches'];

/** The columns of numbers of the demo studies, as they are read from their files. */
export const DEMO_COLUMNS: Readonly<Record<string, Sample>> = Object.fromEntries(
  DEMOS.flatMap((demo) => {
    const text = readFileSync(new URL(`../demo/${demo}.csv`, import.meta.url), 'utf8');
    const { columns } = parseBlock(text, recogniseLayout(text));
    const measured = columns.filter(({ kind }) => kind !== 'label');
    return measured.map((column) => [
      `${column.name} of the demo ${demo}`,
      toSample({ resolution: null, ...column }, column.cells, new Set()),
    ]);
  }),
);
