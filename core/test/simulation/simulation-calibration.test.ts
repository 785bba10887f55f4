import { describe, expect, it } from 'vitest';
import {
  deniedCoverage,
  deniedCurves,
  deniedLevels,
  deniedSums,
  plansThatHold,
} from '../../../calibrate/simulation.js';
import { drawn as samplesDrawn } from '../thorough.js';

/** Slices of `npm run calibrate -- simulation`: so many false words are allowed, and four errors of so few runs. */
const most = (runs: number) => runs * (0.05 + 4 * Math.sqrt((0.05 * 0.95) / runs));

describe('words about simulated shares', () => {
  it('seldom deny an exact test its level, or an exact interval its coverage', async () => {
    const runs = samplesDrawn(60, 120);
    expect(await deniedLevels(runs)).toBeLessThan(most(runs));
    expect(await deniedCoverage(runs)).toBeLessThan(most(runs));
  });

  it('seldom deny one of fifteen points of a curve its level', async () => {
    const runs = samplesDrawn(10, 40);
    expect(await deniedCurves(runs)).toBeLessThan(most(runs));
  });

  it('leave the n that is needed within what a plan leaves open', async () => {
    const runs = samplesDrawn(5, 12);
    expect(runs - (await plansThatHold(runs))).toBeLessThan(most(runs));
  });

  it('seldom deny a sum of normals its first order, or give a wrong SD', async () => {
    const runs = samplesDrawn(3, 12);
    expect(await deniedSums(runs)).toBeLessThan(most(runs));
  });
});
