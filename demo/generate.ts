/**
 * The demo data: Brackenfell Tileworks, a made-up maker of ceramic tiles. Seeded, so that the files never change by themselves.
 * Run `npm run demo` to write them again.
 */
import { writeFileSync } from 'node:fs';
import { createStream, fillNormals, nextOpenUnit } from '@verdict/core/random';

/** Thickness of 48 tiles from two kilns, gauged to 0.01 mm, with the pinholes counted on each. */
export function tileThickness(): string {
  const draws = new Float64Array(48);
  fillNormals(createStream(33, 0), draws);
  const stream = createStream(33, 1);
  const rows = Array.from(draws, (z, i) => {
    const north = nextOpenUnit(stream) < 0.5;
    const thickness = (north ? 8.04 : 8.0) + 0.105 * z;
    const pinholes = Math.floor(-Math.log(nextOpenUnit(stream)) / 0.9);
    return [i + 1, thickness.toFixed(2), north ? 'north' : 'south', pinholes].join(',');
  });
  return ['tile,thickness (mm),kiln,pinholes', ...rows].join('\n') + '\n';
}

/** Breaking force of 54 tiles, which the weakest grain decides, and the water each takes up, some of it less than the balance tells. */
export function tileStrength(): string {
  const draws = new Float64Array(54);
  fillNormals(createStream(71, 0), draws);
  const stream = createStream(71, 1);
  const rows = Array.from(draws, (z, i) => {
    const force = 1420 * (-Math.log(nextOpenUnit(stream))) ** (1 / 7.5);
    const absorption = Math.exp(-1.55 + 0.75 * z);
    const written = absorption < 0.05 ? '<0.05' : absorption.toFixed(2);
    return [`S-${101 + i}`, force.toFixed(0), written, i % 2 === 0 ? 'press 1' : 'press 2'].join(',');
  });
  return ['tile,breaking force (N),water absorption (%),press', ...rows].join('\n') + '\n';
}

const MILLS = ['mill A', 'mill B', 'mill C'];
const SHADES = ['ivory', 'sand', 'slate'];

interface Batch {
  name: string;
  cells: string[];
}

/** Batches of glaze as the laboratory writes them down: seven figures each, now and then none. */
function glazeBatches(seed: number, first: number, count: number): Batch[] {
  const draws = new Float64Array(6 * count);
  fillNormals(createStream(seed, 0), draws);
  const stream = createStream(seed, 1);
  return Array.from({ length: count }, (_, i) => {
    const z = (k: number) => draws[6 * i + k]!;
    const mill = MILLS[Math.floor(nextOpenUnit(stream) * 3)]!;
    const shade = SHADES[Math.floor(nextOpenUnit(stream) * 3)]!;
    const viscosity = 1.78 + 0.06 * z(0) + (mill === 'mill C' ? 0.07 : 0);
    const residue = Math.max(0.02, 0.34 + 0.11 * z(2));
    const scrapped = Math.floor(nextOpenUnit(stream) ** 3 * 9);
    const figures = [
      viscosity.toFixed(3),
      (1.822 + 0.011 * z(1)).toFixed(3),
      residue.toFixed(2),
      (21.5 + 1.1 * z(3)).toFixed(1),
      (8.4 + 0.15 * z(4)).toFixed(2),
      // A balance that reads to half a gram.
      (Math.round((412 + 6 * z(5)) * 2) / 2).toFixed(1),
      String(scrapped),
      '250',
    ];
    // Somebody forgets, somebody is not asked.
    const cells = figures.map((figure, k) => (k > 1 && k < 6 && nextOpenUnit(stream) < 0.06 ? '' : figure));
    return { name: `G-${first + i}`, cells: [mill, shade, ...cells] };
  });
}

const GLAZE_NAMES = [
  'batch',
  'mill',
  'shade',
  'viscosity (Pa·s)',
  'density (g/cm³)',
  'residue (%)',
  'temperature (°C)',
  'acidity (pH)',
  'dried sample (g)',
  'tiles scrapped',
  'tiles glazed',
];

/** The troubles that the second demo study is about. */
export function glazeStudy(): string {
  const rows = glazeBatches(58, 401, 60).map(({ name, cells }) => [name, ...cells]);
  const [mill, viscosity, density, residue, temperature, acidity] = [1, 3, 4, 5, 6, 7] as const;
  rows[6]![viscosity] = '17.84';
  rows[22]![density] = '1.8l9';
  rows[31]![residue] = '<0.05';
  rows[40]![temperature] = 'n/a';
  // A probe that was not rinsed between two batches: each hides the other from a test for one.
  rows[24]![acidity] = '8.88';
  rows[25]![acidity] = '8.89';
  rows[12]![mill] = 'Mill a ';
  rows[47]![mill] = 'Mill a ';
  return [GLAZE_NAMES, ...rows].map((row) => row.join(',')).join('\n') + '\n';
}

/** The next batches from another bench, whose spreadsheet writes decimal commas and semicolons. */
export function glazeNext(): string {
  const rows = glazeBatches(59, 461, 12).map(({ name, cells }) => [name, ...cells.map((c) => c.replace('.', ','))]);
  return [GLAZE_NAMES, ...rows].map((row) => row.join(';')).join('\r\n') + '\r\n';
}

const SHIFTS = ['early', 'late', 'night'];
const FAULTS = ['chipped', 'pinholed', 'crazed', 'off shade'];
/** How likely each fault is in each shift: at night the kiln runs hotter. */
const FAULT_SHARES = [
  [0.5, 0.25, 0.1, 0.15],
  [0.46, 0.26, 0.12, 0.16],
  [0.28, 0.24, 0.32, 0.16],
];

/** The first place whose shares add up to more than u. */
function placeOf(shares: readonly number[], u: number): number {
  let sum = 0;
  return shares.findIndex((share) => (sum += share) > u);
}

/** Sorted-out tiles of one week with their fault, and the warpage of the same tiles by two gauges. */
export function sortingLine(): string {
  const draws = new Float64Array(3 * 144);
  fillNormals(createStream(46, 0), draws);
  const stream = createStream(46, 1);
  const rows = Array.from({ length: 144 }, (_, i) => {
    const shift = Math.min(2, Math.floor(nextOpenUnit(stream) * 3));
    const fault = FAULTS[placeOf(FAULT_SHARES[shift]!, nextOpenUnit(stream))] ?? FAULTS[3]!;
    const warpage = 0.42 + 0.12 * draws[3 * i]!;
    const [line, bench] = [warpage + 0.018 + 0.02 * draws[3 * i + 1]!, warpage + 0.02 * draws[3 * i + 2]!];
    return [`R-${1001 + i}`, SHIFTS[shift], fault, line.toFixed(2), bench.toFixed(2)].join(',');
  });
  return ['tile,shift,fault,warpage on the line (mm),warpage at the bench (mm)', ...rows].join('\n') + '\n';
}

/** Sacks of glaze frit as the filling balance weighed them last week: it reads to half a gram. */
export function fillingBalance(): string {
  const draws = new Float64Array(60);
  fillNormals(createStream(24, 0), draws);
  const rows = Array.from(draws, (z, i) => `F-${2001 + i},${(Math.round((5003 + 2.6 * z) * 2) / 2).toFixed(1)}`);
  return ['sack,filled mass (g)', ...rows].join('\n') + '\n';
}

if (process.argv[1]?.endsWith('generate.ts')) {
  const write = (name: string, text: string) => writeFileSync(new URL(`./${name}`, import.meta.url), text);
  write('tile-thickness.csv', tileThickness());
  write('tile-strength.csv', tileStrength());
  write('glaze-batches.csv', glazeStudy());
  write('glaze-batches-comma.csv', glazeNext());
  write('sorting-line.csv', sortingLine());
  write('filling-balance.csv', fillingBalance());
}
