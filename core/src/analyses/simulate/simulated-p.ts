import { formatPercent } from '../../numeric/format.js';
import type { Law } from '../../simulation/laws.js';
import { simulatedTest } from '../../simulation/simulated-tests/registry.js';
import type { Claim, SimulatedTest } from '../../simulation/simulated-tests/simulated-test.js';
import { formatQuantity } from '../../road/formatted.js';
import { sizesWords, type Found, type Of } from './simulated-parts.js';
import { shareOf, truthOf, type PopulationSource } from './simulated-source.js';

const LARGEST_FOR_SORTING = 20_000;
/** How small beside the sd a difference is that rounding alone makes. */
const DUST = 1e-9;

function whyNotTest(test: SimulatedTest, { groups, source, counted, laws }: Of): string | null {
  const { least, greatest = Infinity, name, about } = test;
  const called = `The ${name}`;
  for (const { n } of groups) {
    if (n < least) return `${called} needs at least ${least} readings${groups.length > 1 ? ' in each group' : ''}.`;
    if (n > greatest) return `${called} takes at most ${greatest} readings.`;
    if (about === 'median' && n > LARGEST_FOR_SORTING)
      return `${called} takes at most ${LARGEST_FOR_SORTING} readings here. Choose smaller samples.`;
  }
  if (about === 'pairs' && groups[0]!.n !== groups[1]!.n) return 'Pairs need groups of equal size.';
  if (source.sd === null && (about === 'sd' || test.id === 'z'))
    return `${called} needs a standard deviation, and this population has none.`;
  const shares = counted ? laws.map((law) => shareOf(law, counted)) : [];
  if (test.id === 'fisher' && shares.every((share) => share === 0 || share === 1))
    return 'The proportion is 0 or 1 for these limits. Choose other limits.';
  return null;
}

/** The claim of a test: the true value, or a typed one. */
function claimOf({ asked, source, counted }: Of, { about }: SimulatedTest): Claim | string {
  const claim = truthOf(source.law, counted);
  const { claimed } = asked;
  const typed = claimed !== undefined && ['mean', 'median', 'sd', 'share'].includes(about);
  const made = typed ? { ...claim, [about]: claimed } : claim;
  if (about === 'sd' && !(made.sd > 0)) return 'The claimed standard deviation must be above 0.';
  if (about === 'share' && !(made.share > 0 && made.share < 1))
    return typed
      ? 'The claimed proportion must lie between 0 and 1; 0.05 means 5 %.'
      : 'The proportion is 0 or 1 for these limits. Choose other limits.';
  return made;
}

/** The p of every sample; why there is none. */
export function ofTest(of: Of): Found | string {
  const { asked, source, groups, laws, counted } = of;
  const test = simulatedTest(asked.test!);
  const claim = claimOf(of, test);
  const reason = typeof claim === 'string' ? claim : whyNotTest(test, of);
  if (reason !== null) return reason;
  const { alternative } = asked;
  return {
    repeated: { what: 'test', test: test.id, alternative, claim: claim as Claim, table: null },
    told: { unit: '', resolution: null, as: 'ratio', kind: 'location' },
    what: `the p of the ${test.name} in ${sizesWords(groups)}`,
    truth: null,
    theory: null,
    holds: holdsOf(test, { source, laws, claim: claim as Claim, counted }),
    claim: claimWords(test, claim as Claim, source),
    cost: test.cost,
  };
}

/** True where what a test claims holds of what is drawn. */
function holdsOf(
  { about, id }: SimulatedTest,
  { source, laws, claim, counted }: Pick<Of, 'source' | 'laws' | 'counted'> & { claim: Claim },
): boolean {
  const [law, other] = laws as [Law, Law];
  const scale = source.sd ?? 1;
  const near = (a: number, b: number) => Math.abs(a - b) <= DUST * Math.max(scale, Math.abs(b) * 1e-3);
  const middle = (one: Law) => (Number.isFinite(one.mean) ? one.mean : one.quantile(0.5));
  const { base, mixed, step } = source.population;
  switch (about) {
    case 'mean':
      return near(middle(law), claim.mean);
    case 'median':
      return near(law.quantile(0.5), claim.median);
    case 'sd':
      return near(Math.sqrt(law.variance), claim.sd);
    case 'share':
      return Math.abs(shareOf(law, counted!) - claim.share) <= DUST;
    case 'normal':
    case 'outliers':
      return 'family' in base && base.family === 'normal' && mixed === null && step === null;
    default:
      if (id === 'correlation') return true;
      if (id === 'fisher') return Math.abs(shareOf(law, counted!) - shareOf(other, counted!)) <= DUST;
      if (id === 'f' || id === 'brown-forsythe') return near(law.variance / scale, other.variance / scale);
      if (id === 'mann-whitney')
        return near(law.quantile(0.5), other.quantile(0.5)) && near(law.variance / scale, other.variance / scale);
      return near(middle(law), middle(other));
  }
}

function claimWords({ about, id }: SimulatedTest, claim: Claim, { head }: PopulationSource): string {
  const scale = { ...head, as: 'reading' as const };
  switch (about) {
    case 'mean':
      return `the mean is ${formatQuantity(claim.mean, scale)}`;
    case 'median':
      return `the median is ${formatQuantity(claim.median, scale)}`;
    case 'sd':
      return `the standard deviation is ${formatQuantity(claim.sd, scale, 'spread')}`;
    case 'share':
      return `the proportion is ${formatPercent(claim.share)}`;
    case 'normal':
      return 'the distribution is normal';
    case 'outliers':
      return 'the sample is normal without outliers';
    default:
      if (id === 'correlation') return 'the two are independent';
      return id === 'f' || id === 'brown-forsythe'
        ? 'the standard deviations are equal'
        : id === 'fisher'
          ? 'the proportions are equal'
          : 'the locations are equal';
  }
}
