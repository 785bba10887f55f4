import type { Alternative } from '../../claims/alternative.js';
import { leastNoticed, leastReadings, readingsFromWhichOn } from '../../claims/noticing.js';
import type { ClaimPower } from './claim-result.js';

/** In words, a claim about one figure of a column, and its alternative. */
export function oneFigureWords(figure: string, claim: string, alternative: Alternative) {
  const sought = { 'two-sided': 'differs from', less: 'is below', greater: 'is above' }[alternative];
  return { null: `${figure} is ${claim}`, sought: `${figure} ${sought} ${claim}` };
}

/** The side on which a difference is looked for. */
export const signOf = (alternative: Alternative): number => (alternative === 'less' ? -1 : 1);

interface Noticing {
  n: number;
  /** The power by the size of the difference, without sign. */
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
  /** True where the power is simulated: differences are then solved to a hundredth of the scale. */
  simulated?: boolean;
  /** For counts, whose power goes up and down with n: how far it is followed. */
  followed?: number;
  with?: string;
}

/** What this number of readings can detect: the power for the difference of interest, the number it needs, and the smallest detectable difference. */
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
  simulated = false,
  followed = 0,
  with: here,
}: Noticing): { power: ClaimPower; smallestNoticeable: number | null } {
  const tolerance = simulated ? 0.01 : 1e-12;
  const needed = named === undefined ? null : neededFor((at) => chanceAt(at, named), least, followed);
  return {
    smallestNoticeable: leastNoticed((d) => chanceAt(n, d), { scale: scale / Math.sqrt(n), most, tolerance }),
    power: {
      noticeable: named ?? null,
      chance: named === undefined ? null : chanceAt(n, named),
      needed: needed?.always ?? null,
      ...(needed && needed.first < needed.always ? { suffices: needed.first } : {}),
      ...{ per, of, approximate },
      ...(here === undefined ? {} : { with: here }),
    },
  };
}

/** How many readings are needed from which on; a power that only rises has one such number. */
function neededFor(chanceAt: (n: number) => number, least: number, followed: number) {
  if (followed > 0) return readingsFromWhichOn(chanceAt, followed, least);
  const found = leastReadings(chanceAt, least);
  return found === null ? null : { always: found, first: found };
}
