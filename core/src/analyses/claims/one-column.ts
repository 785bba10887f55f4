import type { Alternative } from '../../claims/alternative.js';
import { leastNoticed, leastReadings } from '../../claims/noticing.js';
import { formatFigure } from '../../numeric/format.js';
import type { ClaimPower } from './claim-result.js';
import { toldDistance, type Scale } from '../../road/told.js';

/** In words, a claim about one figure of a column and what is sought against it. */
export function oneFigureWords(figure: string, claim: string, alternative: Alternative) {
  const sought = { 'two-sided': 'differs from', less: 'is below', greater: 'is above' }[alternative];
  return { null: `${figure} is ${claim}`, sought: `${figure} ${sought} ${claim}` };
}

/** Where it lies beside the claim: "0.02 mm above (0.4 sd)". */
export function besideWords(difference: number, standardised: number | null, scale: Scale): string {
  if (difference === 0) return 'just what is claimed';
  const sds = standardised === null ? '' : ` (${formatFigure(Math.abs(standardised), 'statistic')} sd)`;
  return `${toldDistance(difference, scale)} ${difference > 0 ? 'above' : 'below'}${sds}`;
}

/** The side on which a difference is looked for. */
export const signOf = (alternative: Alternative): number => (alternative === 'less' ? -1 : 1);

interface Noticing {
  n: number;
  /** How likely a difference is noticed with so many readings; rising with its size, without a sign. */
  chanceAt: (n: number, difference: number) => number;
  named: number | undefined;
  /** What the difference is taken in: an sd. */
  scale: number;
  /** No difference is greater. */
  most?: number;
  least?: number;
  per?: string;
  of?: string;
  approximate?: boolean;
  with?: string;
}

/** What so many readings could have missed: the chance of the difference named, what it asks for, and the least that is noticed. */
export function missedBy({
  n,
  chanceAt,
  named,
  scale,
  most = Infinity,
  least = 2,
  per = 'readings',
  of = 'a difference of',
  approximate = false,
  with: here,
}: Noticing): { power: ClaimPower; smallestNoticeable: number | null } {
  return {
    smallestNoticeable: leastNoticed((d) => chanceAt(n, d), { scale: scale / Math.sqrt(n), most }),
    power: {
      noticeable: named ?? null,
      chance: named === undefined ? null : chanceAt(n, named),
      needed: named === undefined ? null : leastReadings((at) => chanceAt(at, named), least),
      ...{ per, of, approximate },
      ...(here === undefined ? {} : { with: here }),
    },
  };
}
