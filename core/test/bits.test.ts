import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { afterAll, describe, expect, it } from 'vitest';
import { ANALYSES, inThisThread } from '../src/analyses/registry.js';
import { drive } from '../src/road/runner.js';
import { toWire, withoutWords } from '../src/road/wire.js';
import { BITS_CASES } from './bits-cases.js';

/**
 * The bits of every analysis by version: `npm run bits` adds lines and changes none. A line that no longer holds means that the same request gives other
 * numbers, so the analysis needs a new version.
 */
const FILE = new URL('bits.json', import.meta.url);
const recorded = JSON.parse(readFileSync(FILE, 'utf8')) as Record<string, string>;
const adds = process.env.VERDICT_BITS === 'add';

async function bitsOf(job: (typeof BITS_CASES)[number]['job']): Promise<string> {
  const result = await drive(inThisThread, job);
  return createHash('sha256')
    .update(JSON.stringify(withoutWords(toWire(result))))
    .digest('hex');
}

describe('the bits of an analysis', () => {
  it.each(BITS_CASES)('$key are those of its version', async ({ key, job }) => {
    const bits = await bitsOf(job);
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
