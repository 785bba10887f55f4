import { describe, expect, it } from 'vitest';
import { changeRequestSchema, changeSchema, keepRequestSchema, ruleRequestSchema } from '../src/index.js';

const id = '00000000-aaaa';
const issueOf = (schema: typeof changeSchema, value: unknown) => {
  const parsed = schema.safeParse(value);
  return parsed.success ? null : [parsed.error.issues[0]!.path.join('.'), parsed.error.issues[0]!.message];
};

describe('what crosses the wire', () => {
  it('keeps the text of a cell as it is, blanks included', () => {
    const change = { kind: 'edit-cells', runs: [{ column: id, row: 1, texts: [' 12.30\t'] }] };
    expect(changeSchema.parse(change)).toEqual(change);
  });

  it.each([
    [{ kind: 'edit-cells', runs: [{ column: id, row: 0, texts: [''] }] }, 'runs.0.row'],
    [{ kind: 'edit-cells', runs: [{ column: '../etc', row: 1, texts: [''] }] }, 'runs.0.column'],
    [{ kind: 'change-column', column: id, resolution: 0 }, 'resolution'],
    [{ kind: 'change-column', column: id, name: '  ' }, 'name'],
    [{ kind: 'change-study', alpha: 1 }, 'alpha'],
    [{ kind: 'change-study', quantileType: '7' }, 'quantileType'],
    [{ kind: 'add-columns', columns: [] }, 'columns'],
    [{ kind: 'set-aside', readings: [{ column: id, row: 1, reason: '' }] }, 'readings.0.reason'],
  ])('refuses %o and names the field', (change, field) => {
    expect(issueOf(changeSchema, change)?.[0]).toBe(field);
  });

  it('refuses fields it does not know, so that a slip is not swallowed', () => {
    expect(issueOf(changeSchema, { kind: 'change-study', alhpa: 0.05 })).not.toBeNull();
    const request = { token: id, revision: 0, who: 'x', change: { kind: 'change-study' }, extra: 1 };
    expect(changeRequestSchema.safeParse(request).success).toBe(false);
  });

  it('asks for a decision, a reason and a true fingerprint', () => {
    const ruling = { revision: 1, who: 'x', decision: 'not-settled', reason: 'r', evidence: [] };
    expect(ruleRequestSchema.safeParse(ruling).success).toBe(true);
    expect(ruleRequestSchema.safeParse({ ...ruling, decision: '' }).error!.issues[0]!.message).toBe(
      'Choose a decision.',
    );
    expect(keepRequestSchema.safeParse({ fingerprint: 'abc' }).success).toBe(false);
  });

  it('takes evidence of readings in parts, by one label or beside up to 199 columns, and nothing of both', () => {
    const keep = {
      ...{ id, who: 'x', analysis: 'box', version: 1, column: id, request: {}, result: {} },
      fingerprint: 'a'.repeat(64),
    };
    expect(keepRequestSchema.parse(keep).parts).toBeNull();
    for (const parts of [{ split: id }, { beside: [id, id] }]) {
      expect(keepRequestSchema.parse({ ...keep, parts }).parts).toEqual(parts);
    }
    for (const parts of [{ split: id, beside: [id] }, { beside: [] }, { beside: Array(200).fill(id) }, { split: '' }]) {
      expect(keepRequestSchema.safeParse({ ...keep, parts }).success).toBe(false);
    }
  });
});
