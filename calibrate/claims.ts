import type { DescribeResult } from '../core/src/analyses/shape/describe-result.js';
import { advance } from '../core/src/analyses/registry.js';
import { fillNormals } from '../core/src/random/normal.js';
import { createStream } from '../core/src/random/stream.js';
import { report } from './report.ts';

const LEVEL = 0.05;
const SAMPLES = 20_000;

/** How often the paragraph of Shape claims anything of a clean normal sample, with steps of 0, ¼ and ½ sd. */
export function calibrateClaims(): boolean {
  let holds = true;
  for (const n of [10, 30, 100, 300]) {
    for (const step of [0, 0.25, 0.5]) {
      const stream = createStream(21, n);
      const values = new Float64Array(n);
      const rows = Int32Array.from(values, (_, i) => i + 1);
      const counted = { missing: 0, setAside: 0, unreadable: 0, beyondLimit: 0 };
      let claims = 0;
      for (let k = 0; k < SAMPLES; k++) {
        fillNormals(stream, values);
        // The grid lies elsewhere under every sample.
        const read = step === 0 ? values : values.map((x) => Math.round(((k * 0.6180339) % 1) + x / step));
        const sample = { name: 'x', unit: '', values: read, rows, ...counted, resolution: step === 0 ? null : 1 };
        const stage = advance('describe', { column: 'x', alpha: LEVEL }, sample, []);
        if (stage.done && (stage.result as DescribeResult).claims.found.length > 0) claims++;
      }
      holds = report(`any claim, n = ${n}, steps of ${step} sd`, claims, SAMPLES, LEVEL, false) && holds;
    }
  }
  return holds;
}
