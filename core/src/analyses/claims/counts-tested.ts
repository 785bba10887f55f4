import type { CountsTest } from '../../claims/counts.js';
import { chiSquare } from '../../distributions/families/chi-square.js';
import { formatP, groupThousands } from '../../numeric/format.js';
import type { SimulatedP } from '../../goodness-of-fit/simulated-p.js';
import { freedomWords } from '../../road/told.js';
import { curveOf } from './claim-law.js';
import type { Assumption, ClaimExtra, ClaimResult, LawPicture } from './claim-result.js';

/** Below this many expected the curve of χ² is too rough (Cochran 1954). */
const ENOUGH = 5;

export const enoughExpected = ({ cells }: CountsTest): boolean => cells.every(({ expected }) => expected >= ENOUGH);

/** Whether the curve of χ² may be used, in a line. */
export function expectedLine(test: CountsTest): Assumption {
  const low = test.cells.filter(({ expected }) => expected < ENOUGH).length;
  const holds = low === 0;
  const text = holds
    ? `Expected counts: all at least ${ENOUGH}, so that χ² may be read off its curve.`
    : `Expected counts: ${low} of ${test.cells.length} below ${ENOUGH}, too few for the curve of χ².`;
  return { text, holds, instead: holds ? '' : 'the exact or the simulated p' };
}

/** χ² with its upper tail. */
export const lawOfChiSquare = (statistic: number, df: number, alpha: number): LawPicture =>
  curveOf(chiSquare.of({ df }), {
    ...{ name: `χ² on ${freedomWords(df)}`, axis: 'χ²' },
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
      name: 'p off the curve',
      value: asymptotic,
      as: 'p',
      meaning: 'The chance of a χ² at least as great, by its law for many counts.',
      formula: 'Pearson (1900)',
    },
  ];
  if (exact !== null)
    extras.push({
      key: 'p-exact',
      name: 'p counted out',
      value: exact,
      as: 'p',
      meaning: 'The chance of all tables whose χ² is at least as great.',
      formula: 'the sum of their multinomial chances',
    });
  if (simulated)
    extras.push({
      key: 'p-simulated',
      name: 'p simulated',
      value: `${formatP(simulated.pValue, alpha)} (${simulated.pInterval.map((p) => formatP(p)).join(' – ')})`,
      as: 'p',
      meaning: `The share of ${groupThousands(simulated.replicates)} tables drawn under the claim whose χ² is at least as great, with its interval.`,
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
