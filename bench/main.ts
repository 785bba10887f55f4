import { benchAndersonDarling } from './anderson-darling.ts';
import { benchBand } from './band.ts';
import { benchDistributions } from './distributions.ts';
import { benchReadings } from './readings.ts';
import { benchShapeInBrowser } from './shape-in-browser.ts';
import { benchShape } from './shape.ts';
import { benchTable } from './table.ts';

/** `npm run bench -- table`: only the named ones. */
const BENCHES: Record<string, () => Promise<void> | void> = {
  'anderson-darling': benchAndersonDarling,
  band: benchBand,
  distributions: benchDistributions,
  readings: benchReadings,
  shape: benchShape,
  'shape-in-browser': benchShapeInBrowser,
  table: benchTable,
};
const wanted = process.argv.slice(2);
for (const [name, run] of Object.entries(BENCHES)) if (wanted.length === 0 || wanted.includes(name)) await run();
