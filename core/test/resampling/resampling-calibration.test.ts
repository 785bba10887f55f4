import { describe, expect, it } from 'vitest';
import { missesOfMean, smallPs } from '../../../calibrate/resampling.js';

/** Slices of `npm run calibrate -- resampling`. */
const errorsOf = (share: number, samples: number) => 4 * Math.sqrt((share * (1 - share)) / samples);

describe('intervals of the mean of an exponential', () => {
  const SAMPLES = 800;
  it.each([
    [20, 0.05, 0.086],
    [50, 0.05, 0.065],
  ])('n = %d: the studentised keeps its level, BCa misses as is known, the basic more', (n, studentised, bca) => {
    const misses = missesOfMean(n, SAMPLES, 999);
    expect(Math.abs(misses.studentised / SAMPLES - studentised)).toBeLessThan(errorsOf(studentised, SAMPLES));
    expect(Math.abs(misses.bca / SAMPLES - bca)).toBeLessThan(errorsOf(bca, SAMPLES));
    expect(misses.bca).toBeLessThan(misses.basic);
    expect(misses.studentised).toBeLessThan(misses.bca);
  });
});

describe('p of two groups with nothing between them', () => {
  const SAMPLES = 2_000;
  it.each([[[6, 6] as const], [[5, 20] as const]])(
    'of %j readings that tie is small no more often than it says',
    (sizes) => {
      const shares = [0.05, 0.1, 0.5];
      smallPs(sizes, shares, SAMPLES, 199).forEach((count, i) => {
        expect(count / SAMPLES).toBeLessThan(shares[i]! + errorsOf(shares[i]!, SAMPLES));
      });
    },
  );

  it('of many different readings is uniform', () => {
    const shares = [0.05, 0.25, 0.5, 0.75];
    smallPs([15, 40], shares, SAMPLES, 199).forEach((count, i) => {
      // What ties leave of it, between nine tenths and all.
      expect(count / SAMPLES).toBeGreaterThan(0.9 * shares[i]! - errorsOf(shares[i]!, SAMPLES));
      expect(count / SAMPLES).toBeLessThan(shares[i]! + errorsOf(shares[i]!, SAMPLES));
    });
  });
});
