import { defineFamily, isRefusal, LOCATION, SCALE } from '../family.js';
import { mirrored, scaled } from '../scaled.js';
import { fitLargest, largestExtremeValue, standardLargest } from './largest-extreme-value.js';

const standard = mirrored(standardLargest);

/** The Gumbel distribution of least values: the mirror image of that of the greatest; the logarithm of a Weibull. */
export const smallestExtremeValue = defineFamily({
  family: 'smallest-extreme-value',
  title: 'smallest extreme value',
  about: 'The minimum of many values: weakest links, lowest temperatures; the logarithm of a Weibull lifetime.',
  parameters: [
    { ...LOCATION, name: 'location', meaning: 'the most frequent value' },
    { ...SCALE, name: 'scale', meaning: 'the standard deviation is 1.28 times this' },
  ],
  of: ({ location, scale }) => scaled(standard, location, scale),
  estimation: {
    maximum(x) {
      const { location, scale } = fitLargest(x.map((v) => -v));
      return { location: -location, scale };
    },
    fromMoments(mean, variance) {
      const mirror = largestExtremeValue.estimation.fromMoments!(-mean, variance, {});
      return isRefusal(mirror) ? mirror : { location: -mirror.location!, scale: mirror.scale! };
    },
  },
});
