/**
 * The demo data: Brackenfell Tileworks, a made-up maker of ceramic tiles. Seeded, so that the files never change by themselves.
 * Run `npm run demo` to write them again.
 */
import { writeFileSync } from 'node:fs';
import { createStream, fillNormals, nextOpenUnit } from '@verdict/core';

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

if (process.argv[1]?.endsWith('generate.ts')) {
  writeFileSync(new URL('./tile-thickness.csv', import.meta.url), tileThickness());
}
