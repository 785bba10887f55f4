import { describe, expect, it } from 'vitest';
import { galleryAnalysis, type GalleryResult } from '../../src/analyses/fit/gallery.js';
import { inThisThread } from '../../src/analyses/registry.js';
import { departureDraw, type Departure } from '../../src/goodness-of-fit/normality/departures.js';
import { centralMoments } from '../../src/numeric/sums.js';
import { createStream } from '../../src/random/stream.js';
import { isUnavailable } from '../../src/road/analysis.js';
import { drive } from '../../src/road/runner.js';
import { column } from '../reference.js';
import { sampleOf } from '../samples.js';

const run = (values: Float64Array, settings: object = {}) =>
  drive(inThisThread, { id: 'gallery', request: { column: 'thickness', ...settings }, sample: sampleOf(values) });

/** Skewness and excess kurtosis of a large sample. */
function shapeOf(departure: Departure): { skewness: number; kurtosis: number } {
  const values = new Float64Array(200_000);
  departureDraw(departure)(values, createStream(11, 0));
  const { n, s2, s3, s4 } = centralMoments(values);
  const m2 = s2 / n;
  return { skewness: s3 / n / m2 ** 1.5, kurtosis: s4 / n / m2 ** 2 - 3 };
}

describe('samples of known origin', () => {
  it('are eight of the size of the readings, each as plot and as histogram', async () => {
    const result = (await run(column('normal-40'))) as GalleryResult;
    expect(result.samples.map(({ kind }) => kind)).toEqual([
      ...['normal', 'right-tailed', 'left-tailed', 'heavy', 'light', 'two-groups', 'rounded', 'one-far'],
    ]);
    for (const { plot, histogram } of [result.subject, ...result.samples]) {
      if (plot.kind !== 'plot' || histogram.kind !== 'histogram') throw new Error('the wrong cell');
      expect(plot.readings).toHaveLength(40);
      expect(plot.readings).toEqual([...plot.readings].sort((a, b) => a - b));
      const area = histogram.heights.reduce(
        (sum, h, i) => sum + h * (histogram.edges[i + 1]! - histogram.edges[i]!),
        0,
      );
      expect(area).toBeCloseTo(1, 2);
    }
  });

  it('are drawn afresh with another seed, and are the same with the same', async () => {
    const [a, again, b] = await Promise.all(
      [{ seed: 1 }, { seed: 1 }, { seed: 2 }].map((s) => run(column('normal-40'), s)),
    );
    expect(a).toEqual(again);
    expect((a as GalleryResult).samples[0]).not.toEqual((b as GalleryResult).samples[0]);
    expect((a as GalleryResult).subject).toEqual((b as GalleryResult).subject);
  });

  it('depart as they say', () => {
    const w = Math.exp(0.25);
    const skewness = (w + 2) * Math.sqrt(w - 1);
    expect(shapeOf({ kind: 'lognormal', logSd: 0.5 }).skewness).toBeCloseTo(skewness, 0);
    expect(shapeOf({ kind: 'left-lognormal', logSd: 0.5 }).skewness).toBeCloseTo(-skewness, 0);
    expect(shapeOf({ kind: 'symmetric-beta', shape: 1 }).kurtosis).toBeCloseTo(-1.2, 1);
    expect(shapeOf({ kind: 'student-t', df: 10 }).kurtosis).toBeCloseTo(1, 0);
    // Two equal groups at ±d/2: kurtosis −2 (d/2)⁴/(1 + (d/2)²)².
    expect(shapeOf({ kind: 'two-groups', distance: 3 }).kurtosis).toBeCloseTo((-2 * 1.5 ** 4) / (1 + 1.5 ** 2) ** 2, 1);
    const stepped = new Float64Array(50);
    departureDraw({ kind: 'rounded', step: 1 })(stepped, createStream(1, 0));
    expect(stepped.every(Number.isInteger)).toBe(true);
    const [plain, far] = [new Float64Array(5), new Float64Array(5)];
    departureDraw({ kind: 'one-far', distance: 0 })(plain, createStream(1, 0));
    departureDraw({ kind: 'one-far', distance: 5 })(far, createStream(1, 0));
    expect(Array.from(far, (x, i) => x - plain[i]!)).toEqual([expect.closeTo(5, 12), 0, 0, 0, 0]);
  });

  it('say how many the test would let pass, and nothing of the kind for a handful', async () => {
    const said = (result: unknown) =>
      galleryAnalysis
        .finding(result as GalleryResult)
        .map(({ text }) => text)
        .join('');
    expect(said(await run(column('normal-40')))).toContain(
      'Reference samples of 40 readings. In this draw, the Anderson–Darling test misses 3 of the',
    );
    const few = await run(Float64Array.of(1, 2, 3, 4, 7));
    expect(said(few)).toBe('Reference samples of 5 readings. ');
    expect((few as GalleryResult).subject.pValue).toBeNull();
    expect(isUnavailable(await run(Float64Array.of(3, 3, 3, 3, 3)))).toBe(true);
  });
});
