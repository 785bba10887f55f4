import { fittedLaw } from '../../src/distributions/fit/fitted-law.js';
import { describe, expect, it } from 'vitest';
import { readShapes, shapeWords } from '../../src/analyses/fit/plot-shapes.js';
import { isRefusal } from '../../src/distributions/family.js';
import { distribution, familyByName } from '../../src/distributions/registry.js';
import { shapesOf } from '../../src/probability-plot/shapes.js';
import { fillNormals } from '../../src/random/normal.js';
import { createStream } from '../../src/random/stream.js';
import { inThisThread } from '../../src/analyses/registry.js';
import type { ProbabilityPlotResult } from '../../src/analyses/fit/probability-plot.js';
import { drive } from '../../src/road/runner.js';
import { sampleOf } from '../samples.js';
import { column } from '../reference.js';

const sample = (family: string, parameters: Record<string, number>, n: number, seed: number) => {
  const values = new Float64Array(n);
  distribution(familyByName(family), parameters).sample(createStream(seed, 0), values);
  return values.sort();
};
const names = (values: Float64Array, step = 0, alpha = 0.05) =>
  shapesOf(Float64Array.from(values).sort(), step, alpha).map(({ shape }) => shape);

describe('what a probability plot shows', () => {
  it.each([10, 20, 50, 200])('is claimed of at most 5 in 100 normal samples of %s', (n) => {
    const stream = createStream(77, n);
    const values = new Float64Array(n);
    const samples = 1_500;
    let claimed = 0;
    for (let k = 0; k < samples; k++) {
      fillNormals(stream, values);
      if (names(values).length > 0) claimed++;
    }
    expect(claimed / samples).toBeLessThan(0.05 + 4 * Math.sqrt((0.05 * 0.95) / samples));
  });

  it('is claimed of at most 5 in 100 samples of a family that was fitted to them', () => {
    let claimed = 0;
    const samples = 300;
    for (let seed = 0; seed < samples; seed++) {
      const values = sample('gamma', { shape: 2, scale: 3 }, 40, seed);
      const law = fittedLaw(values, { family: 'gamma', given: {}, estimateThreshold: false });
      if (isRefusal(law)) throw new Error(law.refused);
      if (readShapes(values, law, null, 0.05)!.length > 0) claimed++;
    }
    expect(claimed / samples).toBeLessThan(0.05 + 4 * Math.sqrt((0.05 * 0.95) / samples));
  });

  it('names tails by their side, with the marks of that side', () => {
    const [right] = shapesOf(sample('lognormal', { logMean: 0, logSd: 0.6 }, 60, 1), 0, 0.05);
    expect(right).toMatchObject({ shape: 'right-tail-long', marks: [50, 51, 52, 53, 54, 55, 56, 57, 58, 59] });
    const left = sample('smallest-extreme-value', { location: 0, scale: 1 }, 120, 3);
    expect(names(left)).toContain('left-tail-long');
    expect(names(sample('uniform', { lower: 0, upper: 1 }, 150, 2))).toContain('tails-light');
    expect(names(sample('student-t', { df: 2.2 }, 150, 6))).toContain('tails-heavy');
  });

  it('names the far reading, and two groups that an empty stretch parts', () => {
    const far = shapesOf(Float64Array.from(column('one-far-25')).sort(), 0, 0.05);
    expect(far.find(({ shape }) => shape === 'one-far')!.marks).toEqual([24]);
    const normal = sample('normal', { mean: 0, sd: 1 }, 60, 4);
    const two = Float64Array.from(normal, (z, i) => z + (i % 2) * 14).sort();
    const gap = shapesOf(two, 0, 0.05).find(({ shape }) => shape === 'two-groups')!;
    expect(two[gap.marks[1]!]! - two[gap.marks[0]!]!).toBeGreaterThan(6);
    // One reading far off is no group.
    expect(names(Float64Array.from([...normal, 40]))).not.toContain('two-groups');
  });

  it('says that the plot climbs in steps where the resolution is coarse', () => {
    expect(names(column('coarse-60'), 1)).toContain('steps');
    expect(names(column('normal-40'), 0.1)).not.toContain('steps');
    expect(names(Float64Array.of(3, 3, 3), 1)).toEqual([]);
  });

  it('is stated in words with the supporting figure', () => {
    const shapes = [
      { shape: 'one-far', figure: 3.21, pValue: 0.0004, marks: [2] },
      { shape: 'steps', figure: 2, pValue: null, marks: [] },
    ] as const;
    const words = shapeWords({ shapes: shapes.map((one) => ({ ...one, marks: [...one.marks] })), rows: [4, 9, 7] });
    expect(words.map(({ name }) => name)).toEqual(['One suspected outlier', 'The plot has steps']);
    expect(words[0]!.why).toContain('row 7, 3.21 IQR beyond the quartile, p\u00a0=\u00a00.00040');
    expect(words[1]!.why).toBe('coarse resolution: 2.00 steps per SD');
  });
});

describe('patterns where ends are estimated', () => {
  it('are found in few clean uniform samples, and in one with an outlier', async () => {
    const shapes = async (values: Float64Array) => {
      const sample = sampleOf(values);
      const request = { column: sample.name, family: 'uniform', band: 'none', replicates: 199 };
      const plot = (await drive(inThisThread, { id: 'probability-plot', request, sample })) as ProbabilityPlotResult;
      return plot.shapes!;
    };
    let found = 0;
    const values = new Float64Array(20);
    for (let seed = 1; seed <= 40; seed++) {
      distribution(familyByName('uniform'), { lower: 0, upper: 1 }).sample(createStream(seed, 0), values);
      if ((await shapes(values)).length > 0) found++;
    }
    expect(found).toBeLessThan(7);
    values[3] = 6;
    expect((await shapes(values)).map(({ shape }) => shape)).toContain('one-far');
  });
});
