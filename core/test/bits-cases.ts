import { ANALYSES } from '../src/analyses/registry.js';
import type { Sample } from '../src/readings/sample.js';
import { jobOf } from './asked.js';
import { sampleOf } from './samples.js';

/** Readings on which formulas, ties and steps go separate ways. */
const ODD: Readonly<Record<string, Sample>> = {
  'far from 0': sampleOf(Float64Array.from({ length: 24 }, (_, i) => 1e9 + ((i * 7) % 24) / 8)),
  ties: { ...sampleOf(Float64Array.from({ length: 30 }, (_, i) => 8 + ((i * 11) % 7) / 2)), resolution: 0.5 },
  'one far out': sampleOf(Float64Array.of(7.8, 7.9, 7.91, 7.94, 7.97, 8, 8.02, 8.07, 8.1, 8.16, 8.19, 9.5)),
};

/** Analyses of one column, which the odd readings suit. */
const single = (id: string) => jobOf(id).sample === jobOf('describe').sample;

/** What bits.json has a line for: each analysis with its own readings, and with the odd ones where it takes one column. */
export const BITS_CASES = ANALYSES.flatMap(({ id, version }) => {
  const odd = single(id) ? Object.entries(ODD) : [];
  return [['its own readings', undefined] as const, ...odd].map(([name, sample]) => ({
    key: `${id}@${version}: ${name}`,
    job: { ...jobOf(id), ...(sample && { sample }) },
  }));
});
