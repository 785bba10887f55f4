import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { afterAll, describe, expect, it } from 'vitest';
import { ANALYSES, inThisThread } from '../src/analyses/registry.js';
import type { Sample } from '../src/readings/sample.js';
import { drive } from '../src/road/runner.js';
import { toWire, withoutWords } from '../src/road/wire.js';
import { jobOf } from './asked.js';
import { sampleOf } from './samples.js';

/**
 * The bits of every analysis by version: `npm run bits` adds lines and changes none. A line that no longer holds means that the same request gives other
 * numbers, so the analysis needs a new version.
 */
const FILE = new URL('bits.json', import.meta.url);
const recorded = JSON.parse(readFileSync(FILE, 'utf8')) as Record<string, string>;
const adds = process.env.VERDICT_BITS === 'add';

/** Readings on which formulas, ties and steps go separate ways. */
const ODD: Readonly<Record<string, Sample>> = {
  'far from 0': sampleOf(Float64Array.from({ length: 24 }, (_, i) => 1e9 + ((i * 7) % 24) / 8)),
  ties: { ...sampleOf(Float64Array.from({ length: 30 }, (_, i) => 8 + ((i * 11) % 7) / 2)), resolution: 0.5 },
  'one far out': sampleOf(Float64Array.of(7.8, 7.9, 7.91, 7.94, 7.97, 8, 8.02, 8.07, 8.1, 8.16, 8.19, 9.5)),
};

async function bitsOf(id: string, sample?: Sample): Promise<string> {
  const job = jobOf(id);
  const result = await drive(inThisThread, { ...job, sample: sample ?? job.sample });
  return createHash('sha256')
    .update(JSON.stringify(withoutWords(toWire(result))))
    .digest('hex');
}

/** Analyses of one column, which the odd readings suit. */
const single = (id: string) => jobOf(id).sample === jobOf('describe').sample;

describe('the bits of an analysis', () => {
  const cases = ANALYSES.flatMap(({ id, version }) => {
    const odd = single(id) ? Object.entries(ODD) : [];
    return [['its own readings', undefined] as const, ...odd].map(([name, sample]) => ({
      key: `${id}@${version}: ${name}`,
      id: id as string,
      sample,
    }));
  });

  it.each(cases)('$key are those of its version', async ({ key, id, sample }) => {
    const bits = await bitsOf(id, sample);
    if (adds) recorded[key] ??= bits;
    expect(bits, `${key}: raise the version, or add a new line by “npm run bits”`).toBe(recorded[key]);
  });

  it('are recorded for no analysis that does not exist', () => {
    const known = new Set(ANALYSES.map(({ id }) => id as string));
    expect(Object.keys(recorded).filter((key) => !known.has(key.slice(0, key.indexOf('@'))))).toEqual([]);
  });

  afterAll(() => {
    const sorted = Object.fromEntries(Object.entries(recorded).sort(([a], [b]) => (a < b ? -1 : 1)));
    if (adds) writeFileSync(FILE, `${JSON.stringify(sorted, null, 2)}\n`);
  });
});
