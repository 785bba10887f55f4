import { formatPercent } from '../../numeric/format.js';
import { simulatedInterval } from '../../simulation/intervals.js';
import type { Law } from '../../simulation/laws.js';
import type { Counted } from '../../simulation/simulated-tests/simulated-test.js';
import { finite, sizesWords, type Found, type Of } from './simulated-parts.js';
import { shareOf, truthOf } from './simulated-source.js';

/** The interval of every sample; why there is none. */
export function ofInterval(of: Of): Found | string {
  const { asked, source, groups, laws, counted } = of;
  const interval = simulatedInterval(asked.interval!);
  if (groups.some(({ n }) => n < interval.least))
    return `The ${interval.name} needs at least ${interval.least} readings.`;
  const truth = coveredTruth(interval.truth, laws, counted);
  if (truth === null) return 'The interval has no true value in this population.';
  const claim = truthOf(source.law, counted);
  const share = interval.truth === 'share' || interval.truth === 'difference-of-shares';
  if (share && laws.every((law) => [0, 1].includes(shareOf(law, counted!))))
    return 'The proportion is 0 or 1 for these limits. Choose other limits.';
  const as = share ? 'share' : interval.truth === 'ratio-of-sds' ? 'ratio' : 'reading';
  const kind = interval.truth.startsWith('difference') ? 'difference' : interval.truth === 'sd' ? 'spread' : 'location';
  return {
    repeated: { what: 'interval', interval: interval.id, confidence: asked.confidence, claim },
    told: { unit: source.head.unit, resolution: source.head.resolution, as, kind },
    what: `the ${interval.name} at ${formatPercent(asked.confidence)} in ${sizesWords(groups)}`,
    truth,
    theory: null,
    ...{ holds: null, claim: '', cost: interval.cost },
  };
}

function coveredTruth(
  what: ReturnType<typeof simulatedInterval>['truth'],
  laws: readonly Law[],
  counted: Counted | null,
): number | null {
  const [a, b] = laws as [Law, Law];
  switch (what) {
    case 'mean':
      return finite(a.mean);
    case 'median':
      return a.quantile(0.5);
    case 'sd':
      return finite(Math.sqrt(a.variance));
    case 'share':
      return shareOf(a, counted!);
    case 'difference-of-means':
      return finite(a.mean - b.mean);
    case 'ratio-of-sds':
      return finite(Math.sqrt(a.variance / b.variance));
    case 'difference-of-shares':
      return shareOf(a, counted!) - shareOf(b, counted!);
  }
}
