import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { isOver, STATEMENT_KINDS } from '../../../calibrate/statements/index.js';
import { STATEMENT_CODES } from '../../src/road/statements.js';

/** All sources of the core. */
function sources(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory()
      ? sources(join(folder, entry.name))
      : entry.name.endsWith('.ts')
        ? [readFileSync(join(folder, entry.name), 'utf8')]
        : [],
  );
}

describe('the register of statements', () => {
  it('has every code of a finding just once', () => {
    expect(STATEMENT_KINDS.map(({ code }) => code).sort()).toEqual([...STATEMENT_CODES].sort());
  });

  it('lists every code of a note, so that no analysis can make an unmeasured statement', () => {
    const listed = STATEMENT_KINDS.flatMap(({ notes }) => notes);
    expect(new Set(listed).size).toBe(listed.length);
    // Codes of pieces are held by their type.
    const pieces = new Set<string>(STATEMENT_CODES);
    const said = new Set(
      sources(join(import.meta.dirname, '../../src')).flatMap((text) =>
        [...text.matchAll(/code: '([a-z0-9-]+)'/g)].map(([, code]) => code!).filter((code) => !pieces.has(code)),
      ),
    );
    expect([...said].filter((code) => !listed.includes(code))).toEqual([]);
  });

  it.each(STATEMENT_KINDS.map((kind) => [kind.code, kind] as const))(
    'measures “%s” in a slice: no case is over what is allowed',
    async (_, { allowed, measure }) => {
      const found = await measure(1);
      expect(found.length).toBeGreaterThan(0);
      for (const one of found) expect(isOver(one, allowed), `${one.case}: ${one.false} of ${one.of}`).toBe(false);
    },
  );
});
