import type { StudySummary } from '@verdict/contract';
import { api } from '../../api/client.js';

/** The list that was asked for while the page of studies was still on its way here. */
let first: Promise<StudySummary[]> | null = null;

/** Asks for the list before anything can show it: both come at the same time. */
export function beginList(): void {
  first = api.listStudies(false);
  // Who takes it hears of a failure.
  first.catch(() => undefined);
}

/** The prefetched list, once; later requests fetch again. */
export function takeList(): Promise<StudySummary[]> {
  const begun = first ?? api.listStudies(false);
  first = null;
  return begun;
}
