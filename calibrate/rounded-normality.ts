import { roundDraw } from '../core/src/goodness-of-fit/normality/rounded-draws.js';
import {
  roundedAndersonDarling,
  simulateRoundedAndersonDarling,
} from '../core/src/goodness-of-fit/normality/rounded-anderson-darling.js';
import { countSteps, populationOf } from '../core/src/goodness-of-fit/rounded-normal.js';
import { simulatedP } from '../core/src/goodness-of-fit/simulated-p.js';
import { createStream } from '../core/src/random/stream.js';
import { report } from './report.ts';

const LEVEL = 0.05;
const SAMPLES = 4_000;
const REPLICATES = 199;

/** How often the resolution-aware test rejects a rounded normal, with steps of ¼, ½ and 1 sd, and of 2, where it may be too coarse to. */
export function calibrateRounded(): boolean {
  let holds = true;
  for (const step of [0.25, 0.5, 1, 2]) {
    for (const n of [8, 20, 50]) {
      const stream = createStream(12, n);
      const values = new Float64Array(n);
      let rejected = 0;
      for (let k = 0; k < SAMPLES; k++) {
        roundDraw({ mean: (k * 0.6180339) % 1, sd: 1 / step }, stream, values);
        const cells = countSteps(values);
        const order = { n, population: populationOf(cells)! };
        const replicates = simulateRoundedAndersonDarling(order, createStream(k, 1), REPLICATES);
        if (simulatedP(roundedAndersonDarling(cells), [replicates], k).pValue <= LEVEL) rejected++;
      }
      holds = report(`rejected, n = ${n}, steps of ${step} sd`, rejected, SAMPLES, LEVEL, step <= 1) && holds;
    }
  }
  return holds;
}
