import { benchAndersonDarling } from './anderson-darling.ts';
import { benchBand } from './band.ts';
import { benchReadings } from './readings.ts';

await benchAndersonDarling();
await benchBand();
benchReadings();
