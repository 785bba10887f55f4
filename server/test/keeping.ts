import type { KeepInput } from '@verdict/contract';
import { advance, describeAnalysis } from '@verdict/core/analyses';
import { fingerprintOf, toSample } from '@verdict/core/readings';
import { randomUUID } from 'node:crypto';
import { column } from './running.js';

/** What a page would keep of the figures of these readings. */
export function keepOf(columnId: string, cells: string[]): KeepInput {
  const sample = toSample(column('a', cells), cells, new Set());
  const made = advance('describe', { column: 'a' }, sample, []);
  if (!made.done) throw new Error('The analysis has no result.');
  return {
    ...{ id: randomUUID(), who: 'tester', analysis: 'describe', version: describeAnalysis.version, column: columnId },
    ...{ parts: null, request: { column: 'a' }, fingerprint: fingerprintOf(sample), note: '' },
    result: JSON.parse(JSON.stringify(made.result)) as Record<string, unknown>,
  };
}
