import type { Evidence, Study } from '@verdict/contract';
import { isoTime, withTimes, type Sheet } from './sheet.js';

/** What the file says it is. */
const FORMAT = 'verdict sheet';
const VERSION = 1;

/** The sheet as data: its words, and of each piece of evidence the request, the result and the fingerprint, in full. */
export function sheetJson(sheet: Sheet, { id, name, revision, alpha }: Study, evidence: readonly Evidence[]): string {
  const words = JSON.stringify(sheet, (key, value: unknown) =>
    typeof value === 'string' && key !== 'id' ? withTimes(value, isoTime) : value,
  );
  const file = {
    format: FORMAT,
    version: VERSION,
    study: { id, name, revision, alpha },
    sheet: JSON.parse(words) as unknown,
    evidence,
  };
  return `${JSON.stringify(file, null, 2)}\n`;
}
