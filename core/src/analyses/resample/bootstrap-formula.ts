import { meanInterval, meanByT, welch, type MeanFigures } from '../../claims/means.js';
import { newcombe, wilson } from '../../claims/shares.js';
import { medianRanks, sdInterval } from '../../describe/intervals.js';
import { f } from '../../distributions/families/f.js';
import { exp, log } from '../../numeric/elementary.js';
import { normalQuantile } from '../../numeric/standard-normal.js';
import { studentT } from '../../distributions/families/student-t.js';
import { centralMoments } from '../../numeric/sums.js';
import type { BootstrapResult } from './bootstrap-result.js';
import type { Asked } from './resample-settings.js';
import type { Source } from './resample-source.js';

type Formula = BootstrapResult['formula'];

const figuresOf = (values: Float64Array): MeanFigures => {
  const { n, mean, s2 } = centralMoments(values);
  return { n, mean, sd: Math.sqrt(s2 / (n - 1)) };
};
const countIn = (values: Float64Array) => ({ count: values.reduce((a, b) => a + b, 0), n: values.length });
const named = (name: string, [lower, upper]: readonly [number, number]): Formula =>
  Number.isFinite(lower) && Number.isFinite(upper) ? { name, lower, upper } : null;

/** The correlation by Fisher's z (1915): tanh(atanh r ± z/√(n − 3)). */
function byFisher(r: number, n: number, confidence: number): Formula {
  if (n < 4 || Math.abs(r) >= 1) return null;
  const middle = 0.5 * log((1 + r) / (1 - r));
  const half = -normalQuantile((1 - confidence) / 2) / Math.sqrt(n - 3);
  const back = (z: number) => 1 - 2 / (exp(2 * z) + 1);
  return named('Fisher’s z', [back(middle - half), back(middle + half)]);
}

/** The slope of a least-squares line: t on n − 2 degrees of freedom. */
function slopeInterval([x, y]: readonly Float64Array[], slope: number, confidence: number): Formula {
  const n = x!.length;
  if (n < 3) return null;
  const [a, b] = [centralMoments(x!), centralMoments(y!)];
  let rest = 0;
  for (let i = 0; i < n; i++) rest += (x![i]! - a.mean - slope * (y![i]! - b.mean)) ** 2;
  const error = Math.sqrt(rest / (n - 2) / b.s2);
  const half = studentT.of({ df: n - 2, location: 0, scale: 1 }).survivalQuantile((1 - confidence) / 2) * error;
  return named('t', [slope - half, slope + half]);
}

/** The interval that a formula gives for the same figure, each by the law it rests on; null where there is none. */
export function formulaInterval(
  { statistic }: Asked,
  { groups, observed }: Pick<Source, 'groups' | 'observed'>,
  confidence: number,
): Formula {
  const [a, b] = groups as [Float64Array, Float64Array];
  const tail = (1 - confidence) / 2;
  switch (statistic) {
    case 'mean':
    case 'mean-of-differences': {
      const { lower, upper } = meanInterval(observed, meanByT(figuresOf(a), 0), confidence, 'two-sided');
      return named('t', [lower!, upper!]);
    }
    case 'median':
    case 'median-of-differences': {
      const { rank, coverage } = medianRanks(a.length, confidence);
      return coverage < confidence ? null : named('order statistics', [a[rank - 1]!, a[a.length - rank]!]);
    }
    case 'sd':
      return named('χ²', sdInterval(a.length, observed, confidence));
    case 'variance': {
      const [low, high] = sdInterval(a.length, Math.sqrt(observed), confidence);
      return named('χ²', [low ** 2, high ** 2]);
    }
    case 'share': {
      const { count, n } = countIn(a);
      return named('Wilson', wilson(count, n, confidence));
    }
    case 'difference-of-shares':
      return named('Newcombe', newcombe(countIn(a), countIn(b), confidence));
    case 'difference-of-means': {
      const { lower, upper } = meanInterval(observed, welch(figuresOf(a), figuresOf(b)), confidence, 'two-sided');
      return named('Welch’s t', [lower!, upper!]);
    }
    case 'log-ratio-of-sds': {
      const law = f.of({ df1: a.length - 1, df2: b.length - 1 });
      const shift = (q: number) => observed - 0.5 * log(q);
      return named('F', [shift(law.survivalQuantile(tail)), shift(law.quantile(tail))]);
    }
    case 'correlation':
      return byFisher(observed, a.length, confidence);
    case 'slope':
      return slopeInterval(groups, observed, confidence);
    default:
      return null;
  }
}
