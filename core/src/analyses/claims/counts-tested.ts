import type { CountsTest } from '../../claims/counts.js';
import { chiSquare } from '../../distributions/families/chi-square.js';
import { formatP, groupThousands } from '../../numeric/format.js';
import type { SimulatedP } from '../../goodness-of-fit/simulated-p.js';
import { freedomWords } from '../../road/formatted.js';
import { curveOf } from './claim-law.js';
import type { Assumption, ClaimExtra, ClaimResult, LawPicture } from './claim-result.js';

/** Below this many expected the curve of χ² is too rough (Cochran 1954). */
const ENOUGH = 5;

export const enoughExpected = ({ cells }: CountsTest): boolean => cells.every(({ expected }) => expected >= ENOUGH);

/** Whether the χ² distribution may be used, in a line. */
export function expectedLine(test: CountsTest): Assumption {
  const low = test.cells.filter(({ expected }) => expected < ENOUGH).length;
  const holds = low === 0;
  const text = holds
    ? `Expected counts: all at least ${ENOUGH}, enough for the χ² distribution.`
    : `Expected counts: ${low} of ${test.cells.length} below ${ENOUGH}, too few for the χ² distribution.`;
  return { text, holds, instead: holds ? '' : 'the exact or simulated p' };
}

/** χ² with its upper tail. */
export const lawOfChiSquare = (statistic: number, df: number, alpha: number): LawPicture =>
  curveOf(chiSquare.of({ df }), {
    ...{ name: `χ² distribution with ${freedomWords(df)}`, axis: 'χ²' },
    ...{ statistic, alternative: 'greater', alpha },
  });

/** The p of every way to find it that there is. */
export function pExtras(
  asymptotic: number,
  exact: number | null,
  simulated: SimulatedP | null,
  alpha: number,
): ClaimExtra[] {
  const extras: ClaimExtra[] = [
    {
      key: 'p-asymptotic',
      name: 'p, asymptotic',
      value: asymptotic,
      as: 'p',
      meaning: 'The probability of a χ² at least as large, from its distribution for large counts.',
      formula: 'Pearson (1900)',
    },
  ];
  if (exact !== null)
    extras.push({
      key: 'p-exact',
      name: 'p, exact',
      value: exact,
      as: 'p',
      meaning: 'The probability of all tables whose χ² is at least as large.',
      formula: 'the sum of their multinomial probabilities',
    });
  if (simulated)
    extras.push({
      key: 'p-simulated',
      name: 'p, simulated',
      value: `${formatP(simulated.pValue, alpha)} (${simulated.pInterval.map((p) => formatP(p)).join(' – ')})`,
      as: 'p',
      meaning: `The proportion of ${groupThousands(simulated.replicates)} tables simulated under the claim whose χ² is at least as large, with its interval.`,
      formula: '(b + 1)/(B + 1)',
    });
  return extras;
}

type Chosen = Pick<ClaimResult, 'pValue' | 'pMethod' | 'pSimulated' | 'pAsymptotic' | 'pExact'>;

/** The p that the finding goes by, and the others that there are. */
export function chosenP(
  method: 'suited' | 'chi-square' | 'exact' | 'simulated',
  {
    asymptotic,
    exact,
    simulated,
    enough,
  }: { asymptotic: number; exact: number | null; simulated: SimulatedP | null; enough: boolean },
): Chosen {
  const all = { pAsymptotic: asymptotic, pExact: exact, pSimulated: simulated };
  const byCurve: Chosen = { ...all, pValue: asymptotic, pMethod: 'asymptotic' };
  const bySimulation: Chosen = { ...all, pValue: simulated?.pValue ?? null, pMethod: 'simulated' };
  if (method === 'chi-square') return byCurve;
  if (method === 'simulated') return bySimulation;
  if (exact !== null) return { ...all, pValue: exact, pMethod: 'exact' };
  return enough ? byCurve : bySimulation;
}
