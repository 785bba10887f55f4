import type { Alternative } from '../claims/alternative.js';
import { powerOfShare } from '../claims/power-of-shares.js';
import { powerOfZ } from '../claims/power-of-shifts.js';
import { powerOfSpread, powerOfTwoSpreads } from '../claims/power-of-spreads.js';
import { designOfOne, designOfTwo, powerOfT } from '../claims/power-of-t.js';
import { familyByName } from '../distributions/registry.js';
import type { Law } from './laws.js';
import type { Population } from './population.js';
import type { Claim } from './simulated-tests/simulated-test.js';

/** What a test is asked about, n aside. */
export interface PowerAsked {
  test: string;
  alternative: Alternative;
  alpha: number;
  /** What the first group is drawn from; the second is the same, not moved. */
  population: Population;
  /** The law of the first group, and of the population as it is. */
  law: Law;
  plain: Law;
  claim: Claim;
  /** P(counted) of the first group, where readings are counted. */
  share: number;
}

type ByN = (n: number, m: number) => number;

const isNormal = ({ base, mixed, step }: Population): boolean =>
  'family' in base && base.family === 'normal' && mixed === null && step === null;
const isContinuous = ({ base, mixed, step }: Population): boolean =>
  'family' in base &&
  !familyByName(base.family).discrete &&
  step === null &&
  (mixed === null || 'move' in mixed.from || !familyByName(mixed.from.family).discrete);
const drawnForever = ({ base }: Population): boolean => 'family' in base || base.replacement;

/** The power of a test (the probability of a p below the level) by group sizes, if an exact formula exists; null if it must be simulated. */
export function exactPower({ test, alternative, alpha, population, law, plain, claim, share }: PowerAsked): ByN | null {
  const sd = Math.sqrt(law.variance);
  const other = Math.sqrt(plain.variance);
  const ratio = sd / other;
  if (test === 'share' && drawnForever(population))
    return (n) => powerOfShare(n, claim.share, share, alpha, alternative);
  if (test === 'sign' && isContinuous(population)) {
    const above = law.survival(claim.median);
    return (n) => powerOfShare(n, 0.5, above, alpha, alternative);
  }
  if (!isNormal(population)) return null;
  const alike = Math.abs(ratio - 1) < 1e-12;
  switch (test) {
    case 't':
      return (n) => powerOfT(designOfOne(n), (law.mean - claim.mean) / sd, alpha, alternative);
    case 'z':
      return Math.abs(sd / claim.sd - 1) < 1e-12
        ? (n) => powerOfZ(n, (law.mean - claim.mean) / sd, alpha, alternative)
        : null;
    case 'paired-t':
      return (n) =>
        powerOfT(designOfOne(n), (law.mean - plain.mean) / Math.sqrt(sd * sd + other * other), alpha, alternative);
    case 'pooled-t':
      return alike ? (n, m) => powerOfT(designOfTwo(n, m), (law.mean - plain.mean) / sd, alpha, alternative) : null;
    case 'chi-square':
      return (n) => powerOfSpread(n, sd / claim.sd, alpha, alternative);
    case 'f':
      return (n, m) => powerOfTwoSpreads([n, m], ratio, alpha, alternative);
    default:
      return null;
  }
}
