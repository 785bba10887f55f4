import { evidence } from './evidence.ts';
import { figure } from './figure.ts';
import { interval } from './interval.ts';
import type { StatementKind } from './kind.ts';
import { nNeeded } from './n-needed.ts';
import { noEvidence } from './no-evidence.ts';
import { pattern } from './pattern.ts';
import { plausible } from './plausible.ts';
import { power } from './power.ts';
import { probability } from './probability.ts';
import { recommended } from './recommended.ts';
import { threshold } from './threshold.ts';

/** The register: every kind of statement a finding may make. A code that stands in none of them may not be said. */
export const STATEMENT_KINDS: readonly StatementKind[] = [
  ...[evidence, noEvidence, threshold, probability, interval, power, nNeeded, plausible, pattern, recommended, figure],
];

/** Is the share of a case over what is allowed, beyond what so few samples leave open (three standard errors)? */
export function isOver({ false: wrong, of }: { false: number; of: number }, allowed: number): boolean {
  return wrong / of > allowed + 3 * Math.sqrt((allowed * (1 - allowed)) / of);
}
