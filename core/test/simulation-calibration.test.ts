import { describe, expect, it } from 'vitest';
import { deniedCoverage, deniedCurves, deniedLevels, deniedSums, plansThatHold } from '../../calibrate/simulation.js';

/** Slices of `npm run calibrate -- simulation`: so many false words are allowed, and four errors of so few runs. */
const most = (runs: number) => runs * (0.05 + 4 * Math.sqrt((0.05 * 0.95) / runs));

describe('words about simulated shares', () => {
  it('seldom deny an exact test its level, or an exact interval its coverage', async () => {
    expect(await deniedLevels(120)).toBeLessThan(most(120));
    expect(await deniedCoverage(120)).toBeLessThan(most(120));
  });

  it('seldom deny one of fifteen points of a curve its level', async () => {
    expect(await deniedCurves(40)).toBeLessThan(most(40));
  });

  it('leave the n that is needed within what a plan leaves open', async () => {
    expect(12 - (await plansThatHold(12))).toBeLessThan(most(12));
  });

  it('seldom deny a sum of normals its first order, or tell its sd wrong', async () => {
    expect(await deniedSums(12)).toBeLessThan(most(12));
  });
});
