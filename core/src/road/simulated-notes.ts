import type { SimulatedP } from '../goodness-of-fit/simulated-p.js';
import { formatP, formatPercent } from '../numeric/format.js';
import { plural } from '../numeric/grammar.js';
import type { Note } from './analysis.js';

/** What is said of a p that rests on simulation: that no sample was as extreme, or that it is not known on which side of the level it lies. */
export function simulatedNotes(p: SimulatedP | null, alpha: number): Note[] {
  if (!p) return [];
  const notes: Note[] = [];
  const [low, high] = p.pInterval;
  if (p.atLeastAsExtreme === 0) {
    const text = `The p-value is an upper bound: none of ${plural(p.replicates, 'simulated sample')} was as extreme, so p is at most ${formatPercent(high, 2)} with 95 % confidence.`;
    notes.push({ code: 'p-at-floor', text });
  }
  if (low < alpha && high > alpha) {
    const text = `The result is not settled: the simulated p lies between ${formatP(low, alpha)} and ${formatP(high, alpha)}, which includes the significance level. Use more replicates.`;
    notes.push({ code: 'p-straddles-level', text });
  }
  return notes;
}
