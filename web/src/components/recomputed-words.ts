import type { Evidence, Problem, Recomputed } from '@verdict/contract';
import { formatTime } from './time.js';

/** Whether the server has worked a kept result out by itself, in a few words. */
export function standingWords({ recomputed }: Pick<Evidence, 'recomputed'>): string {
  if (!recomputed) return 'not yet';
  const when = formatTime(recomputed.at);
  return recomputed.same ? `the same, ${when}` : `it came out differently, ${when}`;
}

/** What recomputing found, in a sentence. */
export function recomputedWords(found: Recomputed | 'running' | Problem | undefined): string {
  if (!found) return '';
  if (found === 'running') return 'working on the server …';
  if ('detail' in found) return `Not recomputed: ${found.detail}`;
  const { same, sameData, keptRevision, nowRevision, differences } = found;
  if (same) return 'the same, bit for bit';
  const [first] = differences;
  const where = first ? `${first.path} was ${String(first.kept)}, is ${String(first.now)}` : '';
  const more = differences.length > 1 ? ` and ${differences.length - 1} more` : '';
  if (!sameData) {
    return `It differs, because the data have changed since: change ${keptRevision} → ${nowRevision}. For example ${where}${more}.`;
  }
  return `It differs although the data are the same: ${where}${more}. Another engine or another version of Verdict made the kept result.`;
}
