import { pOfTails, type Alternative } from '../../claims/alternative.js';
import { meanByT, pOfMean, welch, type MeanFigures } from '../../claims/means.js';
import { MOST_PAIRS, mannWhitneyByNormal, mannWhitneyExact } from '../../claims/rank-sum.js';
import { signedRank, signTest } from '../../claims/ranks.js';
import { fisherP } from '../../claims/shares.js';
import { oneWay, spreadsByF } from '../../claims/spreads.js';
import { studentT } from '../../distributions/families/student-t.js';
import { centralMoments } from '../../numeric/sums.js';
import type { PermutationResult } from './permutation-result.js';
import type { Asked } from './resample-settings.js';
import type { Source } from './resample-source.js';

type Formula = PermutationResult['formula'];

const figuresOf = (values: Float64Array): MeanFigures => {
  const { n, mean, s2 } = centralMoments(values);
  return { n, mean, sd: n > 1 ? Math.sqrt(s2 / (n - 1)) : 0 };
};

/** The correlation by t on n − 2 degrees of freedom, which the slope has as well. */
function byPairs([x, y]: readonly Float64Array[], alternative: Alternative): Formula {
  const n = x!.length;
  const [a, b] = [centralMoments(x!), centralMoments(y!)];
  let products = 0;
  for (let i = 0; i < n; i++) products += (x![i]! - a.mean) * (y![i]! - b.mean);
  const r = products / (Math.sqrt(a.s2) * Math.sqrt(b.s2));
  if (n < 3 || !(Math.abs(r) < 1)) return null;
  const law = studentT.of({ df: n - 2, location: 0, scale: 1 });
  const t = r * Math.sqrt((n - 2) / (1 - r * r));
  return { name: 't', pValue: pOfTails({ lower: law.cumulative(t), upper: law.survival(t) }, alternative) };
}

/** The exact signed ranks of more readings would take too long. */
const MOST_SIGNED = 200;

/** The test by formula for the same question; null where there is none, or too few readings. */
export function formulaTest(
  { statistic }: Asked,
  { groups }: Pick<Source, 'groups'>,
  { alternative, claimed }: { alternative: Alternative; claimed: number },
): Formula {
  const [a, b] = groups as [Float64Array, Float64Array];
  const known = (name: string, pValue: number): Formula => (Number.isFinite(pValue) ? { name, pValue } : null);
  switch (statistic) {
    case 'difference-of-means':
      return a.length > 1 && b.length > 1
        ? known('Welch’s t', pOfMean(welch(figuresOf(a), figuresOf(b)), alternative))
        : null;
    case 'difference-of-medians': {
      const by = a.length * b.length <= MOST_PAIRS ? mannWhitneyExact : mannWhitneyByNormal;
      return known('Mann–Whitney', pOfTails(by(a, b).tails, alternative));
    }
    case 'difference-of-shares': {
      const [one, other] = [a, b].map((values) => values.reduce((sum, x) => sum + x, 0)) as [number, number];
      const table = [
        [one, a.length - one],
        [other, b.length - other],
      ] as const;
      return known('Fisher’s exact test', fisherP(table, alternative));
    }
    case 'log-ratio-of-sds':
      return a.length > 1 && b.length > 1
        ? known('F', pOfTails(spreadsByF(figuresOf(a), figuresOf(b)).tails, alternative))
        : null;
    case 'mean':
    case 'mean-of-differences':
      return a.length > 1 ? known('t', pOfMean(meanByT(figuresOf(a), claimed), alternative)) : null;
    case 'median':
    case 'median-of-differences':
      return a.length <= MOST_SIGNED
        ? known('signed rank test', pOfTails(signedRank(a, claimed).tails, alternative))
        : known('sign test', pOfTails(signTest(a, claimed).tails, alternative));
    case 'correlation':
    case 'slope':
      return byPairs(groups, alternative);
    case 'f':
    case 'largest-difference':
      return groups.length < groups.reduce((sum, { length }) => sum + length, 0)
        ? known('one-way analysis of variance', oneWay(groups).pValue)
        : null;
    default:
      return null;
  }
}
