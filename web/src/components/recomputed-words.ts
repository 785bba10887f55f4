import type { Evidence, Problem, Recomputed } from '@verdict/contract';
import { formatValue } from '@verdict/core/format';
import { formatTime } from '../language/language.js';

/** Whether the server has worked a kept result out by itself, on the data it was kept with, in a few words. */
export function standingWords({ recomputed }: Pick<Evidence, 'recomputed'>): string {
  if (!recomputed) return 'not yet';
  const when = formatTime(recomputed.at);
  return recomputed.same ? `the same, ${when}` : `the result differs, ${when}`;
}

type Difference = Recomputed['differences'][number];

/** So little, beside the figure itself, is the last digits of a double. */
const LAST_DIGITS = 1e-11;

function inLastDigits({ kept, now }: Difference): boolean {
  return (
    typeof kept === 'number' &&
    typeof now === 'number' &&
    Math.abs(kept - now) <= LAST_DIGITS * Math.max(Math.abs(kept), Math.abs(now))
  );
}

const said = (value: unknown) => (typeof value === 'number' ? formatValue(value) : String(value));

function whereWords(differences: readonly Difference[]): string {
  // What can be seen comes before what differs in the last digits.
  const first = differences.find((one) => !inLastDigits(one)) ?? differences[0];
  if (!first) return '';
  const more = differences.length > 1 ? ` and ${differences.length - 1} more` : '';
  return `${first.path} was ${said(first.kept)}, is ${said(first.now)}${more}`;
}

/**
 * What recomputing found, in a sentence that names the change of the study it was found at. `revision` is where the study stands now, null for a result
 * that rests on no data of it.
 */
export function recomputedWords(
  found: Recomputed | 'running' | Problem | undefined,
  revision: number | null = null,
): string {
  if (!found) return '';
  if (found === 'running') return 'working on the server …';
  if ('detail' in found) return `Not recomputed: ${found.detail}`;
  const { same, sameData, keptRevision, nowRevision, differences } = found;
  const since = revision === null ? 0 : revision - nowRevision;
  const changes = since === 1 ? 'a change has' : `${since} changes have`;
  const stale = since > 0 ? ` Since then, ${changes} been made. Recompute to check.` : '';
  const at = `change ${nowRevision}`;
  if (same && revision === null) return 'the same, bit for bit';
  if (same) return since > 0 ? `It was the same, bit for bit, at ${at}.${stale}` : `the same, bit for bit, at ${at}`;
  if (!sameData) {
    return `It differs because the data changed (change ${keptRevision} → ${nowRevision}). For example ${whereWords(differences)}.${stale}`;
  }
  const engine = 'The kept result comes from another JavaScript engine or another version of Verdict.';
  if (differences.every(inLastDigits)) {
    const figures = differences.length === 1 ? differences[0]!.path : `${differences.length} figures`;
    return `Only the last digits differ, in ${figures}, on the same data (${at}). ${engine}${stale}`;
  }
  return `It differs although the data are unchanged (${at}): ${whereWords(differences)}. ${engine}${stale}`;
}
