import { log } from '../../numeric/elementary.js';
import { nextBelow } from '../../random/whole.js';
import { discrete, type Counts } from '../discrete.js';
import { defineFamily, refuse } from '../family.js';

function countsBetween(lower: number, upper: number): Counts {
  const count = upper - lower + 1;
  return {
    mass: () => 1 / count,
    logMass: () => -log(count),
    lowerTail: (k) => (k - lower + 1) / count,
    upperTail: (k) => (upper - k) / count,
    mean: lower + (count - 1) / 2,
    variance: ((count - 1) * (count + 1)) / 12,
    skewness: count === 1 ? NaN : 0,
    kurtosis: count === 1 ? NaN : (-1.2 * (count * count + 1)) / ((count - 1) * (count + 1)),
    support: { lower, upper },
    sample(stream, out) {
      for (let i = 0; i < out.length; i++) out[i] = lower + nextBelow(stream, count);
    },
  };
}

const whole = { from: -1e9, to: 1e9, whole: true };

/** The discrete uniform distribution. */
export const discreteUniform = defineFamily({
  family: 'discrete-uniform',
  title: 'discrete uniform',
  about: 'All whole numbers between two limits with equal probability: a die, a last digit.',
  discrete: true,
  parameters: [
    { name: 'lower', title: 'minimum', meaning: 'the smallest number', range: whole, usual: 1 },
    { name: 'upper', title: 'maximum', meaning: 'the largest number', range: whole, usual: 6 },
  ],
  conflict: ({ lower, upper }) =>
    lower <= upper ? null : { name: 'upper', message: `The maximum must not be below the minimum, ${lower}.` },
  of: ({ lower, upper }) => discrete(countsBetween(lower, upper)),
  estimation: {
    ends: ['lower', 'upper'],
    maximum(x) {
      const odd = x.find((v) => !Number.isInteger(v));
      if (odd !== undefined)
        return refuse(`${odd} is not a whole number; a discrete uniform distribution needs whole numbers.`);
      return { lower: x[0]!, upper: x[x.length - 1]! };
    },
  },
});
