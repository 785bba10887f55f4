import type { Sample } from '../src/readings/sample.js';

/** A column of readings in row order with nothing missing. */
export function sampleOf(values: Float64Array): Sample {
  return {
    name: 'thickness',
    unit: 'mm',
    values,
    rows: Int32Array.from(values, (_, i) => i + 1),
    missing: 0,
    setAside: 0,
    unreadable: 0,
    beyondLimit: 0,
    resolution: null,
  };
}
