import { log } from '../../numeric/elementary.js';
import { digamma } from '../../numeric/digamma.js';
import { trigamma } from '../../numeric/trigamma.js';
import { defineFamily, refuse, shapeParameter } from '../family.js';
import { meanOf, readingsAbove } from '../readings-above.js';
import { scaled } from '../scaled.js';
import { standardGamma } from './gamma.js';

/** The chi-square distribution (Helmert 1876): the sum of df squared standard normals, a gamma of shape df/2 and scale 2. */
export const chiSquare = defineFamily({
  family: 'chi-square',
  title: 'chi-square',
  about: 'Sums of squared normal deviations: sample variances and goodness-of-fit statistics.',
  parameters: [{ ...shapeParameter('degrees of freedom', 4, 'df', 'df'), name: 'df' }],
  of: ({ df }) => scaled(standardGamma(df / 2), 0, 2),
  estimation: {
    maximum(x) {
      const y = readingsAbove(x, 0, 'chi-square');
      if ('refused' in y) return y;
      // ψ(df/2) = mean of log(x/2), by Newton's steps from the inverse of ψ's leading term.
      const target = meanOf(y, (v) => log(v / 2));
      let half = target > -2.2 ? Math.max(0.1, meanOf(y, (v) => v) / 2) : -1 / target;
      for (let round = 0; round < 60; round++) {
        const step = (digamma(half) - target) / trigamma(half);
        const next = half - step > 0 ? half - step : half / 2;
        const moved = Math.abs(next - half);
        half = next;
        if (moved < 1e-14 * half) break;
      }
      return { df: 2 * half };
    },
    fromMoments: (mean) => (mean > 0 ? { df: mean } : refuse('The mean of a chi-square distribution must be above 0.')),
  },
});
