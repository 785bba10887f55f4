import type { Described } from './describe.js';

/** What the description of a column looks for, in the order of its sentences. */
export const LOOKS = ['lean', 'tails', 'gap', 'far', 'drift'] as const;
export type Look = (typeof LOOKS)[number];

/** Which looks found something, and how many there were: those that n and the kind of readings allow. */
export interface Claims {
  found: Look[];
  looks: number;
}

/** Each look with its p-value, where there is one. */
export function pOfLooks({
  skewnessTest,
  kurtosisTest,
  gap,
  farthest,
  drift,
}: Pick<Described, 'skewnessTest' | 'kurtosisTest' | 'gap' | 'farthest' | 'drift'>): [Look, number][] {
  const all = { lean: skewnessTest, tails: kurtosisTest, gap, far: farthest, drift };
  return LOOKS.flatMap((look) => (all[look] ? [[look, all[look].pValue] as [Look, number]] : []));
}

/**
 * The looks that found something when the level is shared among them by Holm's (1979) steps: a clean normal sample gets any claim at most as
 * often as the level says.
 */
export function claimsOf(figures: Parameters<typeof pOfLooks>[0], alpha: number): Claims {
  const byP = pOfLooks(figures).sort(([, a], [, b]) => a - b);
  const first = byP.findIndex(([, p], k) => p >= alpha / (byP.length - k));
  const passed = new Set((first < 0 ? byP : byP.slice(0, first)).map(([look]) => look));
  return { found: LOOKS.filter((look) => passed.has(look)), looks: byP.length };
}
